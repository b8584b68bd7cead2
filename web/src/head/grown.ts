import { add, dot, scale, unit, type Vec } from "./vectors";

const step = 2.5; // mm between the points of a strand
const aside = 0.4; // how much of a strand's way leads away from the middle, on top of the head
const lift = 1.012; // how far strands lie off the scalp

/** The outward unit normal of the scalp under a point. */
const normalAt = ([a, b, c]: Vec, [x, y, z]: Vec): Vec => unit([x / (a * a), y / (b * b), z / (c * c)]);

/** The way hair falls at a point of the scalp: down the head, on its top away from the middle. */
export function fallAt(axes: Vec, at: Vec): Vec {
  const n = normalAt(axes, at);
  const down: Vec = [0, (at[1] < 0 ? -1 : 1) * aside * Math.max(0, n[2]), -1];
  return unit(add(down, scale(-dot(down, n), n)));
}

/** The points of a strand that lies on the head from a root on, of the given length in mm. */
export function strand(axes: Vec, root: Vec, mm: number): Vec[] {
  const out: Vec[] = [];
  let at = root;
  for (let gone = 0; ; gone += step) {
    const [x, y, z] = at;
    const size = Math.hypot(x / axes[0], y / axes[1], z / axes[2]) || 1;
    const on = scale(lift / size, at);
    out.push(on);
    if (gone >= mm) return out;
    at = add(on, scale(Math.min(step, mm - gone), fallAt(axes, on)));
    if (mm - gone < step) gone = mm - step;
  }
}
