import { CheckCircleFilled, PushpinOutlined } from "@ant-design/icons";
import { Button, Skeleton } from "antd";
import { useQuicker } from "../../api/queries";
import type { DayPlan, PlanInput } from "../../api/types";
import { hours } from "../../lib/units";
import { NumberField } from "../../ui/fields";
import panel from "../../ui/panel.module.css";
import { Trouble } from "../../ui/Trouble";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import styles from "./day.module.css";
import { daySum } from "./HoursPart";
import { countOf } from "../../lib/countOf";

/** How long it may take, and what would make it fit. */
export function FitHours({ input, day }: { input: PlanInput; day: DayPlan }) {
  const act = useAct();
  const within = input.day?.withinMin ?? 0;
  const sum = daySum(day);
  const fits = within > 0 && sum <= within;
  const quicker = useQuicker(input, within > 0 && !fits);
  return (
    <>
      <NumberField
        label="All of it at the head may take"
        path="day.withinMin"
        unit="h"
        help={within === 0 ? "0 = no limit" : undefined}
        step={0.5}
        value={Math.round(within / 6) / 10}
        onChange={(h) => act(actions.setWithin(Math.round(h * 60)))}
      />
      <p className={styles.projection} role="status">
        It takes <strong>{hours(sum)}</strong>
        <span>with breaks, in {countOf(day.sittings.length, "sitting")}</span>
      </p>
      {fits && (
        <p className={styles.fits}>
          <CheckCircleFilled aria-hidden /> Within your hours.
        </p>
      )}
      {within > 0 && !fits && (
        <>
          {quicker.error && <Trouble error={quicker.error} retry={() => void quicker.refetch()} />}
          {!quicker.data && !quicker.error && <Skeleton active />}
          {quicker.data && quicker.data.length > 0 && (
            <p className={panel.lead}>
              What would bring it within your hours. Each is the whole plan changed; undo brings this one
              back.
            </p>
          )}
          <ul className={styles.quicker}>
            {quicker.data?.map((q) => (
              <li key={q.key} data-quicker={q.key}>
                <div>
                  <strong>{q.says}</strong>
                  <span>
                    {hours(q.minutes)}
                    {q.sittings > 1 &&
                      ` in ${q.sittings} sittings, the longest ${hours(q.longestMin)}`} ·{" "}
                    {q.pieces} pieces
                  </span>
                  <em data-fits={q.fits}>{q.fits ? "fits" : "still longer than wished"}</em>
                </div>
                <Button type={q.fits ? "primary" : "default"} onClick={() => act(actions.bringBack(q.input))}>
                  Take it
                </Button>
                <Button
                  icon={<PushpinOutlined />}
                  aria-label={`Pin beside the plan: ${q.says}`}
                  title="Pin beside the plan, to compare"
                  onClick={() => act(actions.pinOther(q.says, q.input))}
                />
              </li>
            ))}
          </ul>
          {quicker.data?.length === 0 && (
            <p className={panel.lead}>Nothing simple would: allow more time, or another structure.</p>
          )}
        </>
      )}
    </>
  );
}
