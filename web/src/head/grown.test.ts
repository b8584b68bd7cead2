import { describe, expect, it } from "vitest";
import { fallAt, strand } from "./grown";
import { dot, unit, type Vec } from "./vectors";

const axes: Vec = [99, 78, 105];

/** Places of the scalp all over but under its rim, where hair hangs free (a Fibonacci lattice). */
const places = Array.from({ length: 400 }, (_, i): Vec => {
  const z = 0.98 - (1.38 * i) / 400;
  const turn = i * Math.PI * (3 - Math.sqrt(5));
  const r = Math.sqrt(1 - z * z);
  return [axes[0] * r * Math.cos(turn), axes[1] * r * Math.sin(turn), axes[2] * z];
});

describe("hair that lies on a head", () => {
  it("falls along the scalp, never upward, and never across the middle on top", () => {
    for (const at of places) {
      const fall = fallAt(axes, at);
      const normal = unit([at[0] / axes[0] ** 2, at[1] / axes[1] ** 2, at[2] / axes[2] ** 2]);
      expect(Math.abs(dot(fall, normal))).toBeLessThan(1e-9);
      expect(fall[2]).toBeLessThanOrEqual(1e-9);
      if (Math.abs(at[1]) > 1 && normal[2] > 0.5) expect(Math.sign(fall[1])).toBe(Math.sign(at[1]));
    }
  });

  it.each([0, 1, 2.5, 9, 14.3, 40])("is %d mm long where it has grown so much, just off the scalp", (mm) => {
    for (const at of places) {
      const points = strand(axes, at, mm);
      let long = 0;
      points.forEach((p, i) => {
        const off = Math.hypot(p[0] / axes[0], p[1] / axes[1], p[2] / axes[2]);
        expect(off).toBeGreaterThan(1.005);
        expect(off).toBeLessThan(1.02);
        const before = points[i - 1];
        if (before) long += Math.hypot(p[0] - before[0], p[1] - before[1], p[2] - before[2]);
      });
      expect(Math.abs(long - mm)).toBeLessThan(0.06 * mm + 0.2);
    }
  });
});
