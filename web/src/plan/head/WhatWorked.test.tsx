// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { PastHeads } from "../../api/types";
import { omit } from "../../lib/omit";
import { RedoNote } from "./RedoNote";
import { WhatWorked } from "./WhatWorked";

const answers = vi.hoisted((): { heads: PastHeads } => ({ heads: { heads: [] } }));
vi.mock("../../api/client", async (original) => {
  const real = await original<typeof import("../../api/client")>();
  return { ...real, server: { ...real.server, heads: () => Promise.resolve(answers.heads) } };
});

const show = (what: React.ReactNode) =>
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter>{what}</MemoryRouter>
    </QueryClientProvider>,
  );

const worked = {
  planId: "plan",
  title: "Spring concert",
  on: "2026-04-01",
  keep: ["98 pieces, about 210 g in all, felt comfortable for 6 weeks."],
  change: ["2 came loose: snugger hitches where they did."],
  readyOn: "2999-01-08",
  readyWhy: "A week to rest.",
};

afterEach(cleanup);

describe("what worked last time", () => {
  it("is offered with what to change, when it may be, and the plan to begin from", async () => {
    answers.heads = { heads: [], worked };
    show(<WhatWorked client="client" />);
    const offered = await screen.findByRole("region", { name: "What worked" });
    expect(offered.textContent).toContain("felt comfortable for 6 weeks");
    expect(offered.textContent).toContain("2 came loose");
    expect(offered.textContent).toMatch(/Rest until .*A week to rest\./);
    expect(screen.getByRole("link").getAttribute("href")).toMatch(
      /^\/plans\/[-0-9a-f]+\?new=&from=plan&client=client$/,
    );
  });

  it("is told without a plan that is gone, and without a rest that is over", async () => {
    answers.heads = { heads: [], worked: { ...omit(worked, "planId"), readyOn: "2020-01-08" } };
    show(<WhatWorked client="client" />);
    const offered = await screen.findByRole("region", { name: "What worked" });
    expect(offered.textContent).not.toContain("Rest until");
    expect(screen.queryByRole("link")).toBeNull();
  });
});

it.each([
  [1, "Only the row at the hairline is done again"],
  [2, "Only the two outer rows are done again"],
])("a plan of %i outer rows says so, and leads to the head worn", (rows, says) => {
  show(<RedoNote redo={{ install: "head", rows }} />);
  expect(screen.getByText(new RegExp(says))).toBeTruthy();
  expect(screen.getByRole("link").getAttribute("href")).toBe("/wear/head");
});
