import { WarningOutlined } from "@ant-design/icons";
import { Popover } from "antd";
import { memo, useState } from "react";
import type { PlanResult, Tally, Warning } from "../api/types";
import { usePreferences } from "../app/preferences";
import { hours, money, weight } from "../app/units";
import styles from "./TallyStrip.module.css";

interface Props {
  result: PlanResult;
  /** The tally before the last change. */
  before: Tally | undefined;
  onWarning: (warning: Warning) => void;
}

/** The plan in seven numbers, and what the last change did to each. */
export const TallyStrip = memo(function TallyStrip({ result, before, onWarning }: Props) {
  const { unit, currency } = usePreferences();
  const { tally, hours: time, hair } = result;
  const entries: {
    key: keyof Tally;
    label: string;
    text: string;
    write: (v: number) => string;
    note: string;
  }[] = [
    {
      key: "sections",
      label: "Sections",
      text: String(tally.sections),
      write: String,
      note: `${result.layout.rows.length} rows`,
    },
    {
      key: "pieces",
      label: "Pieces",
      text: String(tally.pieces),
      write: String,
      note: `+ ${hair.spares} spare`,
    },
    {
      key: "packs",
      label: "Packs to buy",
      text: String(tally.packs),
      write: String,
      note: `${hair.order.leftover} ${hair.order.leftover === 1 ? "piece" : "pieces"} left over`,
    },
    {
      key: "costMinor",
      label: "Cost",
      text: money(tally.costMinor, currency),
      write: (v) => money(v, currency),
      note: hair.wrap ? "with wrapping hair" : "pieces only",
    },
    {
      key: "minutes",
      label: "Time",
      text: hours(tally.minutes),
      write: hours,
      note: `${hours(time.total.low)} to ${hours(time.total.high)}`,
    },
    {
      key: "weightG",
      label: "Weight, dry",
      text: weight(tally.weightG, unit),
      write: (v) => weight(v, unit),
      note: "hung on the head",
    },
  ];
  // Said once, in one sentence, and not by every figure for itself.
  const said = before
    ? entries
        .flatMap(({ key, label, write }) => {
          const by = difference(tally[key] - before[key], write);
          return by ? [`${label} ${by}`] : [];
        })
        .join(", ")
    : "";
  return (
    <footer className={styles.strip} aria-label="Tally">
      <p className={styles.said} role="status">
        {said}
      </p>
      <dl className={styles.entries}>
        {entries.map(({ key, label, text, write, note }) => (
          <div key={key} className={styles.entry} data-tally={key}>
            <dt>
              {label} {before && <Difference by={tally[key] - before[key]} write={write} />}
            </dt>
            <dd>
              <span className={styles.figure}>{text}</span>
              <span className={styles.note}>{note}</span>
            </dd>
          </div>
        ))}
      </dl>
      <Warnings warnings={result.warnings} onWarning={onWarning} />
    </footer>
  );
});

/** A difference with its sign; one too small to be written is none. */
function difference(by: number, write: (v: number) => string): string | undefined {
  const text = write(Math.abs(by));
  return text === write(0) ? undefined : `${by > 0 ? "+" : "−"}${text}`;
}

function Difference({ by, write }: { by: number; write: (v: number) => string }) {
  const text = difference(by, write);
  if (!text) return null;
  return (
    <span className={styles.difference} data-difference>
      {text}
    </span>
  );
}

const titles: Record<string, string> = {
  sliver: "Small sections",
  oversize: "Large sections",
  "weak-stagger": "Parts nearly in line",
  "channel-behind-crown": "Channels behind the crown",
  asymmetry: "Left and right differ",
  "fat-track": "Fat tracks",
  "thin-track": "Thin tracks",
  method: "About the method",
};

function Warnings({ warnings, onWarning }: { warnings: Warning[]; onWarning: (warning: Warning) => void }) {
  const [open, setOpen] = useState(false);
  if (warnings.length === 0)
    return (
      <div className={styles.clear} data-tally="warnings">
        Nothing to look out for
      </div>
    );
  return (
    <Popover
      trigger="click"
      open={open}
      onOpenChange={setOpen}
      placement="topRight"
      content={
        <ul className={styles.warnings}>
          {warnings.map((w) => (
            <li key={w.kind + w.message}>
              <strong>{titles[w.kind] ?? w.kind}</strong>
              <p>{w.message}</p>
              {w.sections.length > 0 && (
                <button
                  type="button"
                  onClick={() => {
                    setOpen(false);
                    onWarning(w);
                  }}
                >
                  Show on the head
                </button>
              )}
            </li>
          ))}
        </ul>
      }
    >
      <button type="button" className={styles.warn} data-tally="warnings">
        <WarningOutlined aria-hidden />
        <span>
          {warnings.length} to look at
          <small>
            {titles[warnings[0]?.kind ?? ""]}
            {warnings.length > 1 ? " …" : ""}
          </small>
        </span>
      </button>
    </Popover>
  );
}
