import type { Drape, Form } from "../../api/types";
import { cross, vec, type Vec } from "../vectors";

/** How a form looks when it hangs: how its ends taper, how it waves, how long its pattern is. */
interface Look {
  /** Width at the tip ÷ that of the piece, and the share of its length from which it tapers. */
  tip: number;
  taperFrom: number;
  /** How far it waves aside, and how long a wave is against others. */
  wave: number;
  long: number;
  /** How far it drifts from its way at the end, mm. */
  drift: number;
  /** Length of the pattern ÷ thickness. */
  pitch: number;
  /** Radius of the coil it makes ÷ thickness; 0 for none. */
  coil: number;
  grain: "loc" | "braid" | "twist";
}

const loc: Look = {
  tip: 0.55,
  taperFrom: 0.72,
  wave: 2.2,
  long: 1.2,
  drift: 10,
  pitch: 5,
  coil: 0,
  grain: "loc",
};
const twist: Look = {
  tip: 0.4,
  taperFrom: 0.62,
  wave: 2.2,
  long: 1,
  drift: 9,
  pitch: 2.6,
  coil: 0,
  grain: "twist",
};
const braid: Look = {
  tip: 0.5,
  taperFrom: 0.68,
  wave: 2.6,
  long: 2.6,
  drift: 18,
  pitch: 1.9,
  coil: 0,
  grain: "braid",
};

export const looks: Readonly<Record<Form, Look>> = {
  "looped-twist": twist,
  "looped-braid": braid,
  "soft-loc": loc,
  "coil-loc": { ...loc, pitch: 3 },
  "handmade-loc": loc,
  bulk: { ...twist, wave: 4.5, long: 0.7, pitch: 3.4 },
  "curly-bulk": { ...twist, coil: 0.55, tip: 0.6, pitch: 3.2 },
  "braiding-hair": braid,
};

/** One piece ready to be drawn: places along it with the way out of the curtain at each. */
export interface Strand {
  points: Vec[];
  normals: Vec[];
  /** Index of the plan's piece it is. */
  piece: number;
  thick: number;
  look: Look;
  /** 0 for one that lies inside, 1 for the outermost. */
  outer: number;
  /** Tells it apart from others, the same every time. */
  seed: number;
}

/** A number in 0..1 that belongs to (i, k) for good. */
export function hash(i: number, k: number): number {
  let x = (i * 374761393 + k * 668265263 + 1013904223) | 0;
  x = Math.imul(x ^ (x >>> 13), 1274126177);
  return ((x ^ (x >>> 16)) >>> 0) / 4294967296;
}

const clamp = (v: number) => Math.max(0, Math.min(1, v));
const unitOr = (v: Vec, other: Vec): Vec => {
  const l = Math.hypot(...v);
  return l > 1e-9 ? [v[0] / l, v[1] / l, v[2] / l] : other;
};

type Slices = readonly (readonly number[])[];

/** How far out a point lies of a body of slices: 1 on it, less inside; far where no slice is. */
export function gauge(slices: Slices, x: number, y: number, z: number): number {
  const [first, last] = [slices[0], slices[slices.length - 1]];
  if (!first || !last || z > (first[0] ?? 0) || z < (last[0] ?? 0)) return 9;
  let i = 1;
  while ((slices[i]?.[0] ?? -Infinity) > z) i++;
  const [a, b] = [slices[i - 1], slices[i]];
  if (!a || !b) return 9;
  const f = ((a[0] ?? 0) - z) / Math.max(1e-9, (a[0] ?? 0) - (b[0] ?? 0));
  const at = (k: number) => (a[k] ?? 0) + f * ((b[k] ?? 0) - (a[k] ?? 0));
  return Math.hypot((x - (at(1) + at(2)) / 2) / ((at(1) - at(2)) / 2), y / at(3));
}

/** The way out of a body of slices at a point near it. */
function outOf(slices: Slices, p: Vec): { normal: Vec; gauge: number } | undefined {
  const g = gauge(slices, ...p);
  if (g > 1.5) return undefined;
  const d: Vec = [
    gauge(slices, p[0] + 2, p[1], p[2]) - g,
    gauge(slices, p[0], p[1] + 2, p[2]) - g,
    (gauge(slices, p[0], p[1], p[2] + 6) - g) / 3,
  ];
  const l = Math.hypot(...d);
  return l > 1e-6 && l < 1 ? { normal: [d[0] / l, d[1] / l, d[2] / l], gauge: g } : undefined;
}

/** Neighbours hang together in threes and fours: how far each leans to the middle of its own, mm. */
function gathered(drape: Drape): Float32Array {
  const lean = new Float32Array(drape.pieces.length);
  const azimuth = drape.pieces.map(({ points }) => {
    const p = points[Math.max(2, Math.floor(points.length * 0.55))] ?? points[points.length - 1];
    return Math.atan2(p?.[1] ?? 0, (p?.[0] ?? 0) + 25);
  });
  const order = azimuth.map((_, i) => i).sort((a, b) => (azimuth[a] ?? 0) - (azimuth[b] ?? 0));
  const layers = drape.pieces.reduce((sum, p) => sum + p.thickMm, 0) / 420;
  for (let at = 0; at < order.length;) {
    const n = Math.max(2, Math.round((1.6 + 2.6 * hash(at, 21)) * Math.max(1, layers)));
    const group = order.slice(at, at + n);
    const middle = group.reduce((sum, i) => sum + (azimuth[i] ?? 0), 0) / group.length;
    for (const i of group) lean[i] = Math.max(-20, Math.min(20, (middle - (azimuth[i] ?? 0)) * 65));
    at += n;
  }
  return lean;
}

/** A smooth curve through points at steps of about step mm, with how far along each place is. */
function smooth(points: readonly Vec[], every: number): { at: Vec[]; along: number[] } {
  const [at, along]: [Vec[], number[]] = [[], []];
  let run = 0;
  for (let k = 0; k + 1 < points.length; k++) {
    const [p1, p2] = [points[k], points[k + 1]];
    if (!p1 || !p2) break;
    const [p0, p3] = [points[k - 1] ?? p1, points[k + 2] ?? p2];
    const l = Math.hypot(p2[0] - p1[0], p2[1] - p1[1], p2[2] - p1[2]);
    const l0 = Math.max(1, Math.hypot(p1[0] - p0[0], p1[1] - p0[1], p1[2] - p0[2]));
    const l3 = Math.max(1, Math.hypot(p3[0] - p2[0], p3[1] - p2[1], p3[2] - p2[2]));
    const n = Math.max(1, Math.round(l / every));
    for (let j = 0; j < n; j++) {
      const f = j / n;
      const [f2, f3] = [f * f, f * f * f];
      const one = (d: 0 | 1 | 2) => {
        const slope = p2[d] - p1[d];
        const m1 = k === 0 ? slope : (l * ((p1[d] - p0[d]) / l0 + slope / l)) / 2;
        const m2 = k + 2 === points.length ? slope : (l * (slope / l + (p3[d] - p2[d]) / l3)) / 2;
        return (
          (2 * f3 - 3 * f2 + 1) * p1[d] + (f3 - 2 * f2 + f) * m1 + (-2 * f3 + 3 * f2) * p2[d] + (f3 - f2) * m2
        );
      };
      at.push([one(0), one(1), one(2)]);
      along.push(run + f * l);
    }
    run += l;
  }
  const last = points[points.length - 1];
  if (last) {
    at.push(last);
    along.push(run);
  }
  return { at, along };
}

/**
 * The pieces of a drape with the small waves of hair that hangs, at steps of about step mm: no
 * two alike, always the same, and never into the body.
 */
export function strandsOf(
  drape: Drape,
  forms: readonly Form[],
  axes: readonly number[],
  every: number,
): Strand[] {
  const [a, b, c] = [axes[0] ?? 1, axes[1] ?? 1, axes[2] ?? 1];
  const lean = gathered(drape);
  const deepest = Math.min(22, Math.max(1, ...drape.pieces.map((p) => p.liftMm)));
  return drape.pieces.map((piece, i) => {
    const look = looks[forms[piece.piece] ?? "soft-loc"];
    const curve = smooth(piece.points.map(vec), look.coil > 0 ? Math.min(every, 5) : every);
    const run = curve.along[curve.along.length - 1] ?? 0;
    const phase = [hash(i, 1), hash(i, 2), hash(i, 3), hash(i, 4)] as const;
    const wave = (95 + 80 * phase[0]) * look.long;
    const keep = (1 - 0.03 * hash(i, 9) ** 2) * run;
    const [points, normals]: [Vec[], Vec[]] = [[], []];
    curve.at.forEach((p, k) => {
      const l = curve.along[k] ?? 0;
      if (l > keep && k > 2) return;
      const low = p[2] < 0;
      let out = unitOr([p[0] / a / a, p[1] / b / b, low ? 0 : p[2] / c / c], [0, 0, 1]);
      const [before, after] = [curve.at[Math.max(0, k - 1)] ?? p, curve.at[k + 1] ?? p];
      const along = unitOr([after[0] - before[0], after[1] - before[1], after[2] - before[2]], [0, 0, -1]);
      if (p[2] < -a) {
        const body = outOf(drape.torso, p);
        const share = body ? clamp((1.5 - body.gauge) / 0.4) : 0;
        if (body)
          out = unitOr(
            [
              out[0] + share * (body.normal[0] - out[0]),
              out[1] + share * (body.normal[1] - out[1]),
              out[2] + share * (body.normal[2] - out[2]),
            ],
            out,
          );
      }
      const aside = unitOr(cross(along, out), [0, 1, 0]);
      const far = clamp((l - 40) / 200);
      const turn = aside[0] * -p[1] + aside[1] * (p[0] + 25) > 0 ? 1 : -1; // the way azimuth grows
      const sideways =
        far *
          (look.wave * Math.sin((2 * Math.PI * (l - 40)) / wave + 6.28 * phase[1]) +
            look.drift * (phase[2] - 0.5) * 2 * Math.min(1, (l - 40) / 420)) +
        (lean[i] ?? 0) * clamp((l - 110) / 260) * turn;
      const tip = Math.max(0, 1 - (run - l) / 45); // ends turn in a little
      const outwards =
        far *
        (0.7 * look.wave * (1 + Math.sin((2 * Math.PI * (l - 40)) / (wave * 1.31) + 6.28 * phase[3])) -
          4 * tip * tip * phase[1]);
      let [s, o] = [sideways, outwards];
      if (look.coil > 0) {
        const angle = (2 * Math.PI * l) / (look.pitch * piece.thickMm) + 6.28 * phase[3];
        const r = look.coil * piece.thickMm * Math.min(1, l / 40);
        s += r * Math.sin(angle);
        o += r * Math.cos(angle);
      }
      let at: Vec = [
        p[0] + s * aside[0] + o * out[0],
        p[1] + s * aside[1] + o * out[1],
        p[2] + s * aside[2] + o * out[2],
      ];
      for (let tries = 0; tries < 5 && at[2] < -0.9 * a; tries++) {
        const body = outOf(drape.torso, at);
        if (!body || body.gauge > 1.03) break;
        at = [at[0] + 2.5 * body.normal[0], at[1] + 2.5 * body.normal[1], at[2] + 2.5 * body.normal[2]];
      }
      points.push(at);
      normals.push(low ? unitOr([out[0], out[1], 0.12], out) : out);
    });
    return {
      points,
      normals,
      piece: piece.piece,
      thick: piece.thickMm * (look.coil > 0 ? 0.6 : 1),
      look,
      outer: clamp(piece.liftMm / deepest),
      seed: i,
    };
  });
}

/** How wide a strand is at a share of its length. */
export function widthAt(s: Strand, f: number): number {
  const { tip, taperFrom } = s.look;
  const root = Math.min(1, 0.55 + (0.45 * f * s.points.length) / 4);
  return root * s.thick * (f < taperFrom ? 1 : 1 - ((1 - tip) * (f - taperFrom)) / (1 - taperFrom));
}
