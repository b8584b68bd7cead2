import { memo, useMemo } from "react";
import type { Camera } from "./camera";
import type { Pictured } from "./drawn";
import styles from "./HeadSections.module.css";
import * as paths from "./paths";

interface Props {
  pictured: Pictured;
  camera: Camera;
  /** What each section is, in words. */
  labels: ReadonlyMap<string, string>;
  chosen: ReadonlySet<string> | undefined;
  marked: ReadonlySet<string> | undefined;
  /** The one section in the order of the Tab key, while it is in sight. */
  tabStop: string | undefined;
  /** True while the head under them moves on, and they are not where it is. */
  stale: boolean;
}

/** The sections in sight as shapes that can be focused, tapped and heard; they lie over the painted head. */
export const HeadSections = memo(function HeadSections({
  pictured,
  camera,
  labels,
  chosen,
  marked,
  tabStop,
  stale,
}: Props) {
  const shapes = useMemo(
    () =>
      pictured.sections.flatMap((s) => {
        const facing = camera.facing(s.root);
        if (facing + s.reach < 0) return [];
        const rings = facing > s.reach ? [s.ring] : camera.clip(s.ring);
        const path = rings.map((ring) => paths.closed(ring, camera.flat)).join("");
        return path === "" ? [] : [{ id: s.id, path }];
      }),
    [pictured, camera],
  );
  // One that is turned out of sight cannot be reached; the first in sight stands for it.
  const stop = shapes.find(({ id }) => id === tabStop)?.id ?? shapes[0]?.id;
  return (
    <g className={styles.sections} data-stale={stale}>
      {shapes.map(({ id, path }) => (
        <path
          key={id}
          d={path}
          className={styles.section}
          role="button"
          data-section={id}
          data-marked={marked?.has(id) || undefined}
          tabIndex={id === stop ? 0 : -1}
          aria-label={labels.get(id)}
          aria-pressed={chosen?.has(id) ?? false}
        />
      ))}
    </g>
  );
});
