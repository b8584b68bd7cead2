import type { CSSProperties } from "react";
import styles from "./Slide.module.css";

/** A place on the line with a name. */
export interface Mark {
  at: number;
  text: string;
}

interface Props {
  label: string;
  /** What the value means, for those who listen. */
  says: string;
  /** Whole steps, so that a key always moves on by one. */
  value: number;
  min: number;
  max: number;
  marks?: readonly Mark[];
  /** A place rather than an amount: the line is not filled up to it. */
  place?: boolean | undefined;
  onChange: (steps: number) => void;
}

/** Something to slide: the browser's own control, which hand, key and voice know, in the studio's dress. */
export function Slide({ label, says, value, min, max, marks, place, onChange }: Props) {
  const share = (at: number) => (max > min ? (at - min) / (max - min) : 0);
  const at = (v: number) => ({ "--at": share(v) }) as CSSProperties;
  return (
    <div className={styles.slide} data-marked={marks !== undefined}>
      <input
        type="range"
        aria-label={label}
        aria-valuetext={says}
        data-place={place}
        style={at(value)}
        value={value}
        min={min}
        max={max}
        onChange={(event) => onChange(Number(event.target.value))}
      />
      {marks?.map((m) => (
        <span
          key={m.text}
          aria-hidden
          style={at(m.at)}
          data-end={m.at <= min ? "first" : m.at >= max ? "last" : undefined}
        >
          {m.text}
        </span>
      ))}
    </div>
  );
}
