import { memo, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import figure from "../../../../internal/picture/body.json";
import type { Drape, Form } from "../../api/types";
import { hairTones, skinTones, usePreferences } from "../../lib/preferences";
import type { Camera, Stance } from "../camera";
import type { Pictured } from "../drawn";
import type { Box } from "../HeadPicture";
import styles from "../HeadPicture.module.css";
import { paintHead } from "../paint";
import { useDots } from "../useDots";
import { figureMesh, type Rgb } from "./figure";
import type { DrapeGL, HairLight } from "./gl";
import { paintDrape } from "./paint";
import { strandsOf } from "./strands";

/** A piece of the plan as it looks. */
export interface HungLook {
  form: Form;
  /** Its colour as the screen shows it; without one it takes that of own hair. */
  swatch?: string | undefined;
}

interface Props {
  drape: Drape;
  pieces: readonly HungLook[];
  pictured: Pictured;
  stance: Stance;
  camera: Camera;
  box: Box;
  moving: boolean;
  /** Small pictures are painted at once, with fewer strokes. */
  small?: boolean;
}

const rgb = (hex: string): Rgb => {
  const n = parseInt(hex.slice(1), 16);
  return [((n >> 16) & 255) / 255, ((n >> 8) & 255) / 255, (n & 255) / 255];
};
const times = ([r, g, b]: Rgb, k: number): Rgb => [
  Math.min(1, r * k),
  Math.min(1, g * k),
  Math.min(1, b * k),
];

/** A swatch in the shade and in the light; a bright one is lit less, or it would lose its colour. */
function lit(swatch: Rgb): HairLight {
  const [r, g, b] = swatch;
  const luma = 0.3 * r + 0.59 * g + 0.11 * b;
  return {
    dark: times(swatch, 0.5),
    bright: times(swatch, Math.min(1.9 - 0.9 * luma, 0.94 / Math.max(r, g, b, 0.01))),
  };
}

/** The colours of the pieces: from a swatch what lies in its shade and what takes the light. */
function useTones(pieces: readonly HungLook[]): readonly HairLight[] {
  const { hair } = usePreferences();
  return useMemo(
    () =>
      pieces.map(({ swatch }): HairLight => {
        if (swatch) return lit(rgb(swatch));
        const { dark, light } = hairTones[hair];
        return {
          dark: [dark[0] / 255, dark[1] / 255, dark[2] / 255],
          bright: [light[0] / 210, light[1] / 210, light[2] / 210],
        };
      }),
    [pieces, hair],
  );
}

const fullEvery = 7; // mm between the places of a strand
const coarseEvery = 26;

/** The hair as it hangs: by WebGL where there is one, painted where there is none. */
export const DrapePicture = memo(function DrapePicture(props: Props) {
  const [flat, setFlat] = useState(false);
  return props.small || flat ? <Painted {...props} /> : <ByGL {...props} onNone={() => setFlat(true)} />;
});

function Painted({ drape, pieces, pictured, camera, box, moving, small }: Props) {
  const { hair, skin } = usePreferences();
  const { canvas, size, watch } = useDots();
  const tones = useTones(pieces);
  const plain = small === true || moving;
  const strands = useMemo(
    () =>
      strandsOf(
        drape,
        pieces.map((p) => p.form),
        pictured.head.axesMm,
        plain ? coarseEvery : 10,
      ),
    [drape, pieces, pictured.head, plain],
  );
  useLayoutEffect(() => {
    const ctx = canvas.current?.getContext("2d");
    if (!ctx || size.wide === 0 || size.high === 0) return;
    const [left, top, wide, high] = box;
    const scale = Math.min(size.wide / wide, size.high / high);
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.clearRect(0, 0, size.wide, size.high);
    const [x, y] = [size.wide / 2 - scale * (left + wide / 2), size.high / 2 - scale * (top + high / 2)];
    ctx.setTransform(scale, 0, 0, scale, x, y);
    paintDrape(ctx, { drape, strands, tones, skin: skinTones[skin], plain }, camera, () =>
      paintHead(ctx, pictured, camera, { hair, skin, detail: small ? "small" : "moving" }),
    );
  }, [canvas, size, box, drape, strands, tones, pictured, camera, hair, skin, plain, small]);
  return <canvas ref={watch} className={styles.picture} width={size.wide} height={size.high} aria-hidden />;
}

/** The figure fades into the page. */
const ground = (canvas: HTMLCanvasElement): Rgb => {
  const [r = 246, g = 239, b = 226] = (
    getComputedStyle(canvas)
      .getPropertyValue("--paper")
      .match(/[0-9a-f]{2}/gi) ?? []
  ).map((v) => parseInt(v, 16));
  return [r / 255, g / 255, b / 255];
};

const slow = 34; // ms from one frame to the next above which a turning head is drawn with fewer pixels
const fewest = 0.34; // of the pixels across

function ByGL({ drape, pieces, pictured, stance, box, moving, onNone }: Props & { onNone: () => void }) {
  const { hair, skin, dim } = usePreferences();
  const { canvas, size, watch } = useDots();
  const tones = useTones(pieces);
  const gl = useRef<DrapeGL>(undefined);
  const [ready, setReady] = useState(0);
  // How many of the pixels across are drawn while it turns: as many as this machine manages.
  const share = useRef(1);
  const before = useRef(0);
  useEffect(() => {
    let gone = false;
    void import("./gl").then(
      ({ DrapeGL }) => {
        if (gone || !canvas.current) return;
        gl.current = DrapeGL.on(canvas.current);
        if (gl.current) setReady((n) => n + 1);
        else onNone();
      },
      () => onNone(),
    );
    return () => {
      gone = true;
      gl.current?.dispose();
      gl.current = undefined;
    };
    // Once for the canvas.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const forms = useMemo(() => pieces.map((p) => p.form), [pieces]);
  const scene = useMemo(() => {
    const axes = pictured.head.axesMm;
    const tone = skinTones[skin];
    const { dark, light } = hairTones[hair];
    const own = (k: 0 | 1 | 2) => (dark[k] + 0.35 * (light[k] - dark[k])) / 255;
    return {
      full: strandsOf(drape, forms, axes, fullEvery),
      coarse: strandsOf(drape, forms, axes, coarseEvery),
      figure: figureMesh(drape, pictured, {
        skin: rgb(tone.base),
        shade: times(rgb(tone.shade), 1.15),
        cloth: rgb("#cfc8be"),
        own: [own(0), own(1), own(2)],
        ink: times(rgb(tone.shade), 0.75),
      }),
      skin: rgb(tone.base),
      cloth: rgb(dim ? "#8b857b" : "#d3ccc1"),
      stature: drape.statureMm,
      top: axes[2] ?? 0,
      lines: figure,
    };
  }, [drape, forms, pictured, hair, skin, dim]);
  useLayoutEffect(() => {
    if (!gl.current || !canvas.current) return;
    gl.current.show({ ...scene, tones, ground: ground(canvas.current) });
  }, [scene, tones, ready, canvas]);
  useLayoutEffect(() => {
    const screen = gl.current;
    if (!screen || size.wide === 0 || size.high === 0) return;
    const now = performance.now();
    const took = now - before.current;
    before.current = now;
    if (moving && took < 400) {
      if (took > slow) share.current = Math.max(fewest, share.current * 0.7);
      else if (took < slow / 2) share.current = Math.min(1, share.current * 1.1);
    }
    const k = moving ? share.current : 1;
    screen.draw(stance, box, Math.round(size.wide * k), Math.round(size.high * k), moving);
  }, [size, box, stance, moving, scene, tones, ready]);
  return <canvas ref={watch} className={styles.picture} data-drape={ready > 0} aria-hidden />;
}
