import { Segmented } from "antd";
import type { PlanResult, Settings } from "../../../api/types";
import { zoneName } from "../../../head";
import { hours } from "../../../lib/units";
import { CountField, Toggle } from "../../../ui/fields";
import panel from "../../../ui/panel.module.css";
import { Slide } from "../../../ui/Slide";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";
import styles from "./base.module.css";

type Design = Settings["design"];

/** The decorative cornrows of a front design: where, how many, how far, what is fed in and strung on. */
export function DesignWish({ design, minutes }: { design: Design; minutes: PlanResult["design"] }) {
  const act = useAct();
  const set = (part: Partial<Design>) => act(actions.setDesign(null, part));
  const reach = design.reach ?? 0.55;
  const across = design.side === "across";
  return (
    <section>
      <h3>The design</h3>
      <Segmented<Design["side"]>
        block
        aria-label="Where the design lies"
        className={styles.tight ?? ""}
        value={design.side}
        options={[
          { value: "both", label: "Both sides" },
          { value: "left", label: "Left" },
          { value: "right", label: "Right" },
          { value: "across", label: "Across" },
        ]}
        onChange={(side) => set({ side })}
      />
      <CountField
        label={across ? "Cornrows, one behind the other" : "Cornrows on a side"}
        path="parting.design.tracks"
        value={design.tracks}
        max={12}
        onChange={(n) => set({ tracks: n })}
      />
      <div className={panel.ramp}>
        <span>
          Takes {Math.round(100 * reach)} % of the front {across ? "from the hairline" : "beside the part"}
        </span>
        <Slide
          label="Share of the front that the design takes"
          says={`${Math.round(100 * reach)} %`}
          min={6}
          max={16}
          value={Math.round(20 * reach)}
          onChange={(twentieths) => act(actions.setDesign("design.reach", { reach: twentieths / 20 }))}
        />
      </div>
      {design.tracks > 1 && (
        <Toggle
          label="Individuals between"
          note="a row of them between any two cornrows"
          checked={design.between ?? false}
          onChange={(between) => set({ between })}
        />
      )}
      <Toggle label="Curved" checked={design.curved} onChange={(curved) => set({ curved })} />
      <Toggle
        label="Hair fed in"
        note="each goes on behind as a braid; its length and hair stand in the step Hair"
        checked={design.fed ?? false}
        onChange={(fed) => act(actions.feedDesign(fed))}
        path="parting.design.fed"
      />
      <CountField
        label="Rings strung on each"
        path="parting.design.rings"
        value={design.rings ?? 0}
        min={0}
        max={20}
        unsaid="none"
        onChange={(rings) => set({ rings })}
      />
      <Toggle
        label="Pieces hooked on it"
        note="without, its cornrows are seen"
        checked={design.pieces ?? false}
        onChange={(pieces) => set({ pieces })}
      />
      {minutes.length > 0 && (
        <p className={panel.lead}>
          {minutes.map((m) => `${zoneName(m.zone)}: ${hours(m.minutes)}`).join(" · ")}
          {design.fed && ", the braids behind with it"}. Somebody may do only this: say so under Day, Who
          works.
        </p>
      )}
    </section>
  );
}
