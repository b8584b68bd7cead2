import { Segmented } from "antd";
import { memo } from "react";
import type { Layout } from "../api/types";
import styles from "./Legend.module.css";
import { legend, readings, type Reading } from "./reading";

interface Props {
  layout: Layout;
  reading: Reading;
  onReading: (reading: Reading) => void;
}

/** What the head is coloured by, and what each colour and mark means. */
export const Legend = memo(function Legend({ layout, reading, onReading }: Props) {
  return (
    <div className={styles.legend}>
      <ReadingChoice reading={reading} onReading={onReading} />
      {reading === "hair" ? (
        <p>Drag to turn · tap a section to read it · keys 1 to 5 for views</p>
      ) : (
        <ul>
          {legend(layout, reading).map(({ of, count }) => (
            <li key={of.key}>
              <span style={{ background: of.fill, color: of.ink }}>{of.mark}</span> {of.name}
              <small>{count}</small>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
});

const ReadingChoice = memo(function ReadingChoice({ reading, onReading }: Omit<Props, "layout">) {
  return (
    <Segmented<Reading>
      aria-label="Colour the head by"
      value={reading}
      options={(Object.keys(readings) as Reading[]).map((value) => ({ value, label: readings[value] }))}
      onChange={onReading}
    />
  );
});
