import { useMemo, useState } from "react";
import type { Section } from "../api/types";
import type { HeadTool } from "./tool";

/** Turning and reading, what a head does by itself: one section is picked to be read. */
export function useTurnTool(byId: ReadonlyMap<string, Section>): HeadTool {
  const [id, setId] = useState<string>();
  const picked = useMemo(() => (id !== undefined ? [byId.get(id)].flatMap((s) => s ?? []) : []), [byId, id]);
  const chosen = useMemo(() => new Set(picked.map((s) => s.id)), [picked]);
  return useMemo(
    () => ({
      key: "turn",
      name: "Turn",
      hint: "Drag to turn · tap a section to read it · keys 1 to 5 for views",
      picked,
      chosen,
      pick: setId,
      pickNone: () => setId(undefined),
      picksOnTheWay: true,
    }),
    [picked, chosen],
  );
}
