// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act as settle, cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { DayPlan, DaySpan, PlanInput } from "../../api/types";
import { ActContext } from "../draft/act";
import type { Action } from "../draft/actions";
import type { Draft } from "../draft/draft";
import { DayLine } from "./DayLine";
import { FitHours } from "./FitHours";
import { HoursPart } from "./HoursPart";
import { after, daysBetween, stretches } from "./kinds";
import { orderReading } from "./order";
import { RowOrder } from "./RowOrder";
import { SittingsPart } from "./SittingsPart";
import { TryOne } from "./TryOne";

const quicker = vi.hoisted(() => vi.fn());
vi.mock("../../api/client", async (original) => {
  const real = await original<typeof import("../../api/client")>();
  return { ...real, server: { ...real.server, quicker } };
});

const span = (kind: DaySpan["kind"], person: number, startMin: number, endMin: number): DaySpan => ({
  kind,
  person,
  startMin,
  endMin,
  name: kind,
  row: 0,
  step: 0,
});

const range = (likely: number) => ({ low: 0.8 * likely, likely, high: 1.2 * likely });

const usual = {
  longestMin: 180,
  at: "18:30",
  everyDays: 1,
  breaks: { afterMin: 90, longMin: 10, arms: true },
};

const row = (number: number, key: string, group: "behind" | "part", places: number[]) => ({
  number,
  key,
  name: `Row ${key}`,
  group,
  side: "left" as const,
  places,
  pieces: places.length,
  plaitMin: 6,
  attachMin: 9,
});

const sitting = (on: string, spans: DaySpan[]) => ({
  on,
  at: "18:30",
  minutes: 170,
  limitMin: 180,
  does: "Plait rows 1 to 2",
  spans,
  waitsMin: [0, 12],
});

const day: DayPlan = {
  hours: { stages: [{ kind: "plaits", name: "Part and plait", minutes: range(120) }], total: range(120) },
  figures: [
    { key: "attach", name: "Attaching only", holds: "attach, hide the plaits", minutes: range(40) },
    { key: "home", name: "At home beforehand, apart", holds: "wash own hair", minutes: range(75) },
  ],
  practisedMin: 100,
  finish: [{ name: "Check the back, smooth and roll", minutes: 22 }],
  hands: [
    { key: "a", name: "Odalys", hand: "practised", does: "both" },
    { key: "b", name: "Ikaika", hand: "used", does: "plaits-first" },
  ],
  rows: [row(1, "BL1", "behind", [0, 1]), row(2, "BL2", "behind", [2]), row(3, "part", "part", [3])],
  sittings: [
    sitting("2026-12-30", [span("plaits", 0, 0, 60), span("plaits", 1, 0, 80), span("attach", 0, 80, 170)]),
    sitting("2026-12-31", [span("attach", 0, 0, 170)]),
  ],
  aloneMin: 300,
  labourMin: 300,
  timeable: [
    { skill: "plaits", name: "Part and plait a section", places: 60, rateMin: 2 },
    { skill: "L1", name: "Hitch and weave", places: 60, rateMin: 1.5 },
  ],
  paces: [],
  due: [],
  says: ["Practised hands take about 1 h 40 min."],
  usual,
};

const input = { ownHead: true } as unknown as PlanInput;

/** Draws something of a plan, and says what the actions done make of it. */
function drawn(node: ReactNode, start: PlanInput = input) {
  let draft: Draft = { title: "Plan", input: start };
  const done: Action[] = [];
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={client}>
      <ActContext
        value={(action) => {
          done.push(action);
          draft = action.update(draft);
        }}
      >
        {node}
      </ActContext>
    </QueryClientProvider>,
  );
  return { draft: () => draft, done };
}

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe("times and dates", () => {
  it("go past midnight, months, years and leap days", () => {
    expect(after("22:30", 100)).toBe("00:10");
    expect(daysBetween("2026-12-31", "2027-01-01")).toBe(1);
    expect(daysBetween("2028-02-28", "2028-03-01")).toBe(2);
    expect(daysBetween("2027-03-27", "2027-03-29")).toBe(2); // the clocks change in between
  });

  it("join what one person does without a pause, and keep apart what others do", () => {
    const all = stretches([
      span("plaits", 0, 0, 10),
      span("plaits", 1, 0, 12),
      span("plaits", 0, 10, 25),
      span("attach", 0, 25, 30),
      span("conceal", 0, 30, 40),
      span("plaits", 1, 20, 30),
    ]);
    expect(all.map((s) => [s.person, s.kind, s.start, s.end])).toEqual([
      [0, "plaits", 0, 25],
      [1, "plaits", 0, 12],
      [1, "plaits", 20, 30],
      [0, "attach", 25, 40],
    ]);
  });
});

describe("the line of a sitting", () => {
  it("says in words who does what for how long", () => {
    drawn(<DayLine sitting={day.sittings[0] ?? sitting("", [])} hands={day.hands} longest={170} />);
    const label = screen.getByRole("img").getAttribute("aria-label");
    expect(label).toContain("Odalys part and plait 1 h");
    expect(label).toContain("Ikaika part and plait 1 h 20 min");
  });
});

describe("what it takes", () => {
  it("says with every figure what is in it, and whose work it is", () => {
    drawn(<HoursPart day={day} />);
    expect(screen.getByText("attach, hide the plaits")).toBeTruthy();
    expect(screen.getByText(/Work of Odalys alone/)).toBeTruthy();
    expect(screen.getByText(/Practised hands take/)).toBeTruthy();
  });
});

describe("the first piece", () => {
  beforeEach(() => void vi.useFakeTimers({ now: 1_800_000_000_000 }));
  afterEach(() => void vi.useRealTimers());

  const big = () => screen.getByRole("button", { name: /first piece|done/ });
  const pass = (seconds: number) => {
    settle(() => {
      vi.advanceTimersByTime(1000 * seconds);
    });
  };

  it("is timed press by press, a slip of the finger not counted, five at most", () => {
    const { draft, done } = drawn(<TryOne day={day} />);
    fireEvent.click(big());
    pass(90);
    fireEvent.click(big());
    pass(1);
    fireEvent.click(big()); // a slip
    expect(screen.getByText(/Piece 2 done/)).toBeTruthy();
    pass(119);
    fireEvent.click(big());
    fireEvent.click(screen.getByRole("button", { name: /That is enough/ }));
    expect(draft().input.day?.trials).toEqual([{ skill: "L1", by: "a", minutes: [1.5, 2], rateMin: 1.5 }]);
    fireEvent.click(big());
    for (let n = 0; n < 5; n++) {
      pass(60);
      fireEvent.click(big());
    }
    expect(done).toHaveLength(2);
    expect(draft().input.day?.trials?.[1]?.minutes).toEqual([1, 1, 1, 1, 1]);
  });

  it("may be given up", () => {
    const { done } = drawn(<TryOne day={day} />);
    fireEvent.click(big());
    fireEvent.click(screen.getByRole("button", { name: /Give it up/ }));
    expect(done).toHaveLength(0);
    expect(big().textContent).toContain("Begin the first piece");
  });
});

describe("will it fit", () => {
  const wished = { ...input, day: { install: "", withinMin: 240 } } as PlanInput;

  it("offers other plans where it does not, each to take or to pin beside", async () => {
    const other = { ...input, child: true } as PlanInput;
    quicker.mockResolvedValue([
      {
        key: "larger",
        says: "Fewer and larger",
        input: other,
        minutes: 230,
        longestMin: 230,
        sittings: 1,
        pieces: 60,
        fits: true,
      },
    ]);
    const { draft } = drawn(<FitHours input={wished} day={day} />, wished);
    const offer = await screen.findByText("Fewer and larger");
    const li = offer.closest("li");
    if (!li) throw new Error("no entry");
    expect(within(li).getByText("fits")).toBeTruthy();
    fireEvent.click(within(li).getByRole("button", { name: /Pin beside/ }));
    expect(draft().variants).toEqual([{ name: "Fewer and larger", input: other }]);
    fireEvent.click(within(li).getByRole("button", { name: "Take it" }));
    expect(draft().input).toEqual(other);
  });

  it("asks for nothing where it does", () => {
    quicker.mockClear();
    drawn(<FitHours input={{ ...wished, day: { install: "", withinMin: 600 } }} day={day} />);
    expect(screen.getByText(/Within your hours/)).toBeTruthy();
    expect(quicker).not.toHaveBeenCalled();
  });
});

describe("sittings", () => {
  it("move with the first, and a later one by its distance", () => {
    const { draft } = drawn(<SittingsPart input={input} day={day} />);
    fireEvent.change(screen.getByLabelText("Date of sitting 1"), { target: { value: "2027-01-04" } });
    expect(draft().input.day?.install).toBe("2027-01-04");
    fireEvent.change(screen.getByLabelText("Date of sitting 2"), { target: { value: "2027-01-02" } });
    expect(draft().input.day?.sittings?.slots).toEqual([{}, { afterDays: 3 }]);
    fireEvent.change(screen.getByLabelText("When sitting 2 begins"), { target: { value: "10:00" } });
    expect(draft().input.day?.sittings?.slots?.[1]).toEqual({ afterDays: 3, at: "10:00" });
    fireEvent.change(screen.getByLabelText("Date of sitting 2"), { target: { value: "2026-12-29" } });
    expect(draft().input.day?.sittings?.slots?.[1]?.afterDays).toBe(3); // not before the one before it
  });

  it("say who waits", () => {
    drawn(<SittingsPart input={input} day={day} />);
    expect(screen.getAllByText(/Ikaika waits 12 min/)).toHaveLength(2);
  });
});

describe("the working order", () => {
  it("is moved row by row by its arrows, and taken back to the rule", () => {
    const { draft } = drawn(<RowOrder input={input} day={day} />);
    fireEvent.click(screen.getByRole("button", { name: "Later: Row BL1" }));
    expect(draft().input.day?.order?.rows).toEqual(["BL2", "BL1", "part"]);
    cleanup();
    const own = { ...input, day: { install: "", order: { rows: ["BL2", "BL1", "part"] } } } as PlanInput;
    const back = drawn(<RowOrder input={own} day={day} />, own);
    fireEvent.click(screen.getByRole("button", { name: "By rule again" }));
    expect(back.draft().input.day?.order?.rows).toEqual([]);
  });

  it("stands on the head as numbers, each group with its colour and its range", () => {
    const reading = orderReading(day);
    const of = (place: number) => reading.of({ given: { place } } as never);
    expect([0, 1, 2, 3].map((p) => of(p).mark)).toEqual(["1", "1", "2", "3"]);
    expect(of(0).range).toBe("1–2");
    expect(of(3).range).toBe("3");
    expect(of(9).key).toBe("none");
    expect(reading.says?.({ given: { place: 2 } } as never)).toBe("2: Row BL2");
  });
});
