import figure from "../../../../internal/picture/body.json";
import type { Drape } from "../../api/types";
import type { Camera } from "../camera";
import { dot, hull, type Flat, type Vec } from "../vectors";
import type { HairLight } from "./gl";
import { gauge, hash, widthAt, type Strand } from "./strands";

type Ctx = CanvasRenderingContext2D;

const cloth = { base: "#d6cec2", edge: "#b0a494" };

/** A stretch of a strand on the picture. */
interface Tube {
  points: Flat[];
  wide: number;
  depth: number;
  lit: number;
  tone: HairLight;
  last: boolean;
}

/** Tells whether head or body stand between a point and the viewer. */
function hiding(drape: Drape, camera: Camera): (p: Vec) => boolean {
  const [a, b, c] = camera.axes;
  const v = camera.toViewer;
  const k = 0.985;
  const e: Vec = [a * k, b * k, c * k];
  const w: Vec = [v[0] / e[0], v[1] / e[1], v[2] / e[2]];
  const q = dot(w, w);
  return (p) => {
    const d: Vec = [p[0] / e[0], p[1] / e[1], p[2] / e[2]];
    const h = dot(d, w);
    const root = h * h - q * (dot(d, d) - 1);
    if (root > 0 && (Math.sqrt(root) - h) / q > 2) return true;
    for (let t = 8; t < 330; t += 24) {
      const [x, y, z] = [p[0] + t * v[0], p[1] + t * v[1], p[2] + t * v[2]];
      if (gauge(drape.torso, x, y, z) < 0.92 || gauge(drape.face, x, y, z) < 0.92) return true;
    }
    return false;
  };
}

/** The stretches of all strands as seen, far to near, those behind the figure apart. */
function tubes(
  drape: Drape,
  strands: readonly Strand[],
  tones: readonly HairLight[],
  camera: Camera,
  samples: number,
): { behind: Tube[]; before: Tube[] } {
  const hidden = hiding(drape, camera);
  const [behind, before]: [Tube[], Tube[]] = [[], []];
  for (const s of strands) {
    const tone = tones[s.piece];
    const n = s.points.length;
    if (!tone) continue;
    for (let i = 0; i + 1 < n; i += samples) {
      const j = Math.min(n - 1, i + samples);
      const m = (i + j) >> 1;
      const [middle, normal] = [s.points[m], s.normals[m]];
      if (!middle || !normal) continue;
      const facing = dot(normal, camera.toViewer);
      let lit = 0.3 + 0.7 * Math.max(0, dot(normal, camera.light));
      if (facing < 0) lit = 0.2;
      lit *= (0.66 + 0.34 * (middle[2] < 0 ? s.outer : 1)) * (0.9 + 0.2 * hash(s.seed, 31));
      const tube: Tube = {
        points: s.points.slice(Math.max(0, i - 1), j + 1).map(camera.flat),
        wide: widthAt(s, m / (n - 1)),
        depth: dot(middle, camera.toViewer) + 0.8 * s.outer * s.thick * (facing > 0 ? 1 : -1),
        lit,
        tone,
        last: j === n - 1,
      };
      (hidden(middle) ? behind : before).push(tube);
    }
  }
  const far = (p: Tube, q: Tube) => p.depth - q.depth;
  return { behind: behind.sort(far), before: before.sort(far) };
}

const mixed = ({ dark, bright }: HairLight, f: number) =>
  `rgb(${[0, 1, 2].map((d) => Math.round(255 * Math.max(0, Math.min(1, (dark[d] ?? 0) + f * ((bright[d] ?? 0) - (dark[d] ?? 0)))))).join(" ")})`;

function paintTubes(ctx: Ctx, list: readonly Tube[], plain: boolean) {
  ctx.lineJoin = "round";
  for (const t of list) {
    const path = new Path2D();
    t.points.forEach(([x, y], i) => (i === 0 ? path.moveTo(x, y) : path.lineTo(x, y)));
    ctx.lineCap = t.last ? "round" : "butt";
    ctx.strokeStyle = mixed(t.tone, -0.3 + 0.3 * t.lit);
    ctx.lineWidth = t.wide;
    ctx.stroke(path);
    ctx.strokeStyle = mixed(t.tone, 0.85 * t.lit);
    ctx.lineWidth = 0.68 * t.wide;
    ctx.stroke(path);
    if (plain) continue;
    ctx.strokeStyle = mixed(t.tone, 0.16 + 1.15 * t.lit);
    ctx.lineWidth = 0.2 * t.wide;
    ctx.stroke(path);
  }
}

const ringPoints = (z: number, front: number, back: number, wide: number, n: number): Vec[] =>
  Array.from({ length: n }, (_, i): Vec => {
    const turn = (i * 2 * Math.PI) / n;
    return [(front + back) / 2 + ((front - back) / 2) * Math.cos(turn), wide * Math.sin(turn), z];
  });

const filled = (ctx: Ctx, points: readonly Flat[], fill: string) => {
  const path = new Path2D();
  hull(points).forEach(([x, y], i) => (i === 0 ? path.moveTo(x, y) : path.lineTo(x, y)));
  path.closePath();
  ctx.fillStyle = fill;
  ctx.strokeStyle = fill;
  ctx.lineWidth = 0.4;
  ctx.fill(path);
  ctx.stroke(path);
};

/** The body under the head, in a plain shirt. */
function paintBody(ctx: Ctx, drape: Drape, camera: Camera, skin: { base: string; shade: string }) {
  const tall = drape.statureMm;
  const top = camera.axes[2];
  const share = (z: number) => 1 - (top - z) / tall;
  const arms = [1, -1].map((side) => ({
    near: side * camera.toViewer[1],
    draw: () => {
      for (let i = figure.arm.length - 1; i > 0; i--) {
        const rings = [figure.arm[i - 1], figure.arm[i]].flatMap((p) => {
          const [x = 0, y = 0, h = 0, r = 0] = p ?? [];
          const at: Vec = [x * tall, side * y * tall, top - (1 - h) * tall];
          return ringPoints(0, r * tall, -r * tall, r * tall, 14).map((q): Vec => [
            at[0] + q[0],
            at[1] + q[1],
            at[2],
          ]);
        });
        const sleeved = (figure.arm[i]?.[2] ?? 0) >= figure.sleeve - 0.03;
        filled(ctx, rings.map(camera.flat), sleeved ? cloth.edge : skin.base);
      }
    },
  }));
  arms.filter((arm) => arm.near <= 0.3).forEach((arm) => arm.draw());
  for (let i = 1; i < drape.torso.length; i++) {
    const rings = [drape.torso[i - 1], drape.torso[i]].flatMap((s) => {
      const [z = 0, front = 0, back = 0, wide = 0] = s ?? [];
      const own =
        tall *
        (figure.trunk - 0.014 * Math.sin(Math.PI * Math.min(1, Math.max(0, (0.76 - share(z)) / 0.24))));
      const k = Math.min(1, Math.max(0, (0.8 - share(z)) / 0.06));
      return ringPoints(z, front, back, wide + k * k * (3 - 2 * k) * (own - wide), 32);
    });
    const z = drape.torso[i]?.[0] ?? 0;
    if (share(z) < figure.foot - 0.02) break;
    filled(ctx, rings.map(camera.flat), share(z) > figure.neckline - 0.01 ? skin.shade : cloth.base);
  }
  arms.filter((arm) => arm.near > 0.3).forEach((arm) => arm.draw());
}

export interface Painted {
  drape: Drape;
  strands: readonly Strand[];
  tones: readonly HairLight[];
  skin: { base: string; shade: string };
  /** Fewer strokes: small pictures, and a head that turns. */
  plain: boolean;
}

/** Paints the drape where there is no WebGL, and small: head is painted between what hangs behind and before it. */
export function paintDrape(
  ctx: Ctx,
  { drape, strands, tones, skin, plain }: Painted,
  camera: Camera,
  head: () => void,
) {
  const { behind, before } = tubes(drape, strands, tones, camera, plain ? 3 : 2);
  paintTubes(ctx, behind, true);
  paintBody(ctx, drape, camera, skin);
  head();
  paintTubes(ctx, before, plain);
}
