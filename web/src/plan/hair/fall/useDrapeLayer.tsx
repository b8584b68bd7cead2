import { lazy, Suspense, useMemo } from "react";
import { useDrape } from "../../../api/queries";
import type { Drape, PlanInput } from "../../../api/types";
import { DrapePicture, type Box, type HeadLayer } from "../../../head";
import { drapeKey, useWorn } from "../../draft/worn";

const fetchParts = () => import("./DrapeParts");
const DrapeSettings = lazy(async () => ({ default: (await fetchParts()).DrapeSettings }));
const DrapeMarks = lazy(async () => ({ default: (await fetchParts()).DrapeMarks }));

/** The part of the picture a drape takes: down to a hand under the lowest end. */
export function drapeBox(drape: Drape | undefined): Box {
  if (!drape) return [-140, -124, 280, 264];
  let lowest = 0;
  for (const p of drape.pieces) lowest = Math.min(lowest, p.points[p.points.length - 1]?.[2] ?? 0);
  const top = -150;
  const high = Math.min(0.62 * drape.statureMm, Math.max(380, 60 - lowest)) - top;
  const wide = Math.max(360, 0.33 * drape.statureMm);
  return [-wide / 2, top, wide, high];
}

/** The hair as it hangs, as a layer of the head map; asked for only while it is shown. */
export function useDrapeLayer(input: PlanInput, shown: boolean): HeadLayer {
  const style = useWorn((w) => w.style);
  const { data: drape, isFetching } = useDrape(input, style, shown);
  const pieces = useMemo(() => input.pieces.map(({ form, swatch }) => ({ form, swatch })), [input.pieces]);
  return useMemo(
    (): HeadLayer => ({
      key: drapeKey,
      name: "Drape",
      box: drapeBox(drape),
      hint: "A drawing: hair falls its own way",
      settings: (
        <Suspense fallback={null}>
          <DrapeSettings busy={isFetching} />
        </Suspense>
      ),
      picture: (view) =>
        drape && (
          <Suspense fallback={null}>
            <DrapePicture drape={drape} pieces={pieces} {...view} />
          </Suspense>
        ),
      over: ({ camera, moving }) =>
        drape &&
        !moving && (
          <Suspense fallback={null}>
            <DrapeMarks drape={drape} camera={camera} />
          </Suspense>
        ),
    }),
    [drape, pieces, isFetching],
  );
}
