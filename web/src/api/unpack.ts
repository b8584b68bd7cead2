import type { components } from "./schema";

type Schemas = components["schemas"];
type Packed = Schemas["Preview"];
type Spread = Schemas["Spread"];

/** A place on the scalp, mm in the axes of the head. */
export type Point = readonly [number, number, number];

/** One box of scalp whose hair makes one plait, with what hangs on it. Lengths are mm. */
export interface Section {
  id: string;
  zone: string;
  row: number;
  index: number;
  front: boolean;
  linked: boolean;
  /** Hooked plainly, and laid back into the base. */
  laid: boolean;
  seen: boolean;
  locked: boolean;
  edited: boolean;
  outline: readonly Point[];
  areaMm2: number;
  /** The area ÷ that of the section wished for in its row. */
  share: number;
  widthMm: Spread;
  heightMm: Spread;
  centroid: Point;
  /** The outward unit normal at the centroid. */
  normal: Point;
  hairlineMm: number;
  partMm: number;
  stagger: number;
  /** The section whose plait takes this one's up. */
  into?: string;
  neighbours: readonly string[];
  given: Given;
  /** Thickness of its plait at the root, mm. */
  plaitMm: number;
}

/** What hangs somewhere: indices into the plan's pieces and ways, and how many. */
export interface Given {
  piece: number;
  way: number;
  count: number;
  /** Its number among the places: sections first, then hooks. */
  place: number;
  /** Indices into the plan's accents: what is put on besides. */
  accents: readonly number[];
  /** True where what hangs stays, as in a plan of outer rows. */
  kept?: true;
}

export interface Hook {
  at: Point;
  given: Given;
}

export interface Cornrow {
  id: string;
  zone: string;
  line: readonly Point[];
  lengthMm: number;
  outlines: readonly (readonly Point[])[];
  widthMm: number;
  into?: string;
  merged: boolean;
  hooks: readonly Hook[];
  /** True where the last of its hooks is its end, from which it goes on as a braid. */
  fed: boolean;
}

export interface NetArea {
  zone: string;
  outlines: readonly (readonly Point[])[];
  areaMm2: number;
  hooks: readonly Hook[];
  /** The small plaits it lies on; none over cornrows. */
  plaits: readonly Point[];
}

export interface Row {
  zone: string;
  row: number;
  sections: number;
  line: readonly Point[];
  end: Point;
}

/** A parted head. */
export interface Layout {
  sections: readonly Section[];
  leftOut: readonly (readonly Point[])[];
  rows: readonly Row[];
  zones: readonly Schemas["FlatZone"][];
  tracks: readonly Cornrow[];
  nets: readonly NetArea[];
  areaMm2: number;
  baseAreaMm2: number;
  outAreaMm2: number;
  /** How far apart pieces are hooked on the base where no rule says otherwise; 0 without a base. */
  spacingMm: number;
  seams: readonly Schemas["Seam"][];
  channels: readonly { lengthMm: number; line: readonly Point[] }[];
  balance: readonly Schemas["Balance"][];
  rejected: readonly Schemas["RejectedEdit"][];
  hairline: readonly Point[];
  border: readonly Point[];
  partLine: readonly Point[];
  earToEar: readonly Point[];
}

/** What a plan comes to, as far as every step shows it. */
export interface PlanResult {
  tally: Schemas["Tally"];
  head: Schemas["Head"];
  layout: Layout;
  notices: readonly Schemas["Notice"][];
  /** What each side of a front design takes. */
  design: readonly Schemas["DesignSide"][];
  /** Of every use, the number of places it says something about. */
  matched: readonly number[];
}

/** Reads points off flat steps, in tenths of a millimetre. */
class Reader {
  private at = 0;
  constructor(private readonly flat: readonly number[]) {}

  /** The next line, of count points, which starts from nothing. */
  line(points: number): Point[] {
    const out: Point[] = [];
    let [x, y, z] = [0, 0, 0];
    for (let i = 0; i < points; i++) {
      x += this.flat[this.at++] ?? 0;
      y += this.flat[this.at++] ?? 0;
      z += this.flat[this.at++] ?? 0;
      out.push([x / 10, y / 10, z / 10]);
    }
    return out;
  }
}

/** All of a line that travelled flat. */
export const line = (flat: readonly number[]): Point[] => new Reader(flat).line(flat.length / 3);

const spread = (column: readonly number[], i: number): Spread => {
  const [mean, below, above] = [column[3 * i] ?? 0, column[3 * i + 1] ?? 0, column[3 * i + 2] ?? 0];
  return { min: (mean - below) / 10, mean: mean / 10, max: (mean + above) / 10 };
};

const flags = { front: 1, linked: 2, seen: 4, locked: 8, edited: 16, laid: 32 } as const;

/** Unpacks what the server wrote as columns. */
export function unpack({ tally, head, layout: packed, given, design, notices }: Packed): PlanResult {
  const [a, b, c] = [head.axesMm[0] ?? 1, head.axesMm[1] ?? 1, head.axesMm[2] ?? 1];
  const centroids = line(packed.centroids);
  const outlines = new Reader(packed.outlines);
  const at = (column: readonly number[], i: number) => column[i] ?? 0;
  const accents = new Map<number, number[]>();
  for (let i = 0; i < given.accents.length; i += 2) {
    const place = at(given.accents, i);
    accents.set(place, [...(accents.get(place) ?? []), at(given.accents, i + 1)]);
  }
  const kept = new Set(given.kept);
  const givenAt = (i: number): Given => ({
    ...(kept.has(i) && { kept: true }),
    place: i,
    accents: accents.get(i) ?? [],
    piece: at(given.pieces, i),
    way: at(given.ways, i),
    count: at(given.counts, i),
  });
  const neighbours: string[][] = packed.ids.map(() => []);
  let next = 0;
  packed.ids.forEach((id, i) => {
    for (let n = at(packed.neighbours, next++); n > 0; n--) {
      const other = at(packed.neighbours, next++);
      neighbours[i]?.push(packed.ids[other] ?? "");
      neighbours[other]?.push(id);
    }
  });
  const sections = packed.ids.map((id, i): Section => {
    const set = at(packed.flags, i);
    const centroid = centroids[i] ?? ([0, 0, 0] as const);
    const [x, y, z] = [centroid[0] / (a * a), centroid[1] / (b * b), centroid[2] / (c * c)];
    const long = Math.hypot(x, y, z) || 1;
    const into = packed.into.length > 0 ? at(packed.into, i) : -1;
    return {
      id,
      zone: packed.zoneOf[i] ?? "",
      row: at(packed.rowOf, i),
      index: at(packed.indexOf, i),
      front: (set & flags.front) !== 0,
      linked: (set & flags.linked) !== 0,
      laid: (set & flags.laid) !== 0,
      seen: (set & flags.seen) !== 0,
      locked: (set & flags.locked) !== 0,
      edited: (set & flags.edited) !== 0,
      outline: outlines.line(at(packed.points, i)),
      areaMm2: at(packed.areas, i),
      share: at(packed.shares, i) / 100,
      widthMm: spread(packed.widths, i),
      heightMm: spread(packed.heights, i),
      centroid,
      normal: [x / long, y / long, z / long],
      hairlineMm: at(packed.toHairline, i) / 10,
      partMm: at(packed.toPart, i) / 10,
      stagger: at(packed.stagger, i) / 100,
      ...(into >= 0 && { into: packed.ids[into] ?? "" }),
      neighbours: neighbours[i] ?? [],
      given: givenAt(i),
      plaitMm: at(given.plaits, i) / 10,
    };
  });
  let place = sections.length;
  const hooks = (flat: readonly number[]): Hook[] =>
    line(flat).map((point) => ({ at: point, given: givenAt(place++) }));
  const tracks = packed.tracks.map((t): Cornrow => ({
    id: t.id,
    zone: t.zone,
    line: line(t.line),
    lengthMm: t.lengthMm,
    outlines: t.outlines.map(line),
    widthMm: t.widthMm,
    ...(t.into !== undefined && { into: t.into }),
    merged: t.merged ?? false,
    hooks: hooks(t.hooks),
    fed: t.fed ?? false,
  }));
  const nets = packed.nets.map((n): NetArea => ({
    zone: n.zone,
    outlines: n.outlines.map(line),
    areaMm2: n.areaMm2,
    hooks: hooks(n.hooks),
    plaits: line(n.plaits),
  }));
  return {
    tally,
    head,
    notices,
    design,
    matched: given.matched,
    layout: {
      sections,
      tracks,
      nets,
      leftOut: packed.leftOut.map(line),
      rows: packed.rows.map((r) => ({
        ...r,
        line: line(r.line),
        end: line(r.end)[0] ?? ([0, 0, 0] as const),
      })),
      zones: packed.zones,
      areaMm2: packed.areaMm2,
      baseAreaMm2: packed.baseAreaMm2,
      outAreaMm2: packed.outAreaMm2,
      spacingMm: packed.spacingMm,
      seams: packed.seams,
      channels: packed.channels.map((channel) => ({ lengthMm: channel.lengthMm, line: line(channel.line) })),
      balance: packed.balance,
      rejected: packed.rejectedEdits,
      hairline: line(packed.hairline),
      border: line(packed.border),
      partLine: line(packed.partLine),
      earToEar: line(packed.earToEar),
    },
  };
}
