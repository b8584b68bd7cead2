// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Catalogue, Hook, Layout, Piece, PlanInput, PlanResult, Section } from "../../api/types";
import { legend } from "../../head";
import { AccentList, accentsText } from "./AccentList";
import { ActContext } from "../draft/act";
import { actions, type Action } from "../draft/actions";
import { GiveFields } from "./GiveFields";
import { MixFields } from "./MixFields";
import { pieceName } from "./pieceChoice";
import { PieceList } from "./PieceList";
import { givenReadings } from "./ways";

const piece = (key: string, colour: string, part: Partial<Piece> = {}): Piece => ({
  key,
  name: "Saltspun",
  form: "looped-twist",
  colour,
  lengthMm: 355.6,
  thicknessMm: 7,
  massG: 2.1,
  loopMm: 8,
  pack: { units: 30, cuts: 1, splits: 1 },
  offers: [{ packs: 1, priceMinor: 990 }],
  ...part,
});

const pieces = [piece("p1", "Peat", { item: "twist" }), piece("p2", "Buoy red"), piece("p3", "Tar")];

const input = {
  parting: { structure: "all" },
  pieces,
  ways: [{ key: "w1", method: "L1", settings: {} }],
  uses: [
    {
      where: { kind: "everywhere" },
      mix: [
        { piece: "p1", parts: 2 },
        { piece: "p2", parts: 1 },
      ],
      way: "w1",
      count: 1,
    },
    { where: { kind: "base" }, way: "w1", count: 1 },
    { where: { kind: "front" }, piece: "p2" },
  ],
  fill: { piece: "p2", count: 3 },
  spares: { percent: 5, least: 2 },
  accents: [
    { piece: "p2", where: { kind: "front" }, count: 4 },
    {
      thing: { name: "Cuff", massG: 0.6, pack: 12, priceMinor: 450 },
      where: { kind: "everywhere" },
      count: 8,
    },
  ],
} as unknown as PlanInput;

const catalogue = {
  pieces: [piece("list", "", { name: "Of the list", key: "list" })],
  forms: [{ form: "looped-twist", name: "Pre-looped twist", many: "twists", folded: false }],
  methods: [{ id: "L1", name: "Hitch and weave", grounds: ["plait", "tracks"] }],
  ways: [],
  kinds: [{ kind: "cuffs", hair: false }],
  fibres: [],
  bounds: { pieces: 12, ways: 20, uses: 200, count: 6 },
} as unknown as Catalogue;

vi.mock("../../api/client", async (original) => {
  const actual = await original<typeof import("../../api/client")>();
  const colours = [
    { name: "Peat", swatch: "#2f2119" },
    { name: "Walnut", swatch: "#4a3021", tip: "#8a6238" },
  ];
  return {
    ...actual,
    server: {
      ...actual.server,
      house: () => Promise.resolve({ version: 1, rules: { schema: 1, currency: "USD" } }),
      items: () =>
        Promise.resolve({
          items: [
            {
              id: "twist",
              item: { name: "Saltspun", kind: "looped-twist", colours, offers: [], pack: { units: 30 } },
              piece: { key: "twist", name: "Of the supplies", form: "looped-twist", item: "twist" },
            },
            {
              id: "cuffs",
              item: {
                name: "Brass cuffs",
                kind: "cuffs",
                massG: 0.6,
                colours: [{ name: "Brass", swatch: "#b08d3c" }],
                pack: { units: 12 },
                offers: [{ packs: 4, priceMinor: 1600 }],
              },
            },
          ],
        }),
    },
  };
});

const acted: Action[] = [];
const after = (...list: Action[]) => list.reduce((d, a) => a.update(d), { title: "", input }).input;
const last = () => after(...acted.slice(-1));

const client = new QueryClient();
client.setQueryData(["catalogue"], catalogue);
const draw = (what: React.ReactNode) =>
  render(
    <QueryClientProvider client={client}>
      <ActContext value={(action) => void acted.push(action)}>{what}</ActContext>
    </QueryClientProvider>,
  );

beforeEach(() => (acted.length = 0));
afterEach(cleanup);

describe("actions on mixes, accents and amounts", () => {
  it("a piece that is taken away leaves mixes, rules, fill and accents", () => {
    const i = after(actions.removePiece("p2"));
    expect(i.uses[0]).toEqual({ where: { kind: "everywhere" }, piece: "p1", way: "w1", count: 1 });
    expect(i.uses).toHaveLength(2); // the rule that said nothing else is gone
    expect(i.fill.piece).toBe("p1");
    expect(i.accents).toHaveLength(1);
  });

  it("another piece hangs instead of a mix, under the key of its first one", () => {
    const i = after(actions.hangInstead(piece("new", "Tar", { name: "Thick" })));
    expect(i.pieces[0]).toMatchObject({ key: "p1", name: "Thick" });
    expect(i.uses[0]).toMatchObject({ piece: "p1" });
    expect(i.uses[0]?.mix).toBeUndefined();
  });

  it("nothing of a piece is kept when another takes its place", () => {
    const bare = { key: "x", name: "Bare" } as Piece;
    expect(after(actions.replacePiece("p1", bare)).pieces[0]).toEqual({ key: "p1", name: "Bare" });
  });

  it("an amount takes the studio's own share, and a percentage forgets both", () => {
    expect(after(actions.setAmount("safe", 0.03)).spares).toEqual({
      percent: 5,
      least: 2,
      amount: "safe",
      spoiltShare: 0.03,
    });
    expect(after(actions.setAmount("safe", 0)).spares).toEqual({ percent: 5, least: 2, amount: "safe" });
    expect(after(actions.setAmount("safe", 0.03), actions.setAmount("", 0.03)).spares).toEqual({
      percent: 5,
      least: 2,
    });
  });
});

describe("a mix", () => {
  it("is set in parts, with their share said", () => {
    const changed = vi.fn();
    draw(
      <MixFields
        mix={[
          { piece: "p1", parts: 2 },
          { piece: "p2", parts: 1 },
        ]}
        pieces={pieces}
        whose="here"
        onChange={changed}
      />,
    );
    expect(screen.getByText(/67 % · 33 %, evenly/)).toBeTruthy();
    fireEvent.click(screen.getByLabelText("One more: Parts of piece 1 here"));
    expect(changed).toHaveBeenLastCalledWith([
      { piece: "p1", parts: 3 },
      { piece: "p2", parts: 1 },
    ]);
    fireEvent.click(screen.getByText("One more"));
    expect(changed).toHaveBeenLastCalledWith([
      { piece: "p1", parts: 2 },
      { piece: "p2", parts: 1 },
      { piece: "p3", parts: 1 },
    ]);
  });

  it("is chosen where a piece is, once a plan has two", async () => {
    const changed = vi.fn();
    draw(<GiveFields input={input} use={{ piece: "p1", count: 1 }} whose="in front" onChange={changed} />);
    const list = screen.getByLabelText("Piece in front");
    fireEvent.mouseDown(list);
    fireEvent.click(await screen.findByText("Several, mixed evenly"));
    expect(changed).toHaveBeenCalledWith(null, {
      count: 1,
      mix: [
        { piece: "p1", parts: 2 },
        { piece: "p2", parts: 1 },
      ],
    });
    fireEvent.mouseDown(list);
    fireEvent.click(await screen.findByText("Of the supplies"));
    expect(changed).toHaveBeenLastCalledWith(null, {
      count: 1,
      newPiece: {
        key: "twist",
        name: "Of the supplies",
        form: "looped-twist",
        item: "twist",
        colour: "Peat",
        swatch: "#2f2119",
      },
    });
  });

  it("tells pieces of one name apart by their colour", () => {
    expect(pieceName(pieces, pieces[0] as Piece)).toBe("Saltspun, peat");
    expect(pieceName([pieces[0] as Piece], pieces[0] as Piece)).toBe("Saltspun");
  });
});

describe("accents", () => {
  const layout = { partLine: [], tracks: [], nets: [], zones: [], rows: [] } as unknown as Layout;

  it("are pieces of the plan or small things, so many, somewhere", async () => {
    draw(<AccentList input={input} result={{ layout } as PlanResult} />);
    expect(accentsText(input)).toBe("12 put on besides");
    fireEvent.click(screen.getByLabelText("One more: How many: Cuff"));
    expect(last().accents?.[1]?.count).toBe(9);
    fireEvent.click(screen.getByLabelText("Take away: Saltspun"));
    expect(last().accents).toHaveLength(1);
    await waitFor(() => expect(screen.queryByText("+ A few of …")).toBeTruthy());
    fireEvent.mouseDown(screen.getByLabelText("Another accent"));
    fireEvent.click(await screen.findByText("Brass cuffs"));
    expect(last().accents?.[2]).toEqual({
      where: { kind: "front" },
      count: 8,
      thing: { name: "Brass cuffs", massG: 0.6, pack: 12, priceMinor: 400, item: "cuffs", colour: "Brass" },
    });
  });
});

describe("the colours of a piece", () => {
  it("are those of its item, chosen by a touch", async () => {
    draw(<PieceList input={input} />);
    fireEvent.click(await screen.findByText("Walnut"));
    expect(last().pieces[0]).toMatchObject({ colour: "Walnut", swatch: "#4a3021" });
    expect(screen.getByText("Peat", { selector: "button" }).getAttribute("aria-pressed")).toBe("true");
  });
});

describe("the head coloured by reach and accents", () => {
  const at = (place: number, accents: number[] = [], index = 0) => ({
    piece: index,
    way: 0,
    count: 1,
    place,
    accents,
  });
  const section = (id: string, given: Section["given"]) => ({ id, given }) as Section;
  const layout = {
    sections: [section("a", at(0)), section("b", at(1, [1])), section("c", at(2, [], 1))],
    tracks: [{ hooks: [{ at: [0, 0, 0], given: at(3, [0]) } as Hook] }],
    nets: [],
  } as unknown as Layout;

  it("says from which pack a place is filled, and what is of another piece", () => {
    const filling = {
      piece: "p1",
      order: [3, 1, 0],
      reach: [
        { packs: 1, pieces: 2, at: "", places: 2 },
        { packs: 2, pieces: 3, at: "", places: 3 },
      ],
    };
    const [reach] = givenReadings(input, catalogue, { filling, packs: 1 });
    if (!reach) throw new Error("no reading");
    expect(reach.key).toBe("reach");
    expect(legend(layout, reach).map((l) => [l.of.name, l.count])).toEqual([
      ["Reached", 2],
      ["Needs a further pack", 1],
      ["Another piece", 1],
    ]);
    expect(reach.of(layout.sections[0] as Section).mark).toBe("2");
  });

  it("marks the accents, and has no such colour without any", () => {
    const readings = givenReadings(input, catalogue);
    const accent = readings.find((r) => r.key === "accent");
    if (!accent) throw new Error("no reading");
    expect(legend(layout, accent).map((l) => l.of.name)).toEqual(["Saltspun", "Cuff", "None"]);
    const none = givenReadings({ ...input, accents: [] }, catalogue);
    expect(none.map((r) => r.key)).toEqual(["piece", "method"]);
  });
});
