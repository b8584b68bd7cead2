import type { Settings } from "../../../api/types";
import { CountField, Toggle } from "../../../ui/fields";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";

/** How many individuals the structure has, where it has a band of them. */
export function Individuals({ settings }: { settings: Settings }) {
  const act = useAct();
  const { structure } = settings;
  const set = (part: Partial<Settings>) => act(actions.setParting(null, part));
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
    </>
  );
}
