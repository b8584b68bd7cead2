import { Segmented, Select } from "antd";
import type { ReactNode } from "react";
import type { PlanInput, PlanResult, Shopping } from "../../../api/types";
import { useItemChoice, useMoney } from "../../../api/queries";
import { usePreferences } from "../../../lib/preferences";
import { weight } from "../../../lib/units";
import { NumberField } from "../../../ui/fields";
import panel from "../../../ui/panel.module.css";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";
import { choices, productNames } from "../../../ui/hairNames";
import { thingOf } from "../accents";
import { pieceName } from "../pieceChoice";
import styles from "./ToBuy.module.css";
import { countOf } from "../../../lib/countOf";

interface Props {
  input: PlanInput;
  result: PlanResult;
  shop: Shopping;
}

/** What the head needs, what lies there for it, and what is bought for the rest. */
export function ToBuy({ input, result, shop }: Props) {
  const act = useAct();
  const unit = usePreferences((p) => p.unit);
  const { fill, pieces } = input;
  return (
    <>
      {shop.need.pieces.map((need, i) => {
        const line = shop.lines[i];
        return line && <NeedCard key={need.piece} input={input} need={need} line={line} />;
      })}
      {shop.need.wraps.map((w, i) => {
        const line = shop.wrapLines[i];
        const hair =
          input.ways.find((x) => x.key === w.way)?.wrapping ??
          input.pieces.find((x) => x.key === w.piece)?.made?.wrapping;
        return (
          line && (
            <Line
              key={w.way ?? w.piece ?? "feed"}
              name={w.name}
              colour={hair?.colour}
              swatch={hair?.swatch}
              need={w.says}
              all={w.order.need}
              line={line}
            />
          )
        );
      })}
      {shop.need.things.map((t, i) => {
        const line = shop.thingLines[i];
        return (
          line && (
            <Line
              key={t.product ?? t.accent}
              name={t.name}
              colour={input.accents?.[t.accent]?.thing?.colour}
              need={t.unit === "m" ? `${t.count} m for the bases` : `${t.count} on the head`}
              all={t.count}
              line={line}
            />
          )
        );
      })}
      <UsedUp input={input} products={shop.need.products} />
      <HowMany input={input} shop={shop} />
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
          options={pieces.map((p) => ({ value: p.key, label: pieceName(pieces, p) }))}
          onChange={(piece) => act(actions.setFill(null, { piece }))}
        />
      )}
      <p className={panel.lead}>
        {weight(result.tally.weightG, unit)} of dry hair on the head; soaked about twice that: support it and
        dry it fully.
      </p>
    </>
  );
}

const packs = (n: number) => countOf(n, "pack");

interface NeedProps {
  input: PlanInput;
  need: Shopping["need"]["pieces"][number];
  line: Shopping["lines"][number];
}

/** One piece: what hangs, what is spare, what of it lies there, what is bought. */
function NeedCard({ input, need, line }: NeedProps) {
  const piece = input.pieces.find((p) => p.key === need.piece);
  if (!piece) return null;
  if (need.made) {
    const all = need.onHead + need.fill + need.spares;
    return (
      <div className={styles.card}>
        <h3>
          {piece.swatch && <i style={{ background: piece.swatch }} aria-hidden />}
          {pieceName(input.pieces, piece)}
        </h3>
        <p className={styles.need}>
          {need.onHead} on the head + {need.spares} spare = <b>{all}</b>
        </p>
        <p className={styles.sum}>
          <strong>Made by hand</strong>
          <span>no packs to buy; what it is made of stands below, how under At home</span>
        </p>
      </div>
    );
  }
  const yieldOf = piece.pack.units * piece.pack.cuts * piece.pack.splits;
  const hang = need.onHead + need.fill;
  const all = hang + need.spares;
  const there = Math.min(all, line.stash + line.used + line.coming);
  const bare = Math.ceil(Math.max(0, hang - there) / yieldOf);
  const enough = Math.ceil(Math.max(0, all - there) / yieldOf);
  const needs = [
    `${need.onHead} on the head`,
    need.hooked > 0 && `, ${need.hooked} of them hooked on the base`,
    need.fedIn > 0 && `, ${need.fedIn} of them fed into cornrows`,
    need.accents > 0 && `, ${need.accents} as accents`,
    need.fill > 0 && ` + ${need.fill} to fill`,
    ` + ${need.spares} spare`,
  ];
  return (
    <Line
      name={piece.name}
      colour={piece.colour}
      swatch={piece.swatch}
      need={needs.filter(Boolean).join("")}
      all={all}
      line={line}
    >
      {enough < line.order.packs && (
        <p className={styles.hint}>{packs(enough)} would be enough; a set of more costs no more here.</p>
      )}
      {bare < enough && (
        <p className={styles.hint}>
          {bare === 0 ? "Nothing" : packs(bare)} if you go without spares: the last{" "}
          {enough - bare === 1 ? "pack is" : `${enough - bare} packs are`} for spares alone.
        </p>
      )}
    </Line>
  );
}

interface LineProps {
  name: string;
  colour?: string | undefined;
  swatch?: string | undefined;
  need: string;
  /** What is needed in all. */
  all: number;
  line: Shopping["lines"][number];
  children?: ReactNode;
}

/** What is needed of one thing: as a bar, what lies there and what is bought. */
function Line({ name, colour, swatch, need, all, line, children }: LineProps) {
  const there = Math.min(all, line.stash + line.used);
  const coming = Math.min(all - there, line.coming);
  const { order } = line;
  return (
    <div className={styles.card}>
      <h3>
        {swatch && <i style={{ background: swatch }} aria-hidden />}
        {name}
        {colour && `, ${colour.toLowerCase()}`}
      </h3>
      <p className={styles.need}>
        {need} = <b>{all}</b>
      </p>
      <div className={styles.bar} aria-hidden>
        <span data-what="stash" style={{ flexGrow: there }} />
        <span data-what="coming" style={{ flexGrow: coming }} />
        <span data-what="buy" style={{ flexGrow: all - there - coming }} />
      </div>
      <p className={styles.sum}>
        <strong>{order.packs === 0 ? "Nothing to buy" : `Buy ${packs(order.packs)}`}</strong>
        <span>
          {line.used > 0 && `${line.used} taken already; `}
          {line.stash > 0 ? `${line.stash} from the stash` : "none in the stash"}
          {line.coming > 0 && `, ${line.coming} on their way`}
          {line.elsewhere > 0 && ` (${line.elsewhere} more are promised to other plans)`}
          {order.packs > 0 &&
            `; ${order.packs} × ${order.units / order.packs} = ${order.units}, ${order.leftover} left over`}
        </span>
      </p>
      {children}
    </div>
  );
}

/** Gel, foam and the like: how much of a jar the head takes, and which jar. */
function UsedUp({ input, products }: { input: PlanInput; products: Shopping["need"]["products"] }) {
  const act = useAct();
  const money = useMoney();
  const items = useItemChoice().data ?? [];
  if (products.length === 0) return null;
  return (
    <div className={styles.card}>
      <h3>What is used up</h3>
      <p className={styles.need}>Bring it along. A head pays its share of the jar.</p>
      <Select
        mode="multiple"
        aria-label="Allergic to"
        placeholder="Allergic to none of them"
        value={input.avoid ?? []}
        options={choices(productNames)}
        onChange={(avoid: NonNullable<PlanInput["avoid"]>) => act(actions.setAvoid(avoid))}
      />
      <ul className={styles.used}>
        {products.map((p) => {
          const own = items.filter((i) => i.item.kind === p.product);
          const chosen = input.products?.find((c) => c.product === p.product);
          return (
            <li key={p.product}>
              {own.length > 0 ? (
                <Select<string>
                  aria-label={`Which ${p.product}`}
                  value={chosen?.thing.item ?? ""}
                  options={[
                    { value: "", label: chosen ? "The usual one" : p.name },
                    ...own.map((i) => ({ value: i.id, label: i.item.name })),
                  ]}
                  onChange={(item) => {
                    const found = own.find((i) => i.id === item);
                    act(actions.chooseProduct(p.product, found && thingOf(found)));
                  }}
                />
              ) : (
                <span>{p.name}</span>
              )}
              <b>
                {p.amount} {p.unit}
              </b>
              <span>{money(p.costMinor)}</span>
            </li>
          );
        })}
      </ul>
    </div>
  );
}

type Amount = NonNullable<PlanInput["spares"]["amount"]>;

/** How many to have: one of three amounts with its reason, or a percentage. */
function HowMany({ input, shop }: { input: PlanInput; shop: Shopping }) {
  const act = useAct();
  const { spares } = input;
  const amount = spares.amount ?? "";
  const sum = (of: "least" | "likely" | "safe") => shop.need.pieces.reduce((n, p) => n + p.amounts[of], 0);
  const spoilt = Math.round(1000 * shop.odds.spoilt) / 10;
  const why: Record<Amount, string> = {
    least: `${sum("least")} pieces: exactly what hangs. One spoilt, and a spot stays empty.`,
    likely: `${sum("likely")} pieces: enough in half of all installs.`,
    safe: `${sum("safe")} pieces: enough in 95 of 100 installs.`,
    "": `${shop.need.pieces.reduce((n, p) => n + p.onHead + p.fill + p.spares, 0)} pieces, by a percentage of your own.`,
  };
  const chances = shop.need.pieces.map((p) => p.enough);
  const chance = Math.round(100 * Math.min(1, ...chances));
  return (
    <div className={styles.amounts}>
      <span className={styles.label}>How many to have</span>
      <Segmented<Amount>
        block
        value={amount}
        aria-label="How many to have"
        options={[
          { value: "least", label: "Least" },
          { value: "likely", label: "Likely" },
          { value: "safe", label: "Safe" },
          { value: "", label: "By %" },
        ]}
        onChange={(value) => act(actions.setAmount(value, shop.logged >= 200 ? shop.odds.spoilt : 0))}
      />
      <p className={panel.lead}>
        {why[amount]} {shop.logged >= 200 ? "Your studio spoils" : "About"} {spoilt} % of the pieces
        {shop.logged >= 200 ? `, of ${shop.logged} logged` : " are spoilt, until your own log says otherwise"}
        ; one pack in twenty is a piece short. The packs ordered are enough in {chance} of 100.
      </p>
      {amount === "" && (
        <>
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
        </>
      )}
    </div>
  );
}
