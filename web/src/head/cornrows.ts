import type { Cornrow, Layout } from "../api/types";
import { add, cross, dot, scale, unit, vec, type Vec } from "./vectors";

/** A place along a cornrow, with the frame it is drawn in. */
export interface Station {
  at: Vec;
  normal: Vec;
  /** The way the plait goes, and to the left of it. */
  along: Vec;
  left: Vec;
  /** Half the plait's width there, mm. */
  half: number;
  /** How far its part lines lie to the left and to the right, mm; 0 where none is near. */
  gaps: readonly [number, number];
}

/** A plait worked flat, made ready for drawing. */
export interface FlatPlait {
  /** Half its width where it is whole, mm. */
  half: number;
  /** Stations a step apart along its line; worked out when they are first drawn. */
  stations: () => readonly Station[];
  /** A cornrow that several run together into is drawn over them. */
  merged: boolean;
}

/** What stands where no individuals do, made ready for drawing once for every result. */
export interface DrawnBase {
  /** The scalp of each cornrow, and where its part lines show. */
  bands: { ring: readonly Vec[]; lines: (readonly Vec[])[] }[];
  plaits: FlatPlait[];
  hooks: Vec[];
  /** The threads of a net, from hook to hook. */
  mesh: [Vec, Vec][];
  /** The small plaits under a net, each from its root to where it is laid back. */
  under: FlatPlait[];
  /** Scalp whose hair stays loose. */
  leftOut: (readonly Vec[])[];
}

export const stationStep = 2; // mm along the line
const [thinnest, thickest] = [3.2, 15]; // mm, the width of a plait
const ofBand = 0.42; // width of a plait ÷ that of the scalp it takes up
const ofBorder = 0.62; // most of the way to the nearer part line
/** How thick a plait begins and ends, as shares of itself: it grows as it takes hair up. */
const [startShare, tailShare, mergeShare] = [0.35, 0.25, 0.75];
const [growth, taper] = [2.5, 3]; // widths over which it does

const minus = (p: Vec, q: Vec): Vec => [p[0] - q[0], p[1] - q[1], p[2] - q[2]];

export function drawnBase(layout: Layout, axes: readonly number[]): DrawnBase {
  const head = vec(axes);
  return {
    bands: [
      ...layout.tracks.flatMap((t) =>
        t.outlines.map((ring) => ({ ring, lines: partLines(t, layout.tracks, ring) })),
      ),
      // Over small plaits the net has the scalp to itself.
      ...layout.nets.flatMap((n) =>
        n.plaits.length > 0 ? n.outlines.map((ring) => ({ ring, lines: [closedRing(ring)] })) : [],
      ),
    ],
    plaits: layout.tracks.map((t) => flatPlait(t, layout.tracks, head)),
    hooks: [...layout.tracks, ...layout.nets].flatMap((t) => t.hooks.map((h) => h.at)),
    mesh: layout.nets.flatMap(({ hooks, areaMm2 }) =>
      threads(
        hooks.map((h) => h.at),
        areaMm2,
      ),
    ),
    under: layout.nets.flatMap((n) => n.plaits.map((root) => laidBack(root, head))),
    leftOut: [...layout.leftOut, ...edges(layout)],
  };
}

/** A cornrow as a plait: as wide as its band makes it, thin where it begins and where it ends. */
function flatPlait(t: Cornrow, all: readonly Cornrow[], axes: Vec): FlatPlait {
  const feeders = all.filter((o) => o.merged && o.into === t.id);
  const width = feeders.length > 0 ? 1.3 * Math.max(...feeders.map((f) => f.widthMm)) : t.widthMm;
  const half = Math.min(thickest, Math.max(thinnest, ofBand * width)) / 2;
  const joins = t.merged && t.into !== undefined;
  const ring = t.merged ? undefined : t.outlines[0];
  return once({
    half,
    merged: feeders.length > 0,
    stations: () => stationsOf(t.line, axes, half, joins ? mergeShare : tailShare, ring),
  });
}

const closedRing = (ring: readonly Vec[]) => (ring[0] ? [...ring, ring[0]] : []);

/**
 * The stretches of a band's outline at which a part line shows: all of it, but for what lies between cornrows
 * that have run together.
 */
function partLines(t: Cornrow, all: readonly Cornrow[], ring: readonly Vec[]): (readonly Vec[])[] {
  const [last, before] = [t.line[t.line.length - 1], t.line[t.line.length - 2]];
  if (!t.merged || t.into === undefined || !last || !before) return [closedRing(ring)];
  const on = minus(last, before);
  const beside = all
    .filter((o) => o.id !== t.id && o.merged && o.into === t.into)
    .flatMap((o) => o.outlines.flat());
  const gone = (p: Vec) =>
    dot(minus(p, last), on) >= 0 && beside.some((q) => Math.hypot(...minus(p, q)) < 0.5);
  const out: Vec[][] = [[]];
  for (const p of closedRing(ring)) {
    if (gone(p)) out.push([]);
    else out[out.length - 1]?.push(p);
  }
  return out.filter((line) => line.length > 1);
}

/** Own hair of sections that lies in the base: linked plaits from root to root, others laid back. */
export function lyingPlaits({ sections }: Layout, axes: readonly number[]): FlatPlait[] {
  const head = vec(axes);
  const roots = new Map(sections.map((s) => [s.id, s.centroid]));
  return sections.flatMap((s) => {
    const half = Math.max(1.6, s.plaitMm * 0.45);
    if (s.laid) return [laidBack(s.centroid, head, half, 1.3 * s.heightMm.mean)];
    const to = s.into === undefined ? undefined : roots.get(s.into);
    if (!to) return [];
    const line = [0, 1, 2, 3].map((k) => onHead(add(s.centroid, scale(k / 3, minus(to, s.centroid))), head));
    return [once({ half, merged: false, stations: () => stationsOf(line, head, half, mergeShare) })];
  });
}

/** A plait that is laid back: from its root towards the nape. */
function laidBack(root: Vec, axes: Vec, half = 2.8, long = 30): FlatPlait {
  const normal = normalAt(root, axes);
  const down = unit(minus([-0.6, 0, -1], scale(dot([-0.6, 0, -1], normal), normal)));
  const line = [0, 1, 2, 3, 4].map((k) => onHead(add(root, scale((k * long) / 4, down)), axes));
  return once({ half, merged: false, stations: () => stationsOf(line, axes, half, tailShare) });
}

/** Works the stations out at the first call alone. */
function once(plait: FlatPlait): FlatPlait {
  let made: readonly Station[] | undefined;
  return { ...plait, stations: () => (made ??= plait.stations()) };
}

const normalAt = (p: Vec, [a, b, c]: Vec): Vec => unit([p[0] / (a * a), p[1] / (b * b), p[2] / (c * c)]);

/** The point of the scalp in the direction of one near it. */
const onHead = (p: Vec, [a, b, c]: Vec): Vec => scale(1 / Math.hypot(p[0] / a, p[1] / b, p[2] / c), p);

/** A smooth line through points at even steps (Catmull and Rom's spline), each step on the scalp. */
function smooth(line: readonly Vec[], axes: Vec): Vec[] {
  const out: Vec[] = [];
  let carried = 0;
  line.forEach((p, i) => {
    const q = line[i + 1];
    if (!q) return;
    const [before, after] = [line[i - 1] ?? p, line[i + 2] ?? q];
    const long = Math.hypot(...minus(q, p));
    if (long === 0) return;
    for (; carried < long; carried += stationStep) {
      const u = carried / long;
      const k = [
        u * (-0.5 + u * (1 - 0.5 * u)),
        1 + u * u * (-2.5 + 1.5 * u),
        u * (0.5 + u * (2 - 1.5 * u)),
        u * u * (-0.5 + 0.5 * u),
      ];
      const at = [before, p, q, after].reduce<Vec>((sum, v, n) => add(sum, scale(k[n] ?? 0, v)), [0, 0, 0]);
      out.push(onHead(at, axes));
    }
    carried -= long;
  });
  const last = line[line.length - 1];
  if (last && out.length > 0) out.push(last);
  return out;
}

/** How often the way to the part lines is measured, in stations. */
const gapEvery = 4;

function stationsOf(
  line: readonly Vec[],
  axes: Vec,
  half: number,
  tail: number,
  ring?: readonly Vec[],
): Station[] {
  const points = smooth(line, axes);
  const n = points.length;
  const whole = (n - 1) * stationStep;
  let gaps: readonly [number, number] = [0, 0];
  return points.map((at, i) => {
    const [before, after] = [points[Math.max(0, i - 1)] ?? at, points[Math.min(n - 1, i + 1)] ?? at];
    const normal = normalAt(at, axes);
    const along = unit(minus(after, before));
    const left = unit(cross(normal, along));
    if (ring && i % gapEvery === 0) gaps = gapsAt(at, along, left, ring);
    const near = Math.min(...gaps.map((g) => g || Infinity));
    const gone = i * stationStep;
    const grown = Math.min(1, startShare + (1 - startShare) * (gone / (2 * half * growth)));
    const ending = Math.min(1, tail + (1 - tail) * ((whole - gone) / (2 * half * taper)));
    return { at, normal, along, left, half: Math.min(half * Math.min(grown, ending), ofBorder * near), gaps };
  });
}

/** How far the nearest parts of an outline lie to either side of a place, square to its way. */
function gapsAt(at: Vec, along: Vec, left: Vec, ring: readonly Vec[]): readonly [number, number] {
  const far = 60; // mm: what lies further is on the other side of the head
  let [onLeft, onRight] = [far, far];
  let q = ring[ring.length - 1] ?? at;
  let b = dot(minus(q, at), along);
  for (const p of ring) {
    const a = dot(minus(p, at), along);
    if (a < 0 !== b < 0) {
      const f = a / (a - b);
      const way = minus([p[0] + f * (q[0] - p[0]), p[1] + f * (q[1] - p[1]), p[2] + f * (q[2] - p[2])], at);
      const aside = dot(way, left);
      if (Math.hypot(...way) < far) {
        if (aside > 0) onLeft = Math.min(onLeft, aside);
        else onRight = Math.min(onRight, -aside);
      }
    }
    [q, b] = [p, a];
  }
  return [onLeft === far ? 0 : onLeft, onRight === far ? 0 : onRight];
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
