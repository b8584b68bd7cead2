import type { Flat } from "./vectors";

/** A tenth of a millimetre is finer than any screen. */
const mm = (v: number) => Math.round(v * 10) / 10;

const at = (p: Flat) => `${mm(p[0])} ${mm(p[1])}`;

export const open = (points: readonly Flat[]) => points.map((p, i) => (i === 0 ? "M" : "L") + at(p)).join("");

export const closed = (points: readonly Flat[]) => (points.length < 3 ? "" : open(points) + "Z");

export const curve = (from: Flat, via: Flat, to: Flat) => `M${at(from)}Q${at(via)} ${at(to)}`;

export const disc = (p: Flat, r: number) =>
  `M${at([p[0] - r, p[1]])}a${mm(r)} ${mm(r)} 0 1 0 ${mm(2 * r)} 0a${mm(r)} ${mm(r)} 0 1 0 ${mm(-2 * r)} 0Z`;

/** A smooth closed curve near the points: quadratic arcs between the middles of the sides. */
export function smooth(points: readonly Flat[]): string {
  const middle = (p: Flat, q: Flat): Flat => [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
  const [first, last] = [points[0], points[points.length - 1]];
  if (!first || !last) return "";
  const arcs = points.map((p, i) => `Q${at(p)} ${at(middle(p, points[i + 1] ?? first))}`);
  return `M${at(middle(last, first))}${arcs.join("")}Z`;
}
