import { describe, expect, it } from "vitest";
import { between, cameraAt, views, type Stance } from "./camera";
import { dot, hull, unit, type Flat, type Vec } from "./vectors";

const axes: Vec = [99, 78, 105];

/** Points of the head, evenly strewn (a Fibonacci lattice). */
const points = Array.from({ length: 400 }, (_, i): Vec => {
  const z = 1 - (2 * i + 1) / 400;
  const turn = i * Math.PI * (3 - Math.sqrt(5));
  const r = Math.sqrt(1 - z * z);
  return [axes[0] * r * Math.cos(turn), axes[1] * r * Math.sin(turn), axes[2] * z];
});

const stances: Stance[] = [...Object.values(views), { lon: 146, lat: 30 }, { lon: -200, lat: -25 }];

describe("a head seen from somewhere", () => {
  it.each(stances)("sees what faces the viewer from $lon, $lat", (stance) => {
    const camera = cameraAt(axes, stance);
    for (const p of points) {
      // Facing is the sign of the outward normal against the direction to the viewer.
      const normal = unit([p[0] / axes[0] ** 2, p[1] / axes[1] ** 2, p[2] / axes[2] ** 2]);
      const seen = dot(normal, camera.toViewer);
      if (Math.abs(seen) > 1e-9) expect(Math.sign(camera.facing(p))).toBe(Math.sign(seen));
    }
  });

  it.each(stances)("draws inside the rim from $lon, $lat", (stance) => {
    const camera = cameraAt(axes, stance);
    const rim = hull(camera.rim().map(camera.flat));
    const inside = ([x, y]: Flat) =>
      rim.every((a, i) => {
        const b = rim[(i + 1) % rim.length] ?? a;
        return (b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0]) > -1; // the rim is a polygon
      });
    for (const p of points) expect(inside(camera.flat(p))).toBe(true);
  });

  it("clips a polygon to the part in sight", () => {
    const camera = cameraAt(axes, views.back);
    const ring: Vec[] = [
      [-90, 20, 30],
      [60, 60, 20],
      [60, 50, 60],
      [-80, 10, 60],
    ];
    const seen = camera.clip(ring);
    expect(seen.length).toBeGreaterThan(2);
    for (const p of seen) expect(camera.facing(p)).toBeGreaterThan(-1e-9);
    expect(camera.clip(ring.map(([x, y, z]): Vec => [Math.abs(x) + 50, y, z]))).toEqual([]);
  });

  it("keeps proportions while it turns", () => {
    for (const stance of stances) {
      const camera = cameraAt(axes, stance);
      const up = camera.flat([0, 0, 100]);
      const across = camera.flat([100, 0, 0]);
      const along = camera.flat([0, 100, 0]);
      // An orthographic view: the squares of the three axes' lengths sum to twice that of one.
      const sum = [up, across, along].reduce((s, [x, y]) => s + x * x + y * y, 0);
      expect(sum).toBeCloseTo(20_000, 6);
    }
  });
});

describe("turning", () => {
  it("goes the short way round", () => {
    expect(between({ lon: 350, lat: 0 }, { lon: 10, lat: 20 }, 0.5)).toEqual({ lon: 360, lat: 10 });
    expect(between({ lon: 10, lat: 0 }, { lon: -10, lat: 0 }, 0.25).lon).toBe(5);
    expect(between({ lon: 720, lat: 0 }, { lon: 90, lat: 0 }, 1).lon).toBe(810);
  });
});
