import type { Step } from "../../../api/types";

/** One picture of a walk through the steps of a method. */
export interface Moment {
  /** The step it belongs to, counted from 0. */
  step: number;
  figure: string;
  still: number;
  /** Whether it shows how a piece comes off. */
  back: boolean;
  /** Whether it moves here from the moment before. */
  moves: boolean;
  /** False for a step that needs no picture of its own: one that comes after or before stands in. */
  own: boolean;
}

/** The pictures of steps in order. A picture that is on the screen already is not shown twice. */
export function moments(steps: readonly Step[]): Moment[] {
  const out: Moment[] = [];
  steps.forEach((s, step) => {
    const clip = s.shows;
    if (!clip) {
      const next = steps.slice(step).find((later) => later.shows)?.shows;
      const last = out.at(-1);
      const from = next ? { figure: next.figure, still: next.first, back: next.last < next.first } : last;
      if (from) out.push({ ...from, step, moves: false, own: false });
      return;
    }
    const back = clip.last < clip.first;
    const way = back ? -1 : 1;
    const before = out.at(-1);
    const here = before?.figure === clip.figure && before.still === clip.first && before.back === back;
    const only = clip.first === clip.last;
    for (let still = here && before.own && !only ? clip.first + way : clip.first; ; still += way) {
      const last = out.at(-1);
      out.push({
        step,
        figure: clip.figure,
        still,
        back,
        moves: last?.figure === clip.figure && last.still === still - way && last.back === back,
        own: true,
      });
      if (still === clip.last) break;
    }
  });
  return out;
}
