import { memo } from "react";
import type { Settings, Structure } from "../api/types";
import { RefusedHere } from "../app/fields";
import type { Change } from "./draft";
import steps from "./steps.module.css";
import styles from "./StructureChoice.module.css";
import { StructureIcon, structures } from "./structures";

/** What a structure needs of the part line, and what it has no use for. */
function on(s: Settings, structure: Structure): Settings {
  const alongPart = structure === "horseshoe" || structure === "part-line" || structure === "front-design";
  const kind = s.part.kind;
  const whole = structure === "all" || structure === "linked";
  const fit =
    alongPart && (kind === "none" || kind === "levels")
      ? "middle"
      : !whole && kind === "levels"
        ? "none"
        : kind;
  const ringed = structure === "perimeter" || structure === "net-cap" || structure === "all";
  return { ...s, structure, part: { ...s.part, kind: fit }, napeGuard: s.napeGuard && !ringed };
}

/** Where individuals stand, and where a cheaper base. */
export const StructureChoice = memo(function StructureChoice({
  structure,
  change,
}: {
  structure: Structure;
  change: Change;
}) {
  return (
    <section id="parting-structure">
      <h2>Structure</h2>
      <div className={styles.grid} role="radiogroup" aria-label="Structure">
        {(Object.keys(structures) as Structure[]).map((key) => (
          <label key={key} className={styles.card}>
            <input
              type="radio"
              name="structure"
              value={key}
              checked={key === structure}
              onChange={() => change(null, (i) => ({ ...i, parting: on(i.parting, key) }))}
            />
            <StructureIcon structure={key} />
            <span>{structures[key].name}</span>
          </label>
        ))}
      </div>
      <p className={steps.lead}>{structures[structure].why}</p>
      <RefusedHere path="parting.structure" />
    </section>
  );
});
