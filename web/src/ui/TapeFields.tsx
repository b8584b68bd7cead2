import { Segmented } from "antd";
import type { Catalogue, Tapes } from "../api/types";
import { LengthField, NumberField } from "./fields";
import { usePreferences } from "../lib/preferences";
import { length } from "../lib/units";
import styles from "./panel.module.css";

interface Props {
  tapes: Tapes;
  /** The field of the document that holds the tapes, under which a refusal names them. */
  path: string;
  heads: Catalogue["heads"];
  /** control is the tape written in, or null when all were chosen at once. */
  onChange: (control: string | null, tapes: Tapes) => void;
}

/** The three tapes, how to take each, and what is known of the head besides. */
export function TapeFields({ tapes, path, heads, onChange }: Props) {
  const unit = usePreferences((p) => p.unit);
  const put = (name: keyof Tapes) => (value: number) =>
    onChange(`${path}.${name}`, { ...tapes, [name]: value });
  const near = (other: Tapes) =>
    Math.abs(other.circumferenceMm - tapes.circumferenceMm) < 1 &&
    Math.abs(other.frontToNapeMm - tapes.frontToNapeMm) < 1 &&
    Math.abs(other.earToEarMm - tapes.earToEarMm) < 1;
  return (
    <>
      <p className={styles.lead}>Flat on the scalp, not tight. Write them as you read them: 12½ or 12 1/2.</p>
      <LengthField
        label="Around the head"
        path={`${path}.circumferenceMm`}
        help="Over the brows, above the ears, round the widest part behind"
        mm={tapes.circumferenceMm}
        onChange={put("circumferenceMm")}
      />
      <LengthField
        label="Front to nape"
        path={`${path}.frontToNapeMm`}
        help="Hairline above the nose, over the top, to the hairline at the neck"
        mm={tapes.frontToNapeMm}
        onChange={put("frontToNapeMm")}
      />
      <LengthField
        label="Ear to ear"
        path={`${path}.earToEarMm`}
        help="Hairline above one ear, straight over the top, to the other"
        mm={tapes.earToEarMm}
        onChange={put("earToEarMm")}
      />
      <label className={styles.stack}>
        <span>No tape at hand? Start from a size</span>
        <Segmented
          block
          className={styles.narrow ?? ""}
          value={heads.find((h) => near(h.tapes))?.name ?? ""}
          options={heads.map((h) => ({
            value: h.name,
            label: h.name === "Extra-large" ? "XL" : h.name,
            title: `${h.name}: ${length(h.tapes.circumferenceMm, unit)} around`,
          }))}
          onChange={(name) => {
            const preset = heads.find((h) => h.name === name);
            if (preset) onChange(null, { ...preset.tapes, hairBulkMm: tapes.hairBulkMm });
          }}
        />
      </label>
      <LengthField
        label="Hair under the tape"
        path={`${path}.hairBulkMm`}
        help="How thick the hair lies under the tape; it is taken off the tapes"
        mm={tapes.hairBulkMm}
        onChange={put("hairBulkMm")}
      />
      <NumberField
        label="Head width ÷ length"
        path={`${path}.ratio`}
        help="0.78 is usual; more for a round head, less for a long one"
        value={tapes.ratio}
        step={0.01}
        onChange={put("ratio")}
      />
    </>
  );
}
