import { describe, expect, it } from "vitest";
import { closed, disc, open, smooth } from "./paths";
import type { Flat } from "./vectors";

const same = (p: Flat) => p;
const numbers = (path: string) => path.match(/-?[\d.]+/g)?.map(Number) ?? [];

describe("paths", () => {
  it("are written to a tenth of a millimetre, near and far", () => {
    // Within the picture and beyond it, where the texts are not kept.
    for (const far of [1, 499.96, 500.04, 9000])
      for (let n = -50; n <= 50; n++) {
        const v = (n * far) / 50 + 0.013;
        const [x, y] = numbers(open([[v, -v]], same));
        expect(x).toBeCloseTo(Math.round(v * 10) / 10, 9);
        expect(y).toBeCloseTo(Math.round(-v * 10) / 10, 9);
      }
  });

  it("keep every point in order", () => {
    const points: Flat[] = [
      [0, 0],
      [10.04, -3.96],
      [10.04, 7],
    ];
    expect(open(points, same)).toBe("M0 0L10 -4L10 7");
    expect(closed(points, same)).toBe("M0 0L10 -4L10 7Z");
    expect(closed(points.slice(1), same)).toBe("");
    expect(open([], same)).toBe("");
  });

  it("go once round a disc", () => {
    expect(disc([5, 5], 2)).toBe("M3 5a2 2 0 1 0 4 0a2 2 0 1 0 -4 0Z");
  });

  it("round the corners off through the middles of the sides", () => {
    const square: Flat[] = [
      [0, 0],
      [8, 0],
      [8, 8],
      [0, 8],
    ];
    expect(smooth(square)).toBe("M0 4Q0 0 4 0Q8 0 8 4Q8 8 4 8Q0 8 0 4Z");
    expect(smooth([])).toBe("");
  });
});
