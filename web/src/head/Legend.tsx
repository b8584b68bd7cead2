import { Segmented } from "antd";
import { memo } from "react";
import type { Layout } from "../api/types";
import styles from "./Legend.module.css";
import { legend, readings, type Reading } from "./reading";

interface Props {
  layout: Layout;
  reading: Reading;
  onReading: (reading: Reading) => void;
  /** How the head is turned and read. */
  hint: string;
}

/** What the head is coloured by, and what each colour and mark means. */
export const Legend = memo(function Legend({ layout, reading, onReading, hint }: Props) {
  return (
    <div className={styles.legend}>
      <ReadingChoice reading={reading} onReading={onReading} />
      {reading === "hair" ? (
        <p>{hint}</p>
      ) : (
        <ul>
          {legend(layout, reading).map(({ of, count }) => (
            <li key={of.key}>
              <span style={{ background: of.fill, color: of.ink }}>{of.mark}</span> {of.name}
              <small>{count}</small>
            </li>
          ))}
          <li>
            <em>12</em> sections in the row
          </li>
        </ul>
      )}
    </div>
  );
});

const ReadingChoice = memo(function ReadingChoice({
  reading,
  onReading,
}: Pick<Props, "reading" | "onReading">) {
  return (
    <Segmented<Reading>
      aria-label="Colour the head by"
      value={reading}
      options={(Object.keys(readings) as Reading[]).map((value) => ({ value, label: readings[value] }))}
      onChange={onReading}
    />
  );
});
