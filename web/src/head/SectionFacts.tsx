import { CloseOutlined } from "@ant-design/icons";
import { Button } from "antd";
import type { Section } from "../api/types";
import { usePreferences } from "../lib/preferences";
import { area, length } from "../lib/units";
import styles from "./SectionFacts.module.css";
import { place, zoneName } from "./names";
import { countOf } from "../lib/countOf";

interface Props {
  section: Section;
  /** What the colours of the head say of it. */
  says: string | undefined;
  onClose: () => void;
}

/** What one section is. */
export function SectionFacts({ section, says, onClose }: Props) {
  const { unit } = usePreferences();
  const range = (s: { min: number; max: number }) => `${length(s.min, unit)} to ${length(s.max, unit)}`;
  const { count } = section.given;
  return (
    <aside className={styles.facts} aria-live="polite">
      <Button
        className={styles.close ?? ""}
        type="text"
        icon={<CloseOutlined />}
        aria-label="Close the section's facts"
        onClick={onClose}
      />
      <h3>{zoneName(section.zone)}</h3>
      <p>{place(section)}</p>
      {says && <p className={styles.says}>{says}</p>}
      <dl>
        <dt>Width</dt>
        <dd title={range(section.widthMm)}>{length(section.widthMm.mean, unit)}</dd>
        <dt>Height</dt>
        <dd title={range(section.heightMm)}>{length(section.heightMm.mean, unit)}</dd>
        <dt>Area</dt>
        <dd>{area(section.areaMm2, unit)}</dd>
        <dt>Plait, thick</dt>
        <dd>{section.plaitMm.toFixed(1)} mm</dd>
        <dt>To the hairline</dt>
        <dd>{length(section.hairlineMm, unit)}</dd>
        <dt>To the part line</dt>
        <dd>{length(section.partMm, unit)}</dd>
        <dt>Touches</dt>
        <dd>{section.neighbours.length} sections</dd>
        <dt>Carries</dt>
        <dd>{countOf(count, "piece")}</dd>
        {section.edited && (
          <>
            <dt>By hand</dt>
            <dd>joined or split</dd>
          </>
        )}
        {section.locked && (
          <>
            <dt>Locked</dt>
            <dd>left alone</dd>
          </>
        )}
      </dl>
    </aside>
  );
}
