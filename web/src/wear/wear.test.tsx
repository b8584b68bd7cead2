// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { App } from "antd";
import { MemoryRouter, Route, Routes, useLocation } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refusal } from "../api/client";
import type { WearEntry, WornEntry, WornHead } from "../api/types";
import WearPage from "./WearPage";
import WornHeadPage from "./WornHeadPage";
import { left, span, within as by } from "./words";

const answers = vi.hoisted(() => ({
  heads: [] as WornEntry[],
  head: undefined as unknown as WornHead,
  put: vi.fn<(id: string, entry: WearEntry) => Promise<WornHead>>(),
  create: vi.fn<(id: string, draft: object) => Promise<object>>(() => Promise.resolve({})),
  drop: vi.fn<(id: string, entry: string) => Promise<WornHead>>(),
}));
vi.mock("../api/client", async (original) => {
  const real = await original<typeof import("../api/client")>();
  return {
    ...real,
    server: {
      ...real.server,
      worn: () => Promise.resolve(answers.heads),
      wornOf: () => Promise.resolve(answers.head),
      putWear: answers.put,
      dropWear: answers.drop,
      begin: (from: Record<string, string>) => Promise.resolve({ title: "The ring", from }),
      createPlan: answers.create,
    },
  };
});
vi.mock("../head", () => ({ GrownHead: ({ label }: { label: string }) => <p>{label}</p> }));

const clock = {
  day: 35,
  from: 28,
  planned: 42,
  latest: 42,
  state: "soon" as const,
  nextCheck: 36,
  checkLate: false,
  reasons: [
    { key: "foundation", text: "A ring that is tied up", least: 4, most: 6, decides: true },
    { key: "house", text: "By the house rules", least: 6, most: 8, decides: false },
  ],
};
const listed: WornEntry = {
  id: "one",
  title: "Chamber evenings",
  client: "Ysolde Abarinwe",
  on: "2026-10-23",
  clock,
  dueOn: "2026-12-04",
  nextOn: "2026-11-28",
  grownMm: 9,
  advice: [{ do: "put-back", sign: "loose", text: "Put back what is loose.", withinDays: 0 }],
};
const head = {
  ...listed,
  ownHead: false,
  keepsHealth: true,
  clientId: "client",
  head: { head: {}, layout: {} },
  pieces: [{ key: "p1", name: "Saltspun twist", colour: "Rope", hung: 97, kept: true, rounds: 2 }],
  things: [],
  growing: Array.from({ length: 17 }, (_, week) => ({
    week,
    leastMm: 1.5 * week,
    likelyMm: 1.8 * week,
    mostMm: 2.1 * week,
  })),
  signs: [
    {
      key: "pulling",
      ask: "Does it pull?",
      where: "Temples",
      grades: ["No", "In places", "Pain"],
      sinceDay: 0,
    },
    { key: "odour", ask: "Any odour?", where: "Crown", grades: ["No", "Faintly", "Musty"], sinceDay: 14 },
  ],
  entries: [
    { id: "mend-1234", on: "2026-11-25", day: 33, kind: "put-back", piece: "p1", count: 2, by: "Odalys" },
  ],
  care: [
    { key: "night", title: "Every night", text: "A scarf.", everyDays: 1, avoid: false },
    { key: "elastics", title: "No elastics", text: "A strip of cloth.", everyDays: 0, avoid: true },
  ],
  dates: [{ on: "2999-12-04", key: "down", title: "Take it down" }],
  renewals: [
    { rows: 1, places: 24, pieces: 24, minutes: 90, weeks: 3, pays: true, why: "9 mm have grown out." },
    { rows: 2, places: 48, pieces: 48, minutes: 190, weeks: 5, pays: false, why: "It is covered." },
  ],
  takedown: {
    areas: [{ name: "on the base", places: 97, pieces: 97, minutes: 12 }],
    parts: [
      {
        piece: "p1",
        name: "Saltspun twist, Rope",
        method: "L5",
        way: "Cornrow hitch",
        places: 97,
        pieces: 97,
        cutBelowMm: 0,
        steps: [{ text: "Draw it out." }],
        usuallyBack: 82,
      },
    ],
    offMin: 12,
    baseMin: 20,
    combMin: 30,
    washMin: 45,
    totalMin: 107,
    shed: { days: 42, least: 2100, most: 4200, massG: 2.4, ballMm: 45 },
    markMm: 0,
    before: ["Start at the back."],
    after: ["Dry, before any water."],
    worry: ["A handful from one spot."],
    restDays: 14,
    restWhy: "Edges that are not strong.",
  },
  account: [
    {
      piece: "p1",
      name: "Saltspun twist",
      came: 120,
      hangs: 97,
      usedUp: 2,
      spoilt: 1,
      saved: 0,
      left: 20,
      priceMinor: 33,
    },
  ],
  back: [],
} as unknown as WornHead;

function Where() {
  const { pathname, search } = useLocation();
  return <output>{pathname + search}</output>;
}

function show(path: string) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(["me"], { id: "me", name: "Tamsin", role: "stylist", may: ["putWear", "dropWear"] });
  render(
    <QueryClientProvider client={client}>
      <App>
        <MemoryRouter initialEntries={[path]}>
          <Routes>
            <Route path="/wear" element={<WearPage />} />
            <Route path="/wear/:id" element={<WornHeadPage />} />
            <Route path="*" element={<Where />} />
          </Routes>
        </MemoryRouter>
      </App>
    </QueryClientProvider>,
  );
}

/** Opens a part of the head; which is open is kept from one test to the next, as from one head to another. */
const part = async (title: string) => {
  const button = await screen.findByRole("button", { name: new RegExp(`^${title}`) });
  if (button.getAttribute("aria-expanded") === "false") fireEvent.click(button);
};

beforeEach(() => {
  answers.heads = [listed];
  answers.head = head;
  answers.put.mockReset().mockResolvedValue(head);
  answers.drop.mockReset().mockResolvedValue(head);
});
afterEach(cleanup);

describe("the installs being worn", () => {
  it("say when they come down, what has grown out and what is asked for", async () => {
    show("/wear");
    const link = await screen.findByRole("link", { name: /Ysolde/ });
    expect(link.getAttribute("href")).toBe("/wear/one");
    expect(link.textContent).toMatch(/in 7 days/);
    expect(link.textContent).toMatch(/⅜ in grown out/);
    expect(link.textContent).toMatch(/Put back, today/);
    expect(within(link).getByRole("img").getAttribute("aria-label")).toBe("Week 5 of 6; 7 days left");
  });

  it("say what brings a head here while there is none", async () => {
    answers.heads = [];
    show("/wear");
    expect(await screen.findByText(/When the last check of an install is taken/)).toBeTruthy();
  });
});

describe("a look at a head", () => {
  it("fills in what is well, keeps what was touched, and tells the server once", async () => {
    show("/wear/one");
    await part("Look at it");
    fireEvent.click(await screen.findByRole("button", { name: "Faintly" }));
    fireEvent.click(screen.getByRole("button", { name: "Others are well" }));
    fireEvent.click(screen.getByRole("button", { name: "Keep 2 of 2 answers" }));
    await waitFor(() => expect(answers.put).toHaveBeenCalledOnce());
    expect(answers.put.mock.calls[0]?.[1]).toMatchObject({
      kind: "checked",
      signs: { pulling: 0, odour: 1 },
    });
  });

  it("leads to the card where consent is missing, and keeps the answers", async () => {
    answers.put.mockRejectedValue(
      new Refusal(422, {
        type: "about:blank",
        detail: "no",
        errors: [{ location: "body.consent", message: "Notes are kept only with consent." }],
      }),
    );
    show("/wear/one");
    await part("Look at it");
    fireEvent.click(await screen.findByRole("button", { name: "Pain" }));
    fireEvent.click(screen.getByRole("button", { name: "Keep 1 of 2 answers" }));
    const told = await screen.findByRole("alert");
    expect(told.textContent).toContain("Notes are kept only with consent.");
    expect(within(told).getByRole("link").getAttribute("href")).toBe("/clients/client");
    expect(screen.getByRole("button", { name: "Pain" }).getAttribute("aria-pressed")).toBe("true");
  });
});

describe("repairs and the ring", () => {
  it("notes what was replaced, and of what", async () => {
    show("/wear/one");
    await part("Repairs");
    fireEvent.click(screen.getByText("Replaced"));
    fireEvent.click(screen.getByRole("button", { name: "Note it" }));
    await waitFor(() => expect(answers.put).toHaveBeenCalledOnce());
    expect(answers.put.mock.calls[0]?.[1]).toMatchObject({ kind: "replaced", piece: "p1", count: 1 });
  });

  it("plans the ring from this head, with or without pieces to hang again", async () => {
    show("/wear/one");
    await part("Repairs");
    expect(screen.getByText(/9 mm have grown out/)).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Redo the ring" }));
    fireEvent.click(screen.getByRole("button", { name: "Plan it" }));
    expect((await screen.findByRole("status")).textContent).toMatch(/^\/plans\/[-0-9a-f]+\/hair$/);
    expect(answers.create.mock.calls[0]?.[1]).toEqual({
      title: "The ring",
      from: { renews: "one", rows: "1" },
    });
    expect(answers.put).not.toHaveBeenCalled();
  });
});

describe("the taking down", () => {
  it("says what is shed and what is not, and keeps what came back as it is put right", async () => {
    show("/wear/one");
    await part("Take it down");
    expect(screen.getByText(/2,100 to 4,200 hairs/)).toBeTruthy();
    expect(screen.getByText(/No piece is cut through on this head/)).toBeTruthy();
    const good = screen.getByLabelText("Good ones of Saltspun twist, Rope");
    expect((good as HTMLInputElement).value).toBe("82");
    fireEvent.change(good, { target: { value: "80" } });
    fireEvent.click(screen.getByText("Thinner"));
    fireEvent.click(screen.getByRole("button", { name: "It is down" }));
    await waitFor(() => expect(answers.put).toHaveBeenCalledOnce());
    expect(answers.put.mock.calls[0]?.[1]).toMatchObject({
      kind: "taken-down",
      saved: [{ piece: "p1", good: 80, worn: 0 }],
      felt: "comfortable",
      edges: "worse",
      minutes: 105,
    });
  });

  it("leads to what came back once it is down", async () => {
    answers.head = {
      ...head,
      downOn: "2026-12-04",
      readyOn: "2026-12-18",
      account: [
        {
          piece: "p1",
          name: "Saltspun twist",
          came: 120,
          hangs: 0,
          usedUp: 17,
          spoilt: 1,
          saved: 82,
          left: 20,
          priceMinor: 33,
        },
      ],
    };
    show("/wear/one");
    expect(await screen.findByText(/17 used up \+ 1 spoilt \+ 82 saved \+ 20 never hung/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: /^Look at it/ })).toBeNull();
  });
});

it("deletes an entry only after a question", async () => {
  show("/wear/one");
  await part("What was seen and done");
  fireEvent.click(screen.getByRole("button", { name: /^Delete: 2 of Saltspun twist put back/ }));
  expect(answers.drop).not.toHaveBeenCalled();
  fireEvent.click(await screen.findByRole("button", { name: "Delete" }));
  await waitFor(() => expect(answers.drop).toHaveBeenCalledWith("one", "mend-1234"));
});

it("says days and weeks as people do", () => {
  expect(["today", "tomorrow", "in 7 days", "a day over", "3 days over"]).toEqual(
    [35, 36, 42, 34, 32].map((planned) => left({ ...clock, planned })),
  );
  expect([span(6, 6), span(4, 6), span(1, 1)]).toEqual(["6 weeks", "4 to 6 weeks", "1 week"]);
  expect([by(0), by(1), by(3)]).toEqual(["today", "by tomorrow", "within 3 days"]);
});
