// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { App } from "antd";
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refusal } from "../api/client";
import type { Item, ItemDocument, ItemDraft } from "../api/types";
import ItemCard from "./ItemCard";

const item: Item = {
  schema: 1,
  kind: "bulk",
  name: "Quayside",
  line: "",
  colours: [{ name: "Tar", swatch: "#1b1714" }],
  lengthMm: 508,
  folded: true,
  thicknessMm: 10,
  massG: 6,
  loopMm: 0,
  stiffness: "",
  fibre: "synthetic",
  coated: true,
  pack: { units: 32, cuts: 1, splits: 2 },
  offers: [{ packs: 1, priceMinor: 820, supplier: "near" }],
  currency: "USD",
  articles: [],
  note: "",
};

const { saved, state } = vi.hoisted(() => ({
  saved: [] as { how: string; draft: ItemDraft }[],
  state: { refuse: undefined as Error | undefined, archived: true, deleted: [] as string[] },
}));

const document = (id: string, of: Item, version: number): ItemDocument => ({
  id,
  item: of,
  archived: false,
  version,
  updated: "2027-03-01T09:00:00Z",
  pieces: 0,
  promised: 0,
  depths: [1],
});

vi.mock("../api/client", async (original) => {
  const actual = await original<typeof import("../api/client")>();
  const answer = (how: string, id: string, version: number, draft: ItemDraft) => {
    saved.push({ how, draft });
    return state.refuse ? Promise.reject(state.refuse) : Promise.resolve(document(id, draft.item, version));
  };
  return {
    ...actual,
    server: {
      ...actual.server,
      house: () => Promise.resolve({ version: 1, rules: { schema: 1, currency: "USD" } }),
      suppliers: () =>
        Promise.resolve([
          {
            key: "near",
            name: "Chandlery Row",
            feeMinor: 550,
            days: 2,
            practice: true,
            archived: false,
            version: 1,
          },
        ]),
      catalogue: () =>
        Promise.resolve({
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
            {
              kind: "bulk",
              name: "Bulk hair",
              unit: "strand",
              units: "strands",
              hair: true,
              loose: true,
              hangs: true,
            },
            {
              kind: "cuffs",
              name: "Cuffs",
              unit: "cuff",
              units: "cuffs",
              hair: false,
              loose: false,
              hangs: false,
            },
          ],
          fibres: [
            { fibre: "synthetic", name: "Synthetic", care: "Hot water sets it." },
            { fibre: "blend", name: "Blend", care: "Handle it gently." },
          ],
        }),
      item: (id: string) =>
        id === "stored"
          ? Promise.resolve(document("stored", item, 3))
          : Promise.reject(new actual.Refusal(404, { type: "about:blank", detail: "It is not there." })),
      createItem: (id: string, draft: ItemDraft) => answer("create", id, 1, draft),
      saveItem: (id: string, version: number, draft: ItemDraft) => answer("save", id, version + 1, draft),
      removeItem: (id: string) => {
        state.deleted.push(id);
        return Promise.resolve({ archived: state.archived });
      },
    },
  };
});

function draw(address: string) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData(["me"], { id: "o", name: "Odalys", role: "owner", may: ["saveItem", "createItem"] });
  render(
    <QueryClientProvider client={client}>
      <App>
        <MemoryRouter initialEntries={[address]}>
          <Routes>
            <Route path="/supplies/items/:id" element={<ItemCard />} />
            <Route path="*" element={<p>The list of pieces</p>} />
          </Routes>
        </MemoryRouter>
      </App>
    </QueryClientProvider>,
  );
}

const field = (label: string) => screen.findByLabelText<HTMLInputElement>(label, { selector: "input" });
const write = async (label: string, value: string) =>
  fireEvent.change(await field(label), { target: { value } });
const press = (text: string) =>
  fireEvent.click(screen.getByText(text, { selector: "button, button *, label *" }));
const last = () => saved[saved.length - 1]?.draft.item;

beforeEach(() => {
  saved.length = 0;
  state.refuse = undefined;
  state.archived = true;
  state.deleted = [];
  localStorage.clear();
});
afterEach(cleanup);

describe("a piece of the supplies", () => {
  it("saves itself as it is changed, and undoes", async () => {
    draw("/supplies/items/stored");
    await write("Length in the pack", "22");
    await waitFor(() => expect(last()?.lengthMm).toBeCloseTo(558.8));
    expect(saved[0]?.how).toBe("save");
    fireEvent.click(screen.getByLabelText("Undo"));
    await waitFor(() => expect(last()?.lengthMm).toBe(508));
    press("Blend");
    expect(screen.getByText("Handle it gently.")).toBeTruthy();
    await waitFor(() => expect(last()?.fibre).toBe("blend"));
  });

  it("draws how a strand is cut, folded as it lies in the pack", async () => {
    draw("/supplies/items/stored");
    expect(
      await screen.findByLabelText(
        "A strand 40 in long is cut into 1, each split into 2, folded over the hook: it hangs 20 in",
      ),
    ).toBeTruthy();
    await write("Usually cut into", "2");
    expect(screen.getByText("Cut into 2: 20 in each")).toBeTruthy();
    expect(screen.getByText("Then each split into 2: 4 pieces")).toBeTruthy();
    expect(screen.getByText("Folded over the hook it hangs 10 in")).toBeTruthy();
    // Opened out a strand that does not lie folded is half as long.
    press("Lies folded in the pack");
    expect(screen.getByText("One strand, opened out: 20 in")).toBeTruthy();
  });

  it("has colours with a swatch, a depth and other ends, and prices by supplier", async () => {
    draw("/supplies/items/stored");
    expect(await screen.findByText("darkest, 1 of 9")).toBeTruthy();
    press("Other ends");
    fireEvent.change(screen.getByLabelText("Ends of Tar"), { target: { value: "#8A6238" } });
    await waitFor(() => expect(last()?.colours[0]?.tip).toBe("#8a6238"));
    press("Add a colour");
    await write("Name of colour 2", "Peat");
    await waitFor(() => expect(last()?.colours.map((c) => c.name)).toEqual(["Tar", "Peat"]));
    fireEvent.click(screen.getByLabelText("Take away Tar"));
    await waitFor(() => expect(last()?.colours.map((c) => c.name)).toEqual(["Peat"]));

    press("Add a price");
    const [, second] = await screen.findAllByLabelText<HTMLInputElement>("for", { selector: "input" });
    if (!second) throw new Error("no second price");
    fireEvent.change(second, { target: { value: "7,5" } });
    await waitFor(() => expect(last()?.offers).toEqual([item.offers[0], { packs: 1, priceMinor: 750 }]));
    fireEvent.mouseDown(screen.getByLabelText("Supplier of offer 1"));
    const any = (await screen.findAllByText("Any shop")).at(-1);
    if (!any) throw new Error("no choice");
    fireEvent.click(any);
    await waitFor(() => expect(last()?.offers[0]).toEqual({ packs: 1, priceMinor: 820 }));
    fireEvent.click(screen.getByLabelText("Take away offer 2"));
    await waitFor(() => expect(last()?.offers).toHaveLength(1));
  });

  it("asks only for what its kind has", async () => {
    draw("/supplies/items/stored");
    fireEvent.mouseDown(await screen.findByLabelText("Kind"));
    fireEvent.click(await screen.findByText("Cuffs"));
    expect(screen.queryByLabelText("Length in the pack")).toBeNull();
    expect(screen.queryByText("Weigh it")).toBeNull();
    expect(await field("In a pack, cuffs")).toBeTruthy();
    await waitFor(() => expect(last()?.kind).toBe("cuffs"));
  });

  it("is made once it has a name, and says at its field what was refused", async () => {
    state.refuse = new Refusal(422, {
      type: "about:blank",
      detail: "What a pack holds must be between 1 and 5000; it is 0.",
      errors: [{ location: "body.item.pack.units", message: "Between 1 and 5000." }],
    });
    draw("/supplies/items/6f1a6a52-0000-4000-8000-000000000001?new=");
    fireEvent.change(await screen.findByLabelText("What it is called"), { target: { value: "By hand" } });
    await write("In a pack, pieces", "0");
    expect(await screen.findByText("Between 1 and 5000.")).toBeTruthy();
    state.refuse = undefined;
    await write("In a pack, pieces", "18");
    await waitFor(() =>
      expect(last()).toMatchObject({ name: "By hand", pack: { units: 18 }, currency: "USD" }),
    );
    expect(saved.at(-1)?.how).toBe("create");
  });

  it("is archived where something names it, instead of deleted", async () => {
    draw("/supplies/items/stored");
    fireEvent.click(await screen.findByText("Archive it"));
    await waitFor(() => expect(saved.at(-1)?.draft.archived).toBe(true));
    expect(screen.getByText("Archived: not offered for new plans.")).toBeTruthy();
    press("Delete it");
    const dialog = await screen.findByRole("dialog");
    fireEvent.click(within(dialog).getByText("Delete"));
    expect(await screen.findByText("The list of pieces")).toBeTruthy();
    expect(state.deleted).toEqual(["stored"]);
    expect(screen.getByText("Lots, plans or orders name it: it is archived instead.")).toBeTruthy();
  });
});
