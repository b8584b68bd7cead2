import { useRef, type KeyboardEvent, type PointerEvent, type RefObject } from "react";
import type { Stance } from "./camera";
import type { Flat } from "./vectors";

const degreesPerPixel = 0.42;
const tapSlop = 6; // px a finger may stray and still tap
const turnStep = 15; // degrees an arrow key turns

/** How far each arrow key turns a head, in degrees round and up. */
export const turns: Readonly<Record<string, Flat>> = {
  ArrowLeft: [turnStep, 0],
  ArrowRight: [-turnStep, 0],
  ArrowUp: [0, -turnStep],
  ArrowDown: [0, turnStep],
};

interface Turned {
  now: () => Stance;
  put: (next: Stance) => void;
}

/** Takes a drag in place of the turning: where it began, its course, its end. */
export interface Taking {
  /** Whether a drag that begins there is taken. */
  begins: (event: PointerEvent) => boolean;
  moves: (event: PointerEvent) => void;
  ends: () => void;
}

/**
 * Turns a head by dragging it, to the other side where it is seen in a mirror, unless the drag is taken for
 * something else; a finger that hardly moved tapped. dragged tells whether what just ended was a drag: the click that follows must still see it.
 */
export function useTurning(
  { now, put }: Turned,
  svg: RefObject<SVGSVGElement | null>,
  { mirror = false, taking, onTap }: { mirror?: boolean; taking?: Taking; onTap?: (at: Flat) => void } = {},
) {
  const drag = useRef<{ x: number; y: number; stance: Stance; moved: boolean; taken: boolean }>(null);
  const onPointerEnd = () => {
    const done = drag.current;
    if (done?.taken) taking?.ends();
    setTimeout(() => {
      if (drag.current === done) drag.current = null;
    });
  };
  return {
    dragged: () => drag.current?.moved === true,
    handlers: {
      onPointerDown: (event: PointerEvent) => {
        if (event.button !== 0) return;
        drag.current = {
          x: event.clientX,
          y: event.clientY,
          stance: now(),
          moved: false,
          taken: taking?.begins(event) ?? false,
        };
      },
      onPointerMove: (event: PointerEvent) => {
        const from = drag.current;
        if (!from) return;
        const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
        if (!from.moved && Math.hypot(dx, dy) < tapSlop) return;
        if (!from.moved) svg.current?.setPointerCapture(event.pointerId);
        from.moved = true;
        if (from.taken) {
          taking?.moves(event);
          return;
        }
        const way = mirror ? -1 : 1;
        put({
          lon: from.stance.lon - way * dx * degreesPerPixel,
          lat: from.stance.lat + dy * degreesPerPixel,
        });
      },
      onPointerUp: (event: PointerEvent) => {
        if (drag.current && !drag.current.moved) onTap?.(placeOn(svg.current, event));
        onPointerEnd();
      },
      onPointerCancel: onPointerEnd,
    },
  };
}

/** The place on a picture under a pointer, in the picture's mm. */
export function placeOn(svg: SVGSVGElement | null, event: { clientX: number; clientY: number }): Flat {
  const to = svg?.getScreenCTM()?.inverse();
  if (!to) return [0, 0];
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(to);
  return [at.x, at.y];
}

/** Turns a head by an arrow key; whether it was one. */
export function turnByKey({ now, put }: Turned, event: KeyboardEvent): boolean {
  const turn = turns[event.key];
  if (!turn) return false;
  event.preventDefault();
  put({ lon: now().lon + turn[0], lat: now().lat + turn[1] });
  return true;
}
