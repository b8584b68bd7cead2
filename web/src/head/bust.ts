import drawn from "../../../internal/picture/bust.json";
import type { HeadShape } from "../api/types";
import type { Camera } from "./camera";
import * as paths from "./paths";
import { add, dot, hull, scale, unit, vec, type Flat, type Vec } from "./vectors";

/**
 * The rest of the head, for bearings only: a face, a nose, ears and a neck in
 * proportion to the fitted skull. Drawn by eye; nothing is computed from it.
 */
export interface BustPart {
  key: string;
  path: string;
  tone: "skin" | "neck" | "ear" | "hollow" | "line";
  opacity: number;
}

type Slice = readonly [height: number, front: number, back: number, width: number];
type Spot = readonly [aside: number, up: number];

const four = ([a = 0, b = 0, c = 0, d = 0]: readonly number[]): Slice => [a, b, c, d];
const two = ([a = 0, b = 0]: readonly number[]): Spot => [a, b];

// What the numbers are is told where paper is drawn from them, in internal/picture.
const [faceSlices, neckSlices] = [drawn.face.map(four), drawn.neck.map(four)];
const noseSlices = drawn.nose.map(four);
const earOutline = drawn.ear.map(two);
const features = drawn.paired.map((line) => line.map(two));
const mouth = drawn.mouth.map(two);
const { skullFoot } = drawn;
const averageHalf = 108; // half the length of an average head, mm: that which ears are drawn for

const between = 3; // slices drawn for each that is told

/** Slices run together (Catmull and Rom's spline), so that no edge shows between them. */
function smoothed(slices: readonly Slice[]): Slice[] {
  return slices.flatMap((p, i) => {
    const q = slices[i + 1];
    if (!q) return [p];
    const [before, after] = [slices[i - 1] ?? p, slices[i + 2] ?? q];
    return Array.from({ length: between }, (_, n) => {
      const u = n / between;
      const at = (k: number) => {
        const [a, b, c, d] = [before[k] ?? 0, p[k] ?? 0, q[k] ?? 0, after[k] ?? 0];
        return b + 0.5 * u * (c - a + u * (2 * a - 5 * b + 4 * c - d + u * (3 * (b - c) + d - a)));
      };
      return four([at(0), at(1), at(2), at(3)]);
    });
  });
}

const ringPoints = 28;
const aroundRing = Array.from({ length: ringPoints }, (_, i): Flat => {
  const turn = (2 * i * Math.PI) / ringPoints;
  return [Math.cos(turn), Math.sin(turn)];
});

const ringOf = ([z, front, back, width]: Slice, [a, b]: Vec): Vec[] => {
  const [mid, half] = [(front + back) / 2, (front - back) / 2];
  return aroundRing.map(([cos, sin]): Vec => [a * (mid + half * cos), b * width * sin, a * z]);
};

const [face, neck, nose] = [faceSlices, neckSlices, noseSlices].map(smoothed);

/** What is seen of a body of slices: the hulls of neighbours, filled as one, so that no seam shows. */
function outlineOf(slices: readonly Slice[], camera: Camera): string {
  const rings = slices.map((s) => ringOf(s, camera.axes).map(camera.flat));
  return rings
    .slice(1)
    .map((ring, i) => paths.closed(hull([...(rings[i] ?? []), ...ring]), onPicture))
    .join("");
}

/** The skull's rim as the viewer sees it, and its foot. */
function skull(camera: Camera): Vec[] {
  const [a, b, c] = camera.axes;
  const width = Math.sqrt(1 - skullFoot ** 2);
  const foot = Array.from({ length: 40 }, (_, i): Vec => {
    const turn = (i * Math.PI) / 20;
    return [a * width * Math.cos(turn), b * width * Math.sin(turn), c * skullFoot];
  });
  return [...camera.rim().filter((p) => p[2] >= c * skullFoot), ...foot];
}

/** For points that are on the picture already. */
const onPicture = (p: Flat) => p;

const clamp = (v: number) => Math.max(0, Math.min(1, v));

/** A point of the face at height z (half head lengths) and side y (half breadths), and its normal. */
function onFace(z: number, y: number, axes: Vec): { point: Vec; normal: Vec } {
  const above = faceSlices.findIndex((s) => s[0] < z);
  const [hi, lo] = [faceSlices[Math.max(0, above - 1)], faceSlices[above]];
  if (!hi || !lo) return { point: [axes[0], 0, 0], normal: [1, 0, 0] };
  const f = (hi[0] - z) / (hi[0] - lo[0]);
  const [, front, back, width] = four(hi.map((v, i) => v + f * ((lo[i] ?? v) - v)));
  const [mid, half] = [(front + back) / 2, (front - back) / 2];
  const cos = Math.sqrt(Math.max(0, 1 - (y / width) ** 2));
  return {
    point: [axes[0] * (mid + half * cos), axes[1] * y, axes[0] * z],
    normal: unit([cos / (axes[0] * half), y / width / (axes[1] * width), 0]),
  };
}

export function bust(head: HeadShape, camera: Camera): { behind: BustPart[]; before: BustPart[] } {
  const axes = camera.axes;
  const flat = (points: readonly Vec[]) => points.map(camera.flat);
  const body = (key: string, slices: readonly Slice[], middle: Vec, tone: BustPart["tone"] = "skin") => ({
    part: { key, path: outlineOf(slices, camera), tone, opacity: 1 } satisfies BustPart,
    depth: dot(middle, camera.toViewer),
  });
  const a = axes[0];
  const bodies = [
    body("neck", neck ?? [], [-0.25 * a, 0, -1.1 * a], "neck"),
    body("face", face ?? [], [0.4 * a, 0, -0.5 * a]),
    body("nose", nose ?? [], [a, 0, -0.45 * a]),
    {
      part: {
        key: "skull",
        path: paths.closed(hull(flat(skull(camera))), onPicture),
        tone: "skin",
        opacity: 1,
      } satisfies BustPart,
      depth: 0,
    },
  ].sort((p, q) => p.depth - q.depth);

  const lines: BustPart[] = [];
  const draw = (key: string, points: readonly Spot[]) => {
    const spots = points.map(([y, z]) => onFace(z, y, axes));
    const middle = spots[Math.floor(spots.length / 2)];
    if (!middle) return;
    const opacity =
      clamp(2.2 * dot(middle.normal, camera.toViewer) - 0.15) * clamp(2.5 - 2.8 * camera.toViewer[2]);
    if (opacity > 0)
      lines.push({ key, path: paths.curved(spots.map((s) => camera.flat(s.point))), tone: "line", opacity });
  };
  features.forEach((line, i) => {
    draw(`left${i}`, line);
    draw(
      `right${i}`,
      line.map(([y, z]) => [-y, z] as const),
    );
  });
  draw("mouth", mouth);

  const near: BustPart[] = [];
  const far: BustPart[] = [];
  for (const side of [1, -1]) {
    const top = vec(head.landmarks.earTop);
    const size = axes[0] / averageHalf;
    const middle: Vec = [top[0] - 5 * size, side * (top[1] * 0.93 + 2), top[2] - 25 * size];
    const sheet = (k: number, out: number) =>
      earOutline.map(([x, z]): Vec => add(middle, scale(size, [k * x, side * out * (13 - k * x), k * z])));
    const outward: Vec = unit([0.45, side, 0.1]);
    const shown = dot(outward, camera.toViewer);
    const flare = 0.48;
    // The back of an ear is a rim's thickness behind its front, and runs to where it grows from the head.
    const rim = sheet(0.92, flare).map((p) => add(p, scale(-6 * size, outward)));
    const grown = sheet(0.5, 0).map((p): Vec => [p[0] + 5 * size, p[1] - side * 8 * size, p[2]]);
    (shown > 0 ? near : far).push(
      {
        key: `back${side}`,
        path: paths.smooth(hull(flat([...sheet(1, flare), ...rim, ...grown]))),
        tone: "ear",
        opacity: 1,
      },
      {
        key: `ear${side}`,
        path: paths.smooth(flat(sheet(1, flare))),
        tone: "ear",
        opacity: clamp(shown * 4 - 0.6),
      },
      {
        key: `hollow${side}`,
        path: paths.smooth(flat(sheet(0.6, flare))),
        tone: "hollow",
        opacity: clamp(shown * 1.6) * 0.5,
      },
    );
  }
  const facePlace = bodies.findIndex((b) => b.part.key === "nose") + 1;
  const parts = bodies.map((b) => b.part);
  parts.splice(facePlace, 0, ...lines);
  return { behind: [...far, ...parts], before: near };
}
