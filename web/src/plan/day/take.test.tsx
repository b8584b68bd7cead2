// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { App } from "antd";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Booking, Catalogue, DayPlan, PlanInput } from "../../api/types";
import { BeforePart } from "./BeforePart";
import { Book } from "./Book";
import { Messages } from "./Messages";

const calls = vi.hoisted(() => ({
  booking: vi.fn(),
  clashes: vi.fn(),
  book: vi.fn(),
  letter: vi.fn(),
  messages: vi.fn(),
  sendMessage: vi.fn(),
  shopping: vi.fn(),
}));
const clearance = vi.hoisted(
  () => () =>
    Promise.resolve({ clear: true, asked: true, cautions: [], refusals: [], history: [], questions: [] }),
);
vi.mock("../../api/client", async (original) => {
  const real = await original<typeof import("../../api/client")>();
  return { ...real, server: { ...real.server, ...calls, clearance } };
});

const input = { ownHead: false } as unknown as PlanInput;

const day = {
  hands: [{ key: "a", name: "Odalys", hand: "fast", does: "both" }],
  sittings: [
    { on: "2027-03-27", at: "09:00", minutes: 180, spans: [], does: "", waitsMin: [0], limitMin: 480 },
  ],
  due: [
    { key: "wash", title: "Wash own hair", daysBefore: 1, on: "2027-03-26", minutes: 75, waitHours: 0 },
    { key: "eat", title: "Eat", daysBefore: 0, on: "2027-03-27", at: "08:00", minutes: 30, waitHours: 0 },
  ],
} as unknown as DayPlan;

const booking = (minutes: number): Booking => ({
  id: "b1",
  planId: "p1",
  by: "Odalys",
  at: "2027-03-01T10:00:00Z",
  booked: {
    schema: 1,
    title: "Plan",
    client: "Juno",
    zone: "",
    pieces: 60,
    sittings: [{ on: "2027-03-27", at: "09:00", minutes, people: [], names: [], chair: true, does: "" }],
    errands: [],
  },
});

const plan = {
  id: "p1",
  isStored: true,
  save: vi.fn(() => Promise.resolve()),
  savedVersion: () => 4,
};

const catalogue = {
  messages: [
    { kind: "prepare", name: "To prepare", short: "To prepare", when: "Sent once it is booked" },
    { kind: "reminder", name: "Reminder", short: "Reminder", when: "Sent a day before" },
  ],
} as unknown as Catalogue;

beforeEach(() => {
  for (const call of Object.values(calls)) call.mockReset();
  plan.save.mockClear();
  calls.booking.mockResolvedValue([]);
  calls.clashes.mockResolvedValue([]);
  calls.messages.mockResolvedValue([]);
  calls.shopping.mockResolvedValue({ orders: [] });
});
afterEach(cleanup);

function drawn(node: ReactNode, may: string[] = ["bookPlan"]) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(["catalogue"], catalogue);
  client.setQueryData(["me"], { id: "o", name: "Odalys", role: "owner", may });
  render(
    <QueryClientProvider client={client}>
      <App>
        <MemoryRouter>{node}</MemoryRouter>
      </App>
    </QueryClientProvider>,
  );
}

describe("on the calendar", () => {
  it("books what is saved, and says so", async () => {
    calls.book.mockImplementation(() => {
      calls.booking.mockResolvedValue([booking(180)]);
      return Promise.resolve(booking(180));
    });
    drawn(<Book plan={plan} input={input} day={day} />);
    expect(await screen.findByText(/Chair, people and hair are free then/)).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: /Put on calendar/ }));
    const stands = await screen.findByRole("region", { name: "On the calendar" });
    expect(within(stands).queryByText(/has changed since/)).toBeNull();
    expect(plan.save).toHaveBeenCalled();
    expect(calls.book.mock.calls[0]?.[0]).toMatchObject({ plan: "p1", version: 4 });
    expect(screen.queryByRole("button", { name: /Book again/ })).toBeNull();
  });

  it("says what stands in the way, and that the plan has moved on since", async () => {
    calls.booking.mockResolvedValue([booking(120)]);
    calls.clashes.mockResolvedValue([{ kind: "person", sitting: 0, says: "Odalys is taken." }]);
    drawn(<Book plan={plan} input={input} day={day} />);
    expect(await screen.findByText(/Odalys is taken/)).toBeTruthy();
    expect(await screen.findByText(/has changed since/)).toBeTruthy();
    expect(screen.getByRole("button", { name: /Book again/ })).toBeTruthy();
  });

  it("leaves it to those who may", async () => {
    drawn(<Book plan={plan} input={input} day={day} />, []);
    expect(await screen.findByText("An owner or a stylist books.")).toBeTruthy();
    expect(screen.queryByRole("button", { name: /Put on calendar/ })).toBeNull();
  });
});

describe("messages", () => {
  it("are filled, reworded and sent as they were reworded, each kind by itself", async () => {
    calls.letter.mockImplementation((_: string, kind: string) =>
      Promise.resolve({ to: "Juno", subject: `About ${kind}`, body: `Words of ${kind}` }),
    );
    calls.sendMessage.mockResolvedValue({});
    drawn(<Messages plan={plan} input={input} />);
    const body = await screen.findByDisplayValue("Words of prepare");
    fireEvent.change(body, { target: { value: "Come dry." } });
    fireEvent.click(screen.getByRole("radio", { name: "Reminder" }));
    expect(await screen.findByDisplayValue("Words of reminder")).toBeTruthy();
    fireEvent.click(screen.getByRole("radio", { name: "To prepare" }));
    expect(await screen.findByDisplayValue("Come dry.")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: /Send/ }));
    await waitFor(() => {
      expect(calls.sendMessage.mock.calls[0]?.[0]).toMatchObject({
        plan: "p1",
        kind: "prepare",
        subject: "About prepare",
        body: "Come dry.",
      });
    });
    expect(screen.getByText(/nothing leaves this machine/)).toBeTruthy();
  });
});

describe("before it", () => {
  it("stands in order of its days, the last days to order among it", async () => {
    calls.shopping.mockResolvedValue({
      orders: [{ supplier: "brackwater", name: "Brackwater", orderBy: "2027-03-20", days: 3 }],
    });
    drawn(<BeforePart plan={plan} input={input} day={day} />);
    await screen.findByText(/Last day to order: Brackwater/);
    const keys = [...document.querySelectorAll<HTMLElement>("[data-due]")].map((li) => li.dataset.due);
    expect(keys).toEqual(["order:brackwater", "wash", "eat"]);
    expect(screen.getByText(/3 days on its way/)).toBeTruthy();
  });
});
