import { DeleteOutlined } from "@ant-design/icons";
import { Button, Select } from "antd";
import { useItemChoice } from "../api/queries";
import type { Accent, Catalogue, ItemDocument, PlanInput, PlanResult } from "../api/types";
import { FieldErrorsUnder } from "../ui/fields";
import { Count } from "../ui/Numeric";
import panel from "../ui/panel.module.css";
import { useAct } from "./act";
import { actions } from "./actions";
import styles from "./UseList.module.css";
import { accentName } from "./ways";
import { whereChoices, whereText } from "./where";

interface Props {
  input: PlanInput;
  result: PlanResult;
  catalogue: Catalogue;
}

const most = 12;

/** A few curly pieces or cuffs beside what hangs everywhere, spread by a rule. */
export function AccentList({ input, result, catalogue }: Props) {
  const act = useAct();
  const items = useItemChoice().data ?? [];
  const accents = input.accents ?? [];
  const things = items.filter((i) => catalogue.kinds.some((k) => k.kind === i.item.kind && !k.hair));
  const choices = [
    {
      label: "Everywhere",
      options: [{ value: "everywhere", label: "Everywhere", where: { kind: "everywhere" as const } }],
    },
    ...whereChoices(result.layout),
  ];
  const add = (value: string) => {
    const item = things.find((i) => i.id === value);
    act(
      actions.addAccent({
        where: { kind: "front" },
        count: 8,
        ...(item ? { thing: thingOf(item) } : { piece: value }),
      }),
    );
  };
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
          options={[
            {
              label: "Pieces of this plan",
              options: input.pieces.map((p) => ({
                value: p.key,
                label: p.colour ? `${p.name}, ${p.colour.toLowerCase()}` : p.name,
              })),
            },
            {
              label: "Small things of the supplies",
              options: things.map((i) => ({ value: i.id, label: i.item.name })),
            },
          ]}
          onChange={(value) => value !== null && add(value)}
        />
      )}
    </div>
  );
}

/** A small thing of the supplies as a plan has it. */
function thingOf({ id, item }: ItemDocument): NonNullable<Accent["thing"]> {
  const single = item.offers.find((o) => o.packs === 1) ?? item.offers[0];
  const colour = item.colours[0]?.name;
  return {
    name: item.name,
    massG: item.massG,
    pack: item.pack.units,
    priceMinor: single ? Math.round(single.priceMinor / single.packs) : 0,
    item: id,
    ...(colour !== undefined && { colour }),
  };
}

/** The accents in a few words. */
export const accentsText = ({ accents = [] }: PlanInput): string =>
  accents.length === 0 ? "none" : `${accents.reduce((n, a) => n + a.count, 0)} put on besides`;
