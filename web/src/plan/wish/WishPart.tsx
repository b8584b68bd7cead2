import { BulbOutlined } from "@ant-design/icons";
import { Button, Select } from "antd";
import { lazy, Suspense, useState } from "react";
import { useKnownCatalogue, useHeldAgainstWish, useHouse, useItemChoice } from "../../api/queries";
import type { PlanInput, HeadWish } from "../../api/types";
import { minorUnits } from "../../lib/units";
import { CountField, NumberField, RefusedHere, Toggle } from "../../ui/fields";
import { Fold } from "../../ui/Fold";
import panel from "../../ui/panel.module.css";
import cards from "../../ui/pictureCards.module.css";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import { useBench } from "../draft/onBench";
import { usePieceChoice } from "../hair";
import { FullPicture, LengthPicture, LookPicture } from "./wishPictures";
import styles from "./WishPart.module.css";

const Proposals = lazy(async () => ({ default: (await import("./Proposals")).Proposals }));

const looks = [
  ["locs", "Locs"],
  ["twists", "Twists"],
  ["braids", "Braids"],
  ["curls", "Curls"],
] as const;

const lines = [
  ["chin", "Chin"],
  ["shoulder", "Shoulder"],
  ["armpit", "Armpit"],
  ["mid-back", "Mid-back"],
  ["waist", "Waist"],
  ["hip", "Hip"],
] as const;

const fulls = [
  ["airy", "Airy"],
  ["usual", "As usual"],
  ["full", "Full"],
] as const;

/** What is wanted and what there is for it; plans that meet it are proposed. */
export function WishPart() {
  const { draft } = useBench();
  const [open, setOpen] = useState(false);
  const wanted: HeadWish = draft.input.wanted ?? {};
  const act = useAct();
  const set = (part: Parameters<typeof actions.setWanted>[1], group: string | null = null) =>
    act(actions.setWanted(group, part));
  return (
    <div className={styles.wish}>
      <Question
        label="What it is to look like"
        name="look"
        value={wanted.look}
        options={looks}
        picture={(look) => <LookPicture look={look} />}
        onChange={(look) => set({ look })}
      />
      <Question
        label="Down to"
        name="to"
        value={wanted.to}
        options={lines}
        picture={(to) => <LengthPicture to={to} />}
        onChange={(to) => set({ to })}
      />
      <Question
        label="How full"
        name="full"
        value={wanted.full}
        options={fulls}
        picture={(full) => <FullPicture full={full} />}
        onChange={(full) => set({ full })}
      />
      <NumberField
        label="Time there is, first comb to last check"
        path="wanted.minutes"
        unit="h"
        help={wanted.minutes ? "Breaks are in it" : "0 leaves it open"}
        step={0.5}
        value={Math.round((wanted.minutes ?? 0) / 6) / 10}
        onChange={(h) => set({ minutes: h > 0 ? Math.round(h * 60) : undefined }, "wanted.minutes")}
      />
      <Fold title="More to say: money, hair in hand, wear, who works">
        <MoreWishes wanted={wanted} set={set} />
      </Fold>
      <Button
        type="primary"
        size="large"
        icon={<BulbOutlined />}
        aria-haspopup="dialog"
        disabled={!wanted.look && !wanted.lots?.length}
        onClick={() => setOpen(true)}
      >
        Show proposals
      </Button>
      {!wanted.look && !wanted.lots?.length && (
        <p className={panel.lead}>Choose a look first; all else may stay open.</p>
      )}
      {draft.input.wanted && <Held input={draft.input} clientId={draft.clientId ?? ""} />}
      {open && (
        <Suspense>
          <Proposals onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </div>
  );
}

interface QuestionProps<T extends string> {
  label: string;
  name: string;
  value: T | "" | undefined;
  options: readonly (readonly [T, string])[];
  picture?: (key: T) => React.ReactNode;
  onChange: (key: T | undefined) => void;
}

/** One question with a picture for every answer; touching the answer again leaves it open. */
function Question<T extends string>({ label, name, value, options, picture, onChange }: QuestionProps<T>) {
  return (
    <fieldset className={styles.question}>
      <legend>{label}</legend>
      <div className={styles.cards}>
        {options.map(([key, title]) => (
          <label key={key} className={cards.card}>
            <input
              type="radio"
              name={`wish-${name}`}
              value={key}
              checked={value === key}
              onChange={() => onChange(key)}
              onClick={() => value === key && onChange(undefined)}
            />
            {picture?.(key)}
            <span>{title}</span>
          </label>
        ))}
      </div>
      <RefusedHere path={`wanted.${name}`} />
    </fieldset>
  );
}

interface MoreProps {
  wanted: HeadWish;
  set: (part: Parameters<typeof actions.setWanted>[1], group?: string | null) => void;
}

/** What most leave open. */
function MoreWishes({ wanted, set }: MoreProps) {
  const currency = useHouse().data?.rules.currency ?? "USD";
  const unit = minorUnits(currency);
  const count = (n: number) => (n > 0 ? n : undefined);
  return (
    <div className={styles.wish}>
      <Question
        label="Parts"
        name="finish"
        value={wanted.finish}
        options={[
          ["neat", "Neat"],
          ["grown", "As if grown in"],
        ]}
        onChange={(finish) => set({ finish })}
      />
      <Question
        label="Worn mostly"
        name="style"
        value={wanted.style}
        options={[
          ["down", "Down"],
          ["half-up", "Half up"],
          ["tied", "Tied"],
        ]}
        onChange={(style) => set({ style })}
      />
      <Question
        label="Water"
        name="water"
        value={wanted.water}
        options={[
          ["dry", "Kept dry"],
          ["roots", "Washed at the roots"],
          ["swim", "In the water often"],
        ]}
        onChange={(water) => set({ water })}
      />
      <Question
        label="Can somebody there cornrow?"
        name="cornrow"
        value={wanted.cornrow}
        options={[
          ["yes", "Yes"],
          ["no", "No"],
        ]}
        onChange={(cornrow) => set({ cornrow })}
      />
      <CountField
        label="Weeks to last"
        path="wanted.weeks"
        value={wanted.weeks ?? 0}
        min={0}
        max={12}
        unsaid="open"
        onChange={(n) => set({ weeks: count(n) })}
      />
      <CountField
        label="Sittings at the most"
        path="wanted.sittings"
        value={wanted.sittings ?? 0}
        min={0}
        max={12}
        unsaid="open"
        onChange={(n) => set({ sittings: count(n) })}
      />
      <NumberField
        label="How long you sit at a time"
        path="wanted.sittingMin"
        unit="h"
        help={wanted.sittingMin ? undefined : "0 leaves it open"}
        step={0.5}
        value={Math.round((wanted.sittingMin ?? 0) / 6) / 10}
        onChange={(h) => set({ sittingMin: count(Math.round(h * 60)) }, "wanted.sittingMin")}
      />
      <NumberField
        label="All off again within"
        path="wanted.offMin"
        unit="min"
        help={wanted.offMin ? undefined : "0 leaves it open"}
        step={15}
        value={wanted.offMin ?? 0}
        onChange={(m) => set({ offMin: count(m) }, "wanted.offMin")}
      />
      <NumberField
        label="Money for hair and small things"
        path="wanted.moneyMinor"
        unit={currency}
        help={wanted.moneyMinor ? undefined : "0 leaves it open"}
        step={10}
        value={(wanted.moneyMinor ?? 0) / unit}
        onChange={(v) => set({ moneyMinor: count(Math.round(v * unit)) }, "wanted.moneyMinor")}
      />
      <InHand wanted={wanted} set={set} />
      <Toggle
        label="A second pair of hands"
        note="parts and plaits ahead"
        checked={wanted.helper ?? false}
        onChange={(on) => set({ helper: on || undefined })}
      />
      <Toggle
        label="Pieces are used again"
        checked={wanted.reuse ?? false}
        onChange={(on) => set({ reuse: on || undefined })}
      />
    </div>
  );
}

/** Hair that is there already: how many of which piece. */
function InHand({ wanted, set }: MoreProps) {
  const pieces = usePieceChoice(useKnownCatalogue());
  const items = useItemChoice().data;
  // What lies in the stash and is promised to nobody.
  const free = (item: string | undefined) => {
    const of = items?.find((i) => i.id === item);
    return of ? Math.max(0, of.pieces - of.promised) : 0;
  };
  const lots = wanted.lots ?? [];
  const change = (next: typeof lots) =>
    set({ lots: next.length > 0 ? next : undefined, ...(next.length === 0 && { nothing: undefined }) });
  return (
    <>
      {lots.map((lot, i) => (
        <div key={lot.piece.name} className={styles.lot}>
          <CountField
            label={lot.piece.name}
            path={`wanted.lots[${i}].count`}
            value={lot.count}
            max={600}
            onChange={(n) =>
              change(lots.with(i, { ...lot, count: n, ...(lot.worn && { worn: Math.min(lot.worn, n) }) }))
            }
          />
          <CountField
            label="of them worn before"
            path={`wanted.lots[${i}].worn`}
            value={lot.worn ?? 0}
            min={0}
            max={lot.count}
            unsaid="none"
            onChange={(n) => change(lots.with(i, { ...lot, worn: n }))}
          />
          <Button onClick={() => change(lots.filter((_, k) => k !== i))}>Take off</Button>
        </div>
      ))}
      <Select<string>
        aria-label="Hair in hand"
        placeholder="Hair in hand: choose a piece"
        value={null}
        options={pieces
          .filter((p) => !lots.some((l) => l.piece.name === p.name))
          .map((p) => ({
            value: p.key,
            label: free(p.item) > 0 ? `${p.name} (${free(p.item)} in the stash)` : p.name,
          }))}
        onChange={(key: string) => {
          const piece = pieces.find((p) => p.key === key);
          if (piece && lots.length < 8)
            change([...lots, { piece, count: free(piece.item) || 2 * piece.pack.units }]);
        }}
      />
      {lots.length > 0 && (
        <Toggle
          label="Spend nothing"
          note="only what is in hand"
          checked={wanted.nothing ?? false}
          onChange={(on) => set({ nothing: on || undefined })}
        />
      )}
      <RefusedHere path="wanted.lots" />
    </>
  );
}

/** The plan as it is, held against the wish it carries. */
function Held({ input, clientId }: { input: PlanInput; clientId: string }) {
  const held = useHeldAgainstWish(input, clientId).data;
  if (!held) return null;
  return (
    <section aria-label="The plan against the wish" role="status">
      {held.breaks.length === 0 ? (
        <p className={styles.meets}>✓ The plan as it is meets the wish.</p>
      ) : (
        <>
          <p className={panel.lead}>The plan as it is misses the wish:</p>
          <ul className={styles.misses}>
            {held.breaks.map((b) => (
              <li key={b}>{b}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
