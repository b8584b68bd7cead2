// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Quote } from "../api/types";
import QuotePage from "./QuotePage";

const { sent, stored, may } = vi.hoisted(() => ({
  sent: [] as unknown[],
  stored: { quote: {} },
  may: { list: ["answerQuote"] },
}));

const given: Quote = {
  id: "q1",
  number: 7,
  planId: "plan-1",
  state: "given",
  expired: false,
  at: "2026-11-27T10:00:00Z",
  given: {
    schema: 1,
    title: "A hairline that shows",
    client: "Ysolde Abarinwe",
    studio: "Tidewheel Loft",
    by: "Odalys Brandt",
    on: "2026-11-27",
    until: "2026-12-27",
    currency: "EUR",
    price: {
      lines: [{ kind: "work", name: "Work", detail: "6 h 15 min", amountMinor: 17500 }],
      taxName: "Tax",
      taxPercent: 0,
      taxIncluded: true,
      taxMinor: 0,
      totalMinor: 17500,
      depositMinor: 3500,
      restMinor: 14000,
    },
    included: ["116 pieces hung"],
    cautions: ["Fragile edges."],
    care: ["Dry it fully."],
    conditions: "The deposit books the day.",
    engine: "2026-11",
  },
};

vi.mock("../api/client", async (original) => ({
  ...(await original<object>()),
  server: {
    quote: () => Promise.resolve(stored.quote),
    me: () => Promise.resolve({ id: "p1", name: "Odalys Brandt", role: "owner", may: may.list }),
    studio: () => Promise.resolve({}),
    answerQuote: (body: { state: string }) => {
      sent.push(body);
      stored.quote = {
        ...stored.quote,
        state: body.state,
        answered: "2026-11-28T09:00:00Z",
        answeredBy: "Odalys Brandt",
      };
      return Promise.resolve(stored.quote);
    },
  },
}));

const draw = () => {
  const client = new QueryClient();
  client.setQueryData(["me"], { id: "p1", name: "Odalys Brandt", role: "owner", may: may.list });
  return render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={["/quotes/q1"]}>
        <Routes>
          <Route path="/quotes/:id" element={<QuotePage />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
};

beforeEach(() => {
  sent.length = 0;
  stored.quote = given;
  may.list = ["answerQuote"];
});
afterEach(cleanup);

describe("a quote", () => {
  it("says what it was given as, in its own currency, with its pictures", async () => {
    draw();
    expect(await screen.findByText("Quote 7")).toBeTruthy();
    expect(screen.getByText(/For Ysolde Abarinwe: A hairline that shows/)).toBeTruthy();
    expect(screen.getAllByText("€175.00").length).toBe(2);
    expect(screen.getByText("€35.00")).toBeTruthy();
    for (const says of [
      "116 pieces hung",
      "Fragile edges.",
      "Dry it fully.",
      "The deposit books the day.",
      "Tidewheel Loft",
    ])
      expect(screen.getByText(says)).toBeTruthy();
    expect(screen.getByAltText("The hair as it hangs, drawn").getAttribute("src")).toBe(
      "/api/v1/quotes/q1/picture/draped",
    );
    expect(screen.getByText(/not medical advice/)).toBeTruthy();
  });

  it("is accepted, and opened again", async () => {
    draw();
    fireEvent.click(await screen.findByText("It was accepted"));
    expect(await screen.findByText("Accepted")).toBeTruthy();
    expect(screen.getByText(/Odalys Brandt$/)).toBeTruthy();
    // A button still at work takes no click.
    const again = screen.getByText("Open it again");
    await waitFor(() => expect(again.closest(".ant-btn-loading")).toBeNull());
    fireEvent.click(again);
    await waitFor(() =>
      expect(sent).toEqual([
        { id: "q1", state: "accepted" },
        { id: "q1", state: "given" },
      ]),
    );
  });

  it("is only read by those who may not answer it", async () => {
    may.list = [];
    draw();
    expect(await screen.findByText("Quote 7")).toBeTruthy();
    expect(screen.queryByText("It was accepted")).toBeNull();
    expect(screen.getByText("Quote as PDF")).toBeTruthy();
  });

  it("says that its last day is over", async () => {
    stored.quote = { ...stored.quote, expired: true };
    draw();
    expect(await screen.findByText(/Its last day is over/)).toBeTruthy();
  });
});
