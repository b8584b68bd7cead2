import { describe, expect, it } from "vitest";
import type { Edit, Layout, Section, Settings } from "../../../api/types";
import {
  centre,
  direction,
  hangTogether,
  joining,
  mirrored,
  onBothSides,
  oneSided,
  point,
  splitting,
  whereabouts,
  withEdits,
  withoutEditsIn,
} from "./edits";
import { inside } from "./lasso";

const axes = [99, 77, 105];
const settings = { edits: [], leftOut: [] } as unknown as Settings;
const section = (id: string, neighbours: string[], y: number) =>
  ({ id, neighbours, centroid: point(direction([-60, y, 60], axes), axes) }) as unknown as Section;

/** A section of the back, 20 mm square. */
const place = (id: string, y: number, z: number) => {
  const at = (dy: number, dz: number) => point(direction([-60, y + dy, z + dz], axes), axes);
  const n = direction([-60 / 99 ** 2, y / 77 ** 2, z / 105 ** 2], [1, 1, 1]);
  return {
    id,
    zone: "BL",
    row: 2,
    index: y,
    centroid: at(0, 0),
    normal: n,
    widthMm: { min: 20, mean: 20, max: 20 },
    heightMm: { min: 20, mean: 20, max: 20 },
    outline: [at(-10, -10), at(10, -10), at(10, 10), at(-10, 10)],
    neighbours: [],
  } as unknown as Section;
};

describe("changes by hand", () => {
  it("keep places as directions that survive other tapes", () => {
    const d = direction([50, 30, 70], axes);
    expect(Math.hypot(...d)).toBeCloseTo(1, 12);
    const [x, y, z] = point(d, axes);
    expect(Math.hypot(x / 99, y / 77, z / 105)).toBeCloseTo(1, 12);
    expect(direction([x, y, z], axes)).toEqual(d.map((v) => expect.closeTo(v, 12) as number));
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

  it("split a section side by side along its row, or one above the other", () => {
    const [a, b] = [place("a", 20, 60), place("b", 45, 60)];
    const layout = { sections: [a, b] } as unknown as Layout;
    const beside = splitting(a, "beside", layout, axes);
    const above = splitting(a, "above", layout, axes);
    const gap = (e: Edit) => {
      const [from, to] = [point(e.at, axes), point(e.with ?? e.at, axes)];
      return [to[0] - from[0], to[1] - from[1], to[2] - from[2]] as const;
    };
    expect(Math.hypot(...gap(beside))).toBeCloseTo(0.44 * 20, 0);
    expect(Math.hypot(...gap(above))).toBeCloseTo(0.44 * 20, 0);
    const across = gap(beside).reduce((sum, v, i) => sum + v * (gap(above)[i] ?? 0), 0);
    expect(Math.abs(across)).toBeLessThan(2);
  });

  it("are taken back where they were made, and only those of their kind", () => {
    const [a, b] = [place("a", 20, 60), place("b", 45, 60)];
    const lock = (s: Section): Edit => ({ kind: "lock", at: centre(s, axes) });
    const left: Edit = { kind: "leave-out", at: centre(a, axes) };
    const all = { ...settings, edits: [lock(a), lock(b), left] };
    expect(withoutEditsIn(all, "lock", [a], axes).edits).toEqual([lock(b), left]);
  });

  it("say about where they are", () => {
    expect(whereabouts([0.9, 0, 0.43])).toBe("in front, middle");
    expect(whereabouts([-0.8, 0.3, 0.5])).toBe("behind, left");
    expect(whereabouts([0, -0.9, 0.43])).toBe("at the side, right");
    expect(whereabouts([0, 0.2, 0.98])).toBe("on top, left");
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
