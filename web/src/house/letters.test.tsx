// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { App } from "antd";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Letters } from "./Letters";

const saveHouse = vi.hoisted(() => vi.fn());
const rules = vi.hoisted((): { now: Record<string, unknown> } => ({ now: {} }));
vi.mock("../api/client", async (original) => {
  const real = await original<typeof import("../api/client")>();
  return {
    ...real,
    server: {
      ...real.server,
      saveHouse,
      house: () => Promise.resolve({ version: 3, rules: rules.now, asks: {} }),
      catalogue: () =>
        Promise.resolve({
          messages: [
            { kind: "prepare", short: "To prepare", usual: { subject: "On {date}", body: "Come dry." } },
            { kind: "care", short: "Care", usual: { subject: "Care", body: "{care}" } },
          ],
          messageNames: { date: "the day", care: "how it is cared for" },
        }),
    },
  };
});

beforeEach(() => {
  saveHouse.mockReset().mockResolvedValue({});
  rules.now = { schema: 1, currency: "USD" };
});
afterEach(cleanup);

function drawn(may: string[]) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(["me"], { id: "o", name: "Odalys", role: "owner", may });
  render(
    <QueryClientProvider client={client}>
      <App>
        <Letters />
      </App>
    </QueryClientProvider>,
  );
}

describe("the words of the house", () => {
  it("begin as is usual, say what may stand in braces, and are kept by kind", async () => {
    drawn(["saveHouse"]);
    const body = await screen.findByDisplayValue("Come dry.");
    expect(screen.getByText(/\{date\} the day/)).toBeTruthy();
    fireEvent.change(body, { target: { value: "Come early." } });
    fireEvent.click(screen.getByRole("button", { name: "Save the words" }));
    await waitFor(() => {
      expect(saveHouse.mock.calls[0]?.[0]).toMatchObject({
        version: 3,
        rules: { currency: "USD", letters: { prepare: { subject: "On {date}", body: "Come early." } } },
      });
    });
    fireEvent.click(screen.getByRole("radio", { name: "Care" }));
    expect(await screen.findByDisplayValue("{care}")).toBeTruthy();
  });

  it("go back to the usual ones", async () => {
    rules.now = { ...rules.now, letters: { prepare: { subject: "Ours", body: "Our own." } } };
    drawn(["saveHouse"]);
    expect(await screen.findByDisplayValue("Our own.")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Usual words again" }));
    await waitFor(() => {
      expect(saveHouse.mock.calls[0]?.[0]).toMatchObject({ rules: { letters: {} } });
    });
  });

  it("are an owner's to change", async () => {
    drawn([]);
    const body = await screen.findByDisplayValue("Come dry.");
    expect(body.closest("fieldset")?.disabled).toBe(true);
  });
});
