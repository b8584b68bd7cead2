import type { Camera } from "./camera";
import { stationStep, type DrawnBase, type FlatPlait, type Station } from "./cornrows";
import { add, dot, scale, unit, type Flat, type Vec } from "./vectors";

type Ctx = CanvasRenderingContext2D;

/** What a base is painted with. */
export interface BaseLook {
  dark: readonly number[];
  light: readonly number[];
  scalp: string;
  /** Width of a part line, mm. */
  part: number;
  /** Combed hair and lights are left out while a head moves, and in small pictures. */
  plain: boolean;
}

const inSight = 0.08; // facing under which nothing is drawn on a cornrow: it would be a bead at the rim
const tones = 7;

/**
 * Paints the base of a head: the scalp of every cornrow, hair combed into it from both part lines,
 * and the raised plait of three on it, one segment left, one right, each leaving the middle under
 * the one before it.
 */
export function paintBase(ctx: Ctx, base: DrawnBase, camera: Camera, look: BaseLook) {
  if (base.bands.length === 0 && base.under.length === 0) return;
  const dots = ctx.getTransform().a; // pixels a mm
  const brush = new Brush(ctx, camera, look, dots);
  brush.ground(base);
  const [own, merged] = [base.plaits.filter((p) => !p.merged), base.plaits.filter((p) => p.merged)];
  for (const group of [base.under, own, merged])
    for (let i = 0; i < group.length; i += 4) brush.plaits(group.slice(i, i + 4));
}

/** Paints plaits that lie over sections, without hair combed in: their own was plaited. */
export function paintLying(ctx: Ctx, plaits: readonly FlatPlait[], camera: Camera, look: BaseLook) {
  const brush = new Brush(ctx, camera, { ...look, plain: true }, ctx.getTransform().a);
  for (let i = 0; i < plaits.length; i += 4) brush.plaits(plaits.slice(i, i + 4));
}

const rgb = (c: readonly number[]) => `rgb(${c.map(Math.round).join(" ")})`;
const mixed = (a: readonly number[], b: readonly number[], f: number) =>
  a.map((v, i) => v + f * ((b[i] ?? v) - v));

const [black, warm] = [
  [14, 9, 6],
  [255, 240, 214],
];

/**
 * The outline of a segment: u along the plait in pitches, v outward in half widths. It leaves the middle
 * as a tip, swells to the edge and folds back under the next one.
 */
const outline: readonly (readonly (readonly [number, number])[])[] = [
  [
    [0.46, 0.4],
    [0.22, 0.9],
    [-0.1, 1],
  ],
  [
    [-0.34, 1.06],
    [-0.58, 0.88],
    [-0.6, 0.62],
  ],
  [
    [-0.54, 0.36],
    [-0.1, 0.02],
    [0.62, -0.06],
  ],
];
const tip: readonly [number, number] = [0.62, -0.06];
const ridge: readonly (readonly [number, number])[] = [
  [-0.38, 0.74],
  [-0.1, 0.54],
  [0.3, 0.26],
];

class Brush {
  constructor(
    private readonly ctx: Ctx,
    private readonly camera: Camera,
    private readonly look: BaseLook,
    private readonly dots: number,
  ) {}

  private readonly shown = (s: Station) => this.camera.facing(s.at) > inSight;

  /** The scalp of the cornrows, all in one light, and the part lines between them. */
  ground({ bands }: DrawnBase) {
    const { ctx, camera, look } = this;
    ctx.fillStyle = this.lit();
    ctx.strokeStyle = look.scalp;
    ctx.lineWidth = look.part;
    for (const { ring } of bands)
      for (const part of camera.clip(ring)) {
        ctx.beginPath();
        this.trace(part, true);
        ctx.fill();
      }
    ctx.beginPath();
    for (const { lines } of bands)
      for (const line of lines) camera.clipLine(line).forEach((stretch) => this.trace(stretch));
    ctx.stroke();
  }

  /** One light over the whole head, so that bands side by side differ by their part line alone. */
  private lit(): CanvasGradient {
    const { look, camera } = this;
    const [a, b, c] = camera.axes;
    const bright: Vec = [a * camera.light[0], b * camera.light[1], c * camera.light[2]];
    const [x, y] = camera.flat(bright);
    const g = this.ctx.createRadialGradient(x, y, 8, x, y, 1.9 * a);
    g.addColorStop(0, rgb(mixed(look.dark, look.light, 0.4)));
    g.addColorStop(0.5, rgb(mixed(look.dark, look.light, 0.16)));
    g.addColorStop(1, rgb(mixed(look.dark, black, 0.35)));
    return g;
  }

  /** Some plaits, layer by layer: what is combed in, shadows, the bed, the segments. */
  plaits(list: readonly FlatPlait[]) {
    // Combed hair and shadows lie on the head, and so end where it does.
    const { ctx, camera } = this;
    ctx.save();
    ctx.beginPath();
    this.trace(camera.rim(), true);
    ctx.clip();
    if (!this.look.plain) for (const p of list) this.combed(p);
    for (const p of list) {
      if (!this.look.plain) {
        this.line(p, 1.75, "rgb(0 0 0 / 0.16)");
        this.line(p, 1.34, "rgb(0 0 0 / 0.3)");
      }
      this.line(p, 1, rgb(mixed(this.look.dark, black, 0.55)));
    }
    ctx.restore();
    for (const p of list) this.segments(p);
  }

  /** The plait as a line, so many times as wide as it is. */
  private line(p: FlatPlait, times: number, colour: string) {
    const { ctx } = this;
    ctx.strokeStyle = colour;
    // As thick as the plait in stretches of it, so that its ends are thin.
    const stations = p.stations();
    const stretch = 6;
    for (let i = 0; i + 1 < stations.length; i += stretch) {
      const part = stations.slice(i, i + stretch + 1);
      const middle = part[Math.floor(part.length / 2)];
      if (!middle || !this.shown(middle)) continue;
      ctx.lineWidth = Math.max(1 / this.dots, 2 * middle.half * times);
      ctx.beginPath();
      this.trace(part.filter(this.shown).map((s) => s.at));
      ctx.stroke();
    }
  }

  /** Fine strokes of hair from both part lines into the plait, at even steps, each a little otherwise. */
  private combed(p: FlatPlait) {
    const { ctx, dots, look } = this;
    const paths = [new Path2D(), new Path2D()];
    const stations = p.stations();
    stations.forEach((s, i) => {
      if (!this.shown(s)) return;
      s.gaps.forEach((gap, k) => {
        const room = (gap - s.half) * dots;
        if (room < 2.5) return;
        // No closer than can be told apart.
        const apart = Math.ceil((room < 6 ? 4.5 : 2.4) / dots / stationStep);
        if (i % apart !== 0 || (stations.length - i) * stationStep < 0.8 * gap) return;
        const side = k === 0 ? 1 : -1;
        const vary = 0.75 + 0.5 * noise(i, k);
        const from = this.beside(s, side * (gap - 1.5), 0);
        const to = this.beside(s, side * 0.7 * s.half, 0.85 * gap * vary);
        const via = this.beside(s, side * (0.35 * gap + 0.5 * s.half), 0.3 * gap * vary);
        const path = paths[noise(i, k + 7) < 0.6 ? 0 : 1];
        path?.moveTo(...from);
        path?.quadraticCurveTo(...via, ...to);
      });
    });
    ctx.lineWidth = Math.max(0.32, 0.7 / dots);
    ctx.strokeStyle = `rgb(${look.light.join(" ")} / 0.4)`;
    if (paths[0]) ctx.stroke(paths[0]);
    ctx.strokeStyle = "rgb(0 0 0 / 0.4)";
    if (paths[1]) ctx.stroke(paths[1]);
  }

  /** A place on the picture beside a station: aside of it and on along it, mm. */
  private beside(s: Station, aside: number, on: number): Flat {
    return this.camera.flat(add(s.at, add(scale(aside, s.left), scale(on, s.along))));
  }

  private segments(p: FlatPlait) {
    const { ctx, camera, dots, look } = this;
    const wide = 2 * p.half * dots;
    const pitch = Math.max(1.5 * p.half, 3.4 / dots);
    const stations = p.stations();
    const fills = Array.from({ length: tones }, () => new Path2D());
    const lines = Array.from({ length: tones }, () => new Path2D());
    const [hairs, crests] = [new Path2D(), new Path2D()];
    let side = 1;
    for (let mm = 0.5 * pitch; mm < (stations.length - 1) * stationStep; mm += pitch / 2) {
      const s = stations[Math.round(mm / stationStep)];
      side = -side;
      if (!s || !this.shown(s)) continue;
      const h = Math.max(s.half, 0.75 / dots);
      const put = ([u, v]: readonly [number, number]): Flat => {
        const lift = h * (0.08 + 0.42 * (1 - v * v));
        return camera.flat(
          add(add(s.at, scale(lift, s.normal)), add(scale(u * pitch, s.along), scale(side * v * h, s.left))),
        );
      };
      const flank = unit(add(s.normal, scale(0.45 * side, s.left)));
      const light = Math.max(0, Math.min(1, 0.1 + 0.9 * dot(flank, camera.light)));
      const tone = Math.min(tones - 1, Math.floor(light * tones));
      if (wide < 8) {
        const path = lines[tone];
        path?.moveTo(...put([-0.45, 0.8]));
        if (wide < 4.2) path?.lineTo(...put([0.5, 0.02]));
        else path?.quadraticCurveTo(...put([0.05, 0.75]), ...put([0.55, 0.02]));
        continue;
      }
      const path = fills[tone];
      path?.moveTo(...put(tip));
      for (const [a, b, c] of outline) if (a && b && c) path?.bezierCurveTo(...put(a), ...put(b), ...put(c));
      path?.closePath();
      if (look.plain) continue;
      for (const v of [0.36, 0.62]) {
        hairs.moveTo(...put([-0.44, v + 0.16]));
        hairs.quadraticCurveTo(...put([-0.05, v]), ...put([0.42, 0.1 * v]));
      }
      const [from, via, to] = ridge;
      if (!from || !via || !to) continue;
      crests.moveTo(...put(from));
      crests.quadraticCurveTo(...put(via), ...put(to));
    }
    const toneOf = (k: number) => rgb(mixed(look.dark, look.light, 0.34 + (0.64 * (k + 0.5)) / tones));
    for (let k = 0; k < tones; k++) {
      if (wide < 8) {
        ctx.strokeStyle = toneOf(k);
        ctx.lineWidth = (wide < 4.2 ? 1.3 : 0.3 * wide) / dots;
        const path = lines[k];
        if (path) ctx.stroke(path);
        continue;
      }
      ctx.fillStyle = toneOf(k);
      const path = fills[k];
      if (path) ctx.fill(path);
    }
    if (look.plain || wide < 8) return;
    ctx.strokeStyle = "rgb(0 0 0 / 0.28)";
    ctx.lineWidth = Math.max(0.22, 0.6 / dots);
    ctx.stroke(hairs);
    ctx.strokeStyle = `rgb(${mixed(look.light, warm, 0.3).map(Math.round).join(" ")} / 0.5)`;
    ctx.lineWidth = Math.max(0.3, 0.1 * p.half);
    ctx.stroke(crests);
  }

  private trace(points: readonly Vec[], closed = false) {
    points.forEach((p, i) => {
      const [x, y] = this.camera.flat(p);
      if (i === 0) this.ctx.moveTo(x, y);
      else this.ctx.lineTo(x, y);
    });
    if (closed) this.ctx.closePath();
  }
}

/** The same number between 0 and 1 for the same two, without pattern. */
const noise = (i: number, k: number) => {
  const v = Math.sin(i * 12.9898 + k * 78.233) * 43758.5453;
  return v - Math.floor(v);
};
