import type { Hook, Layout, Section } from "../api/types";
import { zoneName } from "./names";

/** A class of places: its colour, its mark on the head, and what it is called. */
export interface Class {
  key: string;
  fill: string;
  ink: string;
  mark: string;
  name: string;
  /** The marks it holds, where its places have marks of their own. */
  range?: string;
}

/** What the head can be coloured and marked by. */
export interface Reading {
  key: string;
  name: string;
  of: (s: Section) => Class;
  /** The class of a hook on the base; readings without it leave hooks as they are. */
  ofHook?: (h: Hook) => Class;
  /** What there is to say of one section, besides its class. */
  says?: (s: Section) => string | undefined;
  /** True where the row matters: how many sections each has is written at its end. */
  rows?: boolean;
  /** The keys of the classes in the order of the legend; without it they come by number. */
  order?: readonly string[];
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

/** Colours for things that differ in kind, such as pieces; each has a letter too. */
const kinds: readonly Pick<Class, "fill" | "ink">[] = [
  { fill: "#94b690", ink: dark },
  { fill: "#c98a1b", ink: dark },
  { fill: "#4f7186", ink: light },
  { fill: "#a23a26", ink: light },
  { fill: "#b3a9c9", ink: dark },
  { fill: "#e9d9b6", ink: dark },
  { fill: "#3f6f4a", ink: light },
  { fill: "#d9977b", ink: dark },
  { fill: "#6d5f8d", ink: light },
  { fill: "#a9c0cc", ink: dark },
  { fill: "#f0d58f", ink: dark },
  { fill: "#8c3522", ink: light },
];

/** The class of entry i of a list of kinds: A, B, C … */
export const kindOf = (i: number, name: string): Class => ({
  key: String(i),
  mark: String.fromCharCode(65 + i),
  name,
  ...(kinds[i % kinds.length] ?? rows[0]),
});

/** The readings of the parting itself. */
export const readings: readonly Reading[] = [
  {
    key: "size",
    name: "Size",
    of: (s) => sizes.find((c) => s.share < c.below) ?? (sizes[2] as Class),
    order: sizes.map((c) => c.key),
  },
  {
    key: "zone",
    name: "Zone",
    of: (s) => ({ key: s.zone, mark: s.zone, name: zoneName(s.zone), ...(zones[s.zone] ?? rows[0]) }),
  },
  {
    key: "row",
    name: "Row",
    rows: true,
    of: (s) => ({
      key: String(s.row),
      mark: String(s.row),
      name: `Row ${s.row}`,
      ...rows[s.row % 2 ? 0 : 1],
    }),
  },
  {
    key: "stagger",
    name: "Stagger",
    rows: true,
    of: (s) => staggers.find((c) => s.stagger < c.below) ?? (staggers[4] as Class),
    order: staggers.map((c) => c.key),
  },
  {
    key: "seen",
    name: "Neatness",
    of: (s) => ({ key: String(s.seen), ...seen[s.seen ? "yes" : "no"] }),
  },
];

/** The classes that occur, with how many places each holds, in their order. */
export function legend(layout: Layout, reading: Reading): { of: Class; count: number }[] {
  const found = new Map<string, { of: Class; count: number }>();
  const note = (of: Class) => {
    const entry = found.get(of.key);
    if (entry) entry.count++;
    else found.set(of.key, { of, count: 1 });
  };
  layout.sections.forEach((s) => note(reading.of(s)));
  const { ofHook } = reading;
  if (ofHook) hooksOf(layout).forEach((h) => note(ofHook(h)));
  const order = reading.order ?? [...found.keys()].sort(byNumber);
  return order.flatMap((key) => found.get(key) ?? []);
}

/** All hooks of the base, cornrow by cornrow, then net by net. */
export const hooksOf = (layout: Layout): Hook[] =>
  [...layout.tracks, ...layout.nets].flatMap((base) => base.hooks);

const byNumber = (a: string, b: string) => Number(a) - Number(b) || a.localeCompare(b);
