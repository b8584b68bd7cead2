import { memo } from "react";
import type { Settings, Structure, StructureRule } from "../api/types";
import { RefusedHere } from "../app/fields";
import type { Change } from "./draft";
import steps from "./steps.module.css";
import styles from "./StructureChoice.module.css";
import { StructureIcon, structures } from "./structures";

/** The parting on another structure, with a part line and a nape guard only where it takes them. */
function on(s: Settings, structure: Structure, rule: StructureRule): Settings {
  const { kind } = s.part;
  const fit = rule.parts.includes(kind) ? kind : rule.parts.includes("none") ? "none" : "middle";
  return { ...s, structure, part: { ...s.part, kind: fit }, napeGuard: s.napeGuard && rule.napeGuard };
}

/** Where individuals stand, and where a cheaper base. */
export const StructureChoice = memo(function StructureChoice({
  structure,
  rules,
  change,
}: {
  structure: Structure;
  rules: readonly StructureRule[];
  change: Change;
}) {
  return (
    <section id="parting-structure">
      <h2>Structure</h2>
      <div className={styles.grid} role="radiogroup" aria-label="Structure">
        {rules.map((rule) => (
          <label key={rule.structure} className={styles.card}>
            <input
              type="radio"
              name="structure"
              value={rule.structure}
              checked={rule.structure === structure}
              onChange={() => change(null, (i) => ({ ...i, parting: on(i.parting, rule.structure, rule) }))}
            />
            <StructureIcon structure={rule.structure} />
            <span>{structures[rule.structure].name}</span>
          </label>
        ))}
      </div>
      <p className={steps.lead}>{structures[structure].why}</p>
      <RefusedHere path="parting.structure" />
    </section>
  );
});
