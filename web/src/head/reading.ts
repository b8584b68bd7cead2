import type { Layout, Section } from "../api/types";
import { zoneName } from "./names";

/** What the sections of the head can be coloured and marked by. */
export const readings = {
  hair: "Hair",
  size: "Size",
  zone: "Zone",
  row: "Row",
  stagger: "Stagger",
  seen: "Neatness",
} as const;
export type Reading = keyof typeof readings;

/** A class of sections: its colour, its mark on the head, and what it is called. */
export interface Class {
  key: string;
  fill: string;
  ink: string;
  mark: string;
  name: string;
}

const dark = "#2a231c";
const light = "#fffaf0";

const sizes: (Class & { below: number })[] = [
  { below: 0.5, key: "sliver", fill: "#8c3522", ink: light, mark: "−−", name: "Sliver, under half" },
  { below: 0.8, key: "small", fill: "#d9977b", ink: dark, mark: "−", name: "Small" },
  { below: 1.25, key: "fits", fill: "#efe4cb", ink: dark, mark: "=", name: "As wished, within a quarter" },
  { below: 1.5, key: "large", fill: "#93b48a", ink: dark, mark: "+", name: "Large" },
  {
    below: Infinity,
    key: "oversize",
    fill: "#2e5a38",
    ink: light,
    mark: "++",
    name: "Oversize, over half more",
  },
];

const zones: Record<string, Pick<Class, "fill" | "ink">> = {
  FL: { fill: "#c98a1b", ink: dark },
  FR: { fill: "#e6bd6b", ink: dark },
  BL: { fill: "#3f6f4a", ink: light },
  BR: { fill: "#94b690", ink: dark },
  F: { fill: "#d8a23c", ink: dark },
  B: { fill: "#5c8a63", ink: light },
  R: { fill: "#94b690", ink: dark },
  H: { fill: "#c98a1b", ink: dark },
  W: { fill: "#f0d58f", ink: dark },
  PL: { fill: "#a23a26", ink: light },
  PR: { fill: "#d9977b", ink: dark },
  N: { fill: "#6d5f8d", ink: light },
  NL: { fill: "#6d5f8d", ink: light },
  NR: { fill: "#b3a9c9", ink: dark },
  SL: { fill: "#4f7186", ink: light },
  SR: { fill: "#a9c0cc", ink: dark },
};

const rows = [
  { fill: "#e9d9b6", ink: dark },
  { fill: "#7f9f87", ink: dark },
] as const;

/** How far part ends stand from those of the next row, in shares of a section. */
const staggers: (Class & { below: number })[] = [
  { below: 0.1, key: "line", fill: "#8c3522", ink: light, mark: "‖", name: "In line: opens as a channel" },
  { below: 0.25, key: "weak", fill: "#d9977b", ink: dark, mark: "!", name: "Under a quarter off: may open" },
  { below: 0.4, key: "good", fill: "#b9cfa9", ink: dark, mark: "¼", name: "A quarter off or more" },
  { below: 0.75, key: "best", fill: "#2e5a38", ink: light, mark: "½", name: "About half: a true brick" },
  { below: Infinity, key: "none", fill: "#e9e0cc", ink: dark, mark: "·", name: "No row to compare" },
];

const seen = {
  yes: { fill: "#c98a1b", ink: dark, mark: "N", name: "Shows: part it neatly" },
  no: { fill: "#e9e0cc", ink: dark, mark: "q", name: "Covered: may be quick" },
} as const;

/** The class a section falls in. */
export function classOf(s: Section, reading: Exclude<Reading, "hair">): Class {
  switch (reading) {
    case "size":
      return sizes.find((c) => s.share < c.below) ?? (sizes[2] as Class);
    case "zone":
      return { key: s.zone, mark: s.zone, name: zoneName(s.zone), ...(zones[s.zone] ?? rows[0]) };
    case "row":
      return {
        key: String(s.row),
        mark: String(s.row),
        name: `Row ${s.row}`,
        ...rows[s.row % 2 ? 0 : 1],
      };
    case "stagger":
      return staggers.find((c) => s.stagger < c.below) ?? (staggers[4] as Class);
    case "seen":
      return { key: String(s.seen), ...seen[s.seen ? "yes" : "no"] };
  }
}

/** The classes that occur, with how many sections each holds, in their order. */
export function legend(layout: Layout, reading: Exclude<Reading, "hair">): { of: Class; count: number }[] {
  const found = new Map<string, { of: Class; count: number }>();
  for (const s of layout.sections) {
    const of = classOf(s, reading);
    const entry = found.get(of.key);
    if (entry) entry.count++;
    else found.set(of.key, { of, count: 1 });
  }
  const scales = { size: sizes, stagger: staggers } as const;
  const order =
    reading === "size" || reading === "stagger"
      ? scales[reading].map((c) => c.key)
      : [...found.keys()].sort(byNumber);
  return order.flatMap((key) => found.get(key) ?? []);
}

const byNumber = (a: string, b: string) => Number(a) - Number(b) || a.localeCompare(b);
