import { memo } from "react";
import type { Structure, StructureRule } from "../../api/types";
import { RefusedHere } from "../../ui/fields";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import steps from "../../ui/panel.module.css";
import cards from "../../ui/pictureCards.module.css";
import styles from "./StructureChoice.module.css";
import { StructureIcon, structures } from "./structures";

/** Where individuals stand, and where a cheaper base. */
export const StructureChoice = memo(function StructureChoice({
  structure,
  rules,
}: {
  structure: Structure;
  rules: readonly StructureRule[];
}) {
  const act = useAct();
  return (
    <section>
      <div className={styles.grid} role="radiogroup" aria-label="Structure">
        {rules.map((rule) => (
          <label key={rule.structure} className={cards.card}>
            <input
              type="radio"
              name="structure"
              value={rule.structure}
              checked={rule.structure === structure}
              onChange={() => act(actions.chooseStructure(rule.structure, rules))}
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
