import { describe, expect, it } from "vitest";
import type { Layout } from "../api/types";
import { cameraAt, views } from "./camera";
import { place, spoken } from "./names";
import { drawnBase } from "./cornrows";
import type { Section } from "../api/types";

const axes = [99, 77, 105];
const at = (lon: number, lat: number): [number, number, number] => [
  99 * Math.cos(lat) * Math.cos(lon),
  77 * Math.cos(lat) * Math.sin(lon),
  105 * Math.sin(lat),
];
const line = Array.from({ length: 30 }, (_, i) => at(Math.PI, 1.2 - i * 0.05));
const layout = {
  tracks: [
    {
      id: "T1",
      line,
      outlines: [line.slice(0, 8)],
      widthMm: 20,
      hooks: [line[3], line[9], at(0, 0.5)].map((p) => ({ at: p })),
    },
  ],
  nets: [],
  leftOut: [],
  hairline: [at(0, 0.5), at(0.3, 0.5), at(0.6, 0.4)],
  border: [at(0, 0.6), at(0.3, 0.6), at(0.6, 0.5)],
} as unknown as Layout;

describe("cornrows on the head", () => {
  const base = drawnBase(layout, axes);

  const stations = base.plaits[0]?.stations() ?? [];

  it("are plaits on the scalp, thin where they begin and end, two fifths of their band between", () => {
    const length = line.reduce(
      (sum, p, i) => sum + Math.hypot(...p.map((v, k) => v - (line[i - 1]?.[k] ?? v))),
      0,
    );
    expect(stations.length).toBeGreaterThan(length / 2.2);
    expect(stations.length).toBeLessThan(length / 1.8);
    for (const s of stations) {
      expect(Math.hypot(s.at[0] / 99, s.at[1] / 77, s.at[2] / 105)).toBeCloseTo(1, 6);
      expect(s.along[0] * s.left[0] + s.along[1] * s.left[1] + s.along[2] * s.left[2]).toBeCloseTo(0, 6);
    }
    const middle = stations[Math.floor(stations.length / 2)]?.half ?? 0;
    expect(2 * middle).toBeCloseTo(0.42 * 20, 6);
    expect(stations[0]?.half ?? 0).toBeLessThan(0.5 * middle);
    expect(stations[stations.length - 1]?.half ?? 0).toBeLessThan(0.5 * middle);
  });

  it("show from behind and not from in front", () => {
    const seen = (view: keyof typeof views) => {
      const camera = cameraAt(axes, views[view]);
      return [stations.map((s) => s.at), base.hooks].map(
        (places) => places.filter((p) => camera.facing(p) > 0.06).length,
      );
    };
    expect(seen("back")[0]).toBeGreaterThan(5);
    expect(seen("front")[0]).toBe(0);
    // Two hooks lie behind, one in front.
    expect([seen("back")[1], seen("front")[1]]).toEqual([2, 1]);
  });

  it("under a net show its threads, each once, between neighbours alone", () => {
    const lattice = [at(3, 0.5), at(3.2, 0.5), at(3.1, 0.66), at(2, 0.2)];
    const netted = drawnBase(
      {
        ...layout,
        nets: [
          {
            zone: "T",
            outlines: [],
            areaMm2: 1400,
            plaits: [],
            hooks: lattice.map((p) => ({
              at: p,
              given: { piece: 0, way: 0, count: 1, place: 0, accents: [] },
            })),
          },
        ],
      },
      axes,
    );
    expect(netted.mesh).toHaveLength(3);
  });

  it("leave the edges loose between the hairline and where sections start", () => {
    expect(base.leftOut).toHaveLength(3);
  });
});

describe("a place under the pointer", () => {
  it("is the near point of the scalp, wherever one looks from", () => {
    for (const [lon, lat] of [
      [0, 14],
      [146, 30],
      [270, -20],
      [180, 90],
    ] as const) {
      const camera = cameraAt(axes, { lon, lat });
      for (const p of [at(0.3, 0.7), at(2.5, 0.4), at(4.4, 0.2)]) {
        if (camera.facing(p) < 0.05) continue;
        const under = camera.under(camera.flat(p));
        expect(under).toEqual(p.map((v) => expect.closeTo(v, 6) as number));
      }
      expect(camera.under([300, 0])).toBeUndefined();
    }
  });
});

describe("a section's place in words", () => {
  const given: Section["given"] = { piece: 0, way: 0, count: 2, place: 0, accents: [] };
  const section = (zone: string) =>
    ({
      zone,
      row: 2,
      index: 3,
      widthMm: { mean: 25.4 },
      heightMm: { mean: 25.4 },
      linked: true,
      given,
    }) as Section;
  it("says from where it is counted", () => {
    expect(place(section("BL"))).toBe("row 2 from below, 3rd from the middle part");
    expect(place(section("PR"))).toBe("row 2 from below, 3rd from the hairline");
    expect(place(section("B"))).toBe("row 2 from below, 3rd from the client’s left");
    expect(place(section("R"))).toBe("ring 2 from the hairline, 3rd from the front centre, going left");
    expect(spoken(section("N"), "in")).toContain("1 in wide, 1 in high, linked, 2 pieces");
  });
});
