import { memo, useMemo } from "react";
import { cameraAt, views, type View } from "./camera";
import type { Pictured } from "./drawn";
import { HeadPicture, type Box } from "./HeadPicture";
import styles from "./HeadMap.module.css";
import type { HeadLayer } from "./tool";

const stripBox: Box = [-128, -118, 256, 236];

/** The fixed views, small; each turns the big head. */
export const Filmstrip = memo(function Filmstrip({
  pictured,
  layer,
  onView,
}: {
  pictured: Pictured;
  layer: HeadLayer | undefined;
  onView: (view: View) => void;
}) {
  const { head } = pictured;
  const cameras = useMemo(
    () =>
      (Object.keys(views) as View[]).map((view) => ({ view, camera: cameraAt(head.axesMm, views[view]) })),
    [head],
  );
  return (
    <div className={styles.strip} role="group" aria-label="Views">
      {cameras.map(({ view, camera }) => (
        <button key={view} type="button" className={styles.still} onClick={() => onView(view)}>
          <span className={styles.small}>
            {layer?.picture({
              pictured,
              camera,
              stance: views[view],
              box: layer.box,
              moving: false,
              small: true,
            }) ?? <HeadPicture pictured={pictured} camera={camera} box={stripBox} detail="small" />}
          </span>
          <span>
            {views[view].name} <kbd>{views[view].key}</kbd>
          </span>
        </button>
      ))}
    </div>
  );
});
