import type { Flat } from "./vectors";

const written: string[] = [];
const reach = 5000; // tenths: no picture reaches further than half a metre either way

/**
 * A tenth of a millimetre is finer than any screen. A head has thousands of places and
 * is drawn for every frame of a slider; the few thousand texts are made once.
 */
function mm(v: number): string {
  const tenths = Math.round(v * 10);
  const at = tenths + reach;
  if (!(at >= 0 && at < 2 * reach)) return String(tenths / 10);
  return (written[at] ??= String(tenths / 10));
}

const at = (p: Flat) => `${mm(p[0])} ${mm(p[1])}`;

/** A line through points of the head as flat puts them on the picture. */
export function open<P>(points: readonly P[], flat: (p: P) => Flat): string {
  let path = "";
  for (const p of points) path += (path === "" ? "M" : "L") + at(flat(p));
  return path;
}

export const closed = <P>(points: readonly P[], flat: (p: P) => Flat) =>
  points.length < 3 ? "" : open(points, flat) + "Z";

export const curve = (from: Flat, via: Flat, to: Flat) => `M${at(from)}Q${at(via)} ${at(to)}`;

export const disc = (p: Flat, r: number) =>
  `M${at([p[0] - r, p[1]])}a${mm(r)} ${mm(r)} 0 1 0 ${mm(2 * r)} 0a${mm(r)} ${mm(r)} 0 1 0 ${mm(-2 * r)} 0Z`;

/** A smooth open curve near the points, from the first to the last. */
export function curved(points: readonly Flat[]): string {
  const [first, last] = [points[0], points[points.length - 1]];
  if (!first || !last) return "";
  const arcs = points.slice(1, -1).map((p, i) => {
    const next = points[i + 2] ?? last;
    const to: Flat = i + 2 === points.length - 1 ? last : [(p[0] + next[0]) / 2, (p[1] + next[1]) / 2];
    return `Q${at(p)} ${at(to)}`;
  });
  return `M${at(first)}${arcs.join("")}`;
}

/** A smooth closed curve near the points: quadratic arcs between the middles of the sides. */
export function smooth(points: readonly Flat[]): string {
  const middle = (p: Flat, q: Flat): Flat => [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
  const [first, last] = [points[0], points[points.length - 1]];
  if (!first || !last) return "";
  const arcs = points.map((p, i) => `Q${at(p)} ${at(middle(p, points[i + 1] ?? first))}`);
  return `M${at(middle(last, first))}${arcs.join("")}Z`;
}
