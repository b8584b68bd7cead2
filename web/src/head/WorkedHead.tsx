import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import type { HeadShape, Layout } from "../api/types";
import { cameraAt, mirrored } from "./camera";
import { pictured as picturedOf } from "./drawn";
import { HeadPicture, type Box } from "./HeadPicture";
import { HeadSections } from "./HeadSections";
import { focusOn, neighbourThatWay } from "./neighbour";
import * as paths from "./paths";
import type { Class } from "./reading";
import { hooksOf } from "./reading";
import { clampLat, useStance } from "./stance";
import { useSettled } from "../lib/settled";
import { turnByKey, turns, useTurning } from "./turning";
import { type Flat, unit, type Vec } from "./vectors";
import styles from "./WorkedHead.module.css";

const box: Box = [-118, -118, 236, 232];
const stillTime = 120; // ms
const squarely = 0.5; // how far a place must face the viewer to be left where it is
const near = 22; // mm within which a tap means a place

interface Props {
  head: HeadShape;
  layout: Layout;
  /** How each place stands: the sections in order, then the hooks. */
  places: readonly Class[];
  /** The place that is next, by its number; none for the whole head. */
  next: number | undefined;
  /** The line that is next, such as a cornrow to be plaited; none for anything else. */
  line: readonly Vec[] | undefined;
  /** Whether it is seen in a mirror. */
  mirror: boolean;
  /** What each section is, in words, by its id. */
  labels: ReadonlyMap<string, string>;
  onTouch: (place: number) => void;
}

/** A head that is worked at: painted by how far it is, turned to the next place, touched to go elsewhere. */
export function WorkedHead({ head, layout, places, next, line, mirror, labels, onTouch }: Props) {
  const { stance, now, put, turnTo } = useStance();
  const svg = useRef<SVGSVGElement>(null);
  const picture = useMemo(() => picturedOf(head, layout), [head, layout]);
  const roots = useMemo<Vec[]>(
    () => [...layout.sections.map((s) => s.centroid), ...hooksOf(layout).map((h) => h.at)],
    [layout],
  );
  const camera = useMemo(() => {
    const direct = cameraAt(head.axesMm, stance);
    return mirror ? mirrored(direct) : direct;
  }, [head, stance, mirror]);
  const still = useSettled(camera, stillTime);
  const moving = still !== camera;
  const count = layout.sections.length;
  const classes = useMemo(
    () => new Map(layout.sections.flatMap((s, i) => (places[i] ? [[s.id, places[i]] as const] : []))),
    [layout, places],
  );
  const hooks = useMemo(() => places.slice(count), [places, count]);
  const at = next === undefined ? line?.[Math.floor(line.length / 2)] : roots[next];

  // The next place comes into sight; while it is seen squarely, nothing turns.
  useEffect(() => {
    if (!at) return;
    if (cameraAt(head.axesMm, now()).facing(at) > squarely) return;
    const [a, b, c] = head.axesMm as [number, number, number];
    const [x, y, z] = unit([at[0] / (a * a), at[1] / (b * b), at[2] / (c * c)]);
    turnTo({
      lon: (Math.atan2(y, x) * 180) / Math.PI,
      lat: clampLat((Math.atan2(z, Math.hypot(x, y)) * 180) / Math.PI - 8),
    });
  }, [at, head, now, turnTo]);

  // The nearest place under the finger: what hangs there is smaller than a fingertip.
  const onTap = (point: Flat) => {
    let best: number | undefined;
    let least = near;
    roots.forEach((root, i) => {
      if (camera.facing(root) < 0.05) return;
      const [x, y] = camera.flat(root);
      const mm = Math.hypot(x - point[0], y - point[1]);
      if (mm < least) [best, least] = [i, mm];
    });
    if (best !== undefined) onTouch(best);
  };
  const turning = useTurning({ now, put }, svg, { mirror, onTap });

  const byId = useMemo(() => new Map(layout.sections.map((s) => [s.id, s])), [layout]);
  const onKeyDown = (event: KeyboardEvent) => {
    const id = event.target instanceof Element ? event.target.getAttribute("data-section") : null;
    const here = id === null ? undefined : byId.get(id);
    if (here && (event.key === "Enter" || event.key === " ")) {
      event.preventDefault();
      event.stopPropagation();
      onTouch(layout.sections.indexOf(here));
      return;
    }
    if (!here) {
      turnByKey({ now, put }, event);
      return;
    }
    if (!(event.key in turns)) return;
    event.preventDefault();
    const other = neighbourThatWay(event.key, here, byId, camera);
    if (other) focusOn(svg.current, other);
  };

  const [tabStop, setTabStop] = useState<string>();
  const wanted = next === undefined ? undefined : layout.sections[next]?.id;
  const spot = next !== undefined && at && camera.facing(at) > 0 ? camera.flat(at) : undefined;
  return (
    <div className={styles.head}>
      <HeadPicture
        pictured={picture}
        camera={camera}
        box={box}
        detail={moving ? "moving" : "full"}
        classes={classes}
        hooks={hooks}
      />
      <svg
        ref={svg}
        className={styles.over}
        viewBox={box.join(" ")}
        tabIndex={0}
        role="group"
        aria-label={`The head${mirror ? " as in a mirror" : ""}. Arrow keys turn it; touch a place to go there.`}
        data-still={!moving}
        {...turning.handlers}
        onKeyDown={onKeyDown}
        onFocus={(event) => setTabStop(event.target.getAttribute("data-section") ?? undefined)}
      >
        <HeadSections
          pictured={picture}
          camera={still}
          labels={labels}
          chosen={undefined}
          marked={undefined}
          tabStop={tabStop ?? wanted}
          stale={moving}
        />
        {line && (
          <path
            className={styles.line}
            d={camera
              .clipLine(line)
              .map((stretch) => paths.open(stretch, camera.flat))
              .join("")}
          />
        )}
        {spot && (
          <g
            className={styles.spot}
            transform={`translate(${spot[0].toFixed(1)} ${spot[1].toFixed(1)})`}
            data-next
          >
            <circle r="13" className={styles.glow} />
            <circle r="8.5" className={styles.ring} />
            <circle r="8.5" className={styles.inner} />
            <path className={styles.arrow} d="M0 -33 L0 -16 M-5.5 -21.5 L0 -15 L5.5 -21.5" />
          </g>
        )}
      </svg>
    </div>
  );
}
