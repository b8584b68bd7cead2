// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Drape, Fitting, Landings, NoticeFact, PlanInput, Price } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { ActContext } from "../../draft/act";
import type { Action } from "../../draft/actions";
import { Cost } from "./Cost";
import { Falls } from "./Falls";
import { FitAndLoad } from "./FitAndLoad";
import { Landing } from "./Landing";
import { fallReadings } from "./readings";
import { useWorn } from "../../draft/worn";

const input = {
  pieces: [{ key: "p1", name: "Driftline", form: "soft-loc", lengthMm: 457.2, thicknessMm: 9, massG: 4 }],
  uses: [{ where: { kind: "everywhere" }, piece: "p1", way: "w1", count: 1 }],
  fill: { piece: "p1", count: 0 },
} as unknown as PlanInput;

const lighter = { ...input, child: true } as PlanInput;

const fitting = {
  places: [
    { fit: "fat-plait", hungG: 4, soakedG: 8, loadMg: 5, word: "usual" },
    { hungG: 12, soakedG: 24, loadMg: 14, word: "too-heavy" },
  ],
  zones: [
    {
      name: "Back",
      places: 68,
      hooked: false,
      plaitMm: { least: 3.1, most: 4.2 },
      loadMg: { least: 2.9, most: 14 },
      findings: [
        {
          code: "too-heavy",
          severity: "danger",
          places: ["BL1.1"],
          count: 4,
          reason: "12 g on about 1000 hairs.",
          words: "Pieces of at most 6 g here.",
          remedies: [{ says: "The same cut to 9 in: 2 g a piece", input: lighter }],
        },
      ],
    },
    {
      name: "Front",
      places: 30,
      hooked: false,
      plaitMm: { least: 3, most: 3 },
      loadMg: { least: 3, most: 3.5 },
      findings: [],
    },
  ],
  load: {
    dryG: 700,
    soakedG: 1400,
    heavyG: 600,
    mostG: 900,
    medianMg: 3.3,
    greatestMg: 14,
    usualMg: 3.3,
    says: ["700 g dry: heavy to wear."],
    noLimit: "No safe limit is published; this is compared with what is commonly hung.",
  },
} as unknown as Fitting;

const end = (z: number) => [
  [0, 50, 80],
  [-100, 50, z],
];
const drape = {
  style: "down",
  statureMm: 1650,
  vertexMm: 105,
  asked: true,
  torso: [
    [-60, 5, -60, 52],
    [-700, 85, -100, 216],
  ],
  face: [
    [10, 98, -20, 75],
    [-117, 75, 30, 22],
  ],
  pieces: [
    { piece: 0, place: 0, liftMm: 0, thickMm: 9, ends: 0.742, line: "armpit", points: end(-320) },
    { piece: 0, place: 1, liftMm: 0, thickMm: 9, ends: 0.597, line: "waist", points: end(-560) },
  ],
  cover: {
    bare: 0.18,
    shows: [
      {
        kind: "track",
        name: "Cornrow 2 shows on top, both sides",
        lengthMm: 90,
        areaMm2: 0,
        points: [[0, 20, 100]],
        fill: [
          [0, 0.2, 0.98],
          [0, -0.2, 0.98],
        ],
        remedy: "Fill here: 2 pieces.",
      },
    ],
  },
  chin: { layers: 1.6, outlineMm: 500, crossing: 90 },
  shoulder: { layers: 1.1, outlineMm: 600, crossing: 80 },
  outline: [
    { zMm: 80, leftMm: 60, rightMm: -60 },
    { zMm: -300, leftMm: 150, rightMm: -150 },
  ],
} as unknown as Drape;

const landings = {
  statureMm: 1651,
  asked: false,
  all: { low: 0.6, middle: 0.7, high: 0.78, line: "mid-back" },
  longest: { name: "Front, row 6", lands: { low: 0.55, middle: 0.6, high: 0.62, line: "waist" } },
  rows: [
    {
      name: "Back, row 1",
      front: false,
      pieces: 8,
      lands: { low: 0.6, middle: 0.63, high: 0.64, line: "waist" },
      guideMm: 381,
      shortestMm: 370,
      longestMm: 390,
      offMm: 76.2,
      drawn: [0],
    },
    {
      name: "Front, row 6",
      front: true,
      pieces: 4,
      lands: { low: 0.7, middle: 0.75, high: 0.8, line: "armpit" },
      guideMm: 508,
      shortestMm: 500,
      longestMm: 520,
      offMm: -50.8,
      drawn: [1],
    },
  ],
  lines: [
    { key: "shoulder", name: "shoulder", share: 0.818, firstMm: 150, halfMm: 260, allMm: 390 },
    { key: "waist", name: "waist", share: 0.63, firstMm: 480, halfMm: 600, allMm: 730 },
  ],
} as unknown as Landings;

const price: Price = {
  lines: [
    { kind: "hair", name: "Driftline, peat", detail: "5 packs", amountMinor: 6250 },
    { kind: "work", name: "Work", detail: "5 h 45 min", amountMinor: 18400 },
  ],
  taxName: "Sales tax",
  taxPercent: 8.875,
  taxIncluded: false,
  taxMinor: 2188,
  totalMinor: 26838,
  depositMinor: 5368,
  restMinor: 21470,
};

const { sent } = vi.hoisted(() => ({ sent: [] as unknown[] }));
const quote = (number: number) => ({
  id: `q${number}`,
  number,
  state: "accepted",
  expired: false,
  given: { on: "2026-11-20" },
});

vi.mock("../../../api/client", async (original) => {
  const real = await original<object>();
  return {
    ...real,
    server: {
      clearance: () =>
        Promise.resolve({ clear: true, asked: true, cautions: [], refusals: [], history: [], questions: [] }),
      fitting: () => Promise.resolve(fitting),
      drape: () => Promise.resolve(drape),
      landing: () => Promise.resolve(landings),
      price: () => Promise.resolve(price),
      quotes: () => Promise.resolve([quote(3)]),
      house: () =>
        Promise.resolve({
          version: 1,
          rules: { currency: "USD" },
          asks: { rateMinor: 3200, ratesMinor: { p2: 2000 } },
        }),
      items: () =>
        Promise.resolve({
          items: [
            {
              id: "d24",
              pieces: 40,
              item: { name: "Driftline soft loc, 24 in", colours: [{ name: "Peat", swatch: "#2f2119" }] },
              piece: {
                key: "d24",
                item: "d24",
                name: "Driftline",
                form: "soft-loc",
                lengthMm: 609.6,
                massG: 5.5,
              },
            },
          ],
        }),
      people: () => Promise.resolve([{ id: "p2", name: "Ikaika Moreau", role: "apprentice" }]),
      me: () => Promise.resolve({ may: ["giveQuote"] }),
      giveQuote: (body: unknown) => {
        sent.push(body);
        return Promise.resolve(quote(4));
      },
    },
  };
});

const acted: Action[] = [];
const plan = {
  id: "plan-1",
  isStored: true,
  savedVersion: vi.fn((): number | undefined => 7),
  save: vi.fn(() => Promise.resolve()),
};

const draw = (what: React.ReactNode) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <ActContext value={(action) => void acted.push(action)}>{what}</ActContext>
      </MemoryRouter>
    </QueryClientProvider>,
  );

const after = (from = input) => acted[acted.length - 1]?.update({ title: "", input: from }).input;

beforeEach(() => {
  acted.length = 0;
  sent.length = 0;
  plan.savedVersion.mockReturnValue(7);
  usePreferences.getState().set({ unit: "in" });
  useWorn.getState().set({ style: "down", asked: undefined, pointed: undefined });
});
afterEach(cleanup);

describe("fit and load", () => {
  it("says what is too heavy, always with the honest sentence, and puts it right with one touch", async () => {
    draw(<FitAndLoad input={input} clientId="" />);
    const back = within(await screen.findByLabelText("Back"));
    expect(back.getByText(/At 4 of 68 spots. 12 g on about 1000 hairs/)).toBeTruthy();
    expect(screen.getByText(/No safe limit is published/)).toBeTruthy();
    expect(within(screen.getByLabelText("Front")).getByText(/Suits, and is not heavy/)).toBeTruthy();
    fireEvent.click(back.getByText("The same cut to 9 in: 2 g a piece"));
    expect(after()).toEqual(lighter);
  });

  it("shows on the head what is looked at, and no more once it is left", async () => {
    const { unmount } = draw(<FitAndLoad input={input} clientId="" />);
    await screen.findByLabelText("Back");
    expect(useWorn.getState().asked).toBe("fit");
    fireEvent.click(screen.getByText("Load on the head"));
    expect(useWorn.getState().asked).toBe("load");
    unmount();
    expect(useWorn.getState().asked).toBeUndefined();
  });
});

describe("drape and cover", () => {
  it("fills what shows with one touch, and takes it out again", async () => {
    draw(<Falls input={input} variants={[]} />);
    fireEvent.click(await screen.findByText("Fill here: 2 pieces"));
    const filled = after();
    expect(filled?.fill.at).toHaveLength(2);
    cleanup();
    draw(<Falls input={filled ?? input} variants={[]} />);
    expect(await screen.findByText(/2 pieces fill thin spots/)).toBeTruthy();
    fireEvent.click(screen.getByText("Take them out"));
    expect(after(filled)?.fill.at).toEqual([]);
  });

  it("compares the fullness with what is pinned", async () => {
    draw(<Falls input={input} variants={[{ name: "Fewer, thicker", input: lighter }]} />);
    expect(await screen.findByText("Fewer, thicker")).toBeTruthy();
    expect(screen.getAllByText("1.6").length).toBe(2);
    expect(screen.getByText(/Dashed: the states that are pinned/)).toBeTruthy();
  });
});

describe("where it lands", () => {
  it("says the usual height was taken, and keeps one that is said", async () => {
    draw(<Landing input={input} />);
    expect(await screen.findByText(/Not given: a usual 65 in is taken/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText("Height standing"), { target: { value: "67" } });
    expect(after()?.statureMm).toBeCloseTo(1701.8);
    fireEvent.change(screen.getByLabelText("Height standing"), { target: { value: "0" } });
    expect(after()?.statureMm).toBeUndefined();
  });

  it("offers the supplies' piece that reaches a line, or the same in another length", async () => {
    draw(<Landing input={input} />);
    const choose = async (name: RegExp) => {
      fireEvent.mouseDown(await screen.findByLabelText("Body line to reach"));
      fireEvent.click(await screen.findByText(name, { selector: ".ant-select-item-option-content" }));
    };
    await choose(/^waist/);
    fireEvent.click(await screen.findByText(/Take Driftline soft loc, 24 in/));
    expect(after()?.pieces[0]).toMatchObject({ key: "p1", item: "d24", lengthMm: 609.6, colour: "Peat" });
    await choose(/^shoulder/);
    fireEvent.click(await screen.findByText(/Driftline in 11 in/));
    expect(after()?.pieces[0]).toMatchObject({ lengthMm: 279.4, massG: 2.44 });
  });

  it("lists the guide piece of every row, and what falls short", async () => {
    draw(<Landing input={{ ...input, trim: { shape: "blunt", line: "waist" } }} />);
    const row = within((await screen.findByText("Back, row 1")).closest("tr") as HTMLElement);
    expect(row.getByText("15 in")).toBeTruthy();
    expect(row.getByText("3 in")).toBeTruthy();
    expect(screen.getByText("2 in short")).toBeTruthy();
    fireEvent.click(screen.getByText("Not"));
    expect(after({ ...input, trim: { shape: "blunt", line: "waist" } })?.trim).toBeUndefined();
    fireEvent.click(screen.getByText("Bob"));
    expect(after()?.trim).toEqual({ shape: "bob", line: "chin" });
  });

  const facts: NoticeFact[] = [
    {
      code: "fat-plait",
      subject: "fit",
      title: "Plaits may show through",
      label: "Plait too fat to hide",
      mark: "F",
    },
    { code: "too-heavy", subject: "load", title: "Too heavy here" },
  ];

  it("colours the head by where pieces end, how they suit and how heavy they are", () => {
    const [fit, load, landing] = fallReadings(facts, fitting, drape);
    const at = (place: number) => ({ given: { place } }) as never;
    expect(fit?.of(at(0)).name).toBe("Plait too fat to hide");
    expect(fit?.of(at(1)).name).toBe("Suits");
    expect(load?.of(at(1)).name).toBe("Too heavy: not this piece");
    expect(landing?.of(at(0)).name).toBe("Armpit");
    expect(landing?.of(at(1)).name).toBe("Waist");
    expect(load?.says?.(at(1))).toContain("12.0 g hang here, about 24.0 g soaked");
    expect(landing?.says?.(at(1))).toContain("hangs at: waist");
    expect(fallReadings(facts, undefined, undefined).every((r) => r.of(at(0)).mark === "…")).toBe(true);
  });
});

describe("price and quote", () => {
  it("adds up on the screen, in the studio's currency", async () => {
    draw(<Cost plan={plan} input={input} />);
    expect((await screen.findByText("Driftline, peat")).closest("tr")?.textContent).toContain("$62.50");
    expect(screen.getByText(/Sales tax 8.875 %/).closest("tr")?.textContent).toContain("$21.88");
    expect(screen.getByText("All").closest("tr")?.textContent).toContain("$268.38");
    expect(screen.getByText("Quote 3").closest("li")?.textContent).toContain("Accepted");
    fireEvent.click(screen.getByText("Add an extra"));
    expect(after()?.price?.extras).toEqual([{ name: "Wash and dry", amountMinor: 1500 }]);
  });

  it("gives a quote of what is saved, and of nothing else", async () => {
    draw(<Cost plan={plan} input={input} />);
    fireEvent.click(await screen.findByText("Give a quote"));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ plan: "plan-1", version: 7, unit: "in", paper: "letter" });
    plan.savedVersion.mockReturnValue(undefined);
    // A button still at work takes no click.
    await waitFor(() => expect(screen.getByText("Give a quote").closest(".ant-btn-loading")).toBeNull());
    fireEvent.click(screen.getByText("Give a quote"));
    expect(await screen.findByText(/The plan could not be saved/)).toBeTruthy();
    expect(sent).toHaveLength(1);
  });
});
