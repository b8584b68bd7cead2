import { DeleteOutlined } from "@ant-design/icons";
import { Button, Select } from "antd";
import type { PlanInput, PlanResult } from "../../api/types";
import { FieldErrorsUnder } from "../../ui/fields";
import { Count } from "../../ui/Numeric";
import panel from "../../ui/panel.module.css";
import { useAccentChoice } from "./accents";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import styles from "./UseList.module.css";
import { accentName } from "./ways";
import { whereChoices, whereText } from "./where";
import { useKnownCatalogue } from "../../api/queries";

interface Props {
  input: PlanInput;
  result: PlanResult;
}

const most = 12;

/** A few curly pieces or cuffs beside what hangs everywhere, spread by a rule. */
export function AccentList({ input, result }: Props) {
  const catalogue = useKnownCatalogue();
  const act = useAct();
  const choice = useAccentChoice(input, catalogue);
  const accents = input.accents ?? [];
  const choices = [
    {
      label: "Everywhere",
      options: [{ value: "everywhere", label: "Everywhere", where: { kind: "everywhere" as const } }],
    },
    ...whereChoices(result.layout),
  ];
  const add = (value: string) =>
    act(actions.addAccent({ where: { kind: "front" }, count: 8, ...choice.of(value) }));
  return (
    <div className={styles.list}>
      <p className={panel.lead}>
        Put on beside the rest: spread evenly and alike on both sides, or one at each place you pick with
        Assign. On the head, colour by Accents shows where.
      </p>
      <ol className={styles.uses}>
        {accents.map((a, i) => {
          const name = accentName(input, a);
          return (
            <li key={i} className={styles.use} aria-label={name}>
              <div className={styles.head}>
                <strong>{name}</strong>
                <span className={styles.tools}>
                  <Button
                    type="text"
                    icon={<DeleteOutlined />}
                    aria-label={`Take away: ${name}`}
                    onClick={() => act(actions.removeAccent(i))}
                  />
                </span>
              </div>
              <Select<string>
                aria-label={`Where: ${name}`}
                value={whereText(a.where)}
                options={choices}
                onChange={(value) => {
                  const chosen = choices.flatMap((g) => g.options).find((o) => o.value === value);
                  if (chosen) act(actions.setAccent(i, null, { where: chosen.where }));
                }}
              />
              {a.where.kind !== "places" && (
                <Count
                  label={`How many: ${name}`}
                  value={a.count}
                  min={1}
                  max={200}
                  unit="in all"
                  onChange={(count) => act(actions.setAccent(i, "count", { count: count ?? 1 }))}
                />
              )}
              <FieldErrorsUnder path={`accents[${i}]`} />
            </li>
          );
        })}
      </ol>
      {accents.length < most && (
        <Select<string | null>
          aria-label="Another accent"
          className={styles.add ?? ""}
          placeholder="+ A few of …"
          value={null}
          options={choice.options}
          onChange={(value) => value !== null && add(value)}
        />
      )}
    </div>
  );
}

/** The accents in a few words. */
export const accentsText = ({ accents = [] }: PlanInput): string =>
  accents.length === 0 ? "none" : `${accents.reduce((n, a) => n + a.count, 0)} put on besides`;
