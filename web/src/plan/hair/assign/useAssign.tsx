import { useCallback, useMemo, useState } from "react";
import type { Accent, HeadShape, Layout, PlanInput, Where } from "../../../api/types";
import { hookKey, hooksOf, type HeadTool, type Vec } from "../../../head";
import { actions, type Act, type Wanted } from "../../draft/actions";
import { alike, direction, near, useLasso } from "../../parting";

const tapReach = 7; // mm on the picture a tap may miss a hook by

/** Picking sections and hooks on the head, and giving them something. */
export function useAssign(input: PlanInput, layout: Layout, head: HeadShape, act: Act) {
  const [ids, setIds] = useState<readonly string[]>([]);
  const [said, setBoth] = useState<boolean>();
  const both = said ?? alike(input.parting);
  const byId = useMemo(() => new Map(layout.sections.map((s) => [s.id, s])), [layout]);
  const hooks = useMemo(() => hooksOf(layout), [layout]);
  const places = useMemo(
    () =>
      new Map<string, Vec>([
        ...layout.sections.map((s) => [s.id, s.centroid] as const),
        ...hooks.map((h, i) => [hookKey(i), h.at] as const),
      ]),
    [layout, hooks],
  );
  const names = useMemo(() => ids.filter((id) => places.has(id)), [ids, places]);
  const picked = useMemo(() => names.flatMap((id) => byId.get(id) ?? []), [names, byId]);
  const chosen = useMemo(() => new Set(names), [names]);
  const toggle = useCallback(
    (id: string) =>
      setIds((have) => (have.includes(id) ? have.filter((other) => other !== id) : [...have, id])),
    [],
  );
  const pickNone = useCallback(() => setIds([]), []);
  const lasso = useLasso(layout, (sections, found) => setIds([...sections, ...found]));
  const wholeRows = () =>
    setIds(
      layout.sections
        .filter((s) => picked.some((p) => p.zone === s.zone && p.row === s.row))
        .map((s) => s.id),
    );

  const tool: HeadTool = {
    key: "assign",
    name: "Assign",
    hint: "Drag beside the head to turn it · keys 1 to 5 for views",
    picked,
    chosen,
    pick: toggle,
    pickNone,
    picksOnTheWay: false,
    drag: lasso.drag,
    tapPlace: (at, camera) => {
      const [x, y] = camera.flat(at);
      let [best, least] = [-1, tapReach];
      hooks.forEach((h, i) => {
        if (camera.facing(h.at) <= 0) return;
        const [hx, hy] = camera.flat(h.at);
        const far = Math.hypot(hx - x, hy - y);
        if (far < least) [best, least] = [i, far];
      });
      if (best >= 0) toggle(hookKey(best));
    },
    press: (key) => {
      if (key.toLowerCase() !== "r" || picked.length === 0) return false;
      wholeRows();
      return true;
    },
    over: () => lasso.drawn,
  };

  /** What is picked, with its mirror images where both sides are worked. */
  const directions = () =>
    names.flatMap((id) => {
      const place = places.get(id);
      if (!place) return [];
      const own = direction(place, head.axesMm);
      const [x, y, z] = [own[0] ?? 0, own[1] ?? 0, own[2] ?? 0];
      return both && Math.abs(y) > near ? [own, [x, -y, z]] : [own];
    });
  const whereTo = (): Where => ({ kind: "places", places: directions().slice(0, mostPlaces) });
  const give = (wanted: Omit<Wanted, "where">) => {
    if (names.length === 0) return;
    act(actions.addUse({ where: whereTo(), ...wanted }));
    pickNone();
  };
  /** Puts an accent on what is picked. */
  const adorn = (accent: Pick<Accent, "piece" | "thing">) => {
    if (names.length === 0) return;
    const where = whereTo();
    act(actions.addAccent({ where, count: where.places?.length ?? 1, ...accent }));
    pickNone();
  };

  const pickCornrow = (id: string) => {
    const at = layout.tracks.findIndex((t) => t.id === id);
    const first = layout.tracks.slice(0, at).reduce((n, t) => n + t.hooks.length, 0);
    const found = (layout.tracks[at]?.hooks ?? []).map((_, i) => hookKey(first + i));
    setIds((have) => [...new Set([...have, ...found])]);
  };

  return { tool, count: names.length, both, setBoth, pickNone, wholeRows, pickCornrow, give, adorn };
}

/** The most places one use can name. */
const mostPlaces = 400;
