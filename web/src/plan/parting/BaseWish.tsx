import { Segmented } from "antd";
import { memo } from "react";
import type { Base, Settings, StructureRule } from "../../api/types";
import { CountField, LengthField, Toggle } from "../../ui/fields";
import steps from "../../ui/panel.module.css";
import styles from "./BaseWish.module.css";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";

interface Props {
  settings: Settings;
  rule: StructureRule | undefined;
}

const besides = (s: Settings) =>
  s.structure === "horseshoe" ||
  s.structure === "part-line" ||
  (s.structure === "net-cap" && s.part.kind !== "none");

/** How many individuals the structure has, and what stands where there are none. */
export const BaseWish = memo(function BaseWish({ settings, rule }: Props) {
  const { base, structure } = settings;
  const act = useAct();
  const set = (part: Partial<Settings>) => act(actions.setParting(null, part));
  const setBase = (group: string | null, part: Partial<Base>) =>
    act(actions.setBase(group && `parting.base.${group}`, part));
  const setDesign = (part: Partial<Settings["design"]>) => act(actions.setDesign(part));
  const tracks = base.kind === "tracks";
  return (
    <>
      {structure === "perimeter" && (
        <section>
          <h3>The ring</h3>
          <CountField
            label="Rows round the hairline"
            path="parting.rows"
            value={settings.rows}
            max={4}
            onChange={(rows) => set({ rows })}
          />
          <Toggle
            label="A second row at the widow's peak"
            checked={settings.peakRow}
            onChange={(peakRow) => set({ peakRow })}
            path="parting.peakRow"
          />
        </section>
      )}
      {structure === "horseshoe" && (
        <section>
          <h3>Beside the part</h3>
          <CountField
            label="Rows on each side"
            path="parting.rows"
            value={settings.rows}
            max={4}
            onChange={(rows) => set({ rows })}
          />
        </section>
      )}
      {structure === "part-line" && (
        <section>
          <h3>Beside the part</h3>
          <CountField
            label="Individuals on each side"
            path="parting.perSide"
            value={settings.perSide}
            max={40}
            unsaid="by the card"
            onChange={(perSide) => set({ perSide })}
          />
        </section>
      )}
      {structure === "front-design" && (
        <section>
          <h3>The design</h3>
          <Segmented<Settings["design"]["side"]>
            block
            aria-label="Side of the design"
            value={settings.design.side}
            options={[
              { value: "both", label: "Both sides" },
              { value: "left", label: "The left" },
              { value: "right", label: "The right" },
            ]}
            onChange={(side) => setDesign({ side })}
          />
          <CountField
            label="Cornrows on a side"
            path="parting.design.tracks"
            value={settings.design.tracks}
            max={12}
            onChange={(n) => setDesign({ tracks: n })}
          />
          <Toggle
            label="Curved"
            checked={settings.design.curved}
            onChange={(curved) => setDesign({ curved })}
          />
          <Toggle
            label="Pieces hang on the design"
            note="without, its cornrows are seen"
            checked={settings.design.pieces ?? false}
            onChange={(pieces) => setDesign({ pieces })}
          />
        </section>
      )}
      {rule?.base && (
        <section>
          <h3>Base</h3>
          <Segmented<Base["kind"]>
            block
            aria-label="Base"
            value={base.kind}
            options={[
              { value: "tracks", label: "Cornrows" },
              { value: "linked", label: "Linked plaits" },
              { value: "net", label: "Net" },
            ]}
            onChange={(kind) => setBase(null, { kind })}
          />
          {base.kind === "linked" && (
            <p className={steps.lead}>Sized as the back: each plait is laid into the next one behind it.</p>
          )}
          {base.kind === "net" && (
            <p className={steps.lead}>
              Cornrows under a weaving net; pieces are hooked through hair and net.
            </p>
          )}
          {structure === "net-cap" && (
            <Toggle
              label="No ring of individuals round it"
              note="the net stands back from the hairline, the hair outside stays loose"
              checked={base.noRing ?? false}
              onChange={(noRing) => setBase(null, { noRing })}
              path="parting.base.noRing"
            />
          )}
          {tracks && (
            <Segmented<Base["run"]>
              block
              aria-label="How the cornrows run"
              className={styles.tight ?? ""}
              value={base.run}
              options={[
                { value: "horizontal", label: "Side to side" },
                { value: "straight-back", label: "Straight back" },
                { value: "curved", label: "Curved" },
              ]}
              onChange={(run) => setBase(null, { run, ...(run === "horizontal" && { mergeInto: 0 }) })}
            />
          )}
          {base.kind !== "linked" && (
            <>
              <CountField
                label={tracks ? "Cornrows behind" : "Plaits under the net"}
                path="parting.base.tracks"
                value={base.tracks}
                max={40}
                onChange={(n) => setBase(null, { tracks: n })}
              />
              {besides(settings) && (
                <CountField
                  label={tracks ? "Cornrows on each side" : "Plaits on each side"}
                  path="parting.base.sideTracks"
                  value={base.sideTracks}
                  max={20}
                  onChange={(n) => setBase(null, { sideTracks: n })}
                />
              )}
              <LengthField
                label="A piece every"
                help="Empty: 2.2 times as far apart as the piece is thick, 1.6 times on cornrows that show"
                path="parting.base.spacingMm"
                empty
                mm={base.spacingMm}
                onChange={(mm) => setBase("spacingMm", { spacingMm: mm })}
              />
            </>
          )}
          {tracks && besides(settings) && base.sideTracks > 1 && (
            <Toggle
              label="Side cornrows merge into one"
              note="half way, on either side"
              checked={base.mergeSides ?? false}
              onChange={(mergeSides) => setBase(null, { mergeSides })}
            />
          )}
          {tracks && base.run !== "horizontal" && (
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
          {base.kind !== "linked" && (
            <Segmented<Base["tails"]>
              block
              aria-label="Tails"
              value={base.tails}
              options={[
                { value: "tucked", label: "Tails tucked" },
                { value: "stitched", label: "Stitched" },
                { value: "chained", label: "Chained" },
              ]}
              onChange={(tails) => setBase(null, { tails })}
            />
          )}
        </section>
      )}
      {rule?.napeGuard && (
        <Toggle
          label="Nape guard"
          note="A row of individuals at the nape hides the rest in an updo."
          checked={settings.napeGuard}
          onChange={(napeGuard) => set({ napeGuard })}
          path="parting.napeGuard"
        />
      )}
    </>
  );
});
