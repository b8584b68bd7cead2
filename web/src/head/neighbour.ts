import type { Section } from "../api/types";
import type { Camera } from "./camera";
import type { Flat } from "./vectors";

/** The ways of the arrow keys on the picture. */
const ways: Readonly<Record<string, Flat>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** How squarely a neighbour must lie that way. */
const least = 0.3;

/** Whether a key is one of those that lead on. */
export const leadsOn = (key: string) => key in ways;

/** The neighbour of a section that lies most squarely the way of an arrow key, as the camera sees it. */
export function neighbourThatWay(
  key: string,
  here: Section,
  byId: ReadonlyMap<string, Section>,
  camera: Camera,
): Section | undefined {
  const way = ways[key];
  if (!way) return undefined;
  const [x, y] = camera.flat(here.centroid);
  let best: Section | undefined;
  let most = least;
  for (const other of here.neighbours.map((n) => byId.get(n))) {
    if (!other) continue;
    const [ox, oy] = camera.flat(other.centroid);
    const reach = Math.hypot(ox - x, oy - y) || 1;
    const along = ((ox - x) * way[0] + (oy - y) * way[1]) / reach;
    if (along > most) [best, most] = [other, along];
  }
  return best;
}

/** Puts the focus on a section that is drawn. */
export const focusOn = (svg: SVGElement | null, section: Section) =>
  svg?.querySelector<SVGElement>(`[data-section="${CSS.escape(section.id)}"]`)?.focus();
