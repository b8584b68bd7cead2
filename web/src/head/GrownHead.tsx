import { useMemo, useRef } from "react";
import type { HeadShape, Layout } from "../api/types";
import { hairTones, usePreferences } from "../lib/preferences";
import { useSettled } from "../lib/settled";
import { cameraAt } from "./camera";
import { pictured as picturedOf } from "./drawn";
import styles from "./GrownHead.module.css";
import { strand } from "./grown";
import { HeadPicture, type Box } from "./HeadPicture";
import * as paths from "./paths";
import { hooksOf } from "./reading";
import { useStance } from "./stance";
import { turnByKey, useTurning } from "./turning";
import { vec, type Vec } from "./vectors";

const box: Box = [-118, -118, 236, 232];
const stillTime = 120; // ms
const stub = 30; // mm of each piece that are drawn
const edge = 0.12; // how far a root must face the viewer to be drawn
const atTheTemple = { lon: 42, lat: 24 }; // where it shows first
const none: readonly never[] = [];
const noClasses = new Map<string, never>();

interface Props {
  head: HeadShape;
  layout: Layout;
  /** How much own hair stands between scalp and piece, mm. */
  grownMm: number;
  /** The colour of each piece, by its index. */
  swatches: readonly string[];
  /** What is seen, in words. */
  label: string;
}

/** A head as it has grown out: between the scalp and every piece stands so much own hair. */
export function GrownHead({ head, layout, grownMm, swatches, label }: Props) {
  const { stance, now, put } = useStance(atTheTemple);
  const svg = useRef<SVGSVGElement>(null);
  const hair = hairTones[usePreferences((p) => p.hair)].dark;
  const axes = useMemo(() => vec(head.axesMm), [head]);
  const picture = useMemo(() => picturedOf(head, layout), [head, layout]);
  const camera = useMemo(() => cameraAt(head.axesMm, stance), [head, stance]);
  const moving = useSettled(camera, stillTime) !== camera;
  const turning = useTurning({ now, put }, svg);
  // What hangs higher lies over what hangs lower.
  const roots = useMemo(
    () =>
      [
        ...layout.sections.map((s) => ({ at: s.centroid, piece: s.given.piece, hook: false })),
        ...hooksOf(layout).map((h) => ({ at: h.at, piece: h.given.piece, hook: true })),
      ].sort((a, b) => a.at[2] - b.at[2]),
    [layout],
  );
  const strands = useMemo(
    () =>
      roots.map(({ at, piece, hook }) => {
        const all = strand(axes, at, grownMm + stub);
        const own = strand(axes, at, grownMm);
        return { at, own, piece: all.slice(Math.max(0, own.length - 1)), swatch: swatches[piece], hook };
      }),
    [roots, axes, grownMm, swatches],
  );
  const d = (points: readonly Vec[]) =>
    camera
      .clipLine(points)
      .map((stretch) => paths.open(stretch, camera.flat))
      .join("");
  return (
    <div className={styles.head}>
      <HeadPicture
        pictured={picture}
        camera={camera}
        box={box}
        detail={moving ? "moving" : "full"}
        classes={noClasses}
        hooks={none}
      />
      <svg
        ref={svg}
        className={styles.over}
        viewBox={box.join(" ")}
        tabIndex={0}
        role="img"
        aria-label={`${label} Arrow keys turn it.`}
        {...turning.handlers}
        onKeyDown={(event) => turnByKey({ now, put }, event)}
      >
        {strands
          .filter(({ at }) => camera.facing(at) > edge)
          .map(({ own, piece, swatch, hook }, i) => (
            <g key={i} className={hook ? styles.hook : undefined}>
              <path className={styles.rim} d={d(piece)} />
              <path className={styles.piece} d={d(piece)} stroke={swatch ?? "#6b4a31"} />
              {own.length > 1 && (
                <>
                  <path className={styles.ownRim} d={d(own)} />
                  <path className={styles.own} d={d(own)} stroke={`rgb(${hair.join(" ")})`} />
                </>
              )}
            </g>
          ))}
      </svg>
    </div>
  );
}
