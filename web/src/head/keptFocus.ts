import { useEffect, useRef, type FocusEvent, type RefObject } from "react";
import type { Layout } from "../api/types";
import { vec, type Vec } from "./vectors";

/**
 * Keeps the focus on the head when the section that had it is no more, because it was
 * joined, split or left out: the nearest one in sight takes it.
 */
export function useKeptFocus(svg: RefObject<SVGSVGElement | null>, layout: Layout) {
  const last = useRef<{ id: string; at: Vec }>(undefined);
  useEffect(() => {
    const lost = last.current;
    const drawn = (id: string) =>
      svg.current?.querySelector<SVGElement>(`[data-section="${CSS.escape(id)}"]`) ?? undefined;
    if (!lost || document.activeElement !== document.body || drawn(lost.id)) return;
    let nearest: SVGElement | undefined;
    let least = Infinity;
    for (const s of layout.sections) {
      const [x, y, z] = vec(s.centroid);
      const far = Math.hypot(x - lost.at[0], y - lost.at[1], z - lost.at[2]);
      const shape = far < least ? drawn(s.id) : undefined;
      if (shape) [nearest, least] = [shape, far];
    }
    nearest?.focus();
  }, [layout, svg]);
  return {
    onFocus: (event: FocusEvent) => {
      const section = layout.sections.find((s) => s.id === event.target.getAttribute("data-section"));
      last.current = section && { id: section.id, at: vec(section.centroid) };
    },
    onBlur: (event: FocusEvent) => {
      if (event.relatedTarget) last.current = undefined;
    },
  };
}
