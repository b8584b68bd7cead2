import { memo, useLayoutEffect } from "react";
import { usePreferences } from "../lib/preferences";
import type { Camera } from "./camera";
import type { Pictured } from "./drawn";
import styles from "./HeadPicture.module.css";
import { paintHead, type Look } from "./paint";
import { useDots } from "./useDots";

/** A part of the picture's plane: left, top, width and height in mm. */
export type Box = readonly [number, number, number, number];

interface Props extends Omit<Look, "hair" | "skin"> {
  pictured: Pictured;
  camera: Camera;
  box: Box;
}

/** How long a head stands still before what takes longer is painted, ms. */
const restsAfter = 120;

/** The painted head, in the pixels of the device. It says nothing to those who listen: what can be focused lies over it. */
export const HeadPicture = memo(function HeadPicture({
  pictured,
  camera,
  box,
  detail,
  classes,
  hooks,
  marked,
  chosen,
}: Props) {
  const { hair, skin } = usePreferences();
  const { canvas, size, watch } = useDots();
  useLayoutEffect(() => {
    const ctx = canvas.current?.getContext("2d");
    if (!ctx || size.wide === 0 || size.high === 0) return;
    const [left, top, wide, high] = box;
    const scale = Math.min(size.wide / wide, size.high / high);
    const paint = (rests: boolean) => {
      ctx.setTransform(1, 0, 0, 1, 0, 0);
      ctx.clearRect(0, 0, size.wide, size.high);
      ctx.setTransform(
        scale,
        0,
        0,
        scale,
        size.wide / 2 - scale * (left + wide / 2),
        size.high / 2 - scale * (top + high / 2),
      );
      return paintHead(ctx, pictured, camera, { hair, skin, detail, classes, hooks, marked, chosen }, rests);
    };
    if (!paint(false)) return;
    const later = setTimeout(() => paint(true), restsAfter);
    return () => clearTimeout(later);
  }, [canvas, size, box, pictured, camera, hair, skin, detail, classes, hooks, marked, chosen]);
  return <canvas ref={watch} className={styles.picture} width={size.wide} height={size.high} aria-hidden />;
});
