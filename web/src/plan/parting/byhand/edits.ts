import type { Direction, Edit, Layout, Section, Settings } from "../../../api/types";
import { scale, unit, vec, type Vec } from "../../../head";

/** Changes by hand are kept as places on the head: unit vectors, which hold when the tapes change. */
export const direction = (p: Vec, axes: readonly number[]): Direction => {
  const [a, b, c] = vec(axes);
  return [...unit([p[0] / a, p[1] / b, p[2] / c])];
};

/** The surface point of a direction, mm. */
export const point = (d: readonly number[], axes: readonly number[]): Vec => {
  const [u, [a, b, c]] = [vec(d), vec(axes)];
  return [u[0] * a, u[1] * b, u[2] * c];
};

const apart = (a: readonly number[], b: readonly number[]) =>
  Math.hypot(...[0, 1, 2].map((i) => (a[i] ?? 0) - (b[i] ?? 0)));

/** How close, on the unit sphere, two places are one: about 4 mm. */
export const near = 0.045;

const flip = ([x, y, z]: Direction): Direction => [x ?? 0, -(y ?? 0), z ?? 0];

/** The same change on the other side of the head. */
export const mirrored = (e: Edit): Edit => ({ ...e, at: flip(e.at), ...(e.with && { with: flip(e.with) }) });

/** Whether a change lies on the middle, where both sides are one. */
const onMiddle = (e: Edit) => Math.abs(e.at[1] ?? 0) < 0.01 && (!e.with || Math.abs(e.with[1] ?? 0) < 0.01);

/** What was changed on one side alone, as it would be on the other. */
export const oneSided = (edits: readonly Edit[]): Edit[] =>
  edits
    .filter((e) => !onMiddle(e))
    .map(mirrored)
    .filter((m) => !edits.some((e) => e.kind === m.kind && apart(e.at, m.at) < near));

/** Changes, and their like on the other side where that is wished; on the middle there is none. */
export function onBothSides(edits: readonly Edit[], both: boolean): Edit[] {
  return both ? edits.flatMap((e) => (onMiddle(e) ? [e] : [e, mirrored(e)])) : [...edits];
}

/** Adds changes; one that says something else of the same place takes the place of what was said. */
export function withEdits(settings: Settings, added: readonly Edit[]): Settings {
  const replaces = (old: Edit) =>
    added.some(
      (e) =>
        e.kind === old.kind &&
        (e.kind === "move-row" || e.kind === "move-part") &&
        apart(e.with ?? e.at, old.with ?? old.at) < near / 3,
    );
  return { ...settings, edits: [...settings.edits.filter((e) => !replaces(e)), ...added] };
}

/** Takes back changes of a kind that were made within a section. */
export function withoutEditsIn(
  settings: Settings,
  kind: Edit["kind"],
  sections: readonly Section[],
  axes: readonly number[],
): Settings {
  const within = (e: Edit) =>
    sections.some((s) => {
      const centre = vec(s.centroid);
      const reach = Math.max(...s.outline.map((p) => apart(p, centre)));
      return apart(point(e.at, axes), centre) < 0.8 * reach;
    });
  return { ...settings, edits: settings.edits.filter((e) => e.kind !== kind || !within(e)) };
}

export const centre = (s: Section, axes: readonly number[]) => direction(vec(s.centroid), axes);

/** One section of all that are picked, joined to the first by way of their neighbours. */
export function joining(picked: readonly Section[], axes: readonly number[]): Edit[] {
  const [first, ...rest] = picked;
  if (!first) return [];
  const joined = new Set([first.id]);
  const edits: Edit[] = [];
  // Nearest first: each must touch what is joined already.
  for (let left = rest; left.length > 0;) {
    const next = left.find((s) => s.neighbours.some((n) => joined.has(n)));
    if (!next) break;
    edits.push({ kind: "merge", at: centre(first, axes), with: centre(next, axes) });
    joined.add(next.id);
    left = left.filter((s) => s !== next);
  }
  return edits;
}

/** Whether all that are picked hang together. */
export const hangTogether = (picked: readonly Section[], axes: readonly number[]) =>
  picked.length > 1 && joining(picked, axes).length === picked.length - 1;

/** A section cut in two: side by side, or one above the other. */
export function splitting(
  s: Section,
  way: "beside" | "above",
  layout: Layout,
  axes: readonly number[],
): Edit {
  const c = vec(s.centroid);
  const along = rowDirection(s, layout);
  const n = vec(s.normal);
  const up: Vec = [
    n[1] * along[2] - n[2] * along[1],
    n[2] * along[0] - n[0] * along[2],
    n[0] * along[1] - n[1] * along[0],
  ];
  const [way3, reach] = way === "beside" ? [along, s.widthMm.mean] : [up, s.heightMm.mean];
  const at = (f: number): Vec => {
    const d = scale(f * reach, way3);
    return [c[0] + d[0], c[1] + d[1], c[2] + d[2]];
  };
  return { kind: "split", at: direction(at(-0.22), axes), with: direction(at(0.22), axes) };
}

/** The direction of a section's row: towards its next one, or along its longest straight side. */
function rowDirection(s: Section, layout: Layout): Vec {
  const beside = layout.sections.find(
    (o) => o.zone === s.zone && o.row === s.row && Math.abs(o.index - s.index) === 1,
  );
  const c = vec(s.centroid);
  const to = beside ? vec(beside.centroid) : vec(s.outline[0] ?? s.centroid);
  return unit([to[0] - c[0], to[1] - c[1], to[2] - c[2]]);
}

const names: Record<Edit["kind"], string> = {
  "move-row": "Part line moved",
  "move-part": "Part in a row moved",
  merge: "Sections joined",
  split: "Section split",
  "leave-out": "Left out",
  lock: "Locked",
};

/** A change in a few words. */
export const editName = (e: Edit) => names[e.kind];

/** About where on the head a place lies. */
export function whereabouts(d: readonly number[]): string {
  const [x, y, z] = vec(d);
  const place = x > 0.6 ? "in front" : x < -0.6 ? "behind" : z < 0.6 ? "at the side" : "on top";
  return Math.abs(y) < 0.05 ? `${place}, middle` : `${place}, ${y > 0 ? "left" : "right"}`;
}
