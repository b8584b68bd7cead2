import { memo } from "react";
import type { Catalogue, Need, Order, PieceNeed, PlanInput, PlanResult, Preparation } from "../api/types";
import { useMoney, useNeed } from "../api/queries";
import { usePreferences } from "../lib/preferences";
import { weight } from "../lib/units";
import { LengthField, NumberField, Toggle } from "../ui/fields";
import styles from "../ui/panel.module.css";
import { Parts } from "../ui/Parts";
import { Trouble } from "../ui/Trouble";
import { Segmented, Select, Skeleton } from "antd";
import { useAct } from "./act";
import { actions } from "./actions";
import { PieceList } from "./PieceList";
import { usesText, UseList } from "./UseList";

interface Props {
  input: PlanInput;
  result: PlanResult;
  catalogue: Catalogue;
}

/** Which pieces where, and what to buy. */
export const HairStep = memo(function HairStep({ input, result, catalogue }: Props) {
  const money = useMoney();
  const { tally } = result;
  const { pieces, plaits } = input;
  return (
    <Parts
      step="hair"
      parts={[
        {
          key: "pieces",
          title: "Pieces",
          says: pieces.length === 1 ? pieces[0]?.name : `${pieces.length} pieces`,
          paths: ["pieces"],
          content: <PieceList input={input} catalogue={catalogue} />,
        },
        {
          key: "uses",
          title: "Who gets what",
          says: usesText(input, result),
          paths: ["uses"],
          content: <UseList input={input} result={result} catalogue={catalogue} />,
        },
        {
          key: "buy",
          title: "To buy",
          says: `${tally.packs} ${tally.packs === 1 ? "pack" : "packs"}, ${money(tally.costMinor)}`,
          paths: ["spares", "fill"],
          content: <ToBuy input={input} result={result} />,
        },
        {
          key: "plaits",
          title: "Base plaits",
          says: `${farNames[plaits.far].toLowerCase()}, ${plaits.tension}`,
          paths: ["plaits"],
          content: <BasePlaits input={input} />,
        },
      ]}
    />
  );
});

const farNames = { whole: "To the ends", half: "Half", anchor: "A few turns" } as const;

/** How the base plaits are made; the schools differ, and each has its reason. */
function BasePlaits({ input }: { input: PlanInput }) {
  const act = useAct();
  const { plaits } = input;
  return (
    <>
      <label className={styles.stack}>
        <span>How far to plait; the rest is twisted with two strands</span>
        <Segmented<Preparation["far"]>
          block
          value={plaits.far}
          options={[
            { value: "whole", label: "To the ends" },
            { value: "half", label: "Half" },
            { value: "anchor", label: "A few turns" },
          ]}
          onChange={(far) => act(actions.setPreparation(null, { far }))}
        />
      </label>
      <p className={styles.lead}>
        {
          {
            whole: "Holds, and protects the ends.",
            half: "Faster, and easier to undo.",
            anchor: "When the own hair is twisted in with the piece.",
          }[plaits.far]
        }
      </p>
      <LengthField
        label="Hair fed into the ends"
        path="plaits.fedMm"
        help="How far it goes past them: it seals the ends and makes the plait longer. None leaves them bare"
        mm={plaits.fedMm}
        empty
        onChange={(fedMm) => act(actions.setPreparation("plaits.fedMm", { fedMm }))}
      />
      <label className={styles.stack}>
        <span>The outer strand goes</span>
        <Segmented<Preparation["direction"]>
          block
          value={plaits.direction}
          options={[
            { value: "over", label: "Over: a ridge at the root" },
            { value: "under", label: "Under: lies flat" },
          ]}
          onChange={(direction) => act(actions.setPreparation(null, { direction }))}
        />
      </label>
      <label className={styles.stack}>
        <span>At the scalp</span>
        <Segmented<Preparation["tension"]>
          block
          value={plaits.tension}
          options={[
            { value: "slack", label: "A little slack" },
            { value: "snug", label: "Snug" },
          ]}
          onChange={(tension) => act(actions.setPreparation(null, { tension }))}
        />
      </label>
      <p className={styles.lead}>
        {plaits.tension === "slack"
          ? "A thick piece adds its own pull when it is drawn through."
          : "Tidy, and holds a hitch; a second tightening comes when the piece is drawn through."}
      </p>
      <Toggle
        label="A small elastic at the root"
        note="Holds fine hair; it tangles and breaks what is left in"
        checked={plaits.band}
        onChange={(band) => act(actions.setPreparation(null, { band }))}
      />
    </>
  );
}

/** What to buy, and what is bought besides. */
function ToBuy({ input, result }: { input: PlanInput; result: PlanResult }) {
  const act = useAct();
  const unit = usePreferences((p) => p.unit);
  const money = useMoney();
  const need = useNeed(input);
  const { spares, fill, pieces } = input;
  return (
    <>
      {need.error && <Trouble error={need.error} retry={() => void need.refetch()} />}
      {need.data ? <Orders need={need.data} input={input} /> : !need.error && <Skeleton active />}
      <p className={styles.sum}>
        <span>All together</span>
        <strong>{money(result.tally.costMinor)}</strong>
      </p>
      <NumberField
        label="Spares"
        path="spares.percent"
        unit="%"
        value={spares.percent}
        onChange={(percent) => act(actions.setSpares("percent", { percent }))}
      />
      <NumberField
        label="Spares, at least"
        path="spares.least"
        unit="of each"
        value={spares.least}
        onChange={(least) => act(actions.setSpares("least", { least }))}
      />
      <NumberField
        label="To fill thin spots"
        path="fill.count"
        help="Hung at the end, where it turns out thin"
        unit={fill.count === 1 ? "piece" : "pieces"}
        value={fill.count}
        onChange={(count) => act(actions.setFill("count", { count }))}
      />
      {pieces.length > 1 && fill.count > 0 && (
        <Select<string>
          aria-label="Piece to fill with"
          value={fill.piece}
          options={pieces.map((p) => ({ value: p.key, label: p.name }))}
          onChange={(piece) => act(actions.setFill(null, { piece }))}
        />
      )}
      <p className={styles.lead}>
        {weight(result.tally.weightG, unit)} of dry hair on the head; soaked about twice that: support it and
        dry it fully.
      </p>
    </>
  );
}

function Orders({ need, input }: { need: Need; input: PlanInput }) {
  const nameOf = (key: string) => input.pieces.find((p) => p.key === key)?.name ?? key;
  return (
    <>
      {need.pieces.map((p) => (
        <OrderCard key={p.piece} what={nameOf(p.piece)} need={needText(p)} unit="" order={p.order} />
      ))}
      {need.wraps.map((w) => (
        <OrderCard
          key={w.way}
          what="Wrapping hair"
          need={`${w.strands} strands for ${w.plaits} ${w.plaits === 1 ? "plait" : "plaits"}, ${w.order.need} with spares`}
          unit=" strands"
          order={w.order}
        />
      ))}
    </>
  );
}

const needText = ({ onHead, hooked, fill, spares, order }: PieceNeed) =>
  `${onHead} on the head${hooked > 0 ? `, ${hooked} of them hooked on the base,` : ""}${fill > 0 ? ` + ${fill} to fill` : ""} + ${spares} spare = ${order.need}`;

interface OrderCardProps {
  what: string;
  need: string;
  /** What is counted, where it is not pieces. */
  unit: string;
  order: Order;
}

/** One line of shopping: what, how many packs in which offers, what is left. */
function OrderCard({ what, need, unit, order }: OrderCardProps) {
  const money = useMoney();
  return (
    <div className={styles.order}>
      <div>
        <strong>
          {order.packs} {order.packs === 1 ? "pack" : "packs"}
        </strong>
        <strong>{money(order.costMinor)}</strong>
      </div>
      <p>{what}</p>
      <p>{need}</p>
      <p>
        {order.lines
          .map(
            (l) =>
              `${l.count} × ${l.offer.packs === 1 ? "single pack" : `set of ${l.offer.packs}`} at ${money(l.offer.priceMinor)}`,
          )
          .join(", ")}
      </p>
      <p>
        {order.leftover} left over of {order.units}
        {unit}
      </p>
    </div>
  );
}
