import { add, cross, dot, mix, scale, unit, vec, type Flat, type Vec } from "./vectors";

/** Where the viewer stands: longitude from the face towards the client's left and latitude, degrees. */
export interface Stance {
  lon: number;
  lat: number;
}

export const views = {
  top: { name: "Top", key: "1", lon: 180, lat: 90 },
  back: { name: "Back", key: "2", lon: 180, lat: 12 },
  left: { name: "Left", key: "3", lon: 90, lat: 8 },
  right: { name: "Right", key: "4", lon: 270, lat: 8 },
  front: { name: "Front", key: "5", lon: 0, lat: 14 },
} as const;

export type View = keyof typeof views;

/** Behind the client's left shoulder, where a stylist starts. */
export const startStance: Stance = { lon: 146, lat: 30 };

/** An orthographic view of a head with the given semi-axes (mm). */
export interface Camera {
  axes: Vec;
  toViewer: Vec;
  light: Vec;
  /** The place of a point on the picture, mm, y down. */
  flat: (p: Vec) => Flat;
  /** The place of the scalp seen at a place of the picture; none beside the head. */
  under: (p: Flat) => Vec | undefined;
  /** 1 facing the viewer, 0 on the rim, negative out of sight; for points of the scalp. */
  facing: (p: Vec) => number;
  /** The parts of a polygon of scalp in sight, bounded by the rim where it goes out of sight. */
  clip: (ring: readonly Vec[]) => Vec[][];
  /** The stretches of a line on the scalp in sight. */
  clipLine: (line: readonly Vec[]) => Vec[][];
  /** The rim of the head. */
  rim: () => Vec[];
}

export function cameraAt(axes: readonly number[], stance: Stance): Camera {
  const [lon, lat] = [(stance.lon * Math.PI) / 180, (stance.lat * Math.PI) / 180];
  const [sinLon, cosLon, sinLat, cosLat] = [Math.sin(lon), Math.cos(lon), Math.sin(lat), Math.cos(lat)];
  const toViewer: Vec = [cosLat * cosLon, cosLat * sinLon, sinLat];
  const right: Vec = [-sinLon, cosLon, 0];
  const up = cross(toViewer, right);
  const [a, b, c] = vec(axes);
  const divide = (p: Vec): Vec => [p[0] / a, p[1] / b, p[2] / c];
  // On an ellipsoid the border between what is and is not in sight is a plane.
  const border = unit(divide(toViewer));
  const facing = (p: Vec) => dot(divide(p), border);

  const crossing = (p: Vec, q: Vec, fp: number, fq: number) => mix(p, q, fp / (fp - fq));
  // The rim runs counter-clockwise, seen by the viewer, from one of these to the other.
  const e1 = unit(cross(border, [0.3, 0.5, 0.81]));
  const e2 = cross(border, e1);
  const onRim = (angle: number): Vec => {
    const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
    return [
      a * (cos * e1[0] + sin * e2[0]),
      b * (cos * e1[1] + sin * e2[1]),
      c * (cos * e1[2] + sin * e2[2]),
    ];
  };
  const angleOf = (p: Vec) => {
    const u = divide(p);
    return Math.atan2(dot(u, e2), dot(u, e1));
  };
  return {
    axes: [a, b, c],
    toViewer,
    light: unit([
      0.75 * toViewer[0] + 0.7 * up[0] - 0.4 * right[0],
      0.75 * toViewer[1] + 0.7 * up[1] - 0.4 * right[1],
      0.75 * toViewer[2] + 0.7 * up[2] - 0.4 * right[2],
    ]),
    flat: (p) => [dot(p, right), -dot(p, up)],
    under: ([x, y]) => {
      // Where the line of sight meets |p ÷ axes| = 1, on the near side.
      const from = divide(add(scale(x, right), scale(-y, up)));
      const way = divide(toViewer);
      const [q, h] = [dot(way, way), dot(from, way)];
      const root = h * h - q * (dot(from, from) - 1);
      if (root < 0) return undefined;
      const far = (Math.sqrt(root) - h) / q;
      return add(add(scale(x, right), scale(-y, up)), scale(far, toViewer));
    },
    facing,
    clip: (ring) => clipped(ring, { facing, crossing, angleOf, onRim }),
    clipLine: (line) => {
      const out: Vec[][] = [];
      let open: Vec[] | undefined;
      line.forEach((p, i) => {
        const now = facing(p);
        const prev = line[i - 1];
        const before = prev ? facing(prev) : now;
        if (now >= 0) {
          if (!open) out.push((open = prev ? [crossing(prev, p, before, now)] : []));
          open.push(p);
        } else if (open) {
          if (prev) open.push(crossing(prev, p, before, now));
          open = undefined;
        }
      });
      return out;
    },
    rim: () => Array.from({ length: 90 }, (_, i) => onRim((i * Math.PI) / 45)),
  };
}

/** A camera as a mirror shows it: left and right change sides. */
export const mirrored = (camera: Camera): Camera => ({
  ...camera,
  flat: (p) => {
    const [x, y] = camera.flat(p);
    return [-x, y];
  },
  under: ([x, y]) => camera.under([-x, y]),
});

interface Rim {
  facing: (p: Vec) => number;
  crossing: (p: Vec, q: Vec, fp: number, fq: number) => Vec;
  angleOf: (p: Vec) => number;
  onRim: (angle: number) => Vec;
}

/** A stretch of an outline in sight, from where it comes over the rim to where it goes under. */
interface Stretch {
  points: Vec[];
  from: number;
  to: number;
}

const wholeTurn = 2 * Math.PI;
const rimStep = 0.06; // radians: about 6 mm

/**
 * The parts of a polygon in sight (Weiler and Atherton's way): where its outline goes out of
 * sight, the part is bounded by the rim up to where the next stretch comes into sight. A
 * straight line between the two would leave a wedge of the head bare.
 */
function clipped(ring: readonly Vec[], { facing, crossing, angleOf, onRim }: Rim): Vec[][] {
  const seen = ring.map(facing);
  if (seen.every((f) => f >= 0)) return ring.length === 0 ? [] : [[...ring]];
  const turned = counterClockwise(ring) ? ring : [...ring].reverse();
  if (turned !== ring) seen.reverse();
  const n = turned.length;
  const stretches: Stretch[] = [];
  for (let i = 0; i < n; i++) {
    const [p, q, fp, fq] = [turned[i], turned[(i + 1) % n], seen[i] ?? 0, seen[(i + 1) % n] ?? 0];
    if (!p || !q || fp >= 0 || fq < 0) continue; // not where it comes into sight
    const points = [crossing(p, q, fp, fq)];
    let [k, last, before] = [(i + 1) % n, q, fq];
    for (;;) {
      points.push(last);
      k = (k + 1) % n;
      const [next, now] = [turned[k] ?? last, seen[k] ?? 0];
      if (now < 0) {
        points.push(crossing(last, next, before, now));
        break;
      }
      [last, before] = [next, now];
    }
    stretches.push({
      points,
      from: angleOf(points[0] ?? p),
      to: angleOf(points[points.length - 1] ?? p),
    });
  }
  const out: Vec[][] = [];
  const left = new Set(stretches);
  for (const start of stretches) {
    if (!left.has(start)) continue;
    const part: Vec[] = [];
    for (let at = start; left.has(at);) {
      left.delete(at);
      part.push(...at.points);
      const { to }: Stretch = at;
      const ahead = (s: Stretch) => (((s.from - to) % wholeTurn) + wholeTurn) % wholeTurn;
      const next: Stretch = stretches.reduce((a, b) => (ahead(b) < ahead(a) ? b : a));
      const gap = ahead(next);
      // All the way round is a rounding error of none at all.
      if (gap < 0.9 * wholeTurn)
        for (let step = rimStep; step < gap; step += rimStep) part.push(onRim(to + step));
      at = next;
    }
    out.push(part);
  }
  return out;
}

/** Whether a polygon of scalp runs counter-clockwise, seen from outside the head. */
function counterClockwise(ring: readonly Vec[]): boolean {
  let [area, middle]: [Vec, Vec] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  ring.forEach((p, i) => {
    area = add(area, cross(p, ring[(i + 1) % ring.length] ?? p));
    middle = add(middle, p);
  });
  return dot(area, middle) > 0;
}

/** The stance a share f of the way from one to another, the short way round. */
export function between(from: Stance, to: Stance, f: number): Stance {
  const turn = ((((to.lon - from.lon) % 360) + 540) % 360) - 180;
  return { lon: from.lon + f * turn, lat: from.lat + f * (to.lat - from.lat) };
}
