// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { App } from "antd";
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Month } from "../api/types";
import { localDay } from "../lib/localDay";
import CalendarPage from "./CalendarPage";
import { addDays, mondayOf } from "./entries";

const today = localDay();
const tomorrow = addDays(mondayOf(today), today === mondayOf(today) ? 1 : 0); // in this week

const month: Month = {
  today,
  busy: [{ personId: "o", title: "Choir", from: `${today}T18:00`, to: `${today}T20:00` }],
  bookings: [
    {
      id: "b1",
      planId: "p1",
      by: "Odalys",
      at: "2026-11-01T10:00:00Z",
      booked: {
        schema: 1,
        title: "The pupil",
        client: "Juno Pellwether",
        zone: "",
        pieces: 60,
        sittings: [
          {
            on: today,
            at: "10:00",
            minutes: 63,
            people: ["o"],
            names: ["Odalys"],
            chair: true,
            does: "Plait rows 1 to 4",
          },
          {
            on: tomorrow,
            at: "10:00",
            minutes: 60,
            people: ["o"],
            names: ["Odalys"],
            chair: false,
            does: "Attach",
          },
        ],
        errands: [{ on: today, title: "Wash own hair" }],
      },
    },
  ],
};

const calls = vi.hoisted(() => ({
  calendar: vi.fn(),
  feed: vi.fn(),
  renewFeed: vi.fn(),
  importBusy: vi.fn(),
  me: vi.fn(),
}));
vi.mock("../api/client", async (original) => {
  const real = await original<typeof import("../api/client")>();
  return {
    ...real,
    server: {
      ...real.server,
      ...calls,
      people: () =>
        Promise.resolve([{ id: "o", name: "Odalys Brandt", role: "owner", hand: "fast", ownHead: 1.25 }]),
      house: () => Promise.resolve({ version: 1, rules: { schema: 1, currency: "USD" } }),
    },
  };
});

beforeEach(() => {
  calls.calendar.mockReset().mockResolvedValue(month);
  calls.feed.mockReset().mockResolvedValue({ path: "/api/v1/feeds/OLD/calendar.ics" });
  calls.renewFeed.mockReset().mockImplementation(() => {
    calls.feed.mockResolvedValue({ path: "/api/v1/feeds/NEW/calendar.ics" });
    return Promise.resolve({ path: "/api/v1/feeds/NEW/calendar.ics" });
  });
  calls.importBusy
    .mockReset()
    .mockResolvedValue({ count: 3, leftOut: ["Ticking: it repeats more often than daily"] });
  calls.me
    .mockReset()
    .mockResolvedValue({ id: "o", name: "Odalys Brandt", role: "owner", may: ["readFeed", "renewFeed"] });
  Element.prototype.scrollIntoView = () => undefined;
});
afterEach(cleanup);

function opened() {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(["me"], {
    id: "o",
    name: "Odalys Brandt",
    role: "owner",
    may: ["readFeed", "renewFeed"],
  });
  render(
    <QueryClientProvider client={client}>
      <App>
        <MemoryRouter>
          <CalendarPage />
        </MemoryRouter>
      </App>
    </QueryClientProvider>,
  );
}

describe("the calendar", () => {
  it("shows a month of whole weeks, each sitting a way to its plan", async () => {
    opened();
    const [sitting] = await screen.findAllByRole("link", { name: /Juno Pellwether/ });
    expect(sitting?.getAttribute("href")).toBe("/plans/p1/day");
    expect(screen.getByText("Juno: Wash own hair")).toBeTruthy();
    expect(screen.getByText("Choir")).toBeTruthy();
    const [from, to] = (calls.calendar.mock.calls[0] ?? []) as string[];
    expect(from).toBe(mondayOf(`${today.slice(0, 8)}01`));
    expect(to && to >= today).toBe(true);
  });

  it("turns a month, and back to today", async () => {
    opened();
    await screen.findAllByRole("link", { name: /Juno Pellwether/ });
    const heading = () => screen.getByRole("heading", { level: 2, name: /\d{4}/ }).textContent;
    const now = heading();
    fireEvent.click(screen.getByRole("button", { name: "The month after" }));
    expect(heading()).not.toBe(now);
    fireEvent.click(screen.getByRole("button", { name: "Today" }));
    expect(heading()).toBe(now);
  });

  it("shows a week by the clock, from and to about when", async () => {
    opened();
    fireEvent.click(await screen.findByRole("radio", { name: "Week" }));
    const [first] = await screen.findAllByRole("link", { name: /10:00–11:05/ });
    expect(first?.textContent).toContain("Plait rows 1 to 4");
    expect(screen.getByText("18:00–20:00")).toBeTruthy();
  });
});

describe("the calendar elsewhere", () => {
  it("keeps its address until it is asked for, and gives a new one", async () => {
    opened();
    expect(calls.feed).not.toHaveBeenCalled();
    fireEvent.click(await screen.findByRole("button", { name: "Show the address" }));
    const address = await screen.findByLabelText<HTMLInputElement>("Address of the calendar");
    expect(address.value).toContain("/feeds/OLD/");
    fireEvent.click(screen.getByRole("button", { name: /Renew the address/ }));
    fireEvent.click(await screen.findByRole("button", { name: "Renew it" }));
    await waitFor(() => {
      expect(screen.getByLabelText<HTMLInputElement>("Address of the calendar").value).toContain(
        "/feeds/NEW/",
      );
    });
  });

  it("reads a file in for someone, and tells what was not understood", async () => {
    opened();
    const part = await screen.findByRole("region", { name: "Busy times" });
    const input = part.querySelector<HTMLInputElement>("input[type=file]");
    if (!input) throw new Error("no place for a file");
    const file = new File(["BEGIN:VCALENDAR"], "mine.ics", { type: "text/calendar" });
    fireEvent.change(input, { target: { files: [file] } });
    expect(await within(part).findByText("3 busy times read in.")).toBeTruthy();
    expect(within(part).getByText(/more often than daily/)).toBeTruthy();
    const [asked] = (calls.importBusy.mock.calls[0] ?? []) as { person: string; file: File }[];
    expect(asked?.person).toBe("o");
    expect(asked?.file.name).toBe("mine.ics");
  });
});
