import { memo, Suspense, type ReactNode } from "react";
import type { PlanInput, Preparation, Shopping } from "../../api/types";
import { useKnownCatalogue, useMoney, useShopping } from "../../api/queries";
import { hours } from "../../lib/units";
import { LengthField, Toggle } from "../../ui/fields";
import styles from "../../ui/panel.module.css";
import { Parts } from "../../ui/Parts";
import { Trouble } from "../../ui/Trouble";
import { Segmented, Skeleton } from "antd";
import { useAct } from "../draft/act";
import { actions, type Variant } from "../draft/actions";
import { AnchorTurns } from "./AnchorTurns";
import { AccentList, accentsText } from "./AccentList";
import { PieceList } from "./PieceList";
import { Cost, Falls, FitAndLoad, Landing } from "./fall/parts";
import { OtherPieces, PackReach, Prepare, StashAndOrders, ToBuy } from "./shop/parts";
import { usesText, UseList } from "./UseList";
import { useBench, useComputed } from "../draft/onBench";
import { countOf } from "../../lib/countOf";

const noVariants: readonly Variant[] = [];

/** Which pieces where, and what to buy. */
export const HairStep = memo(function HairStep() {
  const {
    plan,
    draft: { input, clientId = "", variants = noVariants },
    point,
  } = useBench();
  const result = useComputed();
  const { notices } = useKnownCatalogue();
  const hangsIll = result.notices.some((n) =>
    notices.some((f) => f.code === n.code && (f.subject === "fit" || f.subject === "load")),
  );
  const money = useMoney();
  const { pieces, plaits } = input;
  const asked = useShopping(plan.isStored ? plan.id : "", input);
  const shop = asked.data;
  /** A part that is drawn from the shopping, once it is there. */
  const shopped = (draw: (shop: Shopping) => ReactNode) =>
    shop ? (
      <Suspense fallback={<Skeleton active />}>{draw(shop)}</Suspense>
    ) : asked.error ? (
      <Trouble error={asked.error} retry={() => void asked.refetch()} />
    ) : (
      <Skeleton active />
    );
  const shown = (part: ReactNode) => <Suspense fallback={<Skeleton active />}>{part}</Suspense>;
  return (
    <Parts
      step="hair"
      parts={[
        {
          key: "pieces",
          chapter: "Choose",
          title: "Pieces",
          says: pieces.length === 1 ? pieces[0]?.name : `${pieces.length} pieces`,
          paths: ["pieces"],
          content: <PieceList input={input} />,
        },
        {
          key: "uses",
          chapter: "Choose",
          title: "What goes where",
          says: usesText(input, result),
          paths: ["uses"],
          content: <UseList input={input} result={result} />,
        },
        {
          key: "accents",
          chapter: "Choose",
          title: "Accents",
          says: accentsText(input),
          paths: ["accents"],
          content: <AccentList input={input} result={result} />,
        },
        {
          key: "buy",
          chapter: "Buy",
          title: "To buy",
          says: shop && buyText(shop),
          paths: ["spares", "fill"],
          content: shopped((s) => <ToBuy input={input} result={result} shop={s} />),
        },
        {
          key: "orders",
          chapter: "Buy",
          title: "Stash and orders",
          says:
            shop &&
            `${shop.holds ? "held, " : ""}${shop.orders.length === 0 ? "nothing" : money(shop.goodsMinor + shop.feesMinor)} to order`,
          paths: ["day"],
          content: shopped((s) => <StashAndOrders plan={plan} input={input} shop={s} />),
        },
        {
          key: "reach",
          chapter: "Buy",
          title: "How far packs go",
          says: shop && reachText(shop),
          content: shopped((s) => <PackReach input={input} shop={s} onReach={point} />),
        },
        {
          key: "others",
          chapter: "Buy",
          title: "Other pieces",
          says: "side by side",
          content: shopped(() => <OtherPieces planId={plan.isStored ? plan.id : ""} input={input} />),
        },
        {
          key: "prepare",
          chapter: "Buy",
          title: "Prepare at home",
          says: shop && prepareText(shop),
          content: shopped((s) => <Prepare plan={plan} shop={s} />),
        },
        {
          key: "fit",
          chapter: "Hang",
          title: "Fit and load",
          says: hangsIll ? "look at it" : "suits",
          content: shown(<FitAndLoad input={input} clientId={clientId} />),
        },
        {
          key: "falls",
          chapter: "Hang",
          title: "Drape and cover",
          says: "how it falls, what shows",
          content: shown(<Falls input={input} variants={variants} />),
        },
        {
          key: "landing",
          chapter: "Hang",
          title: "Where it lands",
          says: input.trim ? "cut" : "uncut",
          paths: ["statureMm", "trim"],
          content: shown(<Landing input={input} />),
        },
        {
          key: "cost",
          chapter: "Price",
          title: "Price and quote",
          says: "what the client pays",
          paths: ["price"],
          content: shown(<Cost plan={plan} input={input} />),
        },
        {
          key: "plaits",
          chapter: "Choose",
          title: "Plaits",
          says: `${farNames[plaits.far].toLowerCase()}, ${plaits.tension}`,
          paths: ["plaits"],
          content: <BasePlaits input={input} />,
        },
      ]}
    />
  );
});

/** What is bought, in a few words. */
function buyText(shop: Shopping): string {
  const packs = shop.orders.flatMap((o) => o.lines).reduce((n, l) => n + l.count * l.offer.packs, 0);
  const stash = shop.lines.reduce((n, l) => n + l.stash, 0);
  const bought = packs === 0 ? "nothing" : countOf(packs, "pack");
  return stash > 0 ? `${bought}, ${stash} from the stash` : bought;
}

const reachText = ({ fillings: [first] }: Shopping) => {
  const half = first?.reach[Math.floor((first.reach.length - 1) / 2)];
  return half && `${countOf(half.packs, "reaches", "reach")} ${half.at.toLowerCase()}`;
};

const prepareText = ({ tasks }: Shopping) =>
  tasks.length === 0
    ? "nothing"
    : `${countOf(tasks.length, "task")}, ${hours(tasks.reduce((n, t) => n + t.minutes, 0))}`;

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
            anchor: "When own hair is twisted in with the piece.",
          }[plaits.far]
        }
      </p>
      {plaits.far === "anchor" && <AnchorTurns anchorMm={plaits.anchorMm ?? 0} />}
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
            { value: "over", label: "Over: a small ridge" },
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
