/** Vectors in the head's axes, mm: x to the face, y to the client's left, z up. */
export type Vec = readonly [number, number, number];

export const dot = (a: Vec, b: Vec) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const add = (a: Vec, b: Vec): Vec => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const scale = (k: number, a: Vec): Vec => [k * a[0], k * a[1], k * a[2]];
export const mix = (a: Vec, b: Vec, f: number): Vec => [
  a[0] + f * (b[0] - a[0]),
  a[1] + f * (b[1] - a[1]),
  a[2] + f * (b[2] - a[2]),
];
export const cross = (a: Vec, b: Vec): Vec => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const unit = (a: Vec): Vec => scale(1 / Math.hypot(...a), a);
const isVec = (p: readonly number[]): p is Vec => p.length === 3;
/** A point of the server's as a vector, the same one where it is whole. */
export const vec = (p: readonly number[]): Vec => (isVec(p) ? p : [p[0] ?? 0, p[1] ?? 0, p[2] ?? 0]);

export type Flat = readonly [number, number];

/** The convex hull of points in the plane, in order (Andrew's monotone chain). */
export function hull(points: readonly Flat[]): Flat[] {
  const sorted = [...points].sort((p, q) => p[0] - q[0] || p[1] - q[1]);
  const half = (pts: readonly Flat[]) => {
    const out: Flat[] = [];
    for (const p of pts) {
      for (;;) {
        const [a, b] = [out[out.length - 2], out[out.length - 1]];
        if (!a || !b || (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) > 0) break;
        out.pop();
      }
      out.push(p);
    }
    out.pop();
    return out;
  };
  return [...half(sorted), ...half(sorted.reverse())];
}
