// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { PlanInput } from "../../api/types";
import { Around } from "./Around";

const acted: unknown[] = [];
vi.mock("../draft/act", () => ({ useAct: () => (action: { group: unknown }) => acted.push(action.group) }));
vi.mock("../../api/client", async (original) => {
  const actual = await original<typeof import("../../api/client")>();
  const sides = [
    { key: "rinsed", name: "Rinsed", reason: "Coatings irritate" },
    { key: "new", name: "As it comes", reason: "Quicker" },
  ];
  return {
    ...actual,
    server: {
      ...actual.server,
      catalogue: () =>
        Promise.resolve({
          schools: [
            { key: "rinse", ask: "New hair", usual: "rinsed", custom: true, sides },
            { key: "tension", ask: "Plaits", usual: "slack", sides },
          ],
        }),
    },
  };
});

beforeEach(() => {
  acted.length = 0;
  vi.stubGlobal("matchMedia", () => ({ matches: false, addEventListener() {}, removeEventListener() {} }));
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );
});

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

function around(customs?: Record<string, string>) {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Around
        input={{ ...(customs && { customs }) } as PlanInput}
        before={[{ text: "Rinse the new hair." }, { text: "Wash own hair." }]}
        after={[{ text: "Look for thin spots." }]}
      />
    </QueryClientProvider>,
  );
}

it("tells what is done before and after, and asks what only a plan's customs say", async () => {
  around();
  const [before, after] = screen.getAllByRole("list");
  expect(before && within(before).getAllByRole("listitem")).toHaveLength(2);
  expect(after?.textContent).toBe("Look for thin spots.");
  expect(await screen.findByText("New hair")).toBeTruthy();
  expect(screen.getByText("Rinsed")).toBeTruthy();
  expect(screen.getByText("Coatings irritate")).toBeTruthy();
  expect(screen.queryByText("Plaits")).toBeNull();
});

it("shows the side that the plan takes, and takes another", async () => {
  around({ rinse: "new" });
  expect(await screen.findByText("As it comes")).toBeTruthy();
  expect(screen.getByText("Quicker")).toBeTruthy();
  fireEvent.mouseDown(screen.getByRole("combobox", { hidden: true }));
  fireEvent.click(await screen.findByText("Rinsed", { selector: "[class*=option] *" }));
  expect(acted).toEqual(["customs.rinse"]);
});
