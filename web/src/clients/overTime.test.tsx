// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, within } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { PastHead, PastHeads } from "../api/types";
import { omit } from "../lib/omit";
import { OverTime } from "./OverTime";

const answers = vi.hoisted((): { heads: PastHeads } => ({ heads: { heads: [] } }));
vi.mock("../api/client", async (original) => {
  const real = await original<typeof import("../api/client")>();
  return { ...real, server: { ...real.server, heads: () => Promise.resolve(answers.heads) } };
});

const head = (part: Partial<PastHead>): PastHead => ({
  id: "one",
  title: "Spring concert",
  on: "2026-04-01",
  downOn: "2026-05-13",
  weeks: 6,
  worn: false,
  pieces: 98,
  packs: 4,
  massG: 206,
  workedMin: 215,
  plannedMin: 180,
  felt: "comfortable",
  edges: "same",
  lengthMm: 120,
  beforeMm: 110,
  mended: 0,
  lost: 0,
  saved: 58,
  change: [],
  photos: [],
  ...part,
});

async function show(heads: PastHeads) {
  answers.heads = heads;
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter>
        <OverTime id="client" />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return screen.findByRole("region", { name: "Over time" });
}

afterEach(cleanup);

describe("a client over time", () => {
  it("puts the installs in a row, the oldest first, with how each went", async () => {
    const over = await show({
      heads: [
        head({
          id: "two",
          title: "Autumn",
          on: "2026-09-01",
          felt: "tight",
          edges: "worse",
          mended: 2,
          lost: 1,
        }),
        head({ photos: ["a", "b", "c", "d", "e"], change: ["Plait slower behind."] }),
      ],
    });
    const [first, second] = within(over).getAllByRole("listitem");
    expect(first?.textContent).toMatch(/Spring concert.*6 weeks, comfortable, edges as before/);
    expect(first?.textContent).toMatch(
      /98 pieces, 7\.3 oz · 4 packs opened · 3 h 35 min, 119 % of the plan · 58 saved/,
    );
    expect(first?.textContent).toContain("Plait slower behind.");
    expect(first && within(first).getAllByRole("img")).toHaveLength(4);
    expect(second?.textContent).toMatch(/6 weeks, tight, edges thinner/);
    expect(second?.textContent).toContain("2 put back, 1 lost");
    expect(
      within(over)
        .getAllByRole("link")
        .map((a) => a.getAttribute("href")),
    ).toEqual(["/wear/one", "/wear/two"]);
  });

  it("says how much hair was kept, from what was measured alone", async () => {
    const over = await show({
      heads: [head({ id: "two", lengthMm: 148 }), head({ id: "none", lengthMm: 0 }), head({ beforeMm: 110 })],
    });
    expect(over.textContent).toMatch(
      /4⅜ in before the first of these, 5⅞ in at the last taking down: 1½ in kept/,
    );
    cleanup();
    const other = await show({ heads: [head({ lengthMm: 0 })] });
    expect(other.textContent).not.toContain("Longest own hair");
    cleanup();
    expect((await show({ heads: [head({ lengthMm: 90 })] })).textContent).toContain("¾ in less");
  });

  it("names the day of the next install only while it is to come", async () => {
    const worked = {
      title: "Spring concert",
      on: "2026-04-01",
      keep: [],
      change: [],
      readyWhy: "A week to rest.",
    };
    expect(
      (await show({ heads: [head({})], worked: { ...worked, readyOn: "2999-01-08" } })).textContent,
    ).toMatch(/The next install may follow from .* on\. A week to rest\./);
    cleanup();
    expect(
      (await show({ heads: [head({})], worked: { ...worked, readyOn: "2020-01-08" } })).textContent,
    ).not.toContain("may follow");
  });

  it("tells one that is worn from one whose taking down nobody noted", async () => {
    const open = omit(omit(omit(head({ weeks: 5, worn: true }), "felt"), "edges"), "downOn");
    const over = await show({ heads: [open, { ...open, id: "lost", weeks: 0, worn: false }] });
    const [lost, worn] = within(over).getAllByRole("listitem");
    expect(worn?.textContent).toContain("5 weeks so far");
    expect(lost?.textContent).toContain("Taking down not noted");
  });
});
