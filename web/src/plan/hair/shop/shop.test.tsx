// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { PlanInput, PlanResult, Shopping } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { ActContext } from "../../draft/act";
import type { Action } from "../../draft/actions";
import type { Reaching } from "../../draft/onBench";
import { OtherPieces } from "./OtherPieces";
import { PackReach } from "./PackReach";
import { Prepare } from "./Prepare";
import { StashAndOrders } from "./StashAndOrders";
import { ToBuy } from "./ToBuy";

const piece = {
  key: "p1",
  name: "Driftline",
  form: "soft-loc",
  colour: "Peat",
  swatch: "#2f2119",
  item: "i1",
  lengthMm: 457.2,
  thicknessMm: 9,
  massG: 4.2,
  loopMm: 11,
  pack: { units: 20, cuts: 1, splits: 1 },
  offers: [{ packs: 1, priceMinor: 1250 }],
};

const input = {
  pieces: [piece],
  ways: [{ key: "w1", method: "W2", settings: {}, wrapping: { name: "Marlow wrap", colour: "Peat" } }],
  uses: [{ where: { kind: "everywhere" }, piece: "p1", way: "w1", count: 1 }],
  spares: { percent: 5, least: 2 },
  fill: { piece: "p1", count: 0 },
  accents: [{ thing: { name: "Cuff", colour: "Brass" }, where: { kind: "front" }, count: 8 }],
  day: { install: "2027-03-20" },
} as unknown as PlanInput;

const line = (part: object) => ({
  key: "k",
  stash: 0,
  used: 0,
  coming: 0,
  elsewhere: 0,
  lots: [],
  order: { need: 0, packs: 0, units: 0, leftover: 0, costMinor: 0, lines: [] },
  ...part,
});

const shop = {
  need: {
    pieces: [
      {
        piece: "p1",
        onHead: 78,
        hooked: 0,
        fill: 2,
        spares: 4,
        accents: 0,
        amounts: { least: 80, likely: 82, safe: 85 },
        enough: 0.97,
        withoutSpares: 4,
        order: {},
      },
    ],
    wraps: [
      {
        way: "w1",
        plaits: 78,
        strands: 156,
        unit: "strand",
        name: "Marlow wrap",
        says: "156 strands for 78 plaits",
        order: { need: 164 },
      },
    ],
    things: [{ accent: 0, name: "Cuff", unit: "piece", count: 8, order: {} }],
    products: [{ product: "gel", name: "Firm gel", amount: 30, unit: "g", costMinor: 96 }],
  },
  fillings: [
    {
      piece: "p1",
      order: [4, 3, 2],
      reach: [
        { packs: 1, pieces: 1, at: "Back left, row 2", places: 1 },
        { packs: 2, pieces: 3, at: "all of them", places: 3 },
      ],
    },
  ],
  tasks: [
    {
      key: "rinse",
      title: "Rinse the new hair",
      count: 0,
      unit: "",
      minutes: 20,
      waitHours: 14,
      daysBefore: 1,
      steps: [{ text: "Soak it two hours." }],
    },
    {
      key: "make:p1",
      title: "Make the locs",
      count: 20,
      unit: "loc",
      minutes: 190,
      waitHours: 0,
      daysBefore: 2,
      steps: [{ text: "Cut a base {base} long.", lengthsMm: { base: 508 } }],
      batches: [
        { from: 1, to: 10, minutes: 95 },
        { from: 11, to: 20, minutes: 95 },
      ],
    },
  ],
  lines: [
    line({
      stash: 60,
      elsewhere: 7,
      order: { need: 24, packs: 2, units: 40, leftover: 16, costMinor: 2500, lines: [] },
    }),
  ],
  wrapLines: [line({ stash: 164 })],
  thingLines: [line({ order: { need: 8, packs: 1, units: 12, leftover: 4, costMinor: 450, lines: [] } })],
  holds: false,
  orders: [
    {
      supplier: "far",
      name: "Brackwater",
      days: 6,
      feeMinor: 890,
      orderBy: "2000-01-01",
      goodsMinor: 2500,
      lines: [
        { name: "Driftline", colour: "Peat", pack: 20, count: 2, offer: { packs: 1, priceMinor: 1250 } },
      ],
    },
  ],
  goodsMinor: 2500,
  feesMinor: 890,
  odds: { spoilt: 0.031, short: 0.05 },
  logged: 412,
  prepared: [{ task: "make:p1", done: 10, person: "Ikaika Moreau", at: "2027-03-18T18:00:00Z" }],
  rinseOn: "2027-03-19",
  homeBy: "2027-03-18",
} as unknown as Shopping;

const { sent, broken } = vi.hoisted(() => ({ sent: [] as [string, unknown][], broken: { is: false } }));

vi.mock("../../../api/client", async (original) => {
  const actual = await original<typeof import("../../../api/client")>();
  const note =
    <R,>(name: string, answer: R) =>
    (...what: unknown[]): Promise<R> => {
      sent.push([name, what.length === 1 ? what[0] : what]);
      return broken.is ? Promise.reject(new TypeError("no connection")) : Promise.resolve(answer);
    };
  const items = ["Thick", "Thin"].map((name, i) => ({
    id: name,
    item: {
      name,
      kind: "soft-loc",
      colours: [{ name: "Tar", swatch: "#1b1714" }],
      offers: [],
      pack: { units: 20 },
    },
    piece: { key: name, name, form: "soft-loc", item: name, thicknessMm: 12 - 5 * i },
  }));
  const side = (part: object) => ({
    colour: "Peat",
    thicknessMm: 9,
    lengthMm: 457.2,
    pieces: 80,
    packs: 4,
    stash: 0,
    costMinor: 5000,
    minutes: 400,
    weightG: 320,
    notices: 1,
    ...part,
  });
  return {
    ...actual,
    server: {
      ...actual.server,
      house: () => Promise.resolve({ version: 1, rules: { schema: 1, currency: "USD" } }),
      items: () => Promise.resolve({ items }),
      orders: () => Promise.resolve([{ state: "listed", lines: [] }]),
      holdStash: note("hold", {}),
      orderForPlan: note("list", []),
      prepare: (what: unknown) => note("prepare", undefined)(what),
      alternatives: (body: { others: unknown[] }) => {
        sent.push(["sides", body.others]);
        return Promise.resolve([
          side({ name: "Driftline" }),
          side({ name: "Thick", item: "Thick", colour: "Tar", pieces: 60, weightG: 500, notices: 2 }),
          { ...side({ name: "Thin", item: "Thin" }), trouble: "Nothing hangs there." },
        ]);
      },
    },
  };
});

const acted: Action[] = [];
const plan = { id: "plan-1", isStored: true, savedVersion: () => 1, save: vi.fn(() => Promise.resolve()) };

function draw(what: React.ReactNode) {
  return render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { mutations: { retryDelay: 1 } } })}>
      <MemoryRouter>
        <ActContext value={(action) => void acted.push(action)}>{what}</ActContext>
      </MemoryRouter>
    </QueryClientProvider>,
  );
}

const after = () => acted[acted.length - 1]?.update({ title: "", input }).input;
const press = (text: string | RegExp) =>
  fireEvent.click(screen.getByText(text, { selector: "button, button *, label *" }));

beforeEach(() => {
  acted.length = 0;
  sent.length = 0;
  broken.is = false;
  localStorage.clear();
  usePreferences.getState().set({ unit: "in" });
});
afterEach(cleanup);

describe("what to buy", () => {
  it("takes the stash first, and says which pack is for spares alone", () => {
    draw(<ToBuy input={input} result={{ tally: { weightG: 340 } } as PlanResult} shop={shop} />);
    expect(
      screen.getByText("78 on the head + 2 to fill + 4 spare =", { exact: false }).textContent,
    ).toContain("= 84");
    expect(screen.getByText("Buy 2 packs")).toBeTruthy();
    expect(
      screen.getByText("60 from the stash (7 more are promised to other plans); 2 × 20 = 40, 16 left over"),
    ).toBeTruthy();
    // 80 hang, 60 are there: one pack is enough without the four spares.
    expect(
      screen.getByText(/1 pack if you go without spares: the last pack is for spares alone/),
    ).toBeTruthy();
    expect(screen.getByText("Marlow wrap, peat")).toBeTruthy();
    expect(screen.getByText("164 from the stash")).toBeTruthy();
    expect(screen.getByText("Cuff, brass")).toBeTruthy();
  });

  it("offers three amounts with their reasons, by the studio's own log", () => {
    draw(<ToBuy input={input} result={{ tally: { weightG: 340 } } as PlanResult} shop={shop} />);
    expect(screen.getByText(/Your studio spoils 3.1 % of the pieces, of 412 logged/)).toBeTruthy();
    press("Safe");
    expect(after()?.spares).toEqual({ percent: 5, least: 2, amount: "safe", spoiltShare: 0.031 });
    press("Least");
    expect(after()?.spares).toMatchObject({ amount: "least" });
  });
});

describe("stash and orders", () => {
  it("counts the dates back, and says which is past", () => {
    draw(<StashAndOrders plan={plan} input={input} shop={shop} />);
    expect(screen.getByText(/The hair must be at home by/).textContent).toContain("Mar 18");
    expect(screen.getByText(/The hair must be at home by/).textContent).toContain("rinse it on Fri, Mar 19");
    expect(screen.getByText(/which is past: buy it in a shop, or move the day/)).toBeTruthy();
    expect(screen.getByText("Delivery").nextSibling?.textContent).toBe("$8.90");
  });

  it("stores the plan before it holds its share or lists what it lacks", async () => {
    draw(<StashAndOrders plan={plan} input={input} shop={shop} />);
    expect(screen.getByText(/60 pieces of the stash would be kept/)).toBeTruthy();
    fireEvent.click(screen.getByRole("switch", { name: /Reserve stash/ }));
    await waitFor(() => expect(sent).toContainEqual(["hold", ["plan-1", true]]));
    press("Add to orders");
    await waitFor(() => expect(sent).toContainEqual(["list", "plan-1"]));
    expect(plan.save).toHaveBeenCalledTimes(2);
    expect(await screen.findByText(/1 order for this plan: to be ordered/)).toBeTruthy();
  });
});

describe("pieces that were worn before", () => {
  it("go first where the plan asks for it", () => {
    draw(<StashAndOrders plan={plan} input={input} shop={shop} />);
    expect(screen.getByText(/New pieces go first/)).toBeTruthy();
    fireEvent.click(screen.getByRole("switch", { name: /Reuse first/ }));
    expect(after()?.reuseFirst).toBe(true);
  });

  it("go last again once that is taken back", () => {
    draw(<StashAndOrders plan={plan} input={{ ...input, reuseFirst: true }} shop={shop} />);
    fireEvent.click(screen.getByRole("switch", { name: /Reuse first/ }));
    expect(acted[0]?.update({ title: "", input: { ...input, reuseFirst: true } }).input).not.toHaveProperty(
      "reuseFirst",
    );
  });
});

describe("how far packs go", () => {
  it("shows the pack that is pointed at on the head, and no other once it is left", () => {
    const reached: (Reaching | undefined)[] = [];
    const { unmount } = draw(<PackReach input={input} shop={shop} onReach={(r) => reached.push(r)} />);
    const [first, second] = screen.getAllByRole("button");
    if (!first || !second) throw new Error("two packs");
    expect(first.textContent).toBe("1pack reaches back left, row 21 hang");
    fireEvent.focus(first);
    expect(reached.at(-1)?.packs).toBe(1);
    fireEvent.mouseEnter(second);
    expect(reached.at(-1)).toEqual({ filling: shop.fillings[0], packs: 2 });
    expect(second.getAttribute("aria-pressed")).toBe("true");
    fireEvent.click(second);
    expect(reached.at(-1)).toBeUndefined();
    unmount();
    expect(reached.at(-1)).toBeUndefined();
  });
});

describe("other pieces", () => {
  it("stand side by side with what is less, and one hangs instead by a touch", async () => {
    draw(<OtherPieces planId="plan-1" input={input} />);
    const card = (await screen.findByText("Thick", { selector: "h3" })).closest("li");
    if (!card) throw new Error("no card");
    expect(within(card).getByText("60", { exact: false }).textContent).toContain("↓");
    expect(within(card).getByText("17.6 oz").textContent).not.toContain("↓");
    expect(screen.getByText("Nothing hangs there.")).toBeTruthy();
    fireEvent.click(within(card).getByText("Hang this instead"));
    expect(after()?.pieces[0]).toMatchObject({ key: "p1", name: "Thick", colour: "Tar", swatch: "#1b1714" });
  });
});

describe("preparing at home", () => {
  it("tells who did how much, and ticks at once", async () => {
    draw(<Prepare plan={plan} shop={shop} />);
    expect(screen.getByText(/About 3 h 30 min of work at home/)).toBeTruthy();
    expect(screen.getByText(/Ikaika Moreau/)).toBeTruthy();
    const [rinse, make] = screen.getAllByRole("checkbox");
    if (!rinse || !make) throw new Error("two tasks");
    fireEvent.click(rinse);
    expect(rinse.closest("li")?.dataset.done).toBe("true");
    await waitFor(() => expect(sent).toContainEqual(["prepare", { id: "plan-1", task: "rinse", done: 1 }]));
    fireEvent.click(screen.getByLabelText("One more: Done of Make the locs"));
    expect(screen.getByLabelText("11 of 20 done")).toBeTruthy();
    fireEvent.click(screen.getAllByText("How")[1] as HTMLElement);
    expect(screen.getByText("20 in").tagName).toBe("STRONG");
    expect(screen.getByText(/✓/).textContent).toContain("1–10");
  });

  it("keeps on the device what could not be sent, and sends it at the next visit", async () => {
    broken.is = true;
    const { unmount } = draw(<Prepare plan={plan} shop={shop} />);
    fireEvent.click(screen.getAllByRole("checkbox")[0] as HTMLElement);
    await screen.findByText(/cannot be reached/, undefined, { timeout: 4000 });
    unmount();
    broken.is = false;
    sent.length = 0;
    draw(<Prepare plan={plan} shop={shop} />);
    expect((screen.getAllByRole("checkbox")[0] as HTMLInputElement).checked).toBe(true);
    await waitFor(() => expect(sent).toContainEqual(["prepare", { id: "plan-1", task: "rinse", done: 1 }]));
    await waitFor(() => expect(localStorage.getItem("kladotex.ticks.plan-1")).toBeNull());
  });
});
