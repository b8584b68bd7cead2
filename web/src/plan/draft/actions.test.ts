import { expect, test } from "vitest";
import type { Base, PlanInput, StructureRule, Way } from "../../api/types";
import { actions } from "./actions";
import type { Draft } from "./draft";

const base: Base = {
  kind: "tracks",
  run: "straight-back",
  tracks: 5,
  sideTracks: 3,
  mergeInto: 0,
  mergeAfterMm: 0,
  tails: "tucked",
  spacingMm: 0,
};
const merging: Base = { ...base, tracks: 6, mergeInto: 3, mergeAfterMm: 40, mergeSides: true };

const net: Base = { ...base, kind: "net", under: "plaits", tracks: 24, noRing: true };

const rules = [
  {
    structure: "all",
    parts: ["middle", "none", "levels"],
    napeGuard: false,
    base: false,
    start: base,
    frontMm: 25.4,
    backMm: 25.4,
    perSide: 0,
    reach: 0,
  },
  {
    structure: "horseshoe",
    parts: ["middle"],
    napeGuard: true,
    base: true,
    start: merging,
    frontMm: 19.05,
    backMm: 25.4,
    perSide: 0,
    reach: 0,
  },
  {
    structure: "net-cap",
    parts: ["middle", "none"],
    napeGuard: false,
    base: true,
    start: net,
    frontMm: 19.05,
    backMm: 25.4,
    perSide: 0,
    reach: 0,
  },
] as unknown as StructureRule[];

const weave: Way = { key: "w1", method: "L1", settings: { pitchMm: 50 }, choices: { tip: "glue" } };
const hook: Way = { key: "hook", method: "L5", settings: {} };
const wrap: Way = { key: "W2", method: "W2", settings: { ribbonMm: 6, tailMm: 60 } };

/** A plan as far as these actions look at it. */
function draftOf(part: Partial<PlanInput> = {}): Draft {
  const input = {
    parting: {
      structure: "all",
      part: { kind: "levels" },
      napeGuard: false,
      base,
      edits: [],
      front: { widthMm: 25.4, heightMm: 25.4 },
      back: { widthMm: 30, heightMm: 30 },
      design: { side: "both", tracks: 3, curved: false },
      perSide: 0,
    },
    pieces: [{ key: "p1", name: "Driftline", form: "soft-loc" }],
    ways: [weave, hook],
    uses: [
      { where: { kind: "everywhere" }, piece: "p1", way: "w1", count: 1 },
      { where: { kind: "base" }, way: "hook", count: 1 },
    ],
    ...part,
  } as unknown as PlanInput;
  return { title: "A plan", input };
}

const after = (draft: Draft, ...list: ReturnType<typeof actions.leaveOpen>[]) =>
  list.reduce((d, action) => action.update(d), draft).input;

test("a structure brings the base it starts with, unless somebody changed it", () => {
  const there = after(draftOf(), actions.chooseStructure("horseshoe", rules));
  expect(there.parting.base).toEqual(merging);
  expect(there.parting.part.kind).toBe("middle");
  expect([there.parting.front.widthMm, there.parting.back.widthMm]).toEqual([19.05, 30]);
  const back = after({ title: "", input: there }, actions.chooseStructure("all", rules));
  expect(back.parting.base).toEqual(base);
  const own = { ...base, tracks: 9 };
  const kept = after(
    draftOf({ parting: { ...draftOf().input.parting, base: own } }),
    actions.chooseStructure("horseshoe", rules),
  );
  expect(kept.parting.base).toEqual(own);
  const netted = after({ title: "", input: kept }, actions.chooseStructure("net-cap", rules));
  expect(netted.parting.base).toEqual(net);
});

test("hair fed into a design brings its piece, its method and its rule, and takes them away again", () => {
  const fed = after(draftOf(), actions.feedDesign(true));
  const rule = fed.uses[2];
  expect(rule?.where.kind).toBe("ends");
  expect(fed.pieces.find((p) => p.key === rule?.piece)?.form).toBe("braiding-hair");
  expect(fed.ways.find((w) => w.key === rule?.way)?.method).toBe("B3");
  const bare = after(
    { title: "", input: { ...fed, fill: { piece: "p1", count: 0 } } },
    actions.feedDesign(false),
  );
  expect([bare.uses.length, bare.pieces.length, bare.ways.length]).toEqual([2, 1, 2]);
  expect(bare.parting.design.fed).toBe(false);
});

test("what a base does not say is no", () => {
  const said = { ...base, mergeSides: false, noRing: false };
  const draft = draftOf({ parting: { ...draftOf().input.parting, base: said } });
  expect(after(draft, actions.chooseStructure("horseshoe", rules)).parting.base).toEqual(merging);
});

test("another method leaves the choices of the one before behind", () => {
  const ways = after(draftOf(), actions.chooseMethod("w1", wrap)).ways;
  expect(ways[0]).toEqual({ key: "w1", method: "W2", settings: wrap.settings });
});

test("a choice is kept beside the others", () => {
  const ways = after(draftOf(), actions.choose("w1", "long", "back")).ways;
  expect(ways[0]?.choices).toEqual({ tip: "glue", long: "back" });
});

test("a method taken for a part of the head is one rule there, however often it is taken", () => {
  const once = after(draftOf(), actions.takeMethod("front", wrap));
  expect(once.uses).toHaveLength(3);
  expect(once.uses[2]?.where.kind).toBe("front");
  const twice = after({ title: "", input: once }, actions.takeMethod("front", weave));
  expect(twice.uses).toHaveLength(3);
  expect(twice.uses[2]?.way).toBe("w1");
  const everywhere = after(draftOf(), actions.takeMethod("everywhere", wrap));
  expect(everywhere.uses).toHaveLength(2);
  expect(everywhere.uses[0]).toMatchObject({ piece: "p1", count: 1 });
  expect(everywhere.ways.find((w) => w.key === everywhere.uses[0]?.way)?.method).toBe("W2");
});

test("a wish can be said and left open again", () => {
  const said = after(draftOf(), actions.setWishes(null, { water: "swim", weeks: 6 }));
  expect(said.wishes).toEqual({ water: "swim", weeks: 6 });
  expect(after({ title: "", input: said }, actions.leaveOpen("water")).wishes).toEqual({ weeks: 6 });
});

test("a side taken on one question leaves the others as they were", () => {
  const first = actions.setCustom("rinse", "new");
  expect(first.group).toBe("customs.rinse");
  const there = after(draftOf(), first);
  expect(there.customs).toEqual({ rinse: "new" });
  const both = after({ title: "", input: there }, actions.setCustom("foam", "none"));
  expect(both.customs).toEqual({ rinse: "new", foam: "none" });
  expect(after({ title: "", input: both }, actions.setCustom("rinse", "rinsed")).customs).toEqual({
    rinse: "rinsed",
    foam: "none",
  });
});
