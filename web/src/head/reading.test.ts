import { describe, expect, it } from "vitest";
import type { Layout, Section } from "../api/types";
import { kindOf, legend, readings, type Reading } from "./reading";

const reading = (key: string) => readings.find((r) => r.key === key) as Reading;
const classOf = (s: Section, key: string) => reading(key).of(s);

const spread = { min: 20, mean: 25, max: 30 };
const section = (id: string, part: Partial<Section>): Section => ({
  id,
  zone: id.slice(0, 2),
  row: 1,
  index: 1,
  outline: [],
  areaMm2: 600,
  share: 1,
  widthMm: spread,
  heightMm: spread,
  centroid: [0, 0, 0],
  normal: [0, 0, 1],
  hairlineMm: 10,
  partMm: 10,
  seen: false,
  neighbours: [],
  front: false,
  linked: false,
  laid: false,
  locked: false,
  edited: false,
  given: { piece: 0, way: 0, count: 1, place: 0, accents: [] },
  plaitMm: 4,
  stagger: 1,
  ...part,
});

const layout = {
  sections: [
    section("BL1.1", { share: 0.4 }),
    section("BL2.1", { row: 2, share: 1.1, seen: true }),
    section("BL10.1", { row: 10, share: 1.1 }),
    section("FR2.1", { row: 2, share: 1.6 }),
  ],
  tracks: [],
  nets: [],
} as unknown as Layout;

describe("reading the head", () => {
  it("tells sizes apart by the share of the wish", () => {
    const marks = [0.49, 0.5, 0.8, 1.24, 1.25, 1.5].map(
      (share) => classOf(section("BL1.1", { share }), "size").mark,
    );
    expect(marks).toEqual(["−−", "−", "=", "=", "+", "++"]);
  });

  it("gives every class its own mark as well as its colour", () => {
    for (const key of ["size", "zone", "seen"]) {
      const classes = legend(layout, reading(key)).map((l) => l.of);
      expect(new Set(classes.map((c) => c.mark)).size).toBe(classes.length);
      expect(new Set(classes.map((c) => c.fill)).size).toBe(classes.length);
    }
  });

  it("counts every section once, rows in order of number", () => {
    for (const key of ["size", "zone", "row", "seen"])
      expect(legend(layout, reading(key)).reduce((n, l) => n + l.count, 0)).toBe(4);
    expect(legend(layout, reading("row")).map((l) => [l.of.mark, l.count])).toEqual([
      ["1", 1],
      ["2", 2],
      ["10", 1],
    ]);
    expect(legend(layout, reading("size")).map((l) => l.of.mark)).toEqual(["−−", "=", "++"]);
  });

  it("counts what hangs on hooks where a reading tells them apart", () => {
    const piece = (i: number) => kindOf(i, `piece ${i}`);
    const hook = (n: number) => ({
      at: [0, 0, 1] as const,
      given: { piece: n, way: 0, count: 1, place: 0, accents: [] },
    });
    const based = { ...layout, tracks: [{ hooks: [hook(1), hook(1), hook(0)] }] } as unknown as Layout;
    const given = {
      key: "piece",
      name: "Piece",
      of: (s: Section) => piece(s.given.piece),
      ofHook: (h: { given: { piece: number } }) => piece(h.given.piece),
    };
    expect(legend(based, given).map((l) => [l.of.mark, l.count])).toEqual([
      ["A", 5],
      ["B", 2],
    ]);
  });

  it("writes every mark in an ink that can be read on its colour", () => {
    const luminance = (hex: string) => {
      const [r, g, b] = [1, 3, 5].map((i) => {
        const v = parseInt(hex.slice(i, i + 2), 16) / 255;
        return v <= 0.03928 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
      });
      return 0.2126 * (r ?? 0) + 0.7152 * (g ?? 0) + 0.0722 * (b ?? 0);
    };
    const every = [0.4, 0.6, 1, 1.3, 2].map((share) => classOf(section("BL1.1", { share }), "size"));
    for (const zone of ["FL", "FR", "BL", "BR"]) every.push(classOf(section(`${zone}1.1`, {}), "zone"));
    for (const row of [1, 2]) every.push(classOf(section("BL1.1", { row }), "row"));
    for (const seen of [true, false]) every.push(classOf(section("BL1.1", { seen }), "seen"));
    for (let i = 0; i < 12; i++) every.push(kindOf(i, ""));
    for (const { fill, ink } of every) {
      const [a, b] = [luminance(fill), luminance(ink)].sort((x, y) => y - x);
      // WCAG 2.2, success criterion 1.4.3: contrast of at least 4.5 to 1.
      expect(((a ?? 0) + 0.05) / ((b ?? 0) + 0.05)).toBeGreaterThanOrEqual(4.5);
    }
  });
});
