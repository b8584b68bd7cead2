import { hairTones, skinTones, type HairTone, type SkinTone } from "../lib/preferences";
import { bust, type BustPart } from "./bust";
import type { Camera } from "./camera";
import type { Pictured } from "./drawn";
import type { Class } from "./reading";
import { paintBase, paintLying } from "./paintBase";
import { dot, type Flat, type Vec } from "./vectors";

/** How a head is painted. */
export interface Look {
  hair: HairTone;
  skin: SkinTone;
  /** Small pictures leave strands and lights out and draw parts wider; a head that moves leaves them out. */
  detail: "full" | "moving" | "small";
  /** Colours and marks sections by what they are, in place of hair. */
  classes?: ReadonlyMap<string, Class> | undefined;
  /** The same of hooks, in their order. */
  hooks?: readonly Class[] | undefined;
  /** Sections and cornrows to ring, such as those of a notice. */
  marked?: ReadonlySet<string> | undefined;
  /** Sections and hooks picked to read or to change. */
  chosen?: ReadonlySet<string> | undefined;
}

type Ctx = CanvasRenderingContext2D;

const marigold = "#e0a02c";
const thread = "#f3d7a2";

/**
 * Paints a parted head; the unit of ctx is 1 mm, its origin the middle of the head. Combed hair and
 * lights on the cornrows are painted once the head rests and kept; it tells whether they are still to come.
 */
export function paintHead(
  ctx: Ctx,
  { head, layout, sections, base, lying }: Pictured,
  camera: Camera,
  look: Look,
  rests = false,
): boolean {
  const skin = skinTones[look.skin];
  const hair = hairTones[look.hair];
  const small = look.detail === "small";
  const { flat } = camera;
  ctx.lineJoin = "round";
  ctx.lineCap = "round";
  const tones = toneTable(hair.dark, hair.light);
  const lit = (normal: Vec) => Math.max(0, Math.min(1, 0.1 + 0.9 * dot(normal, camera.light)));
  const bare = bustAt(head, camera);
  paintBust(ctx, bare, "behind", look.skin);

  // What stays loose.
  for (const ring of base.leftOut)
    for (const part of camera.clip(ring)) hatch(ctx, part.map(flat), skin.base, rgb(hair.light));

  // The base: scalp of the cornrows, then the plaits on it.
  const owed = paintPlaits(ctx, base, camera, look, rests);
  ctx.strokeStyle = "rgb(243 215 162 / 0.5)";
  ctx.beginPath();
  for (const [p, q] of base.mesh)
    if (camera.facing(p) > 0.06 && camera.facing(q) > 0.06) trace(ctx, [p, q], flat);
  ctx.stroke();
  const thin = base.plaits.length > 0 ? Math.min(...base.plaits.map((p) => 0.45 * p.half)) : 1.5;
  const dotSize = small
    ? Math.max(thin, 0.75 / ctx.getTransform().a)
    : look.hooks
      ? 2.6
      : Math.min(1.5, thin);
  paintHooks(ctx, base.hooks, camera, dotSize, look);

  // Sections, then what lies on them.
  ctx.strokeStyle = look.classes ? skin.shade : skin.scalp;
  ctx.lineWidth = small ? 3 : 1.7;
  const seen = [];
  for (const s of sections) {
    const facing = camera.facing(s.root);
    if (facing + s.reach < 0) continue;
    const rings = facing > s.reach ? [s.ring] : camera.clip(s.ring);
    if (rings.length === 0) continue;
    const of = look.classes?.get(s.id);
    ctx.fillStyle = of?.fill ?? tones(0.72 * lit(s.normal));
    rings.forEach((r) => fillRing(ctx, r, flat));
    seen.push({ s, facing, rings, of });
  }
  ctx.strokeStyle = skin.scalp;
  ctx.lineWidth = small ? 3.6 : 2.6;
  ctx.beginPath();
  for (const line of [layout.partLine, layout.earToEar])
    camera.clipLine(line).forEach((stretch) => trace(ctx, stretch, flat));
  ctx.stroke();
  for (const { s, facing, of } of seen) {
    if (facing < 0.08) continue;
    const root = flat(s.root);
    if (of) {
      if (facing > 0.25) mark(ctx, of, root, Math.min(9, 46 * s.reach));
      continue;
    }
    if (look.detail === "full") {
      ctx.strokeStyle = `rgb(${hair.light.join(" ")} / 0.66)`;
      ctx.lineWidth = 0.6;
      ctx.beginPath();
      for (const strand of s.strands()) {
        if (camera.facing(strand.from) <= 0) continue;
        ctx.moveTo(...flat(strand.from));
        ctx.quadraticCurveTo(...flat(strand.via), ...root);
      }
      ctx.stroke();
    }
  }
  if (lying.length > 0 && !look.classes)
    paintLying(ctx, lying, camera, { ...hair, scalp: skin.scalp, part: 1.4, plain: true });
  for (const { s, facing, of } of seen) {
    if (facing < 0.08 || of) continue;
    const root = flat(s.root);
    const r = small ? Math.max(1.8, s.plait / 2) : s.plait / 2;
    disc(ctx, root, r, rgb(hair.dark));
    if (look.detail !== "full") continue;
    ctx.strokeStyle = "rgb(0 0 0 / 0.35)";
    ctx.lineWidth = 0.5;
    ctx.stroke();
    disc(ctx, [root[0] - r * 0.25, root[1] - r * 0.3], r * 0.34, "rgb(255 255 255 / 0.4)");
  }

  // Rings round what is marked and picked.
  for (const { s, rings } of seen) {
    if (look.chosen?.has(s.id)) {
      ctx.strokeStyle = marigold;
      ctx.lineWidth = 2.2;
      ctx.fillStyle = "rgb(224 160 44 / 0.28)";
      rings.forEach((r) => fillRing(ctx, r, flat));
    }
    if (look.marked?.has(s.id)) {
      ctx.strokeStyle = marigold;
      ctx.lineWidth = 1.4;
      ctx.setLineDash([3.2, 2]);
      ctx.beginPath();
      rings.forEach((r) => trace(ctx, r, flat, true));
      ctx.stroke();
      ctx.setLineDash([]);
    }
  }
  paintBust(ctx, bare, "before", look.skin);
  bare.times++;
  return owed;
}

/** Cornrows as they were painted at rest, by their base and by where the camera stands. */
const restingBases = new WeakMap<Pictured["base"], WeakMap<Camera, Layer>>();

/**
 * Paints the base. In full it is painted once, when the head rests, and then comes from a picture of it: a
 * slider repaints and a head turns with plain strokes. Tells whether the full one is still to come.
 */
function paintPlaits(ctx: Ctx, base: Pictured["base"], camera: Camera, look: Look, rests: boolean): boolean {
  if (base.plaits.length + base.under.length === 0) return false;
  const [hair, skin] = [hairTones[look.hair], skinTones[look.skin]];
  const small = look.detail === "small";
  const as = { ...hair, scalp: skin.scalp, part: small ? 2.4 : 1.4 };
  if (look.detail !== "full") {
    paintBase(ctx, base, camera, { ...as, plain: true });
    return false;
  }
  const to = ctx.getTransform();
  const { width, height } = ctx.canvas;
  const of = [look.hair, look.skin, width, height, to.a, to.e, to.f].join(" ");
  const kept = restingBases.get(base) ?? new WeakMap<Camera, Layer>();
  let layer = kept.get(camera);
  if (layer?.of !== of) {
    if (!rests) {
      // While a window is resized the picture there is stands in for the one to come.
      if (layer?.as === as.dark) placeLayer(ctx, layer);
      else paintBase(ctx, base, camera, { ...as, plain: true });
      return true;
    }
    layer = layerOf(ctx, of, (own) => paintBase(own, base, camera, { ...as, plain: false }));
    layer.as = as.dark;
    restingBases.set(base, kept.set(camera, layer));
  }
  placeLayer(ctx, layer);
  return false;
}

/** Paints a picture where what it shows belongs now, larger or smaller than it was made. */
function placeLayer(ctx: Ctx, { canvas, made }: Layer) {
  const to = ctx.getTransform();
  const by = to.a / made.a;
  ctx.setTransform(by, 0, 0, by, to.e - by * made.e, to.f - by * made.f);
  ctx.drawImage(canvas, 0, 0);
  ctx.setTransform(to);
}

/** A picture as large as a canvas and placed as it is. */
function layerOf(ctx: Ctx, of: string, paint: (own: Ctx) => void): Layer {
  const layer: Layer = { of, canvas: document.createElement("canvas"), made: ctx.getTransform() };
  [layer.canvas.width, layer.canvas.height] = [ctx.canvas.width, ctx.canvas.height];
  const own = layer.canvas.getContext("2d");
  if (own) {
    own.setTransform(ctx.getTransform());
    [own.lineJoin, own.lineCap] = ["round", "round"];
    paint(own);
  }
  return layer;
}

const rgb = (c: readonly number[]) => `rgb(${c.join(" ")})`;

/** Tones between two colours, made once for every sixty-fourth. */
function toneTable(dark: readonly number[], light: readonly number[]) {
  const made: string[] = [];
  return (f: number) => {
    const step = Math.round(Math.max(0, Math.min(1.2, f)) * 64);
    return (made[step] ??= `rgb(${[0, 1, 2]
      .map((i) => Math.round((dark[i] ?? 0) + (step / 64) * ((light[i] ?? 0) - (dark[i] ?? 0))))
      .join(" ")})`);
  };
}

function trace(ctx: Ctx, points: readonly Vec[], flat: (p: Vec) => Flat, closed = false) {
  points.forEach((p, i) => {
    const [x, y] = flat(p);
    if (i === 0) ctx.moveTo(x, y);
    else ctx.lineTo(x, y);
  });
  if (closed) ctx.closePath();
}

function fillRing(ctx: Ctx, ring: readonly Vec[], flat: (p: Vec) => Flat) {
  ctx.beginPath();
  trace(ctx, ring, flat, true);
  ctx.fill();
  ctx.stroke();
}

function disc(ctx: Ctx, [x, y]: Flat, r: number, fill: string) {
  ctx.beginPath();
  ctx.arc(x, y, r, 0, 2 * Math.PI);
  ctx.fillStyle = fill;
  ctx.fill();
}

/** Hooks as dots; by class each kind has a colour and a shape of its own: round, square, pointed. */
function paintHooks(ctx: Ctx, hooks: readonly Vec[], camera: Camera, size: number, look: Look) {
  hooks.forEach((p, i) => {
    if (camera.facing(p) <= 0.06) return;
    const [x, y] = camera.flat(p);
    const of = look.hooks?.[i];
    ctx.beginPath();
    switch (of ? Number(of.key) % 3 : 0) {
      case 1:
        ctx.rect(x - 0.85 * size, y - 0.85 * size, 1.7 * size, 1.7 * size);
        break;
      case 2:
        ctx.moveTo(x, y - 1.2 * size);
        ctx.lineTo(x + 1.1 * size, y + 0.8 * size);
        ctx.lineTo(x - 1.1 * size, y + 0.8 * size);
        ctx.closePath();
        break;
      default:
        ctx.arc(x, y, size, 0, 2 * Math.PI);
    }
    ctx.fillStyle = of?.fill ?? thread;
    ctx.fill();
    const picked = look.chosen?.has(hookKey(i)) ?? false;
    ctx.strokeStyle = picked ? marigold : "rgb(0 0 0 / 0.45)";
    ctx.lineWidth = picked ? 1.8 : 0.4;
    ctx.stroke();
  });
}

/** The name under which hook i of all is picked. */
export const hookKey = (i: number) => `hook/${i}`;

function mark(ctx: Ctx, of: Class, [x, y]: Flat, size: number) {
  ctx.font = `700 ${size}px "Bricolage Grotesque Variable", sans-serif`;
  ctx.textAlign = "center";
  ctx.textBaseline = "middle";
  ctx.fillStyle = of.ink;
  ctx.fillText(of.mark, x, y);
}

/** Scalp whose hair stays loose: hatched. */
function hatch(ctx: Ctx, ring: readonly Flat[], ground: string, line: string) {
  const [xs, ys] = [ring.map((p) => p[0]), ring.map((p) => p[1])];
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
  ctx.save();
  ctx.beginPath();
  ring.forEach(([x, y], i) => (i === 0 ? ctx.moveTo(x, y) : ctx.lineTo(x, y)));
  ctx.closePath();
  ctx.fillStyle = ground;
  ctx.fill();
  ctx.clip();
  const slope = Math.tan(Math.PI / 6);
  const rise = slope * (right - left);
  ctx.beginPath();
  for (let y = Math.floor((top - rise) / 5) * 5; y < bottom; y += 5) {
    ctx.moveTo(left, y);
    ctx.lineTo(right, y + rise);
  }
  ctx.strokeStyle = line;
  ctx.lineWidth = 1.3;
  ctx.stroke();
  ctx.restore();
}

type Skin = (typeof skinTones)[SkinTone];

/** A head without its hair from where a camera stands. While it stands still, hair alone changes. */
interface StandingBust {
  behind: BustPart[];
  before: BustPart[];
  /** How often it was painted. */
  times: number;
  layers: { behind?: Layer; before?: Layer };
}

interface Layer {
  of: string;
  canvas: HTMLCanvasElement;
  /** Where its mm lay when it was made. */
  made: DOMMatrix;
  /** The hair it shows. */
  as?: readonly number[];
}

const busts = new WeakMap<Camera, StandingBust>();

function bustAt(head: Pictured["head"], camera: Camera): StandingBust {
  let made = busts.get(camera);
  if (!made) busts.set(camera, (made = { ...bust(head, camera), times: 0, layers: {} }));
  return made;
}

/** Paints a side of the bust; what is painted again and again comes from a picture of it. */
function paintBust(ctx: Ctx, bare: StandingBust, side: "behind" | "before", tone: SkinTone) {
  const skin = skinTones[tone];
  if (bare.times === 0) {
    bare[side].forEach((p) => paintBustPart(ctx, p, skin));
    return;
  }
  const to = ctx.getTransform();
  const { width, height } = ctx.canvas;
  const of = [tone, width, height, to.a, to.e, to.f].join(" ");
  let layer = bare.layers[side];
  if (layer?.of !== of) {
    layer = layerOf(ctx, of, (own) => bare[side].forEach((p) => paintBustPart(own, p, skin)));
    bare.layers[side] = layer;
  }
  placeLayer(ctx, layer);
}

function paintBustPart(ctx: Ctx, part: BustPart, skin: Skin) {
  const path = new Path2D(part.path);
  ctx.globalAlpha = part.opacity;
  if (part.tone !== "line") {
    ctx.fillStyle = part.tone === "skin" || part.tone === "ear" ? face(ctx, skin) : neck(ctx, skin);
    ctx.fill(path);
  }
  const width = { skin: 0, neck: 0, hollow: 0, ear: 1.2, line: 2.2 }[part.tone];
  if (width > 0) {
    ctx.strokeStyle = skin.shade;
    ctx.lineWidth = width;
    ctx.stroke(path);
  }
  ctx.globalAlpha = 1;
}

function face(ctx: Ctx, skin: Skin) {
  const g = ctx.createRadialGradient(-38, -40, 0, -38, -40, 210);
  g.addColorStop(0, skin.light);
  g.addColorStop(0.55, skin.base);
  g.addColorStop(1, skin.shade);
  return g;
}

function neck(ctx: Ctx, skin: Skin) {
  const g = ctx.createLinearGradient(0, 50, 0, 140);
  g.addColorStop(0, skin.shade);
  g.addColorStop(0.5, skin.base);
  g.addColorStop(0.8, skin.base); // below the chin
  g.addColorStop(1, `${skin.base}00`);
  return g;
}
