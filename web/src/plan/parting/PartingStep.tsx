import { Button } from "antd";
import { lazy, memo, Suspense, useCallback, useState } from "react";
import type { Base, Layout, Settings, Wish } from "../../api/types";
import { usePreferences } from "../../lib/preferences";
import { useSettled } from "../../lib/settled";
import { area, length } from "../../lib/units";
import { Toggle } from "../../ui/fields";
import { Parts } from "../../ui/Parts";
import { useAct } from "../draft/act";
import { actions, type Variant } from "../draft/actions";
import { BaseWish } from "./base/BaseWish";
import { DesignWish } from "./base/DesignWish";
import { hookedOn } from "./base/HowManyHooked";
import { Individuals } from "./base/Individuals";
import { Outcome } from "./Outcome";
import { PartLine } from "./PartLine";
import { patternNames } from "./patterns";
import { StructureChoice } from "./StructureChoice";
import { structures } from "./structures";
import { ZoneWish, type ChangeWish } from "./ZoneWish";
import { useKnownCatalogue } from "../../api/queries";
import { useBench, useComputed } from "../draft/onBench";
import { countOf } from "../../lib/countOf";

const FitCount = lazy(async () => ({ default: (await import("./FitCount")).FitCount }));
const HairlineWish = lazy(async () => ({ default: (await import("./byhand/HairlineWish")).HairlineWish }));
const EditList = lazy(async () => ({ default: (await import("./byhand/EditList")).EditList }));
const Variants = lazy(async () => ({ default: (await import("./Variants")).Variants }));
const TradeOff = lazy(async () => ({ default: (await import("./TradeOff")).TradeOff }));
const RowGuide = lazy(async () => ({ default: (await import("./RowGuide")).RowGuide }));

const restTime = 300; // ms
const none: Variant[] = [];

const baseNames: Readonly<Record<Base["kind"], string>> = {
  tracks: "Cornrows",
  linked: "Linked plaits",
  plaits: "Plaits laid back",
  net: "Net",
  individuals: "Individuals",
};

/** Whether plaits of their own sections stand where no individuals do, sized by the back. */
const sized = ({ base, grounds }: Settings) =>
  [base, ...(grounds ?? [])].some((g) => g.kind !== "tracks" && g.kind !== "net");

/** The base in a line. */
function baseSays(parting: Settings, based: boolean, layout: Layout): string {
  if (!based) return parting.napeGuard ? "a row at the nape" : "none";
  const n = hookedOn(layout);
  const own = (parting.grounds ?? []).length > 0 ? ", mixed" : "";
  return `${baseNames[parting.base.kind]}${own}${n > 0 ? `, ${countOf(n, "piece")}` : ""}`;
}

const same = (a: Wish, b: Wish) => JSON.stringify(a) === JSON.stringify(b);

const partNames = {
  middle: "middle part",
  side: "side part",
  diagonal: "diagonal part",
  none: "no part",
  levels: "levels",
} as const;

/** How the head is parted: structure, sizes, counts, and what comes of them. */
export const PartingStep = memo(function PartingStep() {
  const { draft } = useBench();
  const result = useComputed();
  const catalogue = useKnownCatalogue();
  const { input } = draft;
  const { parting } = input;
  const { front, back } = parting;
  const act = useAct();
  const unit = usePreferences((p) => p.unit);
  // What is not looked at while a size slides waits until it rests.
  const still = useSettled(input, restTime);
  const [wanted, setAlike] = useState(same(front, back));
  const alike = wanted && same(front, back);
  const onFront: ChangeWish = useCallback(
    (group, update) => act(actions.setWish("front", alike, group && `parting.front.${group}`, update)),
    [act, alike],
  );
  const onBack: ChangeWish = useCallback(
    (group, update) => act(actions.setWish("back", false, group && `parting.back.${group}`, update)),
    [act],
  );
  const [guide, setGuide] = useState(false);
  const rings = parting.part.kind === "levels";
  const rule = catalogue.structures.find((r) => r.structure === parting.structure);
  // Where no back is parted into sections, one size is enough.
  const based = rule?.base ?? false;
  const backless = rings || (based && !sized(parting) && !parting.napeGuard);
  const size = (w: Wish) =>
    same({ ...w, widthMm: w.heightMm }, w)
      ? length(w.widthMm, unit)
      : `${length(w.widthMm, unit)} × ${length(w.heightMm, unit)}`;
  const changes = parting.edits.length + parting.leftOut.length;
  const { rejected, leftOut } = result.layout;
  return (
    <>
      <Parts
        step="parting"
        parts={[
          {
            key: "structure",
            title: "Structure",
            says: `${structures[parting.structure].name}, ${partNames[parting.part.kind]}`,
            paths: ["parting.structure", "parting.part", "parting.rows", "parting.perSide", "parting.design"],
            content: (
              <>
                <StructureChoice structure={parting.structure} rules={catalogue.structures} />
                {parting.structure !== "perimeter" && (
                  <PartLine part={parting.part} head={result.head} based={based} />
                )}
                <Individuals settings={parting} />
                {parting.structure === "front-design" && (
                  <DesignWish design={parting.design} minutes={result.design} />
                )}
              </>
            ),
          },
          ...(based || rule?.napeGuard
            ? [
                {
                  key: "base",
                  title: "Base",
                  says: baseSays(parting, based, result.layout),
                  paths: ["parting.base", "parting.grounds", "parting.napeGuard"],
                  content: <BaseWish input={input} result={result} rule={rule} />,
                },
              ]
            : []),
          {
            key: "sizes",
            title: "Sizes",
            says:
              alike || backless
                ? `${patternNames[front.pattern]}, ${size(front)}`
                : `${size(front)} in front, ${size(back)} behind`,
            paths: ["parting.front", "parting.back"],
            content: (
              <>
                {!backless && (
                  <Toggle
                    label="Front and back alike"
                    checked={alike}
                    onChange={(on) => {
                      setAlike(on);
                      if (on) act(actions.backAsFront());
                    }}
                  />
                )}
                <ZoneWish
                  key={alike || backless ? "all" : "front"}
                  zone="front"
                  name={backless && !rings ? "Individuals" : alike || backless ? "All over" : "Front"}
                  prefix={alike || backless ? "" : "Front "}
                  from={
                    rings || parting.structure === "perimeter"
                      ? undefined
                      : parting.part.kind === "none"
                        ? "from the middle out"
                        : "from the hairline back"
                  }
                  wish={front}
                  limits={catalogue.sizes}
                  onChange={onFront}
                />
                {!alike && !backless && (
                  <ZoneWish
                    zone="back"
                    name="Back"
                    prefix="Back "
                    from="from the middle out"
                    wish={back}
                    limits={catalogue.sizes}
                    onChange={onBack}
                  />
                )}
              </>
            ),
          },
          {
            key: "count",
            title: "Count",
            says: `${result.tally.sections} sections`,
            content: (
              <>
                <Suspense>
                  <FitCount input={still} sections={result.tally.sections} />
                </Suspense>
                <Suspense>
                  <TradeOff input={still} />
                </Suspense>
              </>
            ),
          },
          {
            key: "byhand",
            title: "By hand",
            says:
              rejected.length > 0
                ? `${rejected.length} no longer ${rejected.length === 1 ? "fits" : "fit"}`
                : changes + leftOut.length === 0
                  ? "nothing changed"
                  : countOf(changes, "change"),
            paths: ["parting.edits", "parting.leftOut", "parting.edgesMm", "hairline"],
            content: (
              <>
                <Suspense>
                  <EditList edits={parting.edits} leftOut={parting.leftOut} layout={result.layout} />
                </Suspense>
                <Suspense>
                  <HairlineWish input={input} clientId={draft.clientId} />
                </Suspense>
              </>
            ),
          },
          {
            key: "read",
            title: "Read",
            says: `${result.tally.rows} rows, ${area(result.layout.areaMm2, unit)}`,
            content: (
              <>
                <Outcome layout={result.layout} />
                <Button size="large" onClick={() => setGuide(true)}>
                  Row guide
                </Button>
              </>
            ),
          },
          {
            key: "compare",
            title: "Compare",
            says: draft.variants?.length ? `${draft.variants.length} pinned` : "nothing pinned",
            content: (
              <Suspense>
                <Variants
                  variants={draft.variants ?? none}
                  input={still}
                  sections={result.tally.sections}
                  backless={backless}
                />
              </Suspense>
            ),
          },
        ]}
      />
      {guide && (
        <Suspense>
          <RowGuide input={input} layout={result.layout} onClose={() => setGuide(false)} />
        </Suspense>
      )}
    </>
  );
});
