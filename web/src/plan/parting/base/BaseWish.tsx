import { memo } from "react";
import type { Base, PlanInput, PlanResult, StructureRule } from "../../../api/types";
import { CountField, LengthField, Toggle } from "../../../ui/fields";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";
import { CornrowTable } from "./CornrowTable";
import { GroundFields } from "./GroundFields";
import { HowManyHooked } from "./HowManyHooked";
import { besides, OwnGrounds } from "./OwnGrounds";

interface Props {
  input: PlanInput;
  result: PlanResult;
  rule: StructureRule | undefined;
}

/** What stands where there are no individuals: its ground, how many pieces it carries, and parts of it with their own. */
export const BaseWish = memo(function BaseWish({ input, result, rule }: Props) {
  const { parting } = input;
  const { base, structure } = parting;
  const act = useAct();
  const setBase = (group: string | null, part: Partial<Base>) =>
    act(actions.setBase(group && `parting.base.${group}`, part));
  const cornrows = base.kind === "tracks";
  const back = cornrows && base.run !== "horizontal" && base.run !== "diagonal";
  return (
    <>
      {rule?.base && (
        <section>
          <GroundFields
            whose="Base"
            path="parting.base"
            ground={base}
            individuals={structure === "front-design"}
            onChange={(part) =>
              setBase(null, {
                ...part,
                // Cornrows that no longer run back do not merge.
                ...(part.run !== undefined && !mergeable(part.run) && { mergeInto: 0 }),
              })
            }
          />
          {base.kind === "net" && (
            <Toggle
              label="On small plaits, no cornrows"
              note="for those who cannot cornrow: plaits laid back, the net stitched to them"
              checked={base.under === "plaits"}
              onChange={(on) => setBase(null, { under: on ? "plaits" : "tracks", tracks: on ? 24 : 6 })}
              path="parting.base.under"
            />
          )}
          {base.kind === "net" && structure === "net-cap" && (
            <Toggle
              label="No ring of individuals round it"
              note="the net stands back from the hairline, the hair outside stays loose"
              checked={base.noRing ?? false}
              onChange={(noRing) => setBase(null, { noRing })}
              path="parting.base.noRing"
            />
          )}
          {(cornrows || base.kind === "net") && besides(parting) && (
            <CountField
              label={cornrows ? "Cornrows on each side" : "Plaits on each side"}
              path="parting.base.sideTracks"
              value={base.sideTracks}
              max={20}
              onChange={(n) => setBase(null, { sideTracks: n })}
            />
          )}
          {cornrows && besides(parting) && base.sideTracks > 1 && (
            <Toggle
              label="Side cornrows merge into one"
              note="half way, on either side"
              checked={base.mergeSides ?? false}
              onChange={(mergeSides) => setBase(null, { mergeSides })}
            />
          )}
          {back && (
            <>
              <Toggle
                label="Thin cornrows merge into fewer"
                checked={base.mergeInto > 0}
                onChange={(merge) =>
                  setBase(null, {
                    mergeInto: merge ? Math.max(1, Math.round(base.tracks / 2)) : 0,
                    mergeAfterMm: base.mergeAfterMm || 60,
                  })
                }
              />
              {base.mergeInto > 0 && (
                <>
                  <CountField
                    label="Into"
                    path="parting.base.mergeInto"
                    value={base.mergeInto}
                    max={20}
                    onChange={(n) => setBase(null, { mergeInto: n })}
                  />
                  <LengthField
                    label="After"
                    path="parting.base.mergeAfterMm"
                    mm={base.mergeAfterMm}
                    onChange={(mm) => setBase("mergeAfterMm", { mergeAfterMm: mm })}
                  />
                </>
              )}
            </>
          )}
        </section>
      )}
      {result.layout.spacingMm > 0 && <HowManyHooked input={input} layout={result.layout} />}
      <CornrowTable layout={result.layout} />
      {rule && <OwnGrounds parting={parting} rule={rule} />}
    </>
  );
});

const mergeable = (run: Base["run"]) => run === "straight-back" || run === "curved";
