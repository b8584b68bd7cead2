import figure from "../../../../internal/picture/body.json";
import drawn from "../../../../internal/picture/bust.json";
import type { Drape } from "../../api/types";
import type { Pictured } from "../drawn";
import { cross, vec, type Vec } from "../vectors";

/** Triangles with what is said at each corner. */
export interface Mesh {
  /** Where, the way out, and the colour, nine numbers a corner. */
  corners: number[];
  triangles: number[];
}

export type Rgb = readonly [number, number, number];

/** Colours of the figure, 0 to 1 each. */
export interface FigureTones {
  skin: Rgb;
  shade: Rgb;
  cloth: Rgb;
  own: Rgb;
  ink: Rgb;
}

/** Marks the shirt: where it ends is told by the height, sharp at any size. */
export const clothMark = 2;
export const sleeveMark = 3;

/** Adds a surface of rows and columns, closed round its columns. */
function grid(
  mesh: Mesh,
  rows: number,
  columns: number,
  at: (row: number, column: number) => Vec,
  colour: Rgb,
) {
  const first = mesh.corners.length / 9;
  const points = Array.from({ length: (rows + 1) * (columns + 1) }, (_, i) =>
    at(Math.floor(i / (columns + 1)) / rows, (i % (columns + 1)) / columns),
  );
  const p = (i: number, j: number): Vec =>
    points[Math.max(0, Math.min(rows, i)) * (columns + 1) + ((j + columns) % columns)] ?? [0, 0, 0];
  const way = (from: Vec, to: Vec): Vec => [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
  for (let i = 0; i <= rows; i++)
    for (let j = 0; j <= columns; j++) {
      const normal = cross(way(p(i, j - 1), p(i, j + 1)), way(p(i - 1, j), p(i + 1, j)));
      const l = Math.hypot(...normal) || 1;
      mesh.corners.push(...p(i, j), normal[0] / l, normal[1] / l, normal[2] / l, ...colour);
    }
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < columns; j++) {
      const a = first + i * (columns + 1) + j;
      mesh.triangles.push(a, a + 1, a + columns + 1, a + 1, a + columns + 2, a + columns + 1);
    }
}

const turned = (f: number) => -f * 2 * Math.PI;

type Slice = readonly number[];

/** Slices with some between them, on a smooth curve. */
function finer(slices: readonly Slice[], every: number): Slice[] {
  const out: Slice[] = [];
  for (let i = 0; i + 1 < slices.length; i++) {
    const [p1, p2] = [slices[i] ?? [], slices[i + 1] ?? []];
    const [p0, p3] = [slices[i - 1] ?? p1, slices[i + 2] ?? p2];
    const n = Math.max(1, Math.round(((p1[0] ?? 0) - (p2[0] ?? 0)) / every));
    for (let k = 0; k < n; k++) {
      const f = k / n;
      out.push(
        p1.map((v, d) => {
          const [b, c, e] = [p0[d] ?? v, p2[d] ?? v, p3[d] ?? v];
          if (d === 0) return v + f * (c - v);
          return (
            0.5 *
            (2 * v + (c - b) * f + (2 * b - 5 * v + 4 * c - e) * f * f + (3 * v - b - 3 * c + e) * f * f * f)
          );
        }),
      );
    }
  }
  const last = slices[slices.length - 1];
  return last ? [...out, last] : out;
}

function stack(mesh: Mesh, slices: readonly Slice[], colour: Rgb) {
  grid(
    mesh,
    slices.length - 1,
    44,
    (f, g) => {
      const [z = 0, front = 0, back = 0, wide = 0] = slices[Math.round(f * (slices.length - 1))] ?? [];
      return [(front + back) / 2 + ((front - back) / 2) * Math.cos(turned(g)), wide * Math.sin(turned(g)), z];
    },
    colour,
  );
}

/** The trunk without the arms that hair falls over. */
function trunk(drape: Drape, top: number): Slice[] {
  const { statureMm: tall } = drape;
  return finer(drape.torso, 9).map(([z = 0, front = 0, back = 0, wide = 0]) => {
    const share = 1 - (top - z) / tall;
    const own =
      tall * (figure.trunk - 0.014 * Math.sin(Math.PI * Math.min(1, Math.max(0, (0.76 - share) / 0.24))));
    const k = Math.min(1, Math.max(0, (0.8 - share) / 0.06));
    return [z, front, back, wide + k * k * (3 - 2 * k) * (own - wide)];
  });
}

/** A point of the face at a height and a side, as the head map draws it, with its way out. */
function onFace(face: readonly Slice[], z: number, y: number, wideOf: number): { point: Vec; normal: Vec } {
  let i = 1;
  while (i < face.length - 1 && (face[i]?.[0] ?? 0) > z) i++;
  const [a, b] = [face[i - 1] ?? [], face[i] ?? []];
  const f = ((a[0] ?? 0) - z) / Math.max(1e-9, (a[0] ?? 0) - (b[0] ?? 0));
  const at = (k: number) => (a[k] ?? 0) + f * ((b[k] ?? 0) - (a[k] ?? 0));
  const [middle, half, wide] = [(at(1) + at(2)) / 2, (at(1) - at(2)) / 2, at(3)];
  const aside = (y * wideOf) / wide;
  const cos = Math.sqrt(Math.max(0, 1 - aside * aside));
  const n = Math.hypot(cos / half, aside / wide) || 1;
  return { point: [middle + half * cos, y * wideOf, z], normal: [cos / half / n, aside / wide / n, 0] };
}

/** A line of the face as a thin ribbon that ends in points. */
function ribbon(mesh: Mesh, line: readonly { point: Vec; normal: Vec }[], half: number, colour: Rgb) {
  const first = mesh.corners.length / 9;
  line.forEach(({ point: [x, y, z], normal }, i) => {
    const w = half * Math.sqrt(Math.sin((Math.PI * (i + 0.5)) / line.length));
    for (const side of [1, -1])
      mesh.corners.push(x + 0.9 * normal[0], y + 0.9 * normal[1], z + side * w, ...normal, ...colour);
    const a = first + 2 * i;
    if (i > 0) mesh.triangles.push(a - 2, a - 1, a, a - 1, a + 1, a);
  });
}

function features(mesh: Mesh, drape: Drape, [a, b]: Vec, ink: Rgb) {
  const face = drape.face;
  const draw = (line: readonly number[][], side: number, half: number) => {
    const fine: { point: Vec; normal: Vec }[] = [];
    for (let i = 0; i + 1 < line.length; i++)
      for (let k = 0; k < 8; k++) {
        const [p, q] = [line[i] ?? [], line[i + 1] ?? []];
        const f = k / 8;
        const y = (p[0] ?? 0) + f * ((q[0] ?? 0) - (p[0] ?? 0));
        const z = (p[1] ?? 0) + f * ((q[1] ?? 0) - (p[1] ?? 0));
        fine.push(onFace(face, a * z, side * y, b));
      }
    ribbon(mesh, fine, half, ink);
  };
  drawn.paired.forEach((line, i) => {
    for (const side of [1, -1]) draw(line, side, i === 0 ? 1.5 : 1.0);
  });
  draw(drawn.mouth, 1, 1.1);
}

/** An ear: its outline, a rim that rolls in, and the bowl. */
function ear(mesh: Mesh, top: Vec, side: number, size: number, { skin, shade }: FigureTones) {
  const bowl: Rgb = [
    0.6 * skin[0] + 0.4 * shade[0],
    0.6 * skin[1] + 0.4 * shade[1],
    0.6 * skin[2] + 0.4 * shade[2],
  ];
  const rings = [
    { k: 0.55, out: -3, tone: skin },
    { k: 0.98, out: 4, tone: skin },
    { k: 1, out: 9, tone: skin },
    { k: 0.84, out: 10.5, tone: skin },
    { k: 0.74, out: 6, tone: bowl },
    { k: 0.3, out: 4.5, tone: bowl },
    { k: 0, out: 6, tone: bowl },
  ];
  const middle: Vec = [top[0] - 5 * size, side * (top[1] * 0.93 + 1), top[2] - 25 * size];
  const n = drawn.ear.length;
  const first = mesh.corners.length / 9;
  for (const { k, out, tone } of rings)
    for (let i = 0; i < n; i++) {
      const [x = 0, z = 0] = drawn.ear[i] ?? [];
      // It stands off behind.
      const off = out + 0.42 * Math.max(0, 10 - k * x);
      const normal: Vec = k > 0.9 ? [x / 30, side * 0.8, z / 40] : [0.3, side, 0.1];
      const l = Math.hypot(...normal);
      mesh.corners.push(
        middle[0] + size * k * x,
        middle[1] + side * size * off,
        middle[2] + size * k * z,
        normal[0] / l,
        normal[1] / l,
        normal[2] / l,
        ...tone,
      );
    }
  for (let r = 0; r + 1 < rings.length; r++)
    for (let i = 0; i < n; i++) {
      const [p, q] = [first + r * n + i, first + r * n + ((i + 1) % n)];
      mesh.triangles.push(p, q, p + n, q, q + n, p + n);
    }
}

/** Own hair on sections and under cornrows, a little above the scalp: the gaps between are the parts. */
function ownHair(mesh: Mesh, rings: readonly (readonly Vec[])[], [a, b, c]: Vec, colour: Rgb) {
  for (const ring of rings) {
    const middle = ring.reduce<Vec>(
      (m, p) => [m[0] + p[0] / ring.length, m[1] + p[1] / ring.length, m[2] + p[2] / ring.length],
      [0, 0, 0],
    );
    const start = ring[0];
    if (!start) continue;
    const reach = Math.hypot(start[0] - middle[0], start[1] - middle[1], start[2] - middle[2]);
    const inward = Math.min(0.14, 1 / Math.max(1, reach));
    const lift = (p: Vec, share: number) => {
      const q: Vec = [
        p[0] + share * (middle[0] - p[0]),
        p[1] + share * (middle[1] - p[1]),
        p[2] + share * (middle[2] - p[2]),
      ];
      const g = Math.hypot(q[0] / a, q[1] / b, q[2] / c) || 1;
      const n: Vec = [q[0] / a / a, q[1] / b / b, q[2] / c / c];
      const l = Math.hypot(...n) || 1;
      const out: Vec = [n[0] / l, n[1] / l, n[2] / l];
      mesh.corners.push(
        q[0] / g + 0.9 * out[0],
        q[1] / g + 0.9 * out[1],
        q[2] / g + 0.9 * out[2],
        ...out,
        ...colour,
      );
    };
    const first = mesh.corners.length / 9;
    // Two rings and the middle, so that a wide patch keeps to the round of the head.
    ring.forEach((p) => lift(p, inward));
    ring.forEach((p) => lift(p, 0.55));
    lift(middle, 0);
    const n = ring.length;
    for (let i = 0; i < n; i++) {
      const j = (i + 1) % n;
      const [p, q] = [first + i, first + j];
      mesh.triangles.push(p, q, p + n, q, q + n, p + n, p + n, q + n, first + 2 * n);
    }
  }
}

/** The person under the hair: head, face, ears, own hair, and the body in a plain shirt. */
export function figureMesh(drape: Drape, { head, sections, base }: Pictured, tones: FigureTones): Mesh {
  const mesh: Mesh = { corners: [], triangles: [] };
  const [a, b, c] = vec(head.axesMm);
  const tall = drape.statureMm;
  grid(
    mesh,
    28,
    48,
    (f, g) => {
      const lat = Math.PI / 2 - f * 2.3;
      return [
        a * Math.cos(lat) * Math.cos(turned(g)),
        b * Math.cos(lat) * Math.sin(turned(g)),
        c * Math.sin(lat),
      ];
    },
    tones.skin,
  );
  const chin = drape.face[drape.face.length - 1] ?? [];
  const [z = 0, front = 0, back = 0, wide = 0] = chin;
  stack(
    mesh,
    [
      ...finer(drape.face, 5),
      [z - 4, front - 12, back + 10, wide * 0.6],
      [z - 5.5, (front + back) / 2, (front + back) / 2, 0.1],
    ],
    tones.skin,
  );
  stack(
    mesh,
    trunk(drape, c).filter(([h = 0]) => h > c - (1 - figure.foot + 0.07) * tall),
    [clothMark, 0, 0],
  );
  for (const side of [1, -1]) {
    ear(mesh, vec(head.landmarks.earTop), side, a / 108, tones);
    const arm = figure.arm.map(([x = 0, y = 0, h = 0, r = 0]): Slice => [
      x * tall,
      side * y * tall,
      c - (1 - h) * tall,
      r * tall,
    ]);
    grid(
      mesh,
      (arm.length - 1) * 6,
      20,
      (f, g) => {
        const at = f * (arm.length - 1);
        const i = Math.min(arm.length - 2, Math.floor(at));
        const [p, q] = [arm[i] ?? [], arm[i + 1] ?? []];
        const k = at - i;
        const on = (d: number) => (p[d] ?? 0) + k * ((q[d] ?? 0) - (p[d] ?? 0));
        const r = i === 0 ? (q[3] ?? 0) * Math.sqrt(1 - (1 - k) ** 2) : on(3);
        return [on(0) + r * Math.cos(turned(g)), on(1) + r * Math.sin(turned(g)), on(2)];
      },
      [sleeveMark, 0, 0],
    );
  }
  // The nose, out from the bridge down.
  grid(
    mesh,
    10,
    20,
    (f, g) => {
      const w = (0.05 + 0.15 * f ** 1.6) * b * (f > 0.92 ? 0.75 : 1);
      const out = (0.955 + 0.19 * f ** 1.2 * (f > 0.9 ? 0.8 : 1)) * a;
      return [
        0.86 * a + (out - 0.86 * a) * Math.max(-0.2, Math.cos(turned(g))),
        w * Math.sin(turned(g)),
        a * (-0.1 - 0.52 * f),
      ];
    },
    tones.skin,
  );
  features(mesh, drape, [a, b, c], tones.ink);
  ownHair(
    mesh,
    [...base.bands.map((band) => band.ring), ...sections.map((s) => s.ring)],
    [a, b, c],
    tones.own,
  );
  return mesh;
}
