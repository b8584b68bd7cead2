import { CheckOutlined, DeleteOutlined, PlayCircleOutlined, StopOutlined } from "@ant-design/icons";
import { Button, Select } from "antd";
import { useEffect, useState } from "react";
import type { DayPlan } from "../../api/types";
import { hours } from "../../lib/units";
import panel from "../../ui/panel.module.css";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import styles from "./day.module.css";
import { countOf } from "../../lib/countOf";

/** How many pieces are timed at most. */
const most = 5;
/** A press this soon after the last is a slip of the finger, minutes. */
const slip = 0.05;
/** What is timed where sections are parted and plaited. */
const plaits = "plaits";

const clockText = (ms: number) => {
  const s = Math.floor(ms / 1000);
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;
};

const perPiece = (minutes: number) =>
  minutes < 1 ? `${Math.round(minutes * 60)} s` : `${minutes.toFixed(1)} min`;

/** The first pieces on this head, timed with one large button; the whole head is projected from them. */
export function TryOne({ day }: { day: DayPlan }) {
  const act = useAct();
  const [skill, setSkill] = useState<string>();
  const [by, setBy] = useState<string>();
  const [laps, setLaps] = useState<number[]>();
  const timed =
    day.timeable.find((t) => t.skill === skill) ??
    day.timeable.find((t) => t.skill !== plaits) ??
    day.timeable[0];
  const who = day.hands.find((h) => h.key === by) ?? day.hands[0];
  const begun = laps?.at(-1);
  const passed = usePassed(begun);
  if (!timed || !who) return <p className={panel.lead}>There is nothing to time on this head yet.</p>;
  const minutes = laps ? laps.slice(1).map((at, i) => (at - (laps[i] ?? at)) / 60_000) : [];
  const finish = (all: readonly number[]) => {
    setLaps(undefined);
    if (all.length > 0)
      act(
        actions.addTrial({
          skill: timed.skill,
          by: who.key,
          minutes: all.map((m) => Math.min(120, Math.round(m * 100) / 100)),
          rateMin: timed.rateMin,
        }),
      );
  };
  const press = () => {
    const now = Date.now();
    if (!laps) {
      setLaps([now]);
      return;
    }
    const last = (now - (begun ?? now)) / 60_000;
    if (last < slip) return;
    const all = [...minutes, last];
    if (all.length >= most) finish(all);
    else setLaps([...laps, now]);
  };
  return (
    <>
      <p className={panel.lead}>
        Too slow a method is noticed at the second row, when it is late. Do one piece on this head, up to
        five, and see what the whole head comes to.
      </p>
      <div className={styles.tryWhat}>
        <label className={panel.stack}>
          <span>What is timed</span>
          <Select<string>
            disabled={laps !== undefined}
            value={timed.skill}
            options={day.timeable.map((t) => ({
              value: t.skill,
              label: `${t.name}, ${t.places} on this head`,
            }))}
            onChange={setSkill}
          />
        </label>
        {day.hands.length > 1 && (
          <label className={panel.stack}>
            <span>Who does it</span>
            <Select<string>
              disabled={laps !== undefined}
              value={who.key}
              options={day.hands.map((h) => ({ value: h.key, label: h.name }))}
              onChange={setBy}
            />
          </label>
        )}
      </div>
      <button type="button" className={styles.timer} data-running={laps !== undefined} onClick={press}>
        {laps ? <CheckOutlined aria-hidden /> : <PlayCircleOutlined aria-hidden />}
        <strong>{laps ? `Piece ${laps.length} done` : "Begin the first piece"}</strong>
        <span>
          {laps
            ? `${clockText(passed)} · tap when it is finished`
            : timed.skill === plaits
              ? "From the parting comb to the end of the plait"
              : "From the hook to the last pass, the plait made beforehand"}
        </span>
      </button>
      {laps && (
        <div className={styles.laps}>
          <ol aria-live="polite">
            {minutes.map((m, i) => (
              <li key={i}>
                Piece {i + 1}: <strong>{perPiece(m)}</strong>
              </li>
            ))}
          </ol>
          <Button icon={<StopOutlined />} onClick={() => finish(minutes)}>
            {minutes.length === 0 ? "Give it up" : "That is enough"}
          </Button>
        </div>
      )}
      {day.paces.map((p) => (
        <section key={`${p.skill}/${p.by}`} className={styles.paced} aria-label={`Timed: ${p.name}`}>
          <h3>
            {p.name}
            {day.hands.length > 1 && `, ${day.hands.find((h) => h.key === p.by)?.name ?? ""}`}
          </h3>
          <p>
            {countOf(p.pieces, "piece")} timed: planned with <strong>{perPiece(p.nowMin)}</strong> each, give
            or take {Math.round(100 * p.spread)} %. The guess was {perPiece(p.guessMin)}.
          </p>
          <Button
            icon={<DeleteOutlined />}
            onClick={() => act(actions.dropTrials(p.skill, p.by))}
            aria-label={`Forget it: ${p.name}`}
          >
            Forget it
          </Button>
        </section>
      ))}
      <Projection day={day} />
    </>
  );
}

/** What the whole head comes to. */
function Projection({ day }: { day: DayPlan }) {
  const { total } = day.hours;
  return (
    <p className={styles.projection} role="status">
      The whole head: <strong>{hours(total.likely)}</strong>
      <span>
        {hours(total.low)} to {hours(total.high)} of work, without breaks
      </span>
    </p>
  );
}

/** Milliseconds since a moment, while it runs. */
function usePassed(since: number | undefined): number {
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (since === undefined) return;
    const tick = () => setNow(Date.now());
    tick();
    const timer = setInterval(tick, 250);
    return () => clearInterval(timer);
  }, [since]);
  return since === undefined ? 0 : Math.max(0, now - since);
}
