// @vitest-environment jsdom
import { act, cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { GuideRow } from "../../api/types";
import { usePreferences } from "../../lib/preferences";
import { GuideRows } from "./RowGuide";

const user = userEvent.setup();

const row = (zone: string, number: number, parts: number[], belowMm: number[]): GuideRow => ({
  zone,
  row: number,
  sections: parts.length + 1,
  size: { widthMm: 25.4, heightMm: 25.4 },
  middle: "border",
  lower: { startMm: 0, lengthMm: 100, partsMm: parts, firstPart: 0 },
  upper: { startMm: 0, lengthMm: 100, partsMm: parts, firstPart: 0 },
  belowMm,
  seen: false,
});

/** The guide at a zone of two rows. */
function guide(zone: string) {
  const rows = [row(zone, 1, [25.4, 50.8], []), row(zone, 2, [38.1, 63.5], [50.8])];
  const { container } = render(<GuideRows rows={rows} zones={[zone]} />);
  return {
    text: () => container.textContent,
    /** Where the row starts in the drawing: on the viewer's left or right. */
    starts: () => {
      const drawing = screen.getByRole("img", { name: "The row, drawn flat" });
      return Number(drawing.querySelector("circle")?.getAttribute("cx")) < 460 ? "left" : "right";
    },
  };
}

it("draws the parts of triangles, two of which may end at one place", async () => {
  const complaints = vi.spyOn(console, "error").mockImplementation(() => undefined);
  const rows = [row("BL", 1, [25.4, 25.4, 50.8], []), row("BL", 2, [38.1, 38.1], [25.4, 25.4])];
  render(<GuideRows rows={rows} zones={["BL"]} />);
  await user.click(screen.getByRole("button", { name: "Row above" }));
  expect(complaints.mock.calls.filter(([text]) => String(text).includes("same key"))).toEqual([]);
  complaints.mockRestore();
});

beforeEach(() => {
  usePreferences.setState({ unit: "in" });
  vi.stubGlobal("matchMedia", (query: string) => ({
    media: query,
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }));
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe("the row at hand", () => {
  // From behind, the client’s left is on the viewer's left, and back rows start at the middle; a
  // side is seen with its hairline in front. A mirror turns all of it round.
  it.each([
    ["BL", "right"],
    ["BR", "left"],
    ["FL", "left"],
    ["FR", "right"],
  ])("starts %s on the viewer's %s", async (zone, side) => {
    const g = guide(zone);
    expect(g.starts()).toBe(side);
    await user.click(screen.getByRole("switch"));
    expect(g.starts()).toBe(side === "left" ? "right" : "left");
  });

  it("says where the parts go and how far off the row below", async () => {
    const g = guide("BL");
    expect(g.text()).toContain("From the middle part, along the scalp: 1 · 2 in");
    expect(g.text()).not.toContain("nearest part of the row below");
    await user.click(screen.getByRole("button", { name: "Row above" }));
    expect(g.text()).toContain("From the middle part, along the scalp: 1½ · 2½ in");
    expect(g.text()).toContain("−½ · +½ in");
    void act(() => usePreferences.setState({ unit: "cm" }));
    // A comb is set to 2 mm: 38.1 and 63.5 mm, 12.7 mm off.
    expect(g.text()).toContain("3.8 · 6.4 cm");
    expect(g.text()).toContain("−1.2 · +1.2 cm");
  });
});
