// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refusal } from "../api/client";
import type { Catalogue, Item, ItemDocument, Lot, StockOrder, Supplier } from "../api/types";
import { Arrival } from "./Arrival";
import { ItemList } from "./ItemList";
import { LotMoves } from "./LotMoves";
import { NewLot } from "./NewLot";
import { OrderList } from "./OrderList";
import { Packs } from "./Packs";
import { Scale } from "./Scale";
import { Stash } from "./Stash";
import { SupplierForm } from "./SupplierForm";
import { SupplierList } from "./SupplierList";

const locs: Item = {
  schema: 1,
  kind: "soft-loc",
  name: "Driftline",
  line: "Driftline",
  colours: [
    { name: "Tar", swatch: "#1b1714" },
    { name: "Peat", swatch: "#2f2119", tip: "#8a6238" },
  ],
  lengthMm: 457.2,
  folded: false,
  thicknessMm: 9,
  massG: 4,
  loopMm: 0,
  stiffness: "",
  fibre: "synthetic",
  coated: true,
  pack: { units: 20, cuts: 1, splits: 1 },
  offers: [
    { packs: 1, priceMinor: 1250, supplier: "near" },
    { packs: 6, priceMinor: 6600, supplier: "near" },
  ],
  currency: "USD",
  articles: [{ supplier: "near", number: "D-18" }],
  note: "",
};

const item: ItemDocument = {
  id: "i1",
  item: locs,
  archived: false,
  version: 1,
  updated: "2026-11-20T10:00:00Z",
  pieces: 53,
  promised: 20,
  depths: [1, 2],
};

const lot: Lot = {
  id: "l1",
  item: "i1",
  name: "Driftline",
  kind: "soft-loc",
  swatch: "#2f2119",
  lot: { colour: "Peat", lengthMm: 0, pack: 20, round: 0, condition: "new", counted: false },
  stock: { packs: 2, loose: 13 },
  pieces: 53,
  promises: [{ planId: "p", plan: "The cellist", pieces: 30 }],
  created: "2026-11-20T10:00:00Z",
  ends: false,
};

const worn: Lot = {
  ...lot,
  id: "l2",
  lot: { ...lot.lot, round: 2, condition: "worn", lengthMm: 406.4 },
  stock: { packs: 0, loose: 26 },
  pieces: 26,
  promises: [],
};

const catalogue = {
  kinds: [
    {
      kind: "soft-loc",
      name: "Soft loc",
      unit: "piece",
      units: "pieces",
      hair: true,
      loose: false,
      hangs: true,
    },
    { kind: "cuffs", name: "Cuffs", unit: "cuff", units: "cuffs", hair: false, loose: false, hangs: false },
  ],
  moves: ["bought", "opened", "used", "spoilt", "saved", "counted", "given", "adjusted"].map((kind) => ({
    kind,
    name: `${kind[0]?.toUpperCase()}${kind.slice(1)}`,
    means: `what ${kind} means`,
    reasoned: kind === "adjusted",
  })),
} as unknown as Catalogue;

const order: StockOrder = {
  id: "o1",
  supplier: "near",
  planId: "p",
  plan: "The cellist",
  state: "ordered",
  lines: [
    {
      item: "i1",
      name: "Driftline",
      colour: "Peat",
      pack: 20,
      offer: { packs: 6, priceMinor: 6600 },
      count: 1,
    },
  ],
  feeMinor: 550,
  goodsMinor: 6600,
  orderedOn: "2026-11-20",
  dueOn: "2026-11-22",
};

const seller: Supplier = {
  key: "near",
  name: "Chandlery Row",
  feeMinor: 550,
  days: 2,
  practice: true,
  archived: false,
  version: 1,
};

const { sent, note, forget, ask, fail } = vi.hoisted(() => {
  const sent: Partial<Record<string, unknown[]>> = {};
  const note = (name: string, what: unknown) => (sent[name] = [...(sent[name] ?? []), what]);
  let refuse: Error | undefined;
  return {
    sent,
    note,
    forget: () => {
      for (const name of Object.keys(sent)) sent[name] = undefined;
    },
    /** What the server refuses from now on, or nothing. */
    fail: (error: Error | undefined) => void (refuse = error),
    ask:
      <R,>(name: string, answer: R) =>
      (argument: unknown): Promise<R> => {
        note(name, argument);
        return refuse ? Promise.reject(refuse) : Promise.resolve(answer);
      },
  };
});

let orders: StockOrder[] = [order];
const near: Supplier = { ...seller, came: { supplier: "near", orders: 2, packs: 9, missing: 3, lacking: 1 } };
let suppliers: Supplier[] = [near];

vi.mock("../api/client", async (original) => {
  const actual = await original<typeof import("../api/client")>();
  return {
    ...actual,
    server: {
      ...actual.server,
      me: () =>
        Promise.resolve({
          id: "o",
          name: "Odalys",
          role: "owner",
          may: ["createItem", "placeOrder", "addSupplier"],
        }),
      house: () => Promise.resolve({ version: 1, rules: { schema: 1, currency: "USD" } }),
      catalogue: () => Promise.resolve(catalogue),
      items: () => Promise.resolve({ items: [item] }),
      stash: () => Promise.resolve({ items: [lot, worn] }),
      stashMoves: () =>
        Promise.resolve([
          {
            kind: "used",
            packs: 0,
            pieces: -27,
            person: "Tamsin",
            at: "2026-11-21T10:00:00Z",
            plan: "The cellist",
          },
          { kind: "opened", packs: -2, pieces: 40, person: "Tamsin", at: "2026-11-21T10:00:00Z" },
        ]),
      moveStash: ask("move", {}),
      addLot: ask("lot", {}),
      orders: () => Promise.resolve(orders),
      suppliers: () => Promise.resolve(suppliers),
      addSupplier: ask("supplier", {}),
      saveSupplier: ask("saved", {}),
      practiseSuppliers: ask("practise", []),
      supplierList: () =>
        Promise.resolve([
          { number: "D-18", item: locs },
          { number: "D-24", item: { ...locs, name: "Longer", articles: [] } },
        ]),
      refreshPrices: (save: boolean) => {
        note("prices", save);
        return Promise.resolve([
          { item: "i1", name: "Driftline", supplier: "near", packs: 6, wasMinor: 6600, isMinor: 6450 },
        ]);
      },
      placeOrder: ask("place", {}),
      dropOrder: ask("drop", undefined),
      arriveOrder: ask("arrive", {}),
      createItem: (id: string, draft: unknown) => {
        note("item", draft);
        return Promise.resolve({ ...item, id });
      },
      weigh: () => Promise.resolve({ readingsG: [40, 95, 88, 86.5], bagG: 6.5 }),
    },
  };
});

function draw(what: React.ReactNode) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(["me"], {
    id: "o",
    name: "Odalys",
    role: "owner",
    may: ["createItem", "placeOrder", "addSupplier"],
  });
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter>{what}</MemoryRouter>
    </QueryClientProvider>,
  );
}

const press = (text: string | RegExp) =>
  fireEvent.click(screen.getByText(text, { selector: "button, button *, label *" }));

beforeEach(() => {
  forget();
  fail(undefined);
  orders = [order];
});
afterEach(cleanup);

describe("the stash", () => {
  it("is drawn as packs, as full as they are, with a band on those that are promised", () => {
    const { container } = render(
      <Packs packs={12} loose={5} pack={20} swatch="#000000" tip={undefined} hair promised={25} />,
    );
    const drawn = [...container.querySelectorAll("svg")];
    expect(drawn).toHaveLength(11); // one open, ten of the twelve shut ones
    expect(drawn[0]?.querySelectorAll("g")).toHaveLength(2); // a quarter full of six strands
    expect(drawn[1]?.querySelectorAll("g")).toHaveLength(6);
    expect(container.textContent).toContain("+ 2");
    // 25 of 20 a pack: the open one and the first shut one.
    expect(drawn.filter((d) => d.querySelector("[class*=band]"))).toHaveLength(2);
  });

  it("says what lies there, to whom it is promised, and how often it was worn", async () => {
    draw(<Stash />);
    expect(await screen.findByText("53 pieces")).toBeTruthy();
    expect(screen.getByText("2 shut packs of 20, 13 loose")).toBeTruthy();
    expect(screen.getByText("30 promised to The cellist").getAttribute("href")).toBe("/plans/p/hair");
    expect(screen.getByText("worn twice, worn")).toBeTruthy();
    expect(screen.getByText("cut to 16 in")).toBeTruthy();
  });

  it("takes a move in packs or pieces as its kind wants them, and shows the ledger", async () => {
    draw(<LotMoves lot={lot} catalogue={catalogue} onClose={() => undefined} />);
    expect(await screen.findByText(/−27 loose/)).toBeTruthy();
    expect(screen.getByText(/−2 packs, \+40 loose/)).toBeTruthy();
    // Used: pieces alone.
    fireEvent.change(screen.getByLabelText("Loose pieces", { selector: "input" }), {
      target: { value: "7" },
    });
    press("Write it down");
    await waitFor(() => expect(sent.move).toHaveLength(1));
    expect(sent.move?.[0]).toMatchObject({ lot: "l1", kind: "used", packs: 0, loose: 7, planId: "p" });
    // Counted begins with what the ledger says.
    press("Counted");
    expect(screen.getByLabelText<HTMLInputElement>("Shut packs", { selector: "input" }).value).toBe("2");
    press("Write it down");
    await waitFor(() => expect(sent.move).toHaveLength(2));
    expect(sent.move?.[1]).toMatchObject({ kind: "counted", packs: 2, loose: 13 });
    const ids = sent.move?.map((m) => (m as { id: string }).id);
    expect(new Set(ids).size).toBe(2); // each move has its own
    // A refusal is told at its field, and the same move can be sent again.
    fail(
      new Refusal(422, {
        type: "about:blank",
        detail: "There is not so much.",
        errors: [{ location: "body.loose", message: "Too many." }],
      }),
    );
    press("Spoilt");
    fireEvent.change(screen.getByLabelText("Loose pieces", { selector: "input" }), {
      target: { value: "99" },
    });
    press("Write it down");
    expect(await screen.findByText("Too many.")).toBeTruthy();
  });

  it("takes in what is new in packs, and what was worn in pieces", async () => {
    const closed = vi.fn();
    draw(<NewLot onClose={closed} />);
    const which = await screen.findByLabelText("Which piece or thing");
    fireEvent.mouseDown(which);
    fireEvent.click(await screen.findByText("Driftline"));
    press("Saved from a head");
    expect(screen.queryByLabelText("Shut packs of 20", { selector: "input" })).toBeNull();
    fireEvent.change(screen.getByLabelText("pieces", { selector: "input" }), { target: { value: "31" } });
    press("Put it in");
    await waitFor(() => expect(closed).toHaveBeenCalled());
    expect(sent.lot?.[0]).toMatchObject({
      item: "i1",
      packs: 0,
      loose: 31,
      lot: { colour: "Tar", pack: 20, round: 1, condition: "good" },
    });
  });
});

describe("pieces and suppliers", () => {
  it("lists a piece with its measures, its least price and what lies there", async () => {
    draw(<ItemList />);
    expect(await screen.findByText("Soft loc, 18 in, 9 mm thick, 4 g a piece")).toBeTruthy();
    expect(await screen.findByText("from $11.00")).toBeTruthy();
    expect(screen.getByText("53 pieces here")).toBeTruthy();
    expect(screen.getByText("20 promised")).toBeTruthy();
  });

  it("weighs packs without their bags, once the scale is at rest", async () => {
    const weighed = vi.fn();
    draw(<Scale item={locs} onWeighed={weighed} />);
    expect(screen.getByText("0.0 g")).toBeTruthy();
    press("Weigh it");
    const take = await screen.findByText("Use 4.00 g", undefined, { timeout: 5000 });
    expect(screen.getByText("86.5 g")).toBeTruthy();
    fireEvent.click(take);
    expect(weighed).toHaveBeenCalledWith(4);
  });

  it("says how a supplier's packs came, and puts lines on file that are not", async () => {
    draw(<SupplierList onAdd={() => {}} />);
    expect(
      await screen.findByText(/3 pieces missing in 9 packs that were looked into, 1 pack did not come/),
    ).toBeTruthy();
    expect(await screen.findByText("on file")).toBeTruthy();
    fireEvent.click(await screen.findByLabelText("Put on file: Longer"));
    await waitFor(() => expect(sent.item).toHaveLength(1));
    expect(sent.item?.[0]).toMatchObject({ item: { name: "Longer" }, archived: false });
  });

  it("begins with none, enters one in the studio's money, and practises by choice", async () => {
    suppliers = [];
    draw(<SupplierList onAdd={() => {}} />);
    fireEvent.click(await screen.findByText("Add practice suppliers"));
    await waitFor(() => expect(sent.practise).toHaveLength(1));
    expect(screen.queryByText("Today’s lists")).toBeNull();
    const closed = vi.fn();
    draw(<SupplierForm onClose={closed} />);
    fireEvent.change(screen.getByLabelText("Name"), { target: { value: "Sluice Gate Hair" } });
    fireEvent.change(screen.getByLabelText("Delivery of an order"), { target: { value: "4.5" } });
    fireEvent.blur(screen.getByLabelText("Delivery of an order"));
    fireEvent.click(screen.getByText("Enter it"));
    await waitFor(() => expect(closed).toHaveBeenCalled());
    expect(sent.supplier?.[0]).toMatchObject({
      name: "Sluice Gate Hair",
      feeMinor: 450,
      days: 3,
      archived: false,
    });
    suppliers = [near];
  });

  it("is changed over the version that was read, and keeps what is not said anew", async () => {
    draw(<SupplierForm of={near} onClose={() => {}} />);
    fireEvent.change(screen.getByLabelText("Days until an order comes"), { target: { value: "5" } });
    fireEvent.click(screen.getByText("Save"));
    await waitFor(() => expect(sent.saved).toHaveLength(1));
    expect(sent.saved?.[0]).toMatchObject({
      id: "near",
      version: 1,
      name: "Chandlery Row",
      days: 5,
      feeMinor: 550,
    });
  });

  it("shows what prices became before it takes them over", async () => {
    draw(<SupplierList onAdd={() => {}} />);
    fireEvent.click(await screen.findByText("Get today’s prices"));
    expect(await screen.findByText("$64.50")).toBeTruthy();
    expect(sent.prices).toEqual([false]);
    fireEvent.click(screen.getByText("Take 1 over"));
    expect(await screen.findByText("Taken over.")).toBeTruthy();
    expect(sent.prices).toEqual([false, true]);
  });
});

describe("orders", () => {
  it("go from the list to under way, with what they cost and whom they are for", async () => {
    orders = [{ ...order, state: "listed" }];
    draw(<OrderList />);
    expect(await screen.findByText("$71.50")).toBeTruthy();
    expect(screen.getByText("The cellist").getAttribute("href")).toBe("/plans/p/hair");
    fireEvent.click(await screen.findByText("Ordered today"));
    await waitFor(() => expect(sent.place?.[0]).toMatchObject({ id: "o1" }));
    fireEvent.click(screen.getByText("Remove"));
    await waitFor(() => expect(sent.drop).toEqual(["o1"]));
  });

  it("are held against the label when they come, by the count or by the scale", async () => {
    const closed = vi.fn();
    draw(<Arrival order={order} onClose={closed} />);
    const line = screen.getByLabelText("Driftline", { selector: "section" });
    press("Counted");
    fireEvent.change(within(line).getByLabelText("Pieces in all of them"), { target: { value: "119" } });
    expect(screen.getByText(/1 piece is missing/)).toBeTruthy();
    press("Weighed");
    // Six bags of 6.5 g and 118 pieces of 4 g.
    fireEvent.change(await within(line).findByLabelText("On the scale, bags and all"), {
      target: { value: "511" },
    });
    fireEvent.change(within(line).getByLabelText("An empty bag"), { target: { value: "6.5" } });
    expect(screen.getByText(/2 pieces are missing/)).toBeTruthy();
    press("Into the stash");
    await waitFor(() => expect(closed).toHaveBeenCalled());
    expect(sent.arrive?.[0]).toMatchObject({
      id: "o1",
      lines: [{ packs: 6, pieces: 118, checked: "weighed" }],
    });
  });
});
