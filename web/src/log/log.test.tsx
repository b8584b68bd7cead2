// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { App } from "antd";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { LearntPace, LoggedInstall, Me } from "../api/types";
import InstallLog from "./InstallLog";
import LogPage from "./LogPage";

const answers = vi.hoisted(() => ({
  log: [] as LoggedInstall[],
  paces: [] as LearntPace[],
  dropPhoto: vi.fn(() => Promise.resolve(undefined)),
}));
vi.mock("../api/client", async (original) => {
  const real = await original<typeof import("../api/client")>();
  return {
    ...real,
    server: {
      ...real.server,
      log: () => Promise.resolve({ items: answers.log }),
      logOf: (id: string) => {
        const found = answers.log.find((l) => l.id === id);
        return found ? Promise.resolve(found) : Promise.reject(new real.Refusal(404, undefined));
      },
      paces: () => Promise.resolve(answers.paces),
      dropPhoto: answers.dropPhoto,
    },
  };
});

const finished: LoggedInstall = {
  id: "one",
  planId: "plan",
  title: "The cellist, spring concert",
  client: "Ysolde Abarinwe",
  started: "2026-05-01T09:00:00Z",
  closed: "2026-05-01T16:00:00Z",
  papers: true,
  stash: [{ piece: "Driftline soft loc, Peat", used: 70, spoilt: 3, beyond: 5 }],
  log: {
    plannedMin: 300,
    workedMin: 372,
    stages: [
      { kind: "plaits", name: "Part and plait", tasks: 70, timed: 64, plannedMin: 120, actualMin: 168 },
      { kind: "attach", name: "Attach", tasks: 70, timed: 70, plannedMin: 120, actualMin: 118 },
      { kind: "settle", name: "Prepare the head", tasks: 1, timed: 0, plannedMin: 0, actualMin: 0 },
    ],
    pieces: [
      {
        piece: {
          key: "p1",
          name: "Driftline soft loc",
          colour: "Peat",
          yield: 20,
          per: 1,
          packs: 4,
          have: 80,
          need: 72,
        },
        used: 75,
        spoilt: 3,
        opened: 4,
        left: 2,
        missing: 0,
      },
    ],
    evidence: [],
    twice: 3,
    out: 0,
    again: 1,
    notes: [
      { text: "the crown is finer", hand: "first", at: 1 },
      { text: "finished", hand: "first", at: 2, photo: "picture" },
    ],
    change: [
      "Part and plait took 1.4 × as long as planned (168 min for 120): your sections behind came out smaller.",
    ],
    felt: { half: "pulls" },
  },
};

const pace = (personId: string, name: string, factor: number): LearntPace => ({
  personId,
  name,
  skills: [
    {
      skill: "plaits",
      name: "Part and plait",
      factor,
      guess: 1,
      spread: 0.14,
      lines: [
        { installId: "a", at: "2026-01-01T09:00:00Z", actualMin: 66, rateMin: 60, own: false },
        { installId: "b", at: "2026-02-01T09:00:00Z", actualMin: 84, rateMin: 60, own: true },
      ],
    },
  ],
});

function show(path: string, may: Me["may"] = ["dropPhoto"]) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(["me"], { id: "tamsin", name: "Tamsin", role: "stylist", may });
  render(
    <QueryClientProvider client={client}>
      <App>
        <MemoryRouter initialEntries={[path]}>
          <Routes>
            <Route path="/log" element={<LogPage />} />
            <Route path="/log/:id" element={<InstallLog />} />
          </Routes>
        </MemoryRouter>
      </App>
    </QueryClientProvider>,
  );
}

beforeEach(() => {
  answers.log = [finished];
  answers.paces = [
    pace("odalys", "Odalys", 0.9),
    pace("tamsin", "Tamsin", 1.25),
    { personId: "new", name: "New", skills: [] },
  ];
});
afterEach(cleanup);

describe("the log", () => {
  it("says what to do first while nothing is finished", async () => {
    answers.log = [];
    answers.paces = [];
    show("/log");
    expect(await screen.findByText("No install is finished yet")).toBeDefined();
    expect(screen.queryByRole("button", { name: "As a table" })).toBeNull();
  });

  it("shows one's own pace first, with its evidence, and that of others", async () => {
    show("/log");
    const paces = within(await screen.findByRole("region", { name: "Pace" }));
    expect(paces.getByText(/1\.25 ×/)).toBeDefined();
    expect(paces.getByRole("img").getAttribute("aria-label")).toBe(
      "Part and plait, install by install: 1.10 ×, 1.40 ×",
    );
    expect(paces.getByText(/2 installs, 2 h 30 min timed/)).toBeDefined();
    expect(paces.queryByText("New")).toBeNull();
    fireEvent.click(paces.getByText("Odalys"));
    expect(paces.getByText(/0\.90 ×/)).toBeDefined();
  });

  it("sets each head against its plan by what was timed, with its first lesson", async () => {
    show("/log");
    const head = within(await screen.findByRole("link", { name: /The cellist, spring concert/ }));
    expect(head.getByText("4 h 45 min for 4 h planned · 75 pieces")).toBeDefined();
    expect(head.getByText(/your sections behind came out smaller/)).toBeDefined();
  });
});

describe("a finished head", () => {
  it("is planned against actual, hair and stash, and what came of it", async () => {
    show("/log/one");
    expect(await screen.findByText("2 h 50 min for 2 h")).toBeDefined();
    expect(screen.getByText("64 of 70 timed")).toBeDefined();
    expect(screen.getByText(/not timed: told of in one go/)).toBeDefined();
    expect(screen.getByText("on the head, 72 planned", { exact: false }).textContent).toBe(
      "75 on the head, 72 planned",
    );
    expect(
      screen.getByText(/70 used, 3 spoilt of Driftline soft loc, Peat; 5 more were never put into it/),
    ).toBeDefined();
    expect(screen.getByText("3 came out as two")).toBeDefined();
    expect(screen.getByText("At half: it pulled")).toBeDefined();
    expect(screen.getByRole("link", { name: /Day sheet/ }).getAttribute("href")).toContain(
      "/installs/one/day-sheet.pdf",
    );
    expect(screen.getByRole("link", { name: "Plan it again" }).getAttribute("href")).toContain("from=plan");
  });

  it("has its picture deleted only after a second word, by those who may", async () => {
    show("/log/one", []);
    expect(await screen.findByAltText("finished")).toBeDefined();
    expect(screen.queryByRole("button", { name: "Delete the picture" })).toBeNull();
    cleanup();
    show("/log/one");
    fireEvent.click(await screen.findByRole("button", { name: "Delete the picture" }));
    expect(answers.dropPhoto).not.toHaveBeenCalled();
    fireEvent.click(await screen.findByRole("button", { name: "Delete it" }));
    expect(await screen.findByText("The picture is deleted.")).toBeDefined();
    expect(answers.dropPhoto).toHaveBeenCalledWith({ id: "one", photo: "picture" }, expect.anything());
  });

  it("says when there is none, and gives no papers that were never made", async () => {
    show("/log/none");
    expect(await screen.findByRole("alert")).toBeDefined();
    cleanup();
    answers.log = [{ ...finished, papers: false }];
    show("/log/one");
    await screen.findByText("What came of it");
    expect(screen.queryByRole("link", { name: /Day sheet/ })).toBeNull();
  });
});
