import type { Layout } from "../api/types";
import type { Camera } from "./camera";
import { add, cross, scale, unit, vec, type Vec } from "./vectors";

/** One turn of a plait worked flat: a leaf that leans to one side. */
interface Turn {
  at: Vec;
  normal: Vec;
  from: Vec;
  to: Vec;
  left: Vec;
  right: Vec;
}

/** What stands where no individuals do, made ready for drawing once for every result. */
export interface DrawnBase {
  /** The scalp of each cornrow, and the ways its middle faces along its line. */
  bands: { ring: readonly Vec[]; along: { at: Vec; normal: Vec }[] }[];
  turns: Turn[];
  hooks: Vec[];
  /** The threads of a net, from hook to hook. */
  mesh: [Vec, Vec][];
  /** Scalp whose hair stays loose. */
  leftOut: (readonly Vec[])[];
}

const turnStep = 6.5; // mm from turn to turn
const widest = 13; // mm a plait is drawn across, at most

const minus = (p: Vec, q: Vec): Vec => [p[0] - q[0], p[1] - q[1], p[2] - q[2]];

export function drawnBase(layout: Layout, axes: readonly number[]): DrawnBase {
  const [a, b, c] = vec(axes);
  const normalAt = (p: Vec): Vec => unit([p[0] / (a * a), p[1] / (b * b), p[2] / (c * c)]);
  const turns: Turn[] = [];
  for (const t of layout.tracks) {
    const half = Math.min(widest, 0.8 * t.widthMm) / 2;
    let [walked, lean] = [turnStep, 1];
    t.line.forEach((point, i) => {
      const before = t.line[i - 1];
      if (!before) return;
      const [p, q] = [before, point];
      const step = Math.hypot(...minus(q, p));
      walked += step;
      if (walked < turnStep || step === 0) return;
      walked = 0;
      lean = -lean;
      const normal = normalAt(q);
      const along = scale(1 / step, minus(q, p));
      const across = cross(normal, along);
      const long = add(scale(0.62 * turnStep, along), scale(lean * half, across));
      const short = scale(0.62 * half, unit(cross(normal, long)));
      turns.push({
        at: q,
        normal,
        from: add(q, scale(-1, long)),
        to: add(q, long),
        left: add(q, scale(1.5, short)),
        right: add(q, scale(-1.5, short)),
      });
    });
  }
  return {
    bands: layout.tracks.flatMap((t) => {
      const along = t.line.map((at) => ({ at, normal: normalAt(at) }));
      return t.outlines.map((o) => ({ ring: o, along }));
    }),
    turns,
    hooks: [...layout.tracks, ...layout.nets].flatMap((t) => t.hooks.map((h) => h.at)),
    mesh: layout.nets.flatMap(({ hooks, areaMm2 }) =>
      threads(
        hooks.map((h) => h.at),
        areaMm2,
      ),
    ),
    leftOut: [...layout.leftOut, ...edges(layout)],
  };
}

/**
 * Threads between places of a net that lie next to each other in its lattice. There may be
 * thousands: each looks only at those in the cubes about it.
 */
function threads(hooks: readonly Vec[], area: number): [Vec, Vec][] {
  const long = 1.4 * Math.sqrt(((area / hooks.length) * 2) / Math.sqrt(3));
  const cube = (p: Vec) => p.map((v) => Math.floor(v / long));
  const before = new Map<string, Vec[]>();
  const found: [Vec, Vec][] = [];
  for (const p of hooks) {
    const at = cube(p);
    for (let i = 0; i < 27; i++) {
      const beside = [(i % 3) - 1, (Math.floor(i / 3) % 3) - 1, Math.floor(i / 9) - 1];
      for (const q of before.get(at.map((v, k) => v + (beside[k] ?? 0)).join()) ?? [])
        if (Math.hypot(...minus(p, q)) < long) found.push([q, p]);
    }
    const own = before.get(at.join());
    if (own) own.push(p);
    else before.set(at.join(), [p]);
  }
  return found;
}

/** The strip of edges left out, in short stretches between the hairline and where sections start. */
function edges({ hairline, border }: Layout): Vec[][] {
  return border.map((inner, i) => {
    const next = (i + 1) % border.length;
    return [hairline[i] ?? inner, hairline[next] ?? inner, border[next] ?? inner, inner];
  });
}

/** The way a cornrow faces where it is in sight: one tone for all of it, and no edge in its middle. */
export function meanFacing(along: readonly { at: Vec; normal: Vec }[], camera: Camera): Vec {
  const seen = along.filter(({ at }) => camera.facing(at) > 0);
  const sum = (seen.length > 0 ? seen : along).reduce<Vec>((s, { normal }) => add(s, normal), [0, 0, 0]);
  return unit(sum);
}
