import type {
  Accent,
  Base,
  Basis,
  Chosen,
  Day,
  Direction,
  OwnBase,
  Hairline,
  Hand,
  OwnHair,
  Part,
  Piece,
  PlanInput,
  Preparation,
  Settings,
  Sittings,
  Slot,
  Structure,
  StructureRule,
  Tapes,
  Trial,
  Trim,
  HeadWish,
  Use,
  Way,
  WhereKind,
  Wish,
  Wishes,
} from "../../api/types";
import { omit } from "../../lib/omit";
import { said, type Unsaid } from "../../lib/said";
import type { Draft } from "./draft";

/**
 * What can be done to a plan. Every action names its undo group: changes of one group in
 * quick succession are one step to undo; null is a choice, a step of its own.
 */
export interface Action {
  group: string | null;
  update: (draft: Draft) => Draft;
}

export type Act = (action: Action) => void;

type Group = string | null;

const onInput = (group: Group, update: (input: PlanInput) => PlanInput): Action => ({
  group,
  update: (d) => ({ ...d, input: update(d.input) }),
});

/** A day with nothing settled. */
const noDay: Day = { install: "" };

const onDay = (group: Group, update: (day: Day) => Partial<Day>): Action =>
  onInput(group, (i) => {
    const day = i.day ?? noDay;
    return { ...i, day: { ...day, ...update(day) } };
  });

const onParting = (group: Group, update: (settings: Settings) => Settings): Action =>
  onInput(group, (i) => ({ ...i, parting: update(i.parting) }));

const onVariants = (group: Group, update: (variants: Variant[]) => Variant[]): Action => ({
  group,
  update: (d) => ({ ...d, variants: update(d.variants ?? []) }),
});

export type Variant = NonNullable<Draft["variants"]>[number];

/** A key that is not among those of a list. */
function freshKey(prefix: string, list: readonly { key: string }[]): string {
  for (let n = list.length + 1; ; n++) {
    const key = `${prefix}${n}`;
    if (!list.some((x) => x.key === key)) return key;
  }
}

const at = <T>(list: readonly T[], index: number, part: Partial<T>): T[] =>
  list.map((x, i) => (i === index ? { ...x, ...part } : x));

const byKey = <T extends { key: string }>(list: readonly T[], key: string, part: Partial<T>): T[] =>
  list.map((x) => (x.key === key ? { ...x, ...part } : x));

const without = <T>(list: readonly T[], index: number): T[] => list.filter((_, i) => i !== index);

/** How many states are pinned beside a plan at most. */
export const mostVariants = 6;

/** The first two uses are what everything and what the base gets: they stay where they are. */
export const fixedUses = 2;

/** Whether two bases are the same; what is not said is no. */
function sameBase(a: Base, b: Base): boolean {
  return (Object.keys({ ...a, ...b }) as (keyof Base)[]).every((k) => (a[k] ?? false) === (b[k] ?? false));
}

/** The size it starts with where nobody changed that of the structure before. */
const sized = (wish: Wish, before: number | undefined, start: number): Wish =>
  wish.widthMm === before && wish.heightMm === before ? { ...wish, widthMm: start, heightMm: start } : wish;

/**
 * The parting on another structure: with a part line and a nape guard only where it takes them, and
 * with the base and the sizes it starts with where nobody changed those of the structure before.
 */
function on(s: Settings, structure: Structure, rules: readonly StructureRule[]): Settings {
  const of = (wanted: Structure) => rules.find((r) => r.structure === wanted);
  const [before, rule] = [of(s.structure), of(structure)];
  if (!rule) return s;
  const { kind } = s.part;
  const fit = rule.parts.includes(kind) ? kind : rule.parts.includes("none") ? "none" : "middle";
  return {
    ...omit(s, "grounds"),
    structure,
    part: { ...s.part, kind: fit },
    napeGuard: s.napeGuard && rule.napeGuard,
    base: startedOn(s.base, before?.start, rule.start),
    front: sized(s.front, before?.frontMm, rule.frontMm),
    back: sized(s.back, before?.backMm, rule.backMm),
    perSide: s.perSide === before?.perSide ? rule.perSide : s.perSide,
    design: rule.reach > 0 && s.design.reach === undefined ? { ...s.design, reach: rule.reach } : s.design,
  };
}

/** Braiding hair to feed in, and the method by which it is. */
const feed: { newPiece: Piece; newWay: Way } = {
  newPiece: {
    key: "",
    name: "Braiding hair",
    form: "braiding-hair",
    colour: "",
    lengthMm: 609.6,
    thicknessMm: 8,
    massG: 5,
    loopMm: 0,
    pack: { units: 16, cuts: 1, splits: 1 },
    offers: [{ packs: 1, priceMinor: 600 }],
  },
  newWay: { key: "", method: "B3", settings: {} },
};

/** The plan without what is no longer named by a rule, of the hair that was fed in. */
function unfed(i: PlanInput): PlanInput {
  const uses = i.uses.filter((u) => u.where.kind !== "ends");
  const gone = i.uses.filter((u) => u.where.kind === "ends");
  const named = (key: string) =>
    uses.some((u) => u.piece === key || u.way === key || u.mix?.some((m) => m.piece === key)) ||
    i.fill.piece === key ||
    (i.accents ?? []).some((a) => a.piece === key);
  const left = <T extends { key: string }>(list: readonly T[]) =>
    list.filter((x) => named(x.key) || !gone.some((u) => u.piece === x.key || u.way === x.key));
  return { ...i, uses, pieces: left(i.pieces), ways: left(i.ways) };
}

/**
 * The base on another structure: as that starts, unless more of it was changed than how the
 * cornrows run. A structure that is named by its base, as the net cap is, brings it along.
 */
function startedOn(base: Base, before: Base | undefined, start: Base): Base {
  const goesWith = before?.kind !== start.kind && base.kind === before?.kind;
  if (!before || !(goesWith || sameBase({ ...base, run: before.run }, before))) return base;
  // What merges runs back.
  return start.mergeInto === 0 && before.mergeInto === 0 ? { ...start, run: base.run } : start;
}

/** What a use gives, with a piece or a way that the plan did not have yet. */
export interface Wanted extends Use {
  newPiece?: Piece;
  newWay?: Way;
}

/** Adds the piece and the way of a wish to the plan, unless they are there, and gives the use with their keys. */
function taken(i: PlanInput, { newPiece, newWay, ...use }: Wanted): { input: PlanInput; use: Use } {
  let input = i;
  let done: Use = use;
  if (newPiece) {
    const same = input.pieces.find(
      (p) => p.name === newPiece.name && p.form === newPiece.form && p.colour === newPiece.colour,
    );
    const key = same?.key ?? freshKey("p", input.pieces);
    if (!same) input = { ...input, pieces: [...input.pieces, { ...newPiece, key }] };
    done = { ...done, piece: key };
  }
  if (newWay) {
    const same = input.ways.find((w) => w.method === newWay.method);
    const key = same?.key ?? freshKey("w", input.ways);
    if (!same) input = { ...input, ways: [...input.ways, { ...newWay, key }] };
    done = { ...done, way: key };
  }
  return { input, use: done };
}

export const actions = {
  rename: (title: string): Action => ({ group: "title", update: (d) => ({ ...d, title }) }),
  /** An earlier state of the plan, or a pinned one, in place of what is. */
  bringBack: (input: PlanInput, title?: string): Action => ({
    group: null,
    update: (d) => ({ ...d, input, ...(title !== undefined && { title }) }),
  }),
  chooseClient: (id: string, name: string, known: PlanInput): Action => ({
    group: null,
    update: (d) => ({
      ...d,
      title: d.title === "New plan" ? name : d.title,
      clientId: id,
      input: {
        ...d.input,
        head: known.head,
        hairline: known.hairline,
        hair: known.hair,
        child: known.child,
        ...(known.statureMm !== undefined && { statureMm: known.statureMm }),
      },
    }),
  }),
  forgetClient: (): Action => ({
    group: null,
    update: ({ title, input, variants }) => ({ title, input, ...(variants && { variants }) }),
  }),

  setTapes: (group: Group, head: Tapes) => onInput(group, (i) => ({ ...i, head })),
  setHair: (group: Group, part: Partial<OwnHair>) =>
    onInput(group, (i) => ({ ...i, hair: { ...i.hair, ...part } })),
  setHead: (part: Partial<Pick<PlanInput, "ownHead" | "child">>) => onInput(null, (i) => ({ ...i, ...part })),
  /** What is wished of the head; undefined takes a wish back. */
  setWanted: (group: Group, part: Unsaid<HeadWish>) =>
    onInput(group, ({ wanted, ...i }) => {
      const kept = said<HeadWish>({ ...wanted, ...part });
      return Object.keys(kept).length === 0 ? i : { ...i, wanted: kept };
    }),
  setHairline: (group: Group, hairline: Hairline, head?: Tapes) =>
    onInput(group, (i) => ({ ...i, hairline, ...(head && { head }) })),

  chooseStructure: (structure: Structure, rules: readonly StructureRule[]) =>
    onParting(null, (s) => on(s, structure, rules)),
  setParting: (group: Group, part: Partial<Settings>) => onParting(group, (s) => ({ ...s, ...part })),
  changeParting: onParting,
  setBase: (group: Group, part: Partial<Base>) =>
    onParting(group, (s) => ({ ...s, base: { ...s.base, ...part } })),
  setDesign: (group: Group, part: Partial<Settings["design"]>) =>
    onParting(group, (s) => ({ ...s, design: { ...s.design, ...part } })),
  /** Hair fed in along the design, which goes on as braids; or own hair alone. */
  feedDesign: (fed: boolean) =>
    onInput(null, (i) => {
      const of = (input: PlanInput): PlanInput => ({
        ...input,
        parting: { ...input.parting, design: { ...input.parting.design, fed } },
      });
      if (!fed) return of(unfed(i));
      const { input, use } = taken(i, { where: { kind: "ends" }, count: 1, ...feed });
      return of({ ...input, uses: [...input.uses, use] });
    }),
  /** A base of its own for a part of the head, or the same as the rest. */
  setGround: (part: OwnBase["part"], ground: Omit<OwnBase, "part"> | null) =>
    onParting(null, (s) => {
      const others = (s.grounds ?? []).filter((g) => g.part !== part);
      const grounds = ground ? [...others, { ...ground, part }] : others;
      return grounds.length > 0 ? { ...s, grounds } : omit(s, "grounds");
    }),
  setPart: (group: Group, part: Partial<Part>) =>
    onParting(group, (s) => ({ ...s, part: { ...s.part, ...part } })),
  /** How one zone is parted; with alike, both. */
  setWish: (zone: "front" | "back", alike: boolean, group: Group, update: (w: Wish) => Wish) =>
    onParting(group, (s) => {
      const wish = update(s[zone]);
      return { ...s, [zone]: wish, ...(alike && { front: wish, back: wish }) };
    }),
  backAsFront: () => onParting(null, (s) => ({ ...s, back: s.front })),
  scaleSizes: (by: number) =>
    onParting(null, (s) => {
      const grown = (w: Wish): Wish => ({ ...w, widthMm: w.widthMm * by, heightMm: w.heightMm * by });
      return { ...s, front: grown(s.front), back: grown(s.back) };
    }),

  setPreparation: (group: Group, part: Partial<Preparation>) =>
    onInput(group, (i) => ({ ...i, plaits: { ...i.plaits, ...part } })),

  addPiece: (piece: Piece) =>
    onInput(null, (i) => ({ ...i, pieces: [...i.pieces, { ...piece, key: freshKey("p", i.pieces) }] })),
  setPiece: (key: string, group: Group, part: Partial<Piece>) =>
    onInput(group && `piece.${key}.${group}`, (i) => ({ ...i, pieces: byKey(i.pieces, key, part) })),
  /** Another piece under the key of one; nothing of that one is kept. */
  replacePiece: (key: string, piece: Piece) =>
    onInput(null, (i) => ({ ...i, pieces: i.pieces.map((p) => (p.key === key ? { ...piece, key } : p)) })),
  /** Takes a piece away; what hung of it is the first piece again. */
  removePiece: (key: string) =>
    onInput(null, (i) => {
      const pieces = i.pieces.filter((p) => p.key !== key);
      const first = pieces[0]?.key ?? key;
      return {
        ...i,
        pieces,
        fill: i.fill.piece === key ? { ...i.fill, piece: first } : i.fill,
        uses: kept(i.uses, (u) => unmixed(u.piece === key ? omit(u, "piece") : u, key)).map((u, n) =>
          n === 0 && u.piece === undefined && !u.mix ? { ...u, piece: first } : u,
        ),
        ...(i.accents && { accents: i.accents.filter((a) => a.piece !== key) }),
      };
    }),

  addWay: (way: Way) =>
    onInput(null, (i) => ({ ...i, ways: [...i.ways, { ...way, key: freshKey("w", i.ways) }] })),
  setWay: (key: string, group: Group, part: Partial<Way>) =>
    onInput(group && `way.${key}.${group}`, (i) => ({ ...i, ways: byKey(i.ways, key, part) })),
  setParameter: (key: string, parameter: string, value: number) =>
    onInput(`way.${key}.${parameter}`, (i) => ({
      ...i,
      ways: i.ways.map((w) =>
        w.key === key ? { ...w, settings: { ...w.settings, [parameter]: value } } : w,
      ),
    })),
  /** An option of one of a method's choices. */
  choose: (key: string, choice: string, option: string) =>
    onInput(null, (i) => ({
      ...i,
      ways: i.ways.map((w) => (w.key === key ? { ...w, choices: { ...w.choices, [choice]: option } } : w)),
    })),
  /** How the plait is hidden, and the wrapping hair of a cover that winds some. */
  chooseCover: (key: string, cover: string, wrapping: Way["wrapping"]) =>
    onInput(null, (i) => ({
      ...i,
      ways: i.ways.map((w) =>
        w.key === key
          ? { ...omit(w, "wrapping"), choices: { ...w.choices, cover }, ...(wrapping && { wrapping }) }
          : w,
      ),
    })),
  setWrapping: (key: string, group: Group, part: Partial<NonNullable<Way["wrapping"]>>) =>
    onInput(group && `way.${key}.${group}`, (i) => ({
      ...i,
      ways: i.ways.map((w) =>
        w.key === key && w.wrapping ? { ...w, wrapping: { ...w.wrapping, ...part } } : w,
      ),
    })),
  /** Other wrapping hair for a way; nothing of what it had is kept. */
  replaceWrapping: (key: string, wrapping: NonNullable<Way["wrapping"]>) =>
    onInput(null, (i) => ({ ...i, ways: byKey(i.ways, key, { wrapping }) })),
  /** Another method for a way; its wrapping hair goes on where that winds some too. */
  chooseMethod: (key: string, usual: Way, piece?: Piece) =>
    onInput(null, (i) => {
      const ways = i.ways.map((w) =>
        w.key === key
          ? {
              key: w.key,
              method: usual.method,
              settings: usual.settings,
              ...(usual.wrapping && { wrapping: w.wrapping ?? usual.wrapping }),
            }
          : w,
      );
      return {
        ...i,
        ways,
        ...(piece && { pieces: at(i.pieces, 0, { ...piece, key: i.pieces[0]?.key ?? piece.key }) }),
      };
    }),
  removeWay: (key: string) =>
    onInput(null, (i) => ({
      ...i,
      ways: i.ways.filter((w) => w.key !== key),
      uses: kept(i.uses, (u) => (u.way === key ? omit(u, "way") : u)),
    })),

  /** A product of the supplies in place of the usual one; none for that. */
  chooseProduct: (product: Chosen["product"], thing: Chosen["thing"] | undefined) =>
    onInput(null, (i) => {
      const others = (i.products ?? []).filter((c) => c.product !== product);
      const products = thing ? [...others, { product, thing }] : others;
      return products.length > 0 ? { ...i, products } : omit(i, "products");
    }),
  /** Products that the head does not bear. */
  setAvoid: (avoid: NonNullable<PlanInput["avoid"]>) =>
    onInput(null, (i) => (avoid.length > 0 ? { ...i, avoid } : omit(i, "avoid"))),
  addUse: (wanted: Wanted) =>
    onInput(null, (i) => {
      const { input, use } = taken(i, wanted);
      return { ...input, uses: [...input.uses, use] };
    }),
  setUse: (index: number, group: Group, wanted: Wanted) =>
    onInput(group && `use.${index}.${group}`, (i) => {
      const { input, use } = taken(i, wanted);
      return { ...input, uses: input.uses.map((u, k) => (k === index ? use : u)) };
    }),
  moveUse: (index: number, by: 1 | -1) =>
    onInput(null, (i) => {
      const uses = [...i.uses];
      const to = index + by;
      const [a, b] = [uses[index], uses[to]];
      if (!a || !b || Math.min(index, to) < fixedUses) return i;
      uses[index] = b;
      uses[to] = a;
      return { ...i, uses };
    }),
  removeUse: (index: number) => onInput(null, (i) => ({ ...i, uses: without(i.uses, index) })),

  /** Takes a side on a question of practice. Irregular parts are drawn free-hand, those of a comb are not. */
  setCustom: (key: string, side: string) =>
    onInput(`customs.${key}`, (i) => {
      const taken = { ...i, customs: { ...i.customs, [key]: side } };
      if (key !== "neat") return taken;
      const { front, back } = i.parting;
      const byHand = front.pattern === "free-hand" && back.pattern === "free-hand";
      if (byHand === (side === "rough")) return taken;
      const pattern = side === "rough" ? "free-hand" : "brick";
      return {
        ...taken,
        parting: { ...i.parting, front: { ...front, pattern }, back: { ...back, pattern } },
      };
    }),
  setWishes: (group: Group, part: Partial<Wishes>) =>
    onInput(group && `wishes.${group}`, (i) => ({ ...i, wishes: { ...i.wishes, ...part } })),
  leaveOpen: (wish: keyof Wishes) =>
    onInput(null, (i) => ({
      ...i,
      wishes: Object.fromEntries(Object.entries(i.wishes ?? {}).filter(([key]) => key !== wish)),
    })),
  /** A method for a part of the head, with a piece where the plan has none that it takes. */
  takeMethod: (kind: WhereKind, way: Way, piece?: Piece) =>
    onInput(null, (i) => {
      const given = { newWay: way, ...(piece && { newPiece: piece }) };
      const last = i.uses.findLastIndex((u) => u.where.kind === kind);
      const before = i.uses[last];
      const { input, use } = taken(i, { ...(before ?? { where: { kind } }), ...given });
      const uses = before ? input.uses.map((u, k) => (k === last ? use : u)) : [...input.uses, use];
      return { ...input, uses };
    }),

  setSpares: (group: Group, part: Partial<PlanInput["spares"]>) =>
    onInput(group && `spares.${group}`, (i) => ({ ...i, spares: { ...i.spares, ...part } })),
  /** One of the three amounts, for a share that is spoilt where the studio knows its own; "" is the percentage again. */
  setAmount: (amount: NonNullable<PlanInput["spares"]["amount"]>, spoiltShare: number) =>
    onInput(null, ({ spares: { percent, least }, ...i }) => ({
      ...i,
      spares: {
        percent,
        least,
        ...(amount !== "" && { amount, ...(spoiltShare > 0 && { spoiltShare }) }),
      },
    })),
  setFill: (group: Group, part: Partial<PlanInput["fill"]>) =>
    onInput(group && `fill.${group}`, (i) => ({ ...i, fill: { ...i.fill, ...part } })),

  /** One piece more at each place found bare. */
  fillAt: (places: readonly Direction[]) =>
    onInput(null, (i) => ({ ...i, fill: { ...i.fill, at: [...(i.fill.at ?? []), ...places] } })),
  /** The wearer's height; 0 is not said. */
  setStature: (mm: number) =>
    onInput("stature", (i) => ({ ...omit(i, "statureMm"), ...(mm > 0 && { statureMm: mm }) })),
  setTrim: (trim: Trim | undefined) => onInput(null, (i) => ({ ...omit(i, "trim"), ...(trim && { trim }) })),
  /** A piece in another length, its mass growing with it; it is none of the supplies any more. */
  lengthen: (key: string, mm: number) =>
    onInput(null, (i) => ({
      ...i,
      pieces: i.pieces.map((p) =>
        p.key === key
          ? { ...omit(p, "item"), lengthMm: mm, massG: Math.round((100 * p.massG * mm) / p.lengthMm) / 100 }
          : p,
      ),
    })),
  setPrice: (group: Group, part: Partial<Basis>) =>
    onInput(group && `price.${group}`, (i) => ({ ...i, price: { ...i.price, ...part } })),

  setReuseFirst: (on: boolean) =>
    onInput(null, (i) => ({ ...omit(i, "reuseFirst"), ...(on && { reuseFirst: true }) })),
  setInstallDay: (install: string) => onDay(null, () => ({ install })),
  setHands: (group: Group, hands: Hand[]) => onDay(group && `hands.${group}`, () => ({ hands })),
  /** How long all of it may take, minutes; 0 is not said. */
  setWithin: (withinMin: number) =>
    onInput("day.within", (i) => ({
      ...i,
      day: { ...omit(i.day ?? noDay, "withinMin"), ...(withinMin > 0 && { withinMin }) },
    })),
  addTrial: (trial: Trial) => onDay(null, (d) => ({ trials: [...(d.trials ?? []), trial] })),
  dropTrials: (skill: string, by: string) =>
    onDay(null, (d) => ({ trials: (d.trials ?? []).filter((t) => t.skill !== skill || t.by !== by) })),
  setOrder: (part: Partial<NonNullable<Day["order"]>>) =>
    onDay(null, (d) => ({ order: { ...d.order, ...part } })),
  /** How the work is cut up; `usual` is how it is while nobody said. */
  setSittings: (group: Group, usual: Sittings, part: Partial<Sittings>) =>
    onDay(group && `sittings.${group}`, (d) => ({ sittings: { ...usual, ...d.sittings, ...part } })),
  /** One sitting that is settled, counted from 0; those before it stay as usual. */
  setSlot: (group: Group, usual: Sittings, index: number, part: Partial<Slot>) =>
    onDay(group && `slot.${index}.${group}`, (d) => {
      const sittings = { ...usual, ...d.sittings };
      const known = sittings.slots ?? [];
      const slots = Array.from({ length: Math.max(known.length, index + 1) }, (_, k) => known[k] ?? {});
      return { sittings: { ...sittings, slots: at(slots, index, part) } };
    }),
  /** A sitting as usual again: its time, and its distance from the one before. */
  clearSlot: (usual: Sittings, index: number) =>
    onDay(null, (d) => {
      const sittings = { ...usual, ...d.sittings };
      return {
        sittings: { ...sittings, slots: (sittings.slots ?? []).map((s, k) => (k === index ? {} : s)) },
      };
    }),
  addAccent: (accent: Accent) => onInput(null, (i) => ({ ...i, accents: [...(i.accents ?? []), accent] })),
  setAccent: (index: number, group: Group, part: Partial<Accent>) =>
    onInput(group && `accent.${index}.${group}`, (i) => ({
      ...i,
      accents: at(i.accents ?? [], index, part),
    })),
  removeAccent: (index: number) => onInput(null, (i) => ({ ...i, accents: without(i.accents ?? [], index) })),
  /** Another piece in place of the one that hangs everywhere. */
  hangInstead: (piece: Piece) =>
    onInput(null, (i) => {
      const key = i.uses[0]?.piece ?? i.uses[0]?.mix?.[0]?.piece ?? i.pieces[0]?.key ?? "";
      return {
        ...i,
        pieces: i.pieces.map((p) => (p.key === key ? { ...piece, key } : p)),
        uses: i.uses.map((u, n) => (n === 0 ? { ...omit(u, "mix"), piece: key } : u)),
      };
    }),

  pin: (name: string): Action => ({
    group: null,
    update: (d) => ({ ...d, variants: [...(d.variants ?? []), { name, input: d.input }] }),
  }),
  /** Another plan beside this one, to be compared; the oldest gives way where there is no more room. */
  pinOther: (name: string, input: PlanInput) =>
    onVariants(null, (v) => [
      ...v.slice(v.length < mostVariants ? 0 : 1),
      { name: name.slice(0, 80), input },
    ]),
  renameVariant: (index: number, name: string) =>
    onVariants(`variants.${index}`, (v) => at(v, index, { name })),
  unpin: (index: number) => onVariants(null, (v) => without(v, index)),
} as const;

/** Uses after a change, without those that say nothing any more. */
const kept = (uses: readonly Use[], change: (u: Use) => Use): Use[] =>
  uses
    .map(change)
    .filter(
      (u, i) =>
        i < fixedUses ||
        u.piece !== undefined ||
        u.mix !== undefined ||
        u.way !== undefined ||
        (u.count ?? 0) > 0,
    );

/** A use whose mix has a piece no more; of one that is left it is the piece. */
function unmixed(use: Use, key: string): Use {
  if (!use.mix?.some((s) => s.piece === key)) return use;
  const mix = use.mix.filter((s) => s.piece !== key);
  const [only] = mix;
  if (mix.length > 1) return { ...use, mix };
  return { ...omit(use, "mix"), ...(only && { piece: only.piece }) };
}
