// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, expect, it, vi } from "vitest";
import type { WornEntry } from "../api/types";
import { HeadsWorn } from "./HeadsWorn";

const answers = vi.hoisted((): { heads: WornEntry[] } => ({ heads: [] }));
vi.mock("../api/client", async (original) => {
  const real = await original<typeof import("../api/client")>();
  return { ...real, server: { ...real.server, worn: () => Promise.resolve(answers.heads) } };
});

const worn = (id: string, part: Partial<WornEntry> = {}): WornEntry => ({
  id,
  title: `Head ${id}`,
  client: "",
  on: "2026-10-23",
  clock: {
    day: 63,
    from: 42,
    planned: 56,
    latest: 56,
    state: "over",
    nextCheck: 56,
    checkLate: true,
    reasons: [],
  },
  dueOn: "2026-12-18",
  nextOn: "2026-12-18",
  grownMm: 16,
  advice: [],
  ...part,
});

const show = () =>
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter>
        <HeadsWorn />
      </MemoryRouter>
    </QueryClientProvider>,
  );

afterEach(cleanup);

it("shows the heads whose day comes first, what each asks for, and the way to all of them", async () => {
  answers.heads = [
    worn("1"),
    worn("2", {
      client: "Maren",
      advice: [{ do: "take-down", sign: "odour", text: "Take it down.", withinDays: 2 }],
    }),
    worn("3"),
    worn("4"),
    worn("5"),
  ];
  show();
  const links = await screen.findAllByRole("link");
  expect(links.map((a) => a.getAttribute("href"))).toEqual([
    "/wear/1",
    "/wear/2",
    "/wear/3",
    "/wear/4",
    "/wear",
  ]);
  expect(links[0]?.textContent).toMatch(
    /Head 1.*Past its day .*, 7 days over · ⅝ in grown out.*A check is due/,
  );
  expect(links[1]?.textContent).toMatch(/Maren.*Take down, within 2 days/);
  expect(links[1]?.textContent).not.toContain("A check is due");
  expect(links[4]?.textContent).toBe("All 5 heads");
});

it("takes no room while nothing is worn", async () => {
  answers.heads = [];
  const { container } = show();
  await Promise.resolve();
  expect(container.textContent).toBe("");
});
