import { ArrowDownOutlined, ArrowUpOutlined, DeleteOutlined } from "@ant-design/icons";
import { Button, Select } from "antd";
import type { PlanInput, PlanResult, Use, WhereKind } from "../../api/types";
import { FieldErrorsUnder } from "../../ui/fields";
import { useAct } from "../draft/act";
import { actions, fixedUses } from "../draft/actions";
import { GiveFields } from "./GiveFields";
import styles from "./UseList.module.css";
import panel from "../../ui/panel.module.css";
import { whereChoices, whereText } from "./where";
import { useKnownCatalogue } from "../../api/queries";
import { countOf } from "../../lib/countOf";

interface Props {
  input: PlanInput;
  result: PlanResult;
}

/** What goes where: rules from the top down, a later one wins in what it names. */
export function UseList({ input, result }: Props) {
  const catalogue = useKnownCatalogue();
  const act = useAct();
  const { uses } = input;
  const hasBase = baseOf(result);
  const { layout } = result;
  const choices = whereChoices(result.layout);
  const add = (value: string) => {
    const chosen = choices.flatMap((g) => g.options).find((o) => o.value === value);
    // What is there already is given until something else is chosen: the rule holds at once.
    if (chosen) act(actions.addUse({ where: chosen.where, ...ofFirst(uses) }));
  };
  return (
    <div className={styles.list}>
      <p className={panel.lead}>
        From the top down: where two match, the lower one counts. On the head, <strong>Assign</strong> gives
        something to what you pick.
      </p>
      <ol className={styles.uses}>
        {uses.map((use, i) => {
          if (i === 1 && !hasBase) return null; // nothing stands there for it to be about
          const name = whereText(use.where);
          return (
            <li key={i} className={styles.use} aria-label={name}>
              <div className={styles.head}>
                <strong>{name}</strong>
                <small>{placesText(result.matched[i] ?? 0)}</small>
                {i >= fixedUses && (
                  <span className={styles.tools}>
                    <Button
                      type="text"
                      icon={<ArrowUpOutlined />}
                      aria-label={`Earlier: ${name}`}
                      disabled={i === fixedUses}
                      onClick={() => act(actions.moveUse(i, -1))}
                    />
                    <Button
                      type="text"
                      icon={<ArrowDownOutlined />}
                      aria-label={`Later: ${name}`}
                      disabled={i === uses.length - 1}
                      onClick={() => act(actions.moveUse(i, 1))}
                    />
                    <Button
                      type="text"
                      icon={<DeleteOutlined />}
                      aria-label={`Take away: ${name}`}
                      onClick={() => act(actions.removeUse(i))}
                    />
                  </span>
                )}
              </div>
              <GiveFields
                input={input}
                use={use}
                whose={name.toLowerCase()}
                all={i === 0}
                base={i === 1}
                hooked={
                  i !== 0 && hookedAt.has(use.where.kind) && layout.tracks.length + layout.nets.length > 0
                }
                onChange={(group, change) => act(actions.setUse(i, group, { where: use.where, ...change }))}
              />
              <FieldErrorsUnder path={`uses[${i}]`} />
            </li>
          );
        })}
      </ol>
      {uses.length < catalogue.bounds.uses && (
        <Select<string | null>
          aria-label="Another exception"
          className={styles.add ?? ""}
          placeholder="+ Add an exception"
          value={null}
          showSearch={{ optionFilterProp: "label" }}
          options={choices}
          onChange={(value) => value !== null && add(value)}
        />
      )}
    </div>
  );
}

/** Parts of a head for which one can say how far apart pieces are hooked there. */
const hookedAt: ReadonlySet<WhereKind> = new Set([
  "base",
  "front",
  "back",
  "hairline",
  "part",
  "nape",
  "zones",
]);

/** Whether pieces are hooked on anything but loose plaits. */
const baseOf = ({ layout }: PlanResult) =>
  layout.tracks.length + layout.nets.length > 0 || layout.sections.some((s) => s.linked || s.laid);

/** The rules in a few words. */
export function usesText({ uses }: PlanInput, result: PlanResult): string {
  const more = uses.length - fixedUses;
  if (more > 0) return countOf(more, "exception");
  return baseOf(result) ? "plaits and base apart" : "the same everywhere";
}

const placesText = (n: number) => (n === 0 ? "no spot here" : countOf(n, "spot"));

/** What everything gets, to begin a rule with. */
const ofFirst = (uses: readonly Use[]): Pick<Use, "piece"> => {
  const piece = uses[0]?.piece;
  return piece === undefined ? {} : { piece };
};
