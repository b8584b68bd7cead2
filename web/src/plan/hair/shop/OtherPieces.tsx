import { Button, Select, Skeleton } from "antd";
import { useMemo, useState } from "react";
import { useAlternatives, useItemChoice, useMoney } from "../../../api/queries";
import type { Alternative, Instead, PlanInput } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { hours, length, weight } from "../../../lib/units";
import panel from "../../../ui/panel.module.css";
import { Trouble } from "../../../ui/Trouble";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";
import { inColour } from "../pieceChoice";
import styles from "./OtherPieces.module.css";
import { countOf } from "../../../lib/countOf";

interface Props {
  planId: string;
  input: PlanInput;
}

const most = 4; // beside the plan as it is

/** Other sizes of sections, by how much wider and higher they are. */
const sizes = [
  { value: "×1.2", label: "Fewer, larger sections", scale: 1.2 },
  { value: "×0.85", label: "More, smaller sections", scale: 0.85 },
] as const;

/** The plan beside itself with other pieces in place of the one that hangs everywhere. */
export function OtherPieces({ planId, input }: Props) {
  const act = useAct();
  const items = useItemChoice();
  const first = input.pieces.find((p) => p.key === (input.uses[0]?.piece ?? input.uses[0]?.mix?.[0]?.piece));
  const fits = useMemo(
    () => (items.data ?? []).filter((i) => i.piece && i.id !== first?.item && i.piece.form === first?.form),
    [items.data, first],
  );
  const [chosen, setChosen] = useState<string[]>();
  const ids = chosen ?? [...fits.slice(0, 1).map((i) => i.id), sizes[0].value];
  const others = ids.flatMap((id): Instead[] => {
    const size = sizes.find((s) => s.value === id);
    if (size) return [{ scale: size.scale }];
    const item = items.data?.find((i) => i.id === id);
    const own = item?.item.colours.find((c) => c.name === first?.colour) ?? item?.item.colours[0];
    return item ? [{ item: id, colour: own?.name ?? "" }] : [];
  });
  const set = useAlternatives(planId, input, others);
  const hang = (id: string, colour: string) => {
    const item = items.data?.find((i) => i.id === id);
    if (item?.piece)
      act(
        actions.hangInstead(
          inColour(
            item.piece,
            item.item.colours.find((c) => c.name === colour),
          ),
        ),
      );
  };
  const named = items.data?.filter((i) => i.piece && i.id !== first?.item) ?? [];
  return (
    <>
      <p className={panel.lead}>
        One thick product against a thin one, 80 pieces against 120: what each would come to on this head.
      </p>
      <Select<string[]>
        mode="multiple"
        size="large"
        aria-label="Other pieces to compare with"
        placeholder="Pieces of the supplies"
        value={ids}
        maxCount={most}
        options={[
          { label: "Sections", options: sizes.map(({ value, label }) => ({ value, label })) },
          {
            label: "Pieces of the supplies",
            options: named.map((i) => ({ value: i.id, label: i.item.name })),
          },
        ]}
        onChange={setChosen}
      />
      {set.error && <Trouble error={set.error} retry={() => void set.refetch()} />}
      {set.data ? (
        <ul className={styles.side}>
          {set.data.map((a, i) => (
            <Card
              key={`${a.item ?? ""}${i}`}
              of={a}
              base={i === 0 ? undefined : set.data[0]}
              onHang={hang}
              onScale={(by) => act(actions.scaleSizes(by))}
            />
          ))}
        </ul>
      ) : (
        !set.error && <Skeleton active />
      )}
    </>
  );
}

interface CardProps {
  of: Alternative;
  base: Alternative | undefined;
  onHang: (item: string, colour: string) => void;
  onScale: (by: number) => void;
}

function Card({ of, base, onHang, onScale }: CardProps) {
  const unit = usePreferences((p) => p.unit);
  const money = useMoney();
  const { item, scale } = of;
  if (of.trouble)
    return (
      <li className={styles.card}>
        <h3>{of.name}</h3>
        <p>{of.trouble}</p>
      </li>
    );
  const rows: [string, string, boolean][] = [
    ["Sections", String(of.sections), better(of.sections, base?.sections)],
    ["Pieces", String(of.pieces), better(of.pieces, base?.pieces)],
    ["From the stash", String(of.stash), false],
    ["To buy", countOf(of.packs, "pack"), better(of.packs, base?.packs)],
    ["Money, delivered", money(of.costMinor), better(of.costMinor, base?.costMinor)],
    ["Hours", hours(of.minutes), better(of.minutes, base?.minutes)],
    ["On the head", weight(of.weightG, unit), better(of.weightG, base?.weightG)],
    ["To look at", String(of.notices), better(of.notices, base?.notices)],
  ];
  return (
    <li className={styles.card}>
      <h3>{of.name}</h3>
      <p>
        {base === undefined ? "As it is" : of.colour}, {length(of.lengthMm, unit)}, {of.thicknessMm} mm thick
      </p>
      <dl>
        {rows.map(([name, value, good]) => (
          <div key={name} data-better={good}>
            <dt>{name}</dt>
            <dd>
              {value}
              {good && <span aria-label="less than now"> ↓</span>}
            </dd>
          </div>
        ))}
      </dl>
      {item !== undefined && <Button onClick={() => onHang(item, of.colour)}>Hang this instead</Button>}
      {scale !== undefined && <Button onClick={() => onScale(scale)}>Use these sizes</Button>}
    </li>
  );
}

const better = (now: number, before: number | undefined) => before !== undefined && now < before;
