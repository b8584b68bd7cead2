import type { DayPlan, DayRow, Given } from "../../api/types";
import type { Class, Reading } from "../../head";

/** What the head is coloured by where the working order is shown. */
export const orderKey = "order";

const groups: Readonly<
  Record<DayRow["group"], { name: string; fills: readonly [string, string]; ink: string }>
> = {
  base: { name: "Base, behind", fills: ["#3f6076", "#4f7186"], ink: "#fffaf0" },
  behind: { name: "Plaits behind", fills: ["#94b690", "#b3cba9"], ink: "#2a231c" },
  front: { name: "In front", fills: ["#e6bd6b", "#f0d58f"], ink: "#2a231c" },
  hairline: { name: "The hairline", fills: ["#d9977b", "#d9977b"], ink: "#2a231c" },
  part: { name: "Along the part", fills: ["#a23a26", "#a23a26"], ink: "#fffaf0" },
};

/** The head by the number of the row in working order. */
export function orderReading(day: DayPlan): Reading {
  const row = new Map<number, DayRow>();
  for (const r of day.rows) for (const place of r.places) row.set(place, r);
  const range = (group: string) => {
    const numbers = day.rows.filter((r) => r.group === group).map((r) => r.number);
    const [least, most] = [Math.min(...numbers), Math.max(...numbers)];
    return least === most ? String(least) : `${least}–${most}`;
  };
  const of = ({ place }: Given): Class => {
    const r = row.get(place);
    if (!r) return { key: "none", mark: "", name: "Left out", fill: "#e9e0cc", ink: "#2a231c" };
    const g = groups[r.group];
    return {
      key: r.group,
      mark: String(r.number),
      range: range(r.group),
      name: g.name,
      fill: g.fills[r.number % 2] ?? g.fills[0],
      ink: g.ink,
    };
  };
  return {
    key: orderKey,
    name: "Order",
    of: (s) => of(s.given),
    ofHook: (h) => of(h.given),
    says: (s) => {
      const r = row.get(s.given.place);
      return r && `${r.number}: ${r.name}`;
    },
    order: [...new Set(day.rows.map((r) => r.group))],
  };
}
