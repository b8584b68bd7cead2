import { useRef, type KeyboardEvent, type MouseEvent, type PointerEvent } from "react";
import type { Flat } from "../../../head";
import styles from "./Handle.module.css";

export interface HandleProps {
  at: Flat;
  label: string;
  /** What the handle would say now, such as the sizes beside it. */
  says: string;
  /** The number in it, mm: what a reader of the screen hears change. */
  value: number;
  shape?: "row" | "part" | "landmark";
  /** The place on the picture under the pointer. */
  placeOf: (event: { clientX: number; clientY: number }) => Flat;
  onDrag: (to: Flat) => void;
  onEnd: () => void;
  /** A step by an arrow key: to the right and up, of one unit. */
  onStep: (right: number, up: number) => void;
}

const slop = 4; // px
const dotRadius = 3.4; // mm on the picture

const steps: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** A dot to drag, by finger, mouse or arrow keys. */
export function Handle({
  at,
  label,
  says,
  value,
  shape = "row",
  placeOf,
  onDrag,
  onEnd,
  onStep,
}: HandleProps) {
  const drag = useRef<{ x: number; y: number; moved: boolean }>(undefined);
  const tapped = useRef(false);
  const wide = 3.4 * says.length + 9; // mm, by the mean width of a letter
  const down = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { x: event.clientX, y: event.clientY, moved: false };
  };
  const move = (event: PointerEvent) => {
    const from = drag.current;
    if (!from) return;
    event.stopPropagation();
    // A finger that only taps strays a little.
    from.moved ||= Math.hypot(event.clientX - from.x, event.clientY - from.y) >= slop;
    if (from.moved) onDrag(placeOf(event));
  };
  const end = (event: PointerEvent) => {
    const from = drag.current;
    if (!from) return;
    event.stopPropagation();
    drag.current = undefined;
    tapped.current = !from.moved;
    if (from.moved) onEnd();
  };
  // A fingertip's reach covers what lies beside the dot: a tap there is meant for that.
  const tap = (event: MouseEvent) => {
    event.stopPropagation();
    const [x, y] = placeOf(event);
    if (!tapped.current || Math.hypot(x - at[0], y - at[1]) <= dotRadius) return;
    document
      .elementsFromPoint(event.clientX, event.clientY)
      .find((e) => e.hasAttribute("data-section"))
      ?.dispatchEvent(new window.MouseEvent("click", { bubbles: true }));
  };
  const key = (event: KeyboardEvent) => {
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    onStep(...step);
  };
  return (
    <g
      className={styles.handle}
      transform={`translate(${at[0].toFixed(1)} ${at[1].toFixed(1)})`}
      tabIndex={0}
      role="slider"
      aria-label={label}
      aria-valuenow={Math.round(value)}
      aria-valuetext={says}
      data-handle={shape}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={end}
      onClick={tap}
      onKeyDown={key}
    >
      <circle r={9} className={styles.reach} />
      <circle r={dotRadius} className={styles.dot} />
      <path
        d={shape === "part" ? "M-1.7 0H1.7" : shape === "row" ? "M0 -1.7V1.7" : "M-1.5 0H1.5M0 -1.5V1.5"}
      />
      <g className={styles.says}>
        <rect x={-wide / 2} y={-17.5} width={wide} height={11.5} rx={4} />
        <text y={-9.5}>{says}</text>
      </g>
    </g>
  );
}
