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
    expect(seen).toHaveLength(1);
    for (const p of seen.flat()) expect(camera.facing(p)).toBeGreaterThan(-1e-9);
    expect(camera.clip(ring.map(([x, y, z]): Vec => [Math.abs(x) + 50, y, z]))).toEqual([]);
  });

  /** A band of scalp from one longitude to another, between two heights (shares of the axis). */
  const band = (from: number, to: number, low: number, high: number): Vec[] => {
    const at = (lon: number, z: number): Vec => {
      const r = Math.sqrt(1 - z * z);
      return [axes[0] * r * Math.cos(lon), axes[1] * r * Math.sin(lon), axes[2] * z];
    };
    const n = 60;
    const steps = Array.from({ length: n + 1 }, (_, i) => from + ((to - from) * i) / n);
    return [...steps.map((lon) => at(lon, low)), ...steps.reverse().map((lon) => at(lon, high))];
  };
  const areaOf = (rings: readonly (readonly Vec[])[], camera: ReturnType<typeof cameraAt>) =>
    rings.reduce((sum, ring) => {
      const flat = ring.map(camera.flat);
      return (
        sum +
        flat.reduce((s, p, i) => {
          const q = flat[(i + 1) % flat.length] ?? p;
          return s + (p[0] * q[1] - q[0] * p[1]) / 2;
        }, 0)
      );
    }, 0);

  // What is seen of a band is told by small pieces of it, which are in sight or not.
  it.each([
    ["ear to ear behind, from the side", 0.5, 2 * Math.PI - 0.5, 0.3, 0.5, views.left],
    ["ear to ear behind, from the top", 0.5, 2 * Math.PI - 0.5, -0.2, 0.1, { lon: 180, lat: 60 }],
    ["all but round, from below", 0.2, 6.1, -0.3, 0, { lon: 150, lat: -30 }],
    ["its two ends in sight, not its middle", 0.3, 2 * Math.PI - 0.3, 0.1, 0.3, views.front],
  ] as const)("leaves no wedge bare at the rim: %s", (_, from, to, low, high, stance) => {
    const camera = cameraAt(axes, stance);
    const whole = band(from, to, low, high);
    let pieces = 0;
    const [across, up] = [300, 12];
    for (let i = 0; i < across; i++)
      for (let k = 0; k < up; k++) {
        const lon = (n: number) => from + ((to - from) * n) / across;
        const z = (n: number) => low + ((high - low) * n) / up;
        const piece = band(lon(i), lon(i + 1), z(k), z(k + 1));
        if (piece.every((p) => camera.facing(p) >= 0)) pieces += Math.abs(areaOf([piece], camera));
      }
    for (const ring of [whole, [...whole].reverse()]) {
      const seen = camera.clip(ring);
      for (const p of seen.flat()) expect(camera.facing(p)).toBeGreaterThan(-1e-6);
      expect(Math.abs(areaOf(seen, camera)) / pieces).toBeGreaterThan(0.99);
      expect(Math.abs(areaOf(seen, camera)) / pieces).toBeLessThan(1.03);
    }
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
