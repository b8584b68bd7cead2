import { describe, expect, it } from "vitest";
import type { Edit, Section, Settings } from "../api/types";
import { direction, hangTogether, joining, mirrored, onBothSides, oneSided, point, withEdits } from "./edits";
import { inside } from "./handwork";

const axes = [99, 77, 105];
const settings = { edits: [], leftOut: [] } as unknown as Settings;
const section = (id: string, neighbours: string[], y: number) =>
  ({ id, neighbours, centroid: point(direction([-60, y, 60], axes), axes) }) as unknown as Section;

describe("changes by hand", () => {
  it("keep places as directions that survive other tapes", () => {
    const d = direction([50, 30, 70], axes);
    expect(Math.hypot(...d)).toBeCloseTo(1, 12);
    const [x, y, z] = point(d, axes);
    expect(Math.hypot(x / 99, y / 77, z / 105)).toBeCloseTo(1, 12);
    expect(direction([x, y, z], axes)).toEqual(d.map((v) => expect.closeTo(v, 12)));
  });

  it("are mirrored but for those on the middle", () => {
    const e: Edit = { kind: "merge", at: [0.6, 0.5, 0.62], with: [0.6, 0.6, 0.53] };
    expect(mirrored(mirrored(e))).toEqual(e);
    expect(onBothSides([e], true)).toHaveLength(2);
    expect(onBothSides([e], false)).toEqual([e]);
    expect(onBothSides([{ kind: "lock", at: [0.6, 0, 0.8] }], true)).toHaveLength(1);
    expect(oneSided([e])).toEqual([mirrored(e)]);
    expect(oneSided(onBothSides([e], true))).toEqual([]);
  });

  it("of one place replace what was said before", () => {
    const pieces = (n: number): Edit => ({ kind: "pieces", at: [0, 0.6, 0.8], pieces: n });
    const once = withEdits(settings, [pieces(2)]);
    expect(withEdits(once, [pieces(3)]).edits).toEqual([pieces(3)]);
    const moved = (x: number): Edit => ({ kind: "move-row", at: [x, 0.6, 0.8], with: [0, 0.6, 0.8] });
    expect(withEdits(withEdits(settings, [moved(0.1)]), [moved(0.2)]).edits).toEqual([moved(0.2)]);
  });

  it("join only what hangs together", () => {
    const [a, b, c] = [section("a", ["b"], 20), section("b", ["a", "c"], 30), section("c", ["b"], 40)];
    expect(joining([a, c, b], axes)).toHaveLength(2);
    expect(hangTogether([a, b, c], axes)).toBe(true);
    expect(hangTogether([a, c], axes)).toBe(false);
    expect(hangTogether([a], axes)).toBe(false);
  });

  it("are drawn round by a lasso of any shape", () => {
    const bay = [
      [0, 0],
      [10, 0],
      [10, 10],
      [5, 4],
      [0, 10],
    ] as const;
    expect(inside([2, 5], bay)).toBe(true);
    expect(inside([5, 7], bay)).toBe(false);
    expect(inside([11, 5], bay)).toBe(false);
  });
});
