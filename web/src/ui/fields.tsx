import { Select, Switch } from "antd";
import { createContext, useContext, useId, type ReactNode } from "react";
import { usePreferences } from "../lib/preferences";
import { length, readNumber, toMm, toUnit, writeLength } from "../lib/units";
import styles from "./fields.module.css";
import { Count, Numeric } from "./Numeric";
import { Slide, type Mark } from "./Slide";

/** Messages of the last refusal by field path. */
export const FieldErrors = createContext<Readonly<Record<string, string>>>({});

interface FieldProps {
  label: string;
  /** The field's path in the plan's input, under which a refusal names it. */
  path: string;
  help?: ReactNode;
}

function Field({
  label,
  path,
  help,
  children,
}: FieldProps & { children: (id: string, bad: boolean) => ReactNode }) {
  const error = useContext(FieldErrors)[path];
  const id = useId();
  return (
    <div className={styles.field}>
      <label htmlFor={id}>{label}</label>
      {children(id, error !== undefined)}
      {help && <p className={styles.help}>{help}</p>}
      {error && (
        <p className={styles.error} role="alert">
          {error}
        </p>
      )}
    </div>
  );
}

/** What was refused of a field that is no input of ours. */
export function RefusedHere({ path }: { path: string }) {
  const error = useContext(FieldErrors)[path];
  return error ? (
    <p className={styles.error} role="alert">
      {error}
    </p>
  ) : null;
}

/** What was refused of any field under a path. */
export function FieldErrorsUnder({ path }: { path: string }) {
  const errors = Object.entries(useContext(FieldErrors)).filter(([at]) => at.startsWith(path));
  return errors.map(([at, error]) => (
    <p key={at} className={styles.error} role="alert">
      {error}
    </p>
  ));
}

interface ToggleProps {
  label: string;
  note?: ReactNode;
  /** The field's path, under which a refusal names it. */
  path?: string;
  checked: boolean;
  onChange: (on: boolean) => void;
}

/** Something that is so or not, with a word on what it does. */
export function Toggle({ label, note, path, checked, onChange }: ToggleProps) {
  return (
    <div>
      <label className={styles.toggle}>
        <Switch checked={checked} onChange={onChange} />
        <span>
          {label}
          {note && <small>{note}</small>}
        </span>
      </label>
      {path && <RefusedHere path={path} />}
    </div>
  );
}

interface CountProps {
  label: string;
  path: string;
  help?: ReactNode;
  /** 0 where nothing is said. */
  value: number;
  min?: number;
  max: number;
  /** What an empty box stands for, kept as 0; without it a number must be said. */
  unsaid?: string;
  onChange: (n: number) => void;
}

/** How many of something, to be stepped with a finger or typed. */
export function CountField({ label, path, help, value, min = 1, max, unsaid, onChange }: CountProps) {
  const id = useId();
  return (
    <div>
      <div className={styles.counted}>
        <label htmlFor={id}>{label}</label>
        <Count
          id={id}
          label={label}
          value={value === 0 ? null : value}
          min={min}
          max={max}
          from={Math.max(1, min)}
          {...(unsaid && { placeholder: unsaid })}
          onChange={(n) => (n !== null || unsaid) && onChange(n ?? 0)}
        />
      </div>
      {help && <p className={styles.help}>{help}</p>}
      <RefusedHere path={path} />
    </div>
  );
}

interface ChoiceProps<T extends string> {
  label: string;
  path: string;
  value: T;
  options: readonly { key: T; name: string; help: string }[];
  disabled?: boolean;
  onChange: (key: T) => void;
}

/** One of a few ways, with when it is the right one. */
export function ChoiceField<T extends string>({
  label,
  path,
  value,
  options,
  disabled = false,
  onChange,
}: ChoiceProps<T>) {
  return (
    <div className={styles.stacked}>
      <span aria-hidden>{label}</span>
      <Select<T>
        aria-label={label}
        className={styles.choice ?? ""}
        disabled={disabled}
        value={value}
        options={options.map((o) => ({ value: o.key, label: o.name }))}
        onChange={onChange}
      />
      <p className={styles.help}>{options.find((o) => o.key === value)?.help}</p>
      <RefusedHere path={path} />
    </div>
  );
}

interface LengthProps extends FieldProps {
  mm: number;
  /** True where 0 stands for a length not taken, shown as an empty field. */
  empty?: boolean;
  onChange: (mm: number) => void;
}

/** A length, typed in the person's unit: 12½, 12 1/2 and 12.5 are all read; the arrow keys step. */
export function LengthField({ mm, empty = false, onChange, ...field }: LengthProps) {
  const unit = usePreferences((p) => p.unit);
  const step = unit === "in" ? 0.125 : 0.1;
  return (
    <Field {...field}>
      {(id, bad) => (
        <Numeric
          id={id}
          bad={bad}
          value={mm}
          written={empty && mm === 0 ? "" : writeLength(mm, unit)}
          {...(empty && { placeholder: "–" })}
          unit={unit}
          read={(text) => (empty && text.trim() === "" ? 0 : toMm(readNumber(text), unit))}
          next={(by) => toMm(Math.max(0, Math.round(toUnit(mm, unit) / step) + by) * step, unit)}
          onChange={(v) => v !== null && onChange(v)}
        />
      )}
    </Field>
  );
}

interface NumberProps extends FieldProps {
  value: number;
  unit?: string;
  step?: number;
  onChange: (value: number) => void;
}

export function NumberField({ value, unit, step = 1, onChange, ...field }: NumberProps) {
  return (
    <Field {...field}>
      {(id, bad) => (
        <Numeric
          id={id}
          bad={bad}
          value={value}
          unit={unit}
          next={(by) => Number(Math.max(0, value + by * step).toPrecision(12))}
          onChange={(v) => v !== null && onChange(v)}
        />
      )}
    </Field>
  );
}

interface SizeProps extends LengthProps {
  min: number;
  max: number;
}

/** A length to slide, with a box to type it in. */
export function SizeSlider({ mm, min, max, onChange, ...field }: SizeProps) {
  return (
    <div className={styles.slider}>
      <LengthField mm={mm} onChange={onChange} {...field} />
      <LengthSlider label={field.label} mm={mm} min={min} max={max} onChange={onChange} />
    </div>
  );
}

interface LengthSliderProps {
  label: string;
  mm: number;
  min: number;
  max: number;
  /** What the place means, where it is more than a length. */
  says?: string;
  /** Places with a name, mm. */
  marks?: readonly Mark[];
  /** A place rather than an amount: the line is not filled up to it. */
  place?: boolean;
  onChange: (mm: number) => void;
}

/**
 * A length to slide, in eighths of an inch or millimetres. The slider counts steps:
 * whole numbers meet its marks exactly, so that a key always moves on by one.
 */
export function LengthSlider({ label, mm, min, max, says, marks, place, onChange }: LengthSliderProps) {
  const unit = usePreferences((p) => p.unit);
  const step = unit === "in" ? 25.4 / 8 : 1;
  const near = (v: number) => Math.round(v / step);
  return (
    <Slide
      label={label}
      says={says ?? length(mm, unit)}
      value={near(mm)}
      min={near(min)}
      max={near(max)}
      place={place}
      {...(marks && { marks: marks.map((m) => ({ ...m, at: near(m.at) })) })}
      onChange={(steps) => onChange(Math.max(min, Math.min(max, steps * step)))}
    />
  );
}
