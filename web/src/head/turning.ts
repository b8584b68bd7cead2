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

/**
 * Turns a head by dragging it, to the other side where it is seen in a mirror; a finger that hardly moved
 * tapped, at a point of the picture's plane in mm.
 */
export function useTurning(
  { now, put }: Turned,
  svg: RefObject<SVGSVGElement | null>,
  mirror: boolean,
  onTap?: (point: DOMPoint) => void,
) {
  const drag = useRef<{ x: number; y: number; lon: number; lat: number; moved: boolean }>(null);
  return {
    onPointerDown: (event: PointerEvent) => {
      if (event.button === 0) drag.current = { x: event.clientX, y: event.clientY, ...now(), moved: false };
    },
    onPointerMove: (event: PointerEvent) => {
      const from = drag.current;
      if (!from) return;
      const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
      if (!from.moved && Math.hypot(dx, dy) < tapSlop) return;
      if (!from.moved) svg.current?.setPointerCapture(event.pointerId);
      from.moved = true;
      const way = mirror ? -1 : 1;
      put({ lon: from.lon - way * dx * degreesPerPixel, lat: from.lat + dy * degreesPerPixel });
    },
    onPointerUp: (event: PointerEvent) => {
      const from = drag.current;
      drag.current = null;
      const to = svg.current?.getScreenCTM()?.inverse();
      if (from && !from.moved && to) onTap?.(new DOMPoint(event.clientX, event.clientY).matrixTransform(to));
    },
    onPointerCancel: () => {
      drag.current = null;
    },
  };
}

/** Turns a head by an arrow key; whether it was one. */
export function turnByKey({ now, put }: Turned, event: KeyboardEvent): boolean {
  const turn = turns[event.key];
  if (!turn) return false;
  event.preventDefault();
  put({ lon: now().lon + turn[0], lat: now().lat + turn[1] });
  return true;
}
