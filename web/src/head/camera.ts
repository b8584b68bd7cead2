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
  /** The part of a polygon of scalp in sight. */
  clip: (ring: readonly Vec[]) => Vec[];
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
    clip: (ring) => {
      const out: Vec[] = [];
      let prev = ring[ring.length - 1];
      if (!prev) return out;
      let before = facing(prev);
      for (const p of ring) {
        const now = facing(p);
        if (before < 0 !== now < 0) out.push(crossing(prev, p, before, now));
        if (now >= 0) out.push(p);
        [prev, before] = [p, now];
      }
      return out;
    },
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
    rim: () => {
      const e1 = unit(cross(border, [0.3, 0.5, 0.81]));
      const e2 = cross(border, e1);
      return Array.from({ length: 90 }, (_, i) => {
        const [sin, cos] = [Math.sin((i * Math.PI) / 45), Math.cos((i * Math.PI) / 45)];
        return [
          a * (cos * e1[0] + sin * e2[0]),
          b * (cos * e1[1] + sin * e2[1]),
          c * (cos * e1[2] + sin * e2[2]),
        ];
      });
    },
  };
}

/** The stance a share f of the way from one to another, the short way round. */
export function between(from: Stance, to: Stance, f: number): Stance {
  const turn = ((((to.lon - from.lon) % 360) + 540) % 360) - 180;
  return { lon: from.lon + f * turn, lat: from.lat + f * (to.lat - from.lat) };
}
