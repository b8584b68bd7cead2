import { useCallback, useMemo, useRef, useState } from "react";
import type { Edit, HeadShape, Layout, PlanInput, Section, Settings } from "../api/types";
import type { Camera } from "../head/camera";
import { vec, type Flat, type Vec } from "../head/vectors";
import type { Change } from "../workspace/draft";
import {
  centre,
  direction,
  hangTogether,
  joining,
  near,
  onBothSides,
  splitting,
  withEdits,
  withoutEditsIn,
} from "./edits";
import type { Act } from "./HandBar";

interface Bench {
  work: { input: PlanInput; change: Change } | undefined;
  layout: Layout;
  head: HeadShape;
  byId: ReadonlyMap<string, Section>;
}

const lassoStep = 2; // mm between the points of a lasso
const mostSpots = 60;

const nothing: Change = () => undefined;
const noEdits: Edit[] = [];

/** Picking sections and changing them, by hand on the head. */
export function useHandwork({ work, layout, head, byId }: Bench) {
  const [ids, setIds] = useState<readonly string[]>([]);
  // Both sides alike, unless the plan sets them apart or you say otherwise.
  const [said, setBoth] = useState<boolean>();
  const both = said ?? (work !== undefined && alike(work.input.parting));
  const [brush, setBrush] = useState(12);
  const [points, setPoints] = useState<readonly Flat[]>([]);
  const drawn = useRef<Flat[]>([]);
  const painted = useRef<Vec>(undefined);
  const axes = head.axesMm;
  const change = work?.change ?? nothing;

  const picked = useMemo(() => ids.flatMap((id) => byId.get(id) ?? []), [ids, byId]);
  const chosen = useMemo(() => new Set(picked.map((s) => s.id)), [picked]);
  const pickNone = useCallback(() => setIds([]), []);
  const pick = useCallback((id: string, several: boolean) => {
    setIds((have) => {
      if (!several) return [id];
      return have.includes(id) ? have.filter((other) => other !== id) : [...have, id];
    });
  }, []);

  const changeParting = useCallback(
    (update: (s: Settings) => Settings, control: string | null = null) =>
      change(control, (i) => ({ ...i, parting: update(i.parting) })),
    [change],
  );

  const addEdits = useCallback(
    (edits: Edit[], control?: string) =>
      changeParting((s) => withEdits(s, onBothSides(edits, both)), control),
    [changeParting, both],
  );

  /** Leaves sections out. */
  const leave = useCallback(
    (sections: readonly Section[]) =>
      addEdits(sections.map((s) => ({ kind: "leave-out", at: centre(s, axes) }))),
    [addEdits, axes],
  );

  /** Does something with the sections picked. */
  const act = useCallback(
    (what: Act) => {
      const one = picked[0];
      if (typeof what === "object") {
        const edits = picked.map((s): Edit => ({ kind: "pieces", at: centre(s, axes), pieces: what.pieces }));
        addEdits(edits, "byhand.pieces");
        return;
      }
      const widen = (like: (s: Section, p: Section) => boolean) =>
        setIds(layout.sections.filter((s) => picked.some((p) => like(s, p))).map((s) => s.id));
      switch (what) {
        case "join":
          addEdits(joining(picked, axes));
          setIds(one ? [one.id] : []);
          break;
        case "beside":
        case "above":
          if (one) addEdits([splitting(one, what, layout, axes)]);
          pickNone();
          break;
        case "leave":
          leave(picked);
          pickNone();
          break;
        case "lock":
          addEdits(picked.filter((s) => !s.locked).map((s) => ({ kind: "lock", at: centre(s, axes) })));
          break;
        case "unlock": {
          const twins = both ? picked.map(twin) : [];
          changeParting((s) => withoutEditsIn(s, "lock", [...picked, ...twins], axes));
          break;
        }
        case "row":
          widen((s, p) => s.zone === p.zone && s.row === p.row);
          break;
        case "zone":
          widen((s, p) => s.zone === p.zone);
          break;
        case "none":
          pickNone();
      }
    },
    [picked, both, axes, layout, changeParting, addEdits, leave, pickNone],
  );

  /** Keys of the sections tool; tells whether it took one. */
  const key = (pressed: string, here: Section): boolean => {
    const acts: Record<string, Act> = {
      j: "join",
      s: "beside",
      v: "above",
      o: "leave",
      l: picked.every((s) => s.locked) ? "unlock" : "lock",
      r: "row",
      z: "zone",
      "+": { pieces: Math.min(6, (picked[0]?.pieces ?? 1) + 1) },
      "-": { pieces: Math.max(1, (picked[0]?.pieces ?? 1) - 1) },
    };
    const what = acts[pressed.toLowerCase()];
    if (!what) return false;
    if (picked.length === 0) setIds([here.id]);
    else act(what);
    return true;
  };

  const paint = (at: Vec, begin: boolean) => {
    const last = painted.current;
    if (!begin && last && Math.hypot(at[0] - last[0], at[1] - last[1], at[2] - last[2]) < 0.8 * brush) return;
    painted.current = at;
    const where = direction(at, axes);
    changeParting(
      (s) => {
        const spots = [{ at: where, radiusMm: brush }];
        const [x, y, z] = vec(where);
        if (both && Math.abs(y) > near) spots.push({ at: [x, -y, z], radiusMm: brush });
        return { ...s, leftOut: [...(s.leftOut ?? []), ...spots].slice(0, mostSpots) };
      },
      begin ? null : "byhand.paint",
    );
  };

  const lasso = {
    points,
    draw: (p: Flat) => {
      const last = drawn.current[drawn.current.length - 1];
      if (last && Math.hypot(p[0] - last[0], p[1] - last[1]) < lassoStep) return;
      drawn.current = [...drawn.current, p];
      setPoints(drawn.current);
    },
    /** Picks what lies within, on the side of the head in sight. */
    close: (camera: Camera) => {
      const outline = drawn.current;
      drawn.current = [];
      setPoints([]);
      if (outline.length < 4) return;
      setIds(
        layout.sections
          .filter(
            (s) => camera.facing(vec(s.centroid)) > 0.05 && inside(camera.flat(vec(s.centroid)), outline),
          )
          .map((s) => s.id),
      );
    },
  };

  const summary = useMemo(
    () => ({
      count: picked.length,
      joinable: hangTogether(picked, axes),
      locked: picked.length > 0 && picked.every((s) => s.locked),
      pieces: picked[0]?.pieces ?? 0,
    }),
    [picked, axes],
  );
  const edits = work?.input.parting.edits ?? noEdits;
  const full = (work?.input.parting.leftOut?.length ?? 0) >= mostSpots;
  const handles = { layout, head, edits, both, change };
  return {
    picked,
    chosen,
    pick,
    pickNone,
    both,
    setBoth,
    brush,
    setBrush,
    act,
    key,
    leave,
    paint,
    lasso,
    summary,
    full,
    handles,
  };
}

/** Whether left and right are meant to be mirror images. */
const alike = ({ part, structure, design }: Settings) =>
  part.kind !== "side" &&
  part.kind !== "diagonal" &&
  (structure !== "front-design" || design.side === "both");

/** A section's mirror image, as far as its place goes. */
const twin = (s: Section): Section => {
  const flip = (p: readonly number[]): number[] => [p[0] ?? 0, -(p[1] ?? 0), p[2] ?? 0];
  return { ...s, centroid: flip(s.centroid), outline: s.outline.map(flip) };
};

/** Whether a place lies within an outline (even-odd rule). */
export function inside([x, y]: Flat, outline: readonly Flat[]): boolean {
  let within = false;
  outline.forEach((p, i) => {
    const q = outline[(i + 1) % outline.length] ?? p;
    if (p[1] > y !== q[1] > y && x < p[0] + ((y - p[1]) / (q[1] - p[1])) * (q[0] - p[0])) within = !within;
  });
  return within;
}
