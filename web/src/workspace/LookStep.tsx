import { Segmented, Switch } from "antd";
import type { Catalogue, PlanInput } from "../api/types";
import { usePreferences } from "../app/preferences";
import { length } from "../app/units";
import type { Change } from "./draft";
import { LengthField, NumberField } from "./fields";
import styles from "./steps.module.css";

interface Props {
  input: PlanInput;
  catalogue: Catalogue;
  change: Change;
}

const densities = [
  { label: "Sparse", value: 120 },
  { label: "Medium", value: 190 },
  { label: "Dense", value: 240 },
];

const strands = [
  { label: "Fine", value: 60 },
  { label: "Medium", value: 75 },
  { label: "Coarse", value: 90 },
];

/** The head as the tape found it and the hair on it. */
export function LookStep({ input, catalogue, change }: Props) {
  const unit = usePreferences((p) => p.unit);
  const { head, hair } = input;
  const tape = (name: keyof PlanInput["head"]) => (value: number) =>
    change(`head.${name}`, (i) => ({ ...i, head: { ...i.head, [name]: value } }));
  const own = <K extends keyof PlanInput["hair"]>(name: K, value: PlanInput["hair"][K]) =>
    change(name === "lengthMm" ? "hair.lengthMm" : null, (i) => ({
      ...i,
      hair: { ...i.hair, [name]: value },
    }));
  const near = (tapes: PlanInput["head"]) =>
    Math.abs(tapes.circumferenceMm - head.circumferenceMm) < 1 &&
    Math.abs(tapes.frontToNapeMm - head.frontToNapeMm) < 1 &&
    Math.abs(tapes.earToEarMm - head.earToEarMm) < 1;

  return (
    <div className={styles.step}>
      <section>
        <h2>Three tapes</h2>
        <p className={styles.lead}>
          Flat on the scalp, not tight. Write them as you read them: 12½ or 12 1/2.
        </p>
        <LengthField
          label="Around the head"
          path="head.circumferenceMm"
          help="Over the brows, above the ears, round the widest part behind"
          mm={head.circumferenceMm}
          onChange={tape("circumferenceMm")}
        />
        <LengthField
          label="Front to nape"
          path="head.frontToNapeMm"
          help="Hairline above the nose, over the top, to the hairline at the neck"
          mm={head.frontToNapeMm}
          onChange={tape("frontToNapeMm")}
        />
        <LengthField
          label="Ear to ear"
          path="head.earToEarMm"
          help="Hairline above one ear, straight over the top, to the other"
          mm={head.earToEarMm}
          onChange={tape("earToEarMm")}
        />
        <label className={styles.stack}>
          <span>No tape at hand? Start from a size</span>
          <Segmented
            block
            className={styles.narrow ?? ""}
            value={catalogue.heads.find((h) => near(h.tapes))?.name ?? ""}
            options={catalogue.heads.map((h) => ({
              value: h.name,
              label: h.name === "Extra-large" ? "XL" : h.name,
              title: `${h.name}: ${length(h.tapes.circumferenceMm, unit)} around`,
            }))}
            onChange={(name) => {
              const preset = catalogue.heads.find((h) => h.name === name);
              if (preset)
                change(null, (i) => ({ ...i, head: { ...preset.tapes, hairBulkMm: i.head.hairBulkMm } }));
            }}
          />
        </label>
        <LengthField
          label="Hair under the tape"
          path="head.hairBulkMm"
          help="How thick the hair lies under the tape; it is taken off the tapes"
          mm={head.hairBulkMm}
          onChange={tape("hairBulkMm")}
        />
        <NumberField
          label="Head width ÷ length"
          path="head.ratio"
          help="0.78 is usual; more for a round head, less for a long one"
          value={head.ratio}
          step={0.01}
          onChange={tape("ratio")}
        />
      </section>

      <section>
        <h2>Her hair</h2>
        <LengthField
          label="Length, stretched"
          path="hair.lengthMm"
          mm={hair.lengthMm}
          onChange={(mm) => own("lengthMm", mm)}
        />
        <Choice
          label="Density"
          unit="hairs per cm²"
          value={hair.densityPerCm2}
          options={densities}
          onChange={(v) => own("densityPerCm2", v)}
        />
        <Choice
          label="Strand"
          unit="µm thick"
          value={hair.strandUm}
          options={strands}
          onChange={(v) => own("strandUm", v)}
        />
        <label className={styles.toggle}>
          <Switch checked={hair.tenderScalp} onChange={(v) => own("tenderScalp", v)} />
          <span>Tender scalp</span>
        </label>
        <label className={styles.toggle}>
          <Switch checked={input.ownHead} onChange={(v) => change(null, (i) => ({ ...i, ownHead: v }))} />
          <span>
            Her own hands do it <small>own-head work takes about a quarter longer</small>
          </span>
        </label>
      </section>
    </div>
  );
}

interface ChoiceProps {
  label: string;
  unit: string;
  value: number;
  options: { label: string; value: number }[];
  onChange: (value: number) => void;
}

/** A word for a number, with the number beside it. */
function Choice({ label, unit, value, options, onChange }: ChoiceProps) {
  return (
    <label className={styles.stack}>
      <span>
        {label} <small>{`${value} ${unit}`}</small>
      </span>
      <Segmented block value={value} options={options} onChange={onChange} />
    </label>
  );
}
