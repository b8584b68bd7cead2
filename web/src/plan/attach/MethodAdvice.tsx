import { CheckOutlined, MinusOutlined, StopOutlined } from "@ant-design/icons";
import { Button, Segmented, Select, Skeleton } from "antd";
import { useState } from "react";
import { useAdvice, useKnownCatalogue } from "../../api/queries";
import type { Advice, PlanInput, Ranked, Wishes } from "../../api/types";
import { hours } from "../../lib/units";
import { CountField, Toggle } from "../../ui/fields";
import { Fold } from "../../ui/Fold";
import { Trouble } from "../../ui/Trouble";
import panel from "../../ui/panel.module.css";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import styles from "./MethodAdvice.module.css";
import { methodOf, whereNames } from "../hair";
import { countOf } from "../../lib/countOf";

interface Props {
  input: PlanInput;
}

/** Which method suits this head, with the reasons for and against it in words. */
export function MethodAdvice({ input }: Props) {
  const advice = useAdvice(input);
  const [wanted, setWanted] = useState<Advice["where"]>("everywhere");
  // What the ranking was before the last change, so that what moved is seen.
  const [told, setTold] = useState<{ now?: readonly Advice[]; before?: readonly Advice[] }>({});
  if (advice.data && advice.data !== told.now)
    setTold({ now: advice.data, ...(told.now && { before: told.now }) });
  const list = advice.data ?? [];
  const shown = list.find((a) => a.where === wanted) ?? list[0];
  const before = told.before?.find((a) => a.where === shown?.where)?.methods ?? [];
  return (
    <>
      <Fold title={`What is wanted: ${wishText(input.wishes ?? {})}`}>
        <WishFields wishes={input.wishes ?? {}} />
      </Fold>
      {advice.error && <Trouble error={advice.error} retry={() => void advice.refetch()} />}
      {!shown && advice.isPending && <Skeleton active />}
      {list.length > 1 && shown && (
        <Segmented<Advice["where"]>
          block
          aria-label="The part of the head"
          className={styles.scopes ?? ""}
          value={shown.where}
          options={list.map((a) => ({ value: a.where, label: scopeNames[a.where] }))}
          onChange={setWanted}
        />
      )}
      {shown && <Ranking key={shown.where} advice={shown} before={before} input={input} />}
    </>
  );
}

const scopeNames: Readonly<Record<Advice["where"], string>> = {
  everywhere: "All plaits",
  front: "In front",
  back: "Behind",
  hairline: "Hairline",
  base: "Base",
};

const open = "open";

const waters: Readonly<Record<NonNullable<Wishes["water"]>, string>> = {
  dry: "Kept dry",
  roots: "Washed at the roots",
  swim: "In the water",
};

const hidings: Readonly<Record<NonNullable<Wishes["hide"]>, string>> = {
  inside: "Woven inside",
  wrapped: "Wrapped",
  twined: "Twined in",
};

const handNames: Readonly<Record<NonNullable<Wishes["hand"]>, string>> = {
  new: "New to it",
  used: "Used to it",
  practised: "Practised",
};

/** What is wanted, in a line. */
function wishText({ weeks, hours: long, water, hand, updo, reuse, quick, hide, noTracks }: Wishes): string {
  const said = [
    weeks ? countOf(weeks, "week") : "",
    long ? `${countOf(long, "hour")} to attach` : "",
    water ? waters[water].toLowerCase() : "",
    hand ? `a hand ${hand === "practised" ? "that is practised" : handNames[hand].toLowerCase()}` : "",
    updo ? "tied up" : "",
    reuse ? "pieces used again" : "",
    quick ? "off quickly" : "",
    hide ? `own hair ${hidings[hide].toLowerCase()}` : "",
    noTracks ? "no cornrows" : "",
  ].filter((part) => part !== "");
  return said.length > 0 ? said.join(", ") : "nothing said yet";
}

/** What is wanted of the install, as far as it decides between methods. */
function WishFields({ wishes }: { wishes: Wishes }) {
  const act = useAct();
  const set = (part: Partial<Wishes>) => act(actions.setWishes(null, part));
  return (
    <div className={styles.wishes}>
      <CountField
        label="Weeks of wear"
        path="wishes.weeks"
        value={wishes.weeks ?? 0}
        max={26}
        unsaid={open}
        onChange={(weeks) => act(actions.setWishes("weeks", { weeks }))}
      />
      <CountField
        label="Hours for attaching"
        path="wishes.hours"
        value={wishes.hours ?? 0}
        max={60}
        unsaid={open}
        onChange={(n) => act(actions.setWishes("hours", { hours: n }))}
      />
      <Choose
        label="Water"
        names={waters}
        value={wishes.water}
        onChange={(water) => (water ? set({ water }) : act(actions.leaveOpen("water")))}
      />
      <Choose
        label="The hand"
        names={handNames}
        value={wishes.hand}
        onChange={(hand) => (hand ? set({ hand }) : act(actions.leaveOpen("hand")))}
      />
      <Choose
        label="Hide own hair"
        names={hidings}
        value={wishes.hide}
        onChange={(hide) => (hide ? set({ hide }) : act(actions.leaveOpen("hide")))}
      />
      <Toggle label="It will be tied up" checked={wishes.updo ?? false} onChange={(updo) => set({ updo })} />
      <Toggle label="Reuse the pieces" checked={wishes.reuse ?? false} onChange={(reuse) => set({ reuse })} />
      <Toggle
        label="It must come off quickly"
        checked={wishes.quick ?? false}
        onChange={(quick) => set({ quick })}
      />
      <Toggle
        label="We can't cornrow"
        checked={wishes.noTracks ?? false}
        onChange={(noTracks) => set({ noTracks })}
      />
    </div>
  );
}

interface ChooseProps<T extends string> {
  label: string;
  names: Readonly<Record<T, string>>;
  value: T | undefined;
  /** Nothing where it is left open. */
  onChange: (value: T | undefined) => void;
}

function Choose<T extends string>({ label, names, value, onChange }: ChooseProps<T>) {
  const keys = Object.keys(names) as T[];
  return (
    <div className={styles.choose}>
      <span aria-hidden>{label}</span>
      <Select<T | "">
        aria-label={label}
        value={value ?? ""}
        options={[{ value: "", label: open }, ...keys.map((key) => ({ value: key, label: names[key] }))]}
        onChange={(key) => onChange(key === "" ? undefined : key)}
      />
    </div>
  );
}

interface RankingProps {
  advice: Advice;
  before: readonly Ranked[];
  input: PlanInput;
}

/** How many methods stand open; the others are folded away. */
const inSight = 4;

function Ranking({ advice, before, input }: RankingProps) {
  const can = advice.methods.filter((m) => m.verdict !== "out");
  const out = advice.methods.filter((m) => m.verdict === "out");
  const line = (m: Ranked, i: number) => (
    <MethodLine key={m.method} ranked={m} place={i + 1} before={before} where={advice.where} input={input} />
  );
  return (
    <>
      <p className={panel.lead}>
        {whereNames[advice.where]}: {countOf(advice.places, "spot")}. The best come first. Minutes are for a
        practised hand, without parting and plaiting.
      </p>
      <ol className={styles.ranking}>{can.slice(0, inSight).map(line)}</ol>
      {can.length > inSight && (
        <Fold title={`${can.length - inSight} more, with more against them`}>
          <ol className={styles.ranking}>{can.slice(inSight).map((m, i) => line(m, i + inSight))}</ol>
        </Fold>
      )}
      {out.length > 0 && (
        <Fold title={`${out.length} ruled out here`}>
          <ul className={styles.ranking}>{out.map((m, i) => line(m, can.length + i))}</ul>
        </Fold>
      )}
    </>
  );
}

const verdicts: Readonly<Record<Ranked["verdict"], string>> = {
  leads: "Best",
  suits: "Suits",
  possible: "Possible",
  out: "Ruled out",
};

interface LineProps extends Omit<RankingProps, "advice"> {
  ranked: Ranked;
  place: number;
  where: Advice["where"];
}

function MethodLine({ ranked, place, before, where, input }: LineProps) {
  const catalogue = useKnownCatalogue();
  const act = useAct();
  const method = methodOf(catalogue, ranked.method);
  const way = catalogue.ways.find((w) => w.method === ranked.method);
  const was = before.findIndex((m) => m.method === ranked.method);
  const earlier = before[was];
  const known = new Set([...(earlier?.for ?? []), ...(earlier?.against ?? []), ...(earlier?.out ?? [])]);
  const isNew = (reason: string) => earlier !== undefined && !known.has(reason);
  const inUse = input.uses.findLast((u) => u.where.kind === where)?.way;
  const used = input.ways.some((w) => w.key === inUse && w.method === ranked.method);
  const piece = ranked.needsPiece ? catalogue.pieces.find((p) => method?.takes.includes(p.form)) : undefined;
  const does = used ? "In use here" : piece ? `Use it, with ${piece.name}` : "Use it here";
  return (
    <li className={styles.method} data-verdict={ranked.verdict}>
      <div className={styles.head}>
        <strong>{method?.name}</strong>
        <span className={styles.verdict}>{verdicts[ranked.verdict]}</span>
        {was >= 0 && was + 1 !== place && (
          <span className={styles.moved}>
            {was + 1 > place ? "up" : "down"} from {was + 1}
          </span>
        )}
        <span className={styles.time}>{hours(ranked.minutes)}</span>
      </div>
      <ul className={styles.reasons}>
        {ranked.out.map((r) => (
          <Reason key={r} sign={<StopOutlined aria-label="Rules it out" />} text={r} isNew={isNew(r)} />
        ))}
        {ranked.for.map((r) => (
          <Reason key={r} sign={<CheckOutlined aria-label="For it" />} text={r} isNew={isNew(r)} />
        ))}
        {ranked.against.map((r) => (
          <Reason key={r} sign={<MinusOutlined aria-label="Against it" />} text={r} isNew={isNew(r)} />
        ))}
      </ul>
      {ranked.verdict !== "out" && way && (
        <Button
          disabled={used}
          aria-label={`${does}: ${method?.name ?? ""}, ${whereNames[where].toLowerCase()}`}
          onClick={() => act(actions.takeMethod(where, way, piece))}
        >
          {does}
        </Button>
      )}
    </li>
  );
}

const Reason = ({ sign, text, isNew }: { sign: React.ReactNode; text: string; isNew: boolean }) => (
  <li>
    {sign}
    <span>
      {text} {isNew && <em className={styles.fresh}>new</em>}
    </span>
  </li>
);
