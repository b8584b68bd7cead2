// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refusal } from "../api/client";
import { Terms } from "./Terms";

const { sent, refuse } = vi.hoisted(() => ({ sent: [] as unknown[], refuse: { is: false } }));

vi.mock("../api/client", async (original) => {
  const real = await original<{ Refusal: typeof Refusal }>();
  return {
    ...real,
    server: {
      house: () =>
        Promise.resolve({
          version: 3,
          rules: { schema: 1, currency: "KWD" },
          asks: {
            name: "",
            rateMinor: 12500,
            depositPercent: 20,
            taxName: "Tax",
            taxPercent: 0,
            taxIncluded: true,
            validDays: 30,
            conditions: "",
          },
        }),
      people: () =>
        Promise.resolve([
          { id: "p1", name: "Odalys Brandt", role: "owner" },
          { id: "p2", name: "Ikaika Moreau", role: "apprentice" },
        ]),
      me: () => Promise.resolve({ may: ["saveHouse"] }),
      saveHouse: (body: unknown) => {
        sent.push(body);
        return refuse.is
          ? Promise.reject(
              new real.Refusal(422, {
                detail: "refused",
                errors: [
                  { location: "body.terms.taxPercent", message: "The tax has at most three decimals." },
                ],
              } as never),
            )
          : Promise.resolve({});
      },
    },
  };
});

const draw = () =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Terms />
    </QueryClientProvider>,
  );

beforeEach(() => {
  sent.length = 0;
  refuse.is = false;
});
afterEach(cleanup);

describe("what the studio asks", () => {
  it("is written in whole units of its currency and kept in minor ones, by person where it differs", async () => {
    draw();
    // A dinar of three decimals: 12500 minor units are 12.5.
    await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>("An hour's work").value).toBe("12.5"));
    fireEvent.change(screen.getByLabelText("An hour of Ikaika Moreau"), { target: { value: "7.125" } });
    fireEvent.change(screen.getByLabelText("Deposit"), { target: { value: "25" } });
    fireEvent.click(screen.getByText("Keep these prices"));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({
      version: 3,
      rules: { currency: "KWD", terms: { rateMinor: 12500, ratesMinor: { p2: 7125 }, depositPercent: 25 } },
    });
  });

  it("says at the field what was refused", async () => {
    refuse.is = true;
    draw();
    await screen.findByLabelText("Tax");
    fireEvent.change(screen.getByLabelText("Tax"), { target: { value: "8.12345" } });
    fireEvent.click(screen.getByText("Keep these prices"));
    expect(await screen.findByText("The tax has at most three decimals.")).toBeTruthy();
  });
});
