import { Segmented, Spin, Switch } from "antd";
import { Suspense, useMemo } from "react";
import { useDrape } from "../../api/queries";
import type { Drape, DrapeStyle, PlanInput } from "../../api/types";
import { DrapePicture, vec, type Box, type HeadLayer, type LayerView } from "../../head";
import styles from "./DrapeLayer.module.css";
import { drapeKey, styleNames, useWorn } from "./worn";

/** The part of the picture a drape takes: down to a hand under the lowest end. */
function boxOf(drape: Drape | undefined): Box {
  if (!drape) return [-140, -124, 280, 264];
  let lowest = 0;
  for (const p of drape.pieces) lowest = Math.min(lowest, p.points[p.points.length - 1]?.[2] ?? 0);
  const top = -150;
  const high = Math.min(0.62 * drape.statureMm, Math.max(380, 60 - lowest)) - top;
  const wide = Math.max(360, 0.33 * drape.statureMm);
  return [-wide / 2, top, wide, high];
}

/** The hair as it hangs, as a layer of the head map; asked for only while it is shown. */
export function useDrapeLayer(
  input: PlanInput,
  shown: boolean,
): { layer: HeadLayer; drape: Drape | undefined } {
  const { style, cover, pointed, set } = useWorn();
  const { data: drape, isFetching } = useDrape(input, style, shown);
  const pieces = useMemo(() => input.pieces.map(({ form, swatch }) => ({ form, swatch })), [input.pieces]);
  const layer = useMemo((): HeadLayer => {
    const marks = ({ camera, moving }: LayerView) => {
      if (!drape || !cover || moving) return null;
      return (
        <g className={styles.marks} aria-hidden>
          {drape.cover.shows.map((s, i) =>
            s.points.map((at, k) => {
              const p = vec(at);
              if (camera.facing(p) < 0.12) return null;
              const [x, y] = camera.flat(p);
              return (
                <circle key={`${i}.${k}`} cx={x} cy={y} r={2.2} data-pointed={s.name === pointed?.name} />
              );
            }),
          )}
        </g>
      );
    };
    return {
      key: drapeKey,
      name: "Drape",
      box: boxOf(drape),
      hint: "A drawing: hair falls its own way",
      settings: (
        <div className={styles.settings}>
          <Segmented<DrapeStyle>
            aria-label="Worn"
            value={style}
            options={(Object.keys(styleNames) as DrapeStyle[]).map((value) => ({
              value,
              label: styleNames[value],
            }))}
            onChange={(value) => set({ style: value, pointed: undefined })}
          />
          <label>
            <Switch
              size="small"
              aria-label="Mark what shows"
              checked={cover}
              onChange={(on) => set({ cover: on })}
            />{" "}
            <span>Mark what shows</span>
          </label>
          {isFetching && <Spin size="small" />}
        </div>
      ),
      picture: ({ pictured, stance, camera, box, moving, small }) =>
        drape ? (
          <Suspense fallback={null}>
            <DrapePicture
              drape={drape}
              pieces={pieces}
              pictured={pictured}
              stance={stance}
              camera={camera}
              box={box}
              moving={moving}
              small={small}
            />
          </Suspense>
        ) : null,
      over: marks,
    };
  }, [drape, pieces, style, cover, pointed, isFetching, set]);
  return { layer, drape };
}
