import { describe, expect, it } from "vitest";
import type { Drape, Form } from "../../api/types";
import { cameraAt, views } from "../camera";
import type { Pictured } from "../drawn";
import type { Vec } from "../vectors";
import { figureMesh } from "./figure";
import { paintDrape } from "./paint";
import { gauge, hash, strandsOf, widthAt } from "./strands";

const axes: Vec = [99, 78, 105];

/** Forty pieces of half a metre down the back, over a plain body. */
const drape = {
  style: "down",
  statureMm: 1650,
  vertexMm: 105,
  torso: [
    [-60, 5, -60, 52],
    [-130, 20, -75, 60],
    [-195, 40, -114, 178],
    [-300, 100, -128, 219],
    [-700, 85, -100, 216],
    [-900, 85, -115, 216],
  ],
  face: [
    [10, 98, -20, 75],
    [-60, 95, -15, 60],
    [-117, 75, 30, 22],
  ],
  pieces: Array.from({ length: 40 }, (_, i) => {
    const y = -60 + 3 * i;
    return {
      piece: i % 2,
      place: i,
      liftMm: i % 5,
      thickMm: 8,
      points: [
        [-60, y, 80],
        [-100, y, 0],
        [-118, y, -120],
        [-135, y, -260],
        [-140, y, -420],
      ],
    };
  }),
} as unknown as Drape;

const forms: Form[] = ["soft-loc", "curly-bulk"];
const lengthOf = (points: readonly Vec[]) =>
  points.reduce((sum, p, i) => {
    const before = points[i - 1] ?? p;
    return sum + Math.hypot(p[0] - before[0], p[1] - before[1], p[2] - before[2]);
  }, 0);

describe("strands of a drape", () => {
  const strands = strandsOf(drape, forms, axes, 7);

  it("are the same every time, and no two alike", () => {
    expect(strandsOf(drape, forms, axes, 7)).toEqual(strands);
    const [first, third] = [strands[0], strands[2]];
    expect(first?.points.map((p) => p[2])).not.toEqual(third?.points.map((p) => p[2]));
    for (let i = 0; i < 200; i++) {
      expect(hash(i, 3)).toBeGreaterThanOrEqual(0);
      expect(hash(i, 3)).toBeLessThanOrEqual(1);
    }
  });

  it("keep out of the body", () => {
    for (const s of strands) for (const p of s.points) expect(gauge(drape.torso, ...p)).toBeGreaterThan(0.97);
  });

  it("hang as long as their pieces, a little uneven, and straight ones straighter than curls", () => {
    const ways = (piece: number) => strands.filter((s) => s.piece === piece).map((s) => lengthOf(s.points));
    const straight = lengthOf(drape.pieces[0]?.points.map(([x = 0, y = 0, z = 0]): Vec => [x, y, z]) ?? []);
    for (const l of ways(0)) {
      expect(l).toBeGreaterThan(0.93 * straight);
      expect(l).toBeLessThan(1.1 * straight);
    }
    for (const l of ways(1)) expect(l).toBeGreaterThan(1.1 * straight);
  });

  it("taper to their tips", () => {
    const s = strands[0];
    if (!s) throw new Error("no strand");
    expect(widthAt(s, 0)).toBeLessThan(widthAt(s, 0.4));
    expect(widthAt(s, 0.4)).toBe(s.thick);
    expect(widthAt(s, 1)).toBeLessThan(0.6 * s.thick);
  });

  it("are told inside from outside of the body by its slices", () => {
    expect(gauge(drape.torso, -14, 0, -300)).toBeLessThan(1);
    expect(gauge(drape.torso, 0, 219, -300)).toBeCloseTo(1, 1);
    expect(gauge(drape.torso, 0, 0, 50)).toBe(9);
  });
});

const tone = [0.5, 0.4, 0.3] as const;
const pictured = {
  head: { axesMm: axes, landmarks: { earTop: [-5, 77, -15] } },
  sections: [
    {
      ring: [
        [0, 0, 105],
        [30, 0, 100],
        [30, 30, 95],
        [0, 30, 98],
      ],
    },
  ],
  base: { bands: [] },
} as unknown as Pictured;

describe("the figure under it", () => {
  const mesh = figureMesh(drape, pictured, { skin: tone, shade: tone, cloth: tone, own: tone, ink: tone });

  it("is sound triangles, with ways out of length 1", () => {
    const corners = mesh.corners.length / 9;
    expect(Number.isInteger(corners)).toBe(true);
    expect(mesh.corners.every(Number.isFinite)).toBe(true);
    expect(mesh.triangles.length % 3).toBe(0);
    expect(Math.max(...mesh.triangles)).toBeLessThan(corners);
    let off = 0;
    for (let i = 0; i < corners; i++) {
      const [x = 0, y = 0, z = 0] = mesh.corners.slice(9 * i + 3, 9 * i + 6);
      const l = Math.hypot(x, y, z);
      if (l > 0) off = Math.max(off, Math.abs(l - 1)); // a pole has none
    }
    expect(off).toBeLessThan(1e-6);
  });

  it("is the same on both sides, but for the section", () => {
    const wide = (side: 1 | -1) => {
      let most = 0;
      for (let i = 1; i < mesh.corners.length; i += 9) most = Math.max(most, side * (mesh.corners[i] ?? 0));
      return most;
    };
    expect(wide(1)).toBeCloseTo(wide(-1), 3);
  });
});

describe("the painted drape", () => {
  /** A canvas that keeps what is drawn on it, in order. */
  function paper() {
    const log: string[] = [];
    const ctx = {
      stroke: () => log.push("hair"),
      fill: () => log.push("body"),
    } as unknown as CanvasRenderingContext2D;
    return { ctx, log };
  }
  class Path {
    moveTo() {}
    lineTo() {}
    closePath() {}
  }
  const draw = (view: keyof typeof views) => {
    globalThis.Path2D = Path as unknown as typeof Path2D;
    const { ctx, log } = paper();
    paintDrape(
      ctx,
      {
        drape,
        strands: strandsOf(drape, forms, axes, 12),
        tones: [
          { dark: tone, bright: tone },
          { dark: tone, bright: tone },
        ],
        skin: { base: "#000", shade: "#000" },
        plain: true,
      },
      cameraAt(axes, views[view]),
      () => log.push("head"),
    );
    const head = log.indexOf("head");
    return { before: log.slice(0, head), after: log.slice(head + 1) };
  };

  it("paints what hangs down the back behind the body from the front, before it from behind", () => {
    const hair = (list: string[]) => list.filter((x) => x === "hair").length;
    const [front, back] = [draw("front"), draw("back")];
    expect(hair(front.after)).toBeLessThan(0.35 * hair(front.before));
    expect(hair(back.after)).toBeGreaterThan(hair(front.after));
  });
});
