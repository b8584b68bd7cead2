import { memo, useEffect, useId, useState } from "react";
import type { Motion, Outline } from "../../../api/types";
import { calm } from "../../../ui/theme";

const Outlines = memo(function Outlines({ of }: { of: readonly Outline[] }) {
  return of.map((o, i) => (
    <path
      key={i}
      d={o.d}
      fill={o.fill ?? "none"}
      {...(o.holes ? { fillRule: "evenodd" as const } : {})}
      {...(o.line ? { stroke: o.line, strokeWidth: o.width ?? 1 } : {})}
      opacity={o.opacity}
    />
  ));
});

/** Milliseconds a picture on the way is seen for. */
const pace = { usual: 80, slow: 190 } as const;

interface Props {
  motion: Motion;
  /** Whether it moves here, or stands at once. */
  moves: boolean;
  slow: boolean;
  says: string;
  /** Told once it stands. */
  onStands: () => void;
}

/** A drawn move: it comes the way to its picture, then stands. Mounted anew, it moves again. */
export function MovePicture({ motion, moves, slow, says, onStands }: Props) {
  const id = useId();
  const way = moves && !calm() ? motion.way : [];
  const [at, setAt] = useState(0);
  const stands = at >= way.length;
  const each = slow ? pace.slow : pace.usual;
  useEffect(() => {
    if (stands) {
      onStands();
      return undefined;
    }
    const timer = setTimeout(() => setAt((i) => i + 1), each);
    return () => clearTimeout(timer);
  }, [at, stands, each, onStands]);
  const lens = stands ? motion.lens : undefined;
  return (
    <svg
      viewBox="0 0 360 420"
      role="img"
      aria-label={says}
      data-stands={stands}
      strokeLinecap="round"
      strokeLinejoin="round"
    >
      <g id={`${id}behind`}>
        <Outlines of={motion.stage} />
        <Outlines of={way[at] ?? motion.still} />
      </g>
      {lens && (
        <>
          <clipPath id={`${id}lens`}>
            <circle cx={lens.x} cy={lens.y} r={lens.radius} />
          </clipPath>
          <Outlines of={motion.glass} />
          <g clipPath={`url(#${id}lens)`}>
            <use href={`#${id}behind`} transform={lens.transform} />
          </g>
        </>
      )}
      {stands && <Outlines of={motion.front} />}
    </svg>
  );
}
