import { DownOutlined, UpOutlined, WarningOutlined } from "@ant-design/icons";
import { Popover } from "antd";
import { memo, useState } from "react";
import { useMoney } from "../../api/queries";
import type { Notice, PlanResult, Tally } from "../../api/types";
import { useNarrow } from "../../lib/narrow";
import { usePreferences } from "../../lib/preferences";
import { hours, weight } from "../../lib/units";
import styles from "./TallyStrip.module.css";
import { useKnownCatalogue } from "../../api/queries";
import { countOf } from "../../lib/countOf";

interface Props {
  result: PlanResult;
  /** The tally before the last change. */
  before: Tally | undefined;
  onNotice: (notice: Notice) => void;
}

/** The numbers of a tally that can be told apart. */
type Figure = "sections" | "pieces" | "packs" | "costMinor" | "minutes" | "weightG";

interface Entry {
  key: Figure;
  label: string;
  write: (v: number) => string;
  note: string;
}

/** The plan in a few numbers, and what the last change did to each. On a phone it is one line that opens. */
export const TallyStrip = memo(function TallyStrip({ result, before, onNotice }: Props) {
  const unit = usePreferences((p) => p.unit);
  const money = useMoney();
  const narrow = useNarrow();
  const [open, setOpen] = useState(false);
  const { tally } = result;
  const entries: Entry[] = [
    { key: "sections", label: "Sections", write: String, note: `${tally.rows} rows` },
    { key: "pieces", label: "Pieces", write: String, note: `+ ${tally.spares} spare` },
    {
      key: "packs",
      label: "Packs in all",
      write: String,
      note: `${countOf(tally.leftover, "piece")} left over`,
    },
    { key: "costMinor", label: "Cost", write: money, note: "if all is bought" },
    {
      key: "minutes",
      label: "Time at the head",
      write: hours,
      note: `${hours(tally.range.low)} to ${hours(tally.range.high)}`,
    },
    {
      key: "weightG",
      label: "Weight, dry",
      write: (v) => weight(v, unit),
      note: tally.woundG > 0 ? `${weight(tally.woundG, unit)} of it wrapping hair` : "hung on the head",
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
  const shut = narrow && !open;
  return (
    <footer className={styles.strip} aria-label="Tally" data-shut={shut}>
      <p className={styles.said} role="status">
        {said}
      </p>
      {narrow && (
        <button type="button" className={styles.line} aria-expanded={open} onClick={() => setOpen(!open)}>
          <span>
            <strong>{tally.sections}</strong> sections · <strong>{tally.pieces}</strong> pieces
            <br />
            <strong>{hours(tally.minutes)}</strong> · <strong>{money(tally.costMinor)}</strong>
          </span>
          {open ? <DownOutlined aria-label="Shut the tally" /> : <UpOutlined aria-label="Open the tally" />}
        </button>
      )}
      {!shut && (
        <dl className={styles.entries}>
          {entries.map(({ key, label, write, note }) => (
            <div key={key} className={styles.entry} data-tally={key}>
              <dt>
                {label} {before && <Difference by={tally[key] - before[key]} write={write} />}
              </dt>
              <dd>
                <span className={styles.figure}>{write(tally[key])}</span>
                <span className={styles.note}>{note}</span>
              </dd>
            </div>
          ))}
        </dl>
      )}
      <Notices notices={result.notices} onNotice={onNotice} small={narrow} />
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

const severities: Record<Notice["severity"], string> = {
  danger: "Stop",
  look: "Look",
  hint: "Good to know",
};
const order: readonly Notice["severity"][] = ["danger", "look", "hint"];

interface NoticesProps {
  notices: readonly Notice[];
  onNotice: (notice: Notice) => void;
  small: boolean;
}

function Notices({ notices, onNotice, small }: NoticesProps) {
  const facts = useKnownCatalogue().notices;
  const titleOf = (code: Notice["code"]) => facts.find((f) => f.code === code)?.title ?? code;
  const [open, setOpen] = useState(false);
  if (notices.length === 0)
    return (
      <div className={styles.clear} data-tally="notices">
        {small ? "All clear" : "Nothing to look out for"}
      </div>
    );
  const sorted = [...notices].sort((a, b) => order.indexOf(a.severity) - order.indexOf(b.severity));
  const worst = sorted[0]?.severity ?? "hint";
  const count = notices.filter((n) => n.severity !== "hint").length || notices.length;
  return (
    <Popover
      trigger="click"
      open={open}
      onOpenChange={setOpen}
      placement="topRight"
      content={
        <ul className={styles.notices}>
          {sorted.map((n) => (
            <li key={n.code + n.reason}>
              <strong>
                {titleOf(n.code)} <small data-severity={n.severity}>{severities[n.severity]}</small>
              </strong>
              <p>{n.reason}</p>
              {n.remedy && <p className={styles.remedy}>{n.remedy}</p>}
              {n.about.length > 0 && (
                <button
                  type="button"
                  onClick={() => {
                    setOpen(false);
                    onNotice(n);
                  }}
                >
                  Show on head
                </button>
              )}
            </li>
          ))}
        </ul>
      }
    >
      <button
        type="button"
        className={styles.warn}
        data-tally="notices"
        data-severity={worst}
        {...(small && { "aria-label": `${count} to look at` })}
      >
        <WarningOutlined aria-hidden />
        <span>
          {small ? count : worst === "hint" ? `${count} good to know` : `${count} to look at`}
          {!small && (
            <small>
              {sorted[0] && titleOf(sorted[0].code)}
              {sorted.length > 1 ? " …" : ""}
            </small>
          )}
        </span>
      </button>
    </Popover>
  );
}
