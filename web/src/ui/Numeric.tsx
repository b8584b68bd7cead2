import { Button } from "antd";
import Input from "antd/es/input/Input";
import { useState, type ReactNode } from "react";
import { readNumber } from "../lib/units";
import styles from "./Numeric.module.css";

interface NumericProps {
  /** The number; null where there is none, shown as an empty box. */
  value: number | null;
  /** What stands in the box while nobody types. */
  written?: string;
  /** What a text stands for: a number, null for none, NaN for what cannot be read. */
  read?: (text: string) => number | null;
  /** The number after (1) or before (-1) this one. */
  next: (by: 1 | -1) => number;
  unit?: ReactNode;
  id?: string;
  "aria-label"?: string;
  placeholder?: string;
  /** True where the number was refused. */
  bad?: boolean;
  onChange: (value: number | null) => void;
  onEnter?: () => void;
}

const readPlain = (text: string) => (text.trim() === "" ? null : readNumber(text));

/** A number as it is typed: what stands in the box is left alone for as long as it stands for the number. The arrow keys step. */
export function Numeric({
  value,
  written = value === null ? "" : String(value),
  read = readPlain,
  next,
  unit,
  bad,
  onChange,
  onEnter,
  ...box
}: NumericProps) {
  const [typed, setTyped] = useState<string>();
  const meant = typed === undefined ? value : read(typed);
  const apart = meant !== null && value !== null ? Math.abs(meant - value) > 1e-6 : meant !== value;
  // A text that cannot be read stays, so that it can be mended.
  const current = typed !== undefined && (Number.isNaN(meant) || !apart) ? typed : undefined;
  return (
    <Input
      {...box}
      className={styles.number ?? ""}
      value={current ?? written}
      suffix={unit}
      inputMode="decimal"
      autoComplete="off"
      {...((bad || (current !== undefined && Number.isNaN(meant))) && { status: "error" as const })}
      onChange={(event) => {
        setTyped(event.target.value);
        const now = read(event.target.value);
        if (!Number.isNaN(now)) onChange(now);
      }}
      onBlur={() => setTyped(undefined)}
      onPressEnter={onEnter}
      onKeyDown={(event) => {
        if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
        event.preventDefault();
        setTyped(undefined);
        onChange(next(event.key === "ArrowUp" ? 1 : -1));
      }}
    />
  );
}

interface CountProps {
  /** How many; null where nothing is said, shown as an empty box. */
  value: number | null;
  min: number;
  max: number;
  /** What a press on + gives where nothing is said. */
  from?: number;
  /** What is counted; said by the box itself unless a label with its id does. */
  label: string;
  id?: string;
  /** What the number counts, behind it. */
  unit?: ReactNode;
  placeholder?: string;
  onChange: (n: number | null) => void;
}

/** A small whole number, to be stepped with a finger or typed. Out of its bounds it is not taken. */
export function Count({ value, min, max, from = min, label, id, onChange, ...box }: CountProps) {
  const within = (n: number) => Math.max(min, Math.min(max, n));
  const next = (by: 1 | -1) => (value === null ? from : within(value + by));
  return (
    <span className={styles.count}>
      <Button
        aria-label={`One less: ${label}`}
        disabled={value === null || value <= min}
        onClick={() => onChange(next(-1))}
      >
        −
      </Button>
      <Numeric
        {...box}
        {...(id ? { id } : { "aria-label": label })}
        value={value}
        read={(text) => {
          const n = readPlain(text);
          return n === null || (Number.isInteger(n) && within(n) === n) ? n : NaN;
        }}
        next={next}
        onChange={onChange}
      />
      <Button
        aria-label={`One more: ${label}`}
        disabled={value !== null && value >= max}
        onClick={() => onChange(next(1))}
      >
        +
      </Button>
    </span>
  );
}
