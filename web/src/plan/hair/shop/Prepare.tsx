import { Checkbox } from "antd";
import { useState } from "react";
import type { Shopping, Task } from "../../../api/types";
import { hours, when } from "../../../lib/units";
import { CutPicture } from "../../../ui/CutPicture";
import { Count } from "../../../ui/Numeric";
import panel from "../../../ui/panel.module.css";
import { Trouble } from "../../../ui/Trouble";
import { StepText } from "../../../ui/StepText";
import type { StoredPlan } from "../../draft/stored";
import styles from "./Prepare.module.css";
import { useTicks } from "./ticks";

interface Props {
  plan: StoredPlan;
  shop: Shopping;
}

/** What is done at home before the install, to be ticked off; what is counted has a running count. */
export function Prepare({ plan, shop }: Props) {
  const { done, tick, error } = useTicks(plan, shop);
  if (shop.tasks.length === 0)
    return <p className={panel.lead}>Nothing to prepare: the hair hangs as it comes.</p>;
  const minutes = shop.tasks.reduce((n, t) => n + t.minutes, 0);
  return (
    <>
      <p className={panel.lead}>
        About {hours(minutes)} of work at home, not counted in the hours of the install. What is ticked stays
        ticked, on every device.
      </p>
      {!plan.isStored && <p className={panel.lead}>It can be ticked off once the plan is saved.</p>}
      {error && <Trouble error={error} />}
      <ul className={styles.tasks}>
        {shop.tasks.map((t) => (
          <TaskCard
            key={t.key}
            task={t}
            done={done(t.key)}
            by={shop.prepared.find((p) => p.task === t.key)}
            disabled={!plan.isStored}
            onDone={(n) => tick(t.key, n)}
          />
        ))}
      </ul>
    </>
  );
}

interface TaskProps {
  task: Task;
  done: number;
  by: Shopping["prepared"][number] | undefined;
  disabled: boolean;
  onDone: (n: number) => void;
}

function TaskCard({ task, done, by, disabled, onDone }: TaskProps) {
  const [open, setOpen] = useState(false);
  const whole = Math.max(1, task.count);
  const finished = done >= whole;
  return (
    <li className={styles.task} data-done={finished}>
      <div className={styles.head}>
        <Checkbox
          checked={finished}
          disabled={disabled}
          indeterminate={done > 0 && !finished}
          onChange={(event) => onDone(event.target.checked ? whole : 0)}
        >
          <strong>{task.title}</strong>
        </Checkbox>
        <small>
          {task.count > 0 && `${task.count} ${task.count === 1 ? task.unit : `${task.unit}s`} · `}
          {hours(Math.ceil(task.minutes))}
          {task.waitHours > 0 && ` and ${task.waitHours} h to stand`}
          {task.daysBefore > 0 &&
            ` · ${task.daysBefore === 1 ? "the day" : `${task.daysBefore} days`} before`}
        </small>
      </div>
      {task.count > 1 && (
        <div className={styles.count}>
          <progress value={Math.min(done, whole)} max={whole} aria-label={`${done} of ${whole} done`} />
          <Count
            label={`Done of ${task.title}`}
            value={done === 0 ? null : done}
            min={0}
            max={whole}
            from={1}
            placeholder="0"
            unit={`of ${whole}`}
            onChange={(n) => !disabled && onDone(n ?? 0)}
          />
        </div>
      )}
      {by && done > 0 && (
        <small className={styles.by}>
          {by.person}, {when(by.at)}
        </small>
      )}
      <button type="button" className={styles.how} aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? "Hide how" : "How"}
      </button>
      {open && (
        <div className={styles.steps}>
          {task.cut && <CutPicture cut={task.cut} />}
          <ol>
            {task.steps.map((s, i) => (
              <li key={i}>
                <StepText step={s} />
              </li>
            ))}
          </ol>
          {task.batches && task.batches.length > 1 && (
            <ul className={styles.batches} aria-label="Batches">
              {task.batches.map((b) => (
                <li key={b.from} data-done={done >= b.to}>
                  {done >= b.to ? "✓ " : ""}
                  {b.from}–{b.to}: {hours(b.minutes)}
                </li>
              ))}
            </ul>
          )}
        </div>
      )}
    </li>
  );
}
