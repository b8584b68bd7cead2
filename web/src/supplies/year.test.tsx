// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Account, StashYear as Year } from "../api/types";
import { StashYear } from "./StashYear";

const asked = vi.hoisted(() => ({ years: [] as number[], items: [] as unknown[] }));
const account = (part: Partial<Account>): Account => ({
  opening: 0,
  bought: 0,
  usedUp: 0,
  saved: 0,
  spoilt: 0,
  given: 0,
  other: 0,
  leftNew: 0,
  leftSaved: 0,
  ...part,
});
vi.mock("../api/client", async (original) => {
  const real = await original<typeof import("../api/client")>();
  return {
    ...real,
    server: {
      ...real.server,
      house: () => Promise.resolve({ version: 1, rules: { schema: 1, currency: "USD" } }),
      year: (year: number) => {
        asked.years.push(year);
        return Promise.resolve({
          year,
          items: asked.items,
          all: account({ saved: 45 }),
          moneyMinor: account({
            opening: 1000,
            bought: 5000,
            usedUp: 3100,
            spoilt: 100,
            leftNew: 800,
            leftSaved: 2000,
            saved: 2000,
          }),
        } as Year);
      },
    },
  };
});

const show = () =>
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <StashYear />
    </QueryClientProvider>,
  );

beforeEach(() => {
  asked.years = [];
  asked.items = [
    {
      item: "a",
      name: "Driftline",
      colour: "Peat",
      unit: "pieces",
      account: account({
        opening: 20,
        bought: 100,
        usedUp: 60,
        spoilt: 2,
        other: 1,
        leftNew: 12,
        leftSaved: 45,
        saved: 45,
      }),
    },
    {
      item: "b",
      name: "Fernhook",
      colour: "",
      unit: "pieces",
      account: account({ usedUp: -26, saved: 26, leftSaved: 26 }),
    },
    {
      item: "c",
      name: "Cuffs",
      colour: "Brass",
      unit: "cuffs",
      account: account({ opening: 5, other: -2, leftNew: 7 }),
    },
  ];
});
afterEach(cleanup);

describe("the stash over a year", () => {
  it("says what there was and what became of it, in money and in pieces", async () => {
    show();
    const all = await screen.findByRole("region", { name: "All of it" });
    expect(all.textContent).toContain(
      "$10.00 there at the beginning + $50.00 bought = $31.00 used up + $1.00 spoilt + $20.00 saved, still here + $8.00 never worn, still here",
    );
    expect(all.textContent).toContain(
      "45 pieces came back from heads: $20.00 that did not have to be bought again.",
    );
    const [peat, handmade, cuffs] = screen.getAllByRole("listitem");
    expect(peat?.textContent).toContain(
      "20 pieces there at the beginning + 100 pieces bought = 60 used up + 2 spoilt + 45 saved, still here + 12 never worn, still here + 1 missing",
    );
    expect(handmade?.textContent).toContain("26 pieces back from earlier heads = 26 saved, still here");
    expect(cuffs?.textContent).toContain(
      "5 cuffs there at the beginning = 7 never worn, still here + -2 put right",
    );
  });

  it("goes back a year, and not beyond this one", async () => {
    const now = new Date().getFullYear();
    show();
    await screen.findByRole("region", { name: "All of it" });
    expect(screen.getByRole("button", { name: "The year after" }).hasAttribute("disabled")).toBe(true);
    fireEvent.click(screen.getByRole("button", { name: "The year before" }));
    expect(await screen.findByRole("heading", { name: String(now - 1) })).toBeTruthy();
    expect(asked.years).toEqual([now, now - 1]);
    expect(
      within(document.body).getByRole("button", { name: "The year after" }).hasAttribute("disabled"),
    ).toBe(false);
  });

  it("says so where nothing lay there", async () => {
    asked.items = [];
    show();
    expect(await screen.findByText(/Nothing lay in the stash/)).toBeTruthy();
  });
});
