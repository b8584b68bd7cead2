// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { App } from "antd";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { ChairCard, ChairView, Install, PlanResult } from "../api/types";
import { omit } from "../lib/omit";
import { usePreferences } from "../lib/preferences";
import { CheckPart } from "./CheckPart";
import type { Following, Shown, Telling } from "./following";
import { VoiceHere } from "./senses";
import { WatchPart } from "./WatchPart";
import { WorkPart } from "./WorkPart";

// The head is painted, which this environment cannot; what is touched on it is told by its number.
vi.mock("../head", () => ({
  WorkedHead: ({ onTouch, next }: { onTouch: (place: number) => void; next: number | undefined }) => (
    <button type="button" data-next={next} onClick={() => onTouch(1)}>
      the head
    </button>
  ),
}));

const card: ChairCard = {
  task: "attach/BL1.2",
  kind: "attach",
  title: "Attach",
  place: "BL1.2",
  planned: 0,
  where: "Back left, row 1, 1 of 2",
  piece: 0,
  count: 1,
  beside: ["brass cuff"],
  step: 0,
  measures: ["{middle} from the part line", "row {up} high, above the row below"],
  lengthsMm: { middle: 50.8, up: 31.75 },
  rowTasks: ["attach/BL1.2", "attach/BL1.1"],
  rowName: "Back left, row 1",
  rowDone: 0,
  rowOf: 2,
  again: false,
  twin: false,
  done: false,
};

const view: ChairView = {
  plaits: ["done", "open"],
  pieces: ["open", "open"],
  twins: [],
  head: [{ task: "finish/Check and finish", name: "Check and finish", done: false }],
  card,
  watch: {
    done: 3,
    of: 10,
    pieces: 0,
    piecesOf: 2,
    stages: [
      { kind: "attach", name: "Attach", done: 0, of: 2, plannedMin: 4, leftMin: 4 },
      { kind: "finish", name: "Check and finish", done: 0, of: 1, plannedMin: 10, leftMin: 10 },
    ],
    workedMin: 62,
    plannedMin: 60,
    leftMin: { low: 10, likely: 14, high: 18 },
    untilMin: { low: 10, likely: 14, high: 18 },
    ends: [1_000, 2_000, 3_000],
    sitting: "Sitting 1",
    says: "As fast as planned.",
    timed: true,
    packs: [
      {
        piece: 0,
        used: 22,
        spoilt: 2,
        opened: 2,
        loose: 18,
        shut: 0,
        still: 20,
        short: 2,
        says: "2 pieces short: order one pack now, or widen the sections that are left.",
        checks: [
          { region: "behind", planned: 1, now: 1.1, closed: true },
          { region: "in front", planned: 2, now: 2.1, closed: false },
        ],
      },
    ],
    balance: [{ name: "Back, row 1", left: 3, right: 2, leftDone: 1, rightDone: 2, odd: true }],
    missed: [{ region: "behind", says: "Back left, row 3 (plait)", tasks: ["plait/BL3.1"] }],
  },
  due: [],
  looks: [
    { key: "missed", title: "Missed spots behind", says: "Lift the rows.", done: false, wants: "2 places" },
    { key: "thin", title: "Thin spots", says: "Part it at the crown.", done: true, wants: "" },
  ],
  undo: [{ id: "last-event", says: "Plait: Back left, row 1, 1 of 2", at: 1 }],
  notes: [],
  working: true,
  begun: true,
  over: false,
};

const install = {
  id: "install",
  hand: "first",
  how: {
    before: [],
    plait: { text: "Plait it." },
    work: [
      { steps: [{ text: "Hook under {root}.", lengthsMm: { root: 25.4 } }, { text: "Close the latch." }] },
    ],
    after: [],
  },
  brief: {
    ownHead: false,
    hands: [{ key: "first", name: "Tamsin", plaits: true, attaches: true }],
    pieces: [
      { key: "p1", name: "Driftline soft loc", colour: "Peat", yield: 20, need: 40, packs: 2, have: 40 },
    ],
    places: [
      { id: "BL1.2", row: 0, piece: 0 },
      { id: "BL1.1", row: 0, piece: 0 },
    ],
    rows: [{ name: "Back left, row 1", region: "behind", mirror: -1, left: true }],
    tasks: [
      { key: "attach/BL1.2", kind: "attach", place: 0 },
      { key: "attach/BL1.1", kind: "attach", place: 1 },
    ],
  },
} as unknown as Install;

const result = {
  head: {},
  layout: { sections: [{ id: "BL1.2" }, { id: "BL1.1" }], tracks: [] },
} as unknown as PlanResult;

let told: Telling[];
let went: (string | undefined)[];
let time: number;
const said: string[] = [];

function following() {
  return {
    install,
    result,
    tell: (...what: Telling[]) => {
      told.push(...what);
      return Promise.resolve([]);
    },
    goTo: (task: string | undefined) => void went.push(task),
  } as unknown as Following;
}

const shownOf = (part: Partial<ChairView> = {}): Shown => ({
  view: { ...view, ...part },
  sending: "sent",
  waiting: 0,
  trouble: undefined,
});

function show(children: ReactNode) {
  return render(
    <QueryClientProvider client={new QueryClient()}>
      <App>
        <MemoryRouter>
          <VoiceHere value={{ say: (words) => void said.push(words), hush: () => undefined }}>
            {children}
          </VoiceHere>
        </MemoryRouter>
      </App>
    </QueryClientProvider>,
  );
}

const atWork = (part: Partial<ChairView> = {}, onCheck = () => undefined) =>
  show(<WorkPart following={following()} shown={shownOf(part)} listens={false} onCheck={onCheck} />);

/** Long enough after the last press that it is none of a slip. */
const later = () => (time += 1000);
const press = (name: string) => {
  later();
  fireEvent.click(screen.getByRole("button", { name }));
};
const key = (name: string) => {
  later();
  fireEvent.keyDown(document.body, { key: name });
};

beforeEach(() => {
  told = [];
  went = [];
  said.length = 0;
  time = 1_700_000_000_000;
  vi.spyOn(Date, "now").mockImplementation(() => time);
  vi.stubGlobal("fetch", () => Promise.resolve(new Response()));
  usePreferences.setState({ speaks: false, mirror: false, unit: "in", letterKeys: true });
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

describe("the next step", () => {
  it("says where, which piece, and how far, in the reader's unit", () => {
    atWork();
    expect(screen.getByRole("heading").textContent).toBe("Back left, row 1 1 of 2");
    expect(screen.getByText(/Driftline soft loc, Peat and brass cuff/)).toBeDefined();
    expect(screen.getByText("2 in from the part line · row 1¼ in high, above the row below")).toBeDefined();
    expect(screen.getByText("the head").dataset.next).toBe("0");
  });

  it("is done by the large button, the space bar and a pedal, and not twice by a slip", async () => {
    atWork();
    press("Done");
    fireEvent.click(screen.getByRole("button", { name: "Done" })); // at once
    await waitFor(() => expect(told).toHaveLength(1));
    key(" ");
    await waitFor(() => expect(told).toHaveLength(2));
    key("PageDown");
    await waitFor(() => expect(told).toHaveLength(3));
    expect(told.every((e) => e.kind === "done" && e.tasks?.[0] === "attach/BL1.2")).toBe(true);
  });

  it("closes its row, takes the last one back, and goes where the head is touched", async () => {
    atWork();
    key("r");
    await waitFor(() => expect(told.at(-1)).toEqual({ kind: "done", tasks: card.rowTasks }));
    press("Close row: 2 left");
    await waitFor(() => expect(told).toHaveLength(2));
    key("Backspace");
    await waitFor(() => expect(told.at(-1)).toEqual({ kind: "undone", of: "last-event" }));
    fireEvent.click(screen.getByText("the head"));
    expect(went).toEqual(["plait/BL1.1"]);
  });

  it("keeps its letter key to itself where those are switched off", () => {
    usePreferences.setState({ letterKeys: false });
    atWork();
    key("r");
    expect(told).toHaveLength(0);
  });

  it("begins before it is done, does again what is done, and leads to the check at the end", async () => {
    const onCheck = vi.fn();
    atWork({ working: false });
    press("Begin");
    await waitFor(() => expect(told).toEqual([{ kind: "began" }]));
    cleanup();
    atWork({ card: { ...card, done: true } });
    press("Do it again");
    await waitFor(() => expect(told.at(-1)).toEqual({ kind: "redo", tasks: ["attach/BL1.2"] }));
    press("Skip this one");
    expect(went).toEqual([undefined]);
    cleanup();
    const rest = omit(view, "card");
    show(
      <WorkPart
        following={following()}
        shown={{ ...shownOf(), view: rest }}
        listens={false}
        onCheck={onCheck}
      />,
    );
    press("Look it over");
    expect(onCheck).toHaveBeenCalledOnce();
  });

  it("shows what was missed before a region is left, or leaves it for later", () => {
    const behind = { region: "behind", says: "Back left, row 3 (plait)", tasks: ["plait/BL3.1"] };
    atWork({ behind });
    expect(screen.getByRole("heading").textContent).toBe("1 was missed");
    press("Show me");
    expect(went).toEqual(["plait/BL3.1"]);
    press("Leave for later");
    expect(screen.getByRole("button", { name: "Done" })).toBeDefined();
  });

  it("is said aloud where that is wished, with its lengths in words", () => {
    usePreferences.setState({ speaks: true });
    atWork();
    expect(said.at(-1)).toBe(
      "Attach. Back left, row 1, 1 of 2. Driftline soft loc. 2 inches from the part line. row 1¼ inches high, above the row below",
    );
  });

  it("shows its moves one after the other", () => {
    atWork();
    const how = screen.getByText(/1 of 2 · touch/).closest("button");
    if (!how) throw new Error("no moves");
    expect(how.textContent).toContain("Hook under 1 in.");
    fireEvent.click(how);
    expect(how.textContent).toContain("Close the latch.");
  });
});

describe("what is asked", () => {
  it("is answered by one touch, and what hurts is not passed over", async () => {
    atWork({
      due: [
        { key: "half", title: "How does it feel?", says: "Half of it hangs.", asks: true, pauses: false },
      ],
    });
    press("It hurts");
    await waitFor(() => expect(told).toEqual([{ kind: "answered", text: "half", answer: "hurts" }]));
    expect(screen.getByRole("alert").textContent).toContain("ask a clinician");
    press("Understood");
    expect(screen.queryByRole("alert")).toBeNull();
  });

  it("is a break to be taken or put off", async () => {
    const due = [
      { key: "break", title: "Time for a break", says: "90 min at it.", asks: false, pauses: true },
    ];
    atWork({ due });
    press("Not now");
    await waitFor(() => expect(told).toEqual([{ kind: "rested", text: "break" }]));
    press("Take it now");
    await waitFor(() => expect(told.at(-1)).toEqual({ kind: "paused", text: "break" }));
  });
});

describe("what else happens", () => {
  const open = () => {
    atWork();
    press("More: something else");
    return within(screen.getByRole("dialog"));
  };
  const choose = (name: RegExp) => {
    later();
    fireEvent.click(within(screen.getByRole("dialog")).getByRole("button", { name }));
  };

  it("came out as two, or is left out, at this place", async () => {
    open();
    choose(/Came out as two/);
    await waitFor(() => expect(told).toEqual([{ kind: "split", places: ["BL1.2"] }]));
    press("More: something else");
    choose(/Leave it out/);
    await waitFor(() => expect(told.at(-1)).toEqual({ kind: "left-out", places: ["BL1.2"] }));
  });

  it("counts what is spoilt, of which piece", async () => {
    open();
    choose(/Spoilt one/);
    choose(/One more: How many pieces/);
    choose(/One more: How many pieces/);
    choose(/Driftline soft loc/);
    await waitFor(() => expect(told).toEqual([{ kind: "spoilt", piece: "p1", count: 3 }]));
  });

  it("is written down, and leads to a row", async () => {
    open();
    choose(/^Note/);
    const keep = () => screen.getByRole<HTMLButtonElement>("button", { name: "Keep it" });
    expect(keep().disabled).toBe(true);
    fireEvent.change(screen.getByRole("textbox"), { target: { value: " the crown is finer " } });
    fireEvent.click(keep());
    await waitFor(() => expect(told).toEqual([{ kind: "noted", text: "the crown is finer" }]));
    press("More: something else");
    choose(/Go to a row/);
    choose(/Back left, row 1/);
    expect(went).toEqual(["attach/BL1.2"]);
  });

  it("keeps a picture only of one who was asked", () => {
    open();
    choose(/^Picture/);
    const take = () => screen.getByRole<HTMLButtonElement>("button", { name: "Take it" });
    expect(take().disabled).toBe(true);
    fireEvent.click(screen.getByRole("button", { name: "Yes" }));
    expect(take().disabled).toBe(false);
  });
});

describe("how it stands", () => {
  it("says what runs short, what is uneven and what was missed, and goes there", () => {
    const onWork = vi.fn();
    show(<WatchPart following={following()} shown={shownOf()} onWork={onWork} />);
    expect(screen.getByText(/2 pieces short: order one pack now/)).toBeDefined();
    expect(screen.getByText(/Closed behind with/).textContent).toContain("1.1 packs, planned 1.0");
    expect(screen.getByRole("row", { name: /Back, row 1.*the sides differ.*1 of 3 2 of 2/ })).toBeDefined();
    expect(screen.getByText("10 min to 18 min")).toBeDefined();
    fireEvent.click(screen.getByRole("button", { name: /1 behind/ }));
    expect(went).toEqual(["plait/BL3.1"]);
    expect(onWork).toHaveBeenCalledOnce();
  });

  it("is looked over, filled in and finished, with what is not told of", async () => {
    show(<CheckPart following={following()} shown={shownOf()} onWork={() => undefined} />);
    expect(screen.getByText(/1 of 2/)).toBeDefined();
    expect(screen.getByText("2 places")).toBeDefined();
    fireEvent.click(screen.getByRole("button", { name: /Missed spots behind/ }));
    fireEvent.click(screen.getByRole("button", { name: /Thin spots/ })); // looked over before
    fireEvent.click(screen.getByRole("button", { name: /Driftline soft loc/ }));
    expect(screen.getByText(/6 things are not told of yet/)).toBeDefined();
    fireEvent.click(screen.getByRole("button", { name: "Finished" }));
    await waitFor(() =>
      expect(told).toEqual([
        { kind: "checked", text: "missed" },
        { kind: "filled", piece: "p1", count: 1 },
        { kind: "done", tasks: ["finish/Check and finish"] },
        { kind: "ended" },
      ]),
    );
  });
});
