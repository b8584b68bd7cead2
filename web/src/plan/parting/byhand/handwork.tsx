import { Suspense, useCallback, useMemo, useRef, useState } from "react";
import type { Edit, HeadShape, Layout, PlanInput, Section, Settings } from "../../../api/types";
import { vec, type HeadTool, type Vec, type View } from "../../../head";
import { actions, type Act } from "../../draft/actions";
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
import type { Does, HandTool } from "./HandBar";
import { HairlineHandles, PartHandles, RowHandles } from "./lazyHandles";
import { useLasso } from "./lasso";
import { Spots } from "./Spots";

interface Bench {
  input: PlanInput;
  layout: Layout;
  head: HeadShape;
  act: Act;
}

const mostSpots = 60;

const nothing: ReadonlySet<string> = new Set();

const beside = "Drag beside the head to turn it · keys 1 to 5 for views";

/** Picking sections and changing the parting by hand on the head. */
export function useHandwork({ input, layout, head, act }: Bench) {
  const [ids, setIds] = useState<readonly string[]>([]);
  // Both sides alike, unless the plan sets them apart or you say otherwise.
  const [said, setBoth] = useState<boolean>();
  const both = said ?? alike(input.parting);
  const [brush, setBrush] = useState(12);
  const painted = useRef<Vec>(undefined);
  const axes = head.axesMm;

  const byId = useMemo(() => new Map(layout.sections.map((s) => [s.id, s])), [layout]);
  const picked = useMemo(() => ids.flatMap((id) => byId.get(id) ?? []), [ids, byId]);
  const chosen = useMemo(() => new Set(picked.map((s) => s.id)), [picked]);
  const pickNone = useCallback(() => setIds([]), []);
  const pick = useCallback(
    (id: string) =>
      setIds((have) => (have.includes(id) ? have.filter((other) => other !== id) : [...have, id])),
    [],
  );

  const changeParting = useCallback(
    (update: (s: Settings) => Settings, group: string | null = null) =>
      act(actions.changeParting(group, update)),
    [act],
  );

  const addEdits = useCallback(
    (edits: Edit[]) => changeParting((s) => withEdits(s, onBothSides(edits, both))),
    [changeParting, both],
  );

  /** Leaves sections out. */
  const leave = useCallback(
    (sections: readonly Section[]) =>
      addEdits(sections.map((s) => ({ kind: "leave-out", at: centre(s, axes) }))),
    [addEdits, axes],
  );

  /** Does something with the sections picked. */
  const does = useCallback(
    (what: Does) => {
      const one = picked[0];
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

  const lasso = useLasso(layout, (found) => setIds(found));
  const edits = input.parting.edits;
  const spots = input.parting.leftOut;
  const full = spots.length >= mostSpots;

  const tools: Record<HandTool, () => HeadTool | undefined> = {
    turn: () => undefined,
    sections: () => ({
      key: "sections",
      name: "Sections",
      hint: beside,
      picked,
      chosen,
      pick,
      pickNone,
      picksOnTheWay: false,
      drag: lasso.drag,
      press: (key, here) => {
        const keys: Record<string, Does> = {
          j: "join",
          s: "beside",
          v: "above",
          o: "leave",
          l: picked.every((s) => s.locked) ? "unlock" : "lock",
          r: "row",
          z: "zone",
        };
        const what = keys[key.toLowerCase()];
        if (!what) return false;
        if (picked.length === 0) setIds([here.id]);
        else does(what);
        return true;
      },
      over: (view: View) => {
        const moved = { layout, head, edits, both, act, camera: view.camera, placeOf: view.placeOf };
        const last = picked[picked.length - 1];
        return (
          <g>
            <Suspense fallback={null}>
              <RowHandles {...moved} picked={picked} />
              {last && picked.length === 1 && <PartHandles {...moved} section={last} />}
            </Suspense>
            {lasso.drawn}
          </g>
        );
      },
    }),
    leave: () => ({
      key: "leave",
      name: "Leave out",
      hint: beside,
      picked: [],
      chosen: nothing,
      pick: () => undefined,
      pickNone: () => undefined,
      picksOnTheWay: false,
      tap: (here) => leave([here]),
      drag: {
        begin: (under) => paint(under, true),
        move: (_, under) => under && paint(under, false),
        end: () => undefined,
      },
      over: ({ camera }: View) => <Spots spots={spots} camera={camera} axes={axes} />,
    }),
    hairline: () => ({
      key: "hairline",
      name: "Hairline",
      hint: "Drag to turn · keys 1 to 5 for views",
      picked: [],
      chosen: nothing,
      pick: () => undefined,
      pickNone: () => undefined,
      picksOnTheWay: false,
      over: (view: View) => (
        <Suspense fallback={null}>
          <HairlineHandles {...view} input={input} act={act} />
        </Suspense>
      ),
    }),
  };

  function paint(at: Vec, begin: boolean) {
    const last = painted.current;
    if (!begin && last && Math.hypot(at[0] - last[0], at[1] - last[1], at[2] - last[2]) < 0.8 * brush) return;
    painted.current = at;
    const where = direction(at, axes);
    changeParting(
      (s) => {
        const fresh = [{ at: where, radiusMm: brush }];
        const [x, y, z] = vec(where);
        if (both && Math.abs(y) > near) fresh.push({ at: [x, -y, z], radiusMm: brush });
        return { ...s, leftOut: [...s.leftOut, ...fresh].slice(0, mostSpots) };
      },
      begin ? null : "byhand.paint",
    );
  }

  const summary = useMemo(
    () => ({
      count: picked.length,
      joinable: hangTogether(picked, axes),
      locked: picked.length > 0 && picked.every((s) => s.locked),
    }),
    [picked, axes],
  );
  return { tools, pickNone, both, setBoth, brush, setBrush, does, summary, full };
}

/** Whether left and right are meant to be mirror images. */
export const alike = ({ part, structure, design }: Settings) =>
  part.kind !== "side" &&
  part.kind !== "diagonal" &&
  (structure !== "front-design" || design.side === "both");

/** A section's mirror image, as far as its place goes. */
const twin = (s: Section): Section => {
  const flip = ([x, y, z]: Vec): Vec => [x, -y, z];
  return { ...s, centroid: flip(s.centroid), outline: s.outline.map(flip) };
};
