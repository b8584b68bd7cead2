import { Button } from "antd";
import Input from "antd/es/input/Input";
import type { DayPlan, DaySitting, PlanInput, Sittings } from "../../api/types";
import { day as writeDay, hours } from "../../lib/units";
import { FieldErrorsUnder, NumberField, RefusedHere, Toggle } from "../../ui/fields";
import panel from "../../ui/panel.module.css";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import styles from "./day.module.css";
import { DayLine } from "./DayLine";
import { after, daysBetween, kinds, type Kind } from "./kinds";

/** How the work is cut up, when each sitting is, and what happens in it. */
export function SittingsPart({ input, day }: { input: PlanInput; day: DayPlan }) {
  const want = input.day?.sittings ?? day.usual;
  const longest = Math.max(...day.sittings.map((s) => s.minutes), 60);
  const evenings = day.sittings.filter((s) => s.evening).length;
  const shown = [...new Set(day.sittings.flatMap((s) => s.spans.map((x) => kinds[x.kind].mark)))];
  const rests = day.sittings.flatMap((s) => s.spans.flatMap((x) => x.rests ?? []));
  return (
    <>
      <ul className={styles.key} aria-label="What the line shows">
        {(Object.keys(kinds) as Kind[])
          .filter((k) => k !== "conceal" && shown.includes(kinds[k].mark))
          .map((k) => (
            <li key={k}>
              <i style={{ background: kinds[k].fill, color: kinds[k].ink }}>{kinds[k].mark}</i>{" "}
              {kinds[k].name}
            </li>
          ))}
        {rests.some((r) => !r.arms) && (
          <li>
            <i className={styles.breakKey} /> Break
          </li>
        )}
        {rests.some((r) => r.arms) && (
          <li>
            <i className={styles.armsKey}>•</i> Arms down
          </li>
        )}
        {day.hands.length > 1 && (
          <li>
            <i className={styles.waitKey}>┄</i> Waits
          </li>
        )}
      </ul>
      <ol className={styles.sittings}>
        {day.sittings.map((s, i) => (
          <OneSitting
            key={i}
            sitting={s}
            day={day}
            number={i - evenings}
            before={day.sittings[i - 1]}
            usual={day.usual}
            want={want}
            longest={longest}
          />
        ))}
      </ol>
      {day.says.map((s) => (
        <p key={s} className={styles.told}>
          {s}
        </p>
      ))}
    </>
  );
}

/** How long a sitting lasts and what interrupts it. */
export function LengthPart({ input, day: { usual } }: { input: PlanInput; day: DayPlan }) {
  const act = useAct();
  const want = input.day?.sittings ?? usual;
  const set = (group: string | null, part: Partial<Sittings>) => act(actions.setSittings(group, usual, part));
  const { breaks } = want;
  return (
    <div className={styles.wished}>
      <NumberField
        label="The longest sitting, with breaks"
        path="day.sittings.longestMin"
        unit="h"
        step={0.5}
        value={Math.round(want.longestMin / 6) / 10}
        onChange={(h) => set("longest", { longestMin: Math.round(h * 60) })}
      />
      <label className={panel.stack}>
        <span>They begin at</span>
        <Input
          type="time"
          size="large"
          value={want.at}
          onChange={(event) => event.target.value !== "" && set("at", { at: event.target.value })}
        />
      </label>
      <RefusedHere path="day.sittings.at" />
      <NumberField
        label="Days from one to the next"
        path="day.sittings.everyDays"
        value={want.everyDays}
        onChange={(n) => set("every", { everyDays: Math.max(1, Math.round(n)) })}
      />
      <NumberField
        label="A break after work of"
        path="day.sittings.breaks.afterMin"
        unit="min"
        help="0 for none"
        step={5}
        value={breaks.afterMin}
        onChange={(afterMin) => set("after", { breaks: { ...breaks, afterMin } })}
      />
      {breaks.afterMin > 0 && (
        <NumberField
          label="The break lasts"
          path="day.sittings.breaks.longMin"
          unit="min"
          step={5}
          value={breaks.longMin}
          onChange={(longMin) => set("long", { breaks: { ...breaks, longMin } })}
        />
      )}
      {input.ownHead && (
        <Toggle
          label="Arms down in between"
          note="Two minutes in twenty while plaiting the back of own head"
          checked={breaks.arms}
          onChange={(arms) => set(null, { breaks: { ...breaks, arms } })}
        />
      )}
      <Toggle
        label="At home"
        note="Takes no chair of the studio"
        checked={want.home ?? false}
        onChange={(home) => set(null, { home })}
      />
    </div>
  );
}

interface OneProps {
  sitting: DaySitting;
  day: DayPlan;
  /** Counted from 0; below 0 for a helper's evening. */
  number: number;
  before: DaySitting | undefined;
  usual: Sittings;
  want: Sittings;
  longest: number;
}

function OneSitting({ sitting, day, number, before, usual, want, longest }: OneProps) {
  const act = useAct();
  const slot = want.slots?.[number];
  const title = sitting.evening ? "The evening before" : `Sitting ${number + 1}`;
  const move = (on: string) => {
    if (on === "") return;
    if (number === 0) act(actions.setInstallDay(on));
    else if (before && before.on !== "") {
      const days = daysBetween(before.on, on);
      if (days > 0) act(actions.setSlot(null, usual, number, { afterDays: days }));
    }
  };
  return (
    <li className={styles.sitting} data-sitting={number} aria-label={title}>
      <div className={styles.sittingHead}>
        <h3>{title}</h3>
        <strong>{hours(sitting.minutes)}</strong>
        <span>
          {sitting.on !== "" && <b>{writeDay(sitting.on)}, </b>}
          {sitting.at} to about {after(sitting.at, 5 * Math.round(sitting.minutes / 5))}
        </span>
      </div>
      <p>{sitting.does}.</p>
      <DayLine sitting={sitting} hands={day.hands} longest={longest} />
      {sitting.waitsMin.map(
        (w, i) =>
          w >= 5 && (
            <p key={i} className={styles.waits}>
              {day.hands[i]?.name} waits {hours(w)} in all.
            </p>
          ),
      )}
      {!sitting.evening && (
        <div className={styles.sittingSet}>
          <label>
            <span>Date</span>
            <Input
              type="date"
              aria-label={`Date of sitting ${number + 1}`}
              value={sitting.on}
              disabled={number > 0 && sitting.on === ""}
              min={before?.on}
              onChange={(event) => move(event.target.value)}
            />
          </label>
          <label>
            <span>Begins</span>
            <Input
              type="time"
              aria-label={`When sitting ${number + 1} begins`}
              value={sitting.at}
              onChange={(event) =>
                event.target.value !== "" &&
                act(actions.setSlot("at", usual, number, { at: event.target.value }))
              }
            />
          </label>
          {slot && (slot.at !== undefined || slot.afterDays !== undefined) && (
            <Button type="link" onClick={() => act(actions.clearSlot(usual, number))}>
              As usual
            </Button>
          )}
        </div>
      )}
      <FieldErrorsUnder path={`day.sittings.slots[${number}]`} />
    </li>
  );
}
