// @vitest-environment jsdom
import { act } from "react";
import { createRoot } from "react-dom/client";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Layout, Row } from "../api/types";
import { usePreferences } from "../app/preferences";
import { RowGuide } from "./RowGuide";

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });

const row = (zone: string, number: number, parts: number[], offBelowMm: number[]): Row => ({
  zone,
  row: number,
  sections: parts.length + 1,
  lengthMm: 100,
  size: { widthMm: 25.4, heightMm: 25.4 },
  middle: "border",
  lower: { lengthMm: 100, partsMm: parts },
  upper: { lengthMm: 100, partsMm: parts },
  line: [],
  end: [0, 0, 0],
  offBelowMm,
  seen: false,
});

/** The guide open at a zone of two rows; the ways to use it. */
function guide(zone: string) {
  const rows = [row(zone, 1, [25.4, 50.8], []), row(zone, 2, [38.1, 63.5], [-12.7, 12.7])];
  const zones = [{ zone }];
  // The guide reads no more of a layout than its rows and its zones.
  const layout = { rows, zones } as unknown as Layout;
  const root = createRoot(document.body.appendChild(document.createElement("div")));
  act(() => root.render(<RowGuide layout={layout} onClose={() => undefined} />));
  const press = (selector: string) => act(() => document.querySelector<HTMLElement>(selector)?.click());
  return {
    press,
    text: () => document.body.innerText || document.body.textContent,
    /** Where the row starts in the drawing: on the viewer's left or right. */
    starts: () => {
      const drawing = document.querySelector("svg[aria-label='The row, drawn flat']");
      const x = Number(drawing?.querySelector("circle")?.getAttribute("cx"));
      return x < 460 ? "left" : "right";
    },
    end: () => act(() => root.unmount()),
  };
}

it("draws the parts of triangles, two of which may end at one place", () => {
  const complaints = vi.spyOn(console, "error").mockImplementation(() => undefined);
  const rows = [row("BL", 1, [25.4, 25.4, 50.8], []), row("BL", 2, [38.1, 38.1], [12.7, 12.7])];
  const layout = { rows, zones: [{ zone: "BL" }] } as unknown as Layout;
  const root = createRoot(document.body.appendChild(document.createElement("div")));
  act(() => root.render(<RowGuide layout={layout} onClose={() => undefined} />));
  act(() => document.querySelector<HTMLElement>("[aria-label='Row above']")?.click());
  expect(complaints.mock.calls.filter(([text]) => String(text).includes("same key"))).toEqual([]);
  complaints.mockRestore();
  act(() => root.unmount());
});

beforeEach(() => usePreferences.setState({ unit: "in" }));
afterEach(() => (document.body.innerHTML = ""));

describe("the row at hand", () => {
  // From behind, the client’s left is on the viewer's left, and back rows start at the middle; a
  // side is seen with its hairline in front. A mirror turns all of it round.
  it.each([
    ["BL", "right"],
    ["BR", "left"],
    ["FL", "left"],
    ["FR", "right"],
  ])("starts %s on the viewer's %s", (zone, side) => {
    const g = guide(zone);
    expect(g.starts()).toBe(side);
    g.press("button[role=switch]");
    expect(g.starts()).toBe(side === "left" ? "right" : "left");
    g.end();
  });

  it("says where the parts go and how far off the row below", () => {
    const g = guide("BL");
    expect(g.text()).toContain("From the middle part, along the scalp: 1 · 2 in");
    expect(g.text()).not.toContain("nearest part of the row below");
    g.press("[aria-label='Row above']");
    expect(g.text()).toContain("From the middle part, along the scalp: 1½ · 2½ in");
    expect(g.text()).toContain("−½ · +½ in");
    act(() => usePreferences.setState({ unit: "cm" }));
    // A comb is set to 2 mm: 38.1 and 63.5 mm, 12.7 mm off.
    expect(g.text()).toContain("3.8 · 6.4 cm");
    expect(g.text()).toContain("−1.2 · +1.2 cm");
    g.end();
  });
});
