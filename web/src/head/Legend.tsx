import { BgColorsOutlined } from "@ant-design/icons";
import { Segmented, Select } from "antd";
import { memo } from "react";
import type { Layout } from "../api/types";
import { useNarrow } from "../lib/narrow";
import styles from "./Legend.module.css";
import { legend, type Reading } from "./reading";
import type { HeadLayer } from "./tool";

interface Props {
  layout: Layout;
  readings: readonly Reading[];
  layers: readonly HeadLayer[];
  /** What is laid over the head; none for the parting. */
  layer: HeadLayer | undefined;
  /** What the head is coloured by; none for hair. */
  reading: Reading | undefined;
  onReading: (key: string) => void;
  /** How the head is turned and read. */
  hint: string;
}

/** What the head is coloured by, and what each colour and mark means. It keeps its height, so that the head stays where it is. */
export const Legend = memo(function Legend({
  layout,
  readings,
  layers,
  layer,
  reading,
  onReading,
  hint,
}: Props) {
  return (
    <div className={styles.legend}>
      <ReadingChoice
        readings={readings}
        layers={layers}
        reading={layer?.key ?? reading?.key ?? hairKey}
        onReading={onReading}
      />
      {layer ? (
        <div className={styles.layer}>
          {layer.settings}
          <p>{hint}</p>
        </div>
      ) : !reading ? (
        <p>{hint}</p>
      ) : (
        <ul tabIndex={0} aria-label={`Colours of ${reading.name.toLowerCase()}`}>
          {legend(layout, reading).map(({ of, count }) => (
            <li key={of.key}>
              <span style={{ background: of.fill, color: of.ink }}>{of.range ?? of.mark}</span> {of.name}
              <small>{count}</small>
            </li>
          ))}
          {reading.rows && (
            <li>
              <em>12</em> sections in the row
            </li>
          )}
        </ul>
      )}
    </div>
  );
});

/** Stands for the head as it is, uncoloured. */
const hairKey = "hair";

interface ChoiceProps {
  readings: readonly Reading[];
  layers: readonly HeadLayer[];
  reading: string;
  onReading: (key: string) => void;
}

const ReadingChoice = memo(function ReadingChoice({ readings, layers, reading, onReading }: ChoiceProps) {
  const narrow = useNarrow();
  const options = [
    { value: hairKey, label: "Hair" },
    ...layers.map((l) => ({ value: l.key, label: l.name })),
    ...readings.map((r) => ({ value: r.key, label: r.name })),
  ];
  return narrow ? (
    <Select<string>
      aria-label="Colour the head by"
      className={styles.select ?? ""}
      prefix={<BgColorsOutlined aria-hidden />}
      value={reading}
      options={options}
      onChange={onReading}
    />
  ) : (
    <Segmented<string>
      aria-label="Colour the head by"
      value={reading}
      options={options}
      onChange={onReading}
    />
  );
});
