import { Segmented } from "antd";
import type { OwnHair } from "../api/types";
import { LengthField, Toggle } from "./fields";
import { areas, choices } from "./hairNames";
import styles from "./panel.module.css";

// Hair and hairline in the words of the trade.
const textures = { straight: "Straight", wavy: "Wavy", curly: "Curly", coily: "Coily" } as const;
const edges = { strong: "Strong", fine: "Fine", fragile: "Fragile", bare: "Bare" } as const;

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

interface Props {
  hair: OwnHair;
  /** True where what was not measured may stay open. */
  mayBeOpen?: boolean;
  onChange: (group: string | null, part: Partial<OwnHair>) => void;
}

/** Own hair: its length by area, how dense it grows, its strands, and what state it is in. */
export const HairFields = ({ hair, mayBeOpen = false, onChange }: Props) => (
  <>
    {areas.map(([area, label]) => (
      <LengthField
        key={area}
        label={label}
        path={`hair.${area}`}
        empty={mayBeOpen}
        mm={hair[area]}
        onChange={(mm) => onChange(`hair.${area}`, { [area]: mm })}
      />
    ))}
    <Measure
      label="Density"
      unit="hairs per cm²"
      value={hair.densityPerCm2}
      options={densities}
      onChange={(densityPerCm2) => onChange(null, { densityPerCm2 })}
    />
    <Measure
      label="Strand"
      unit="µm thick"
      value={hair.strandUm}
      options={strands}
      onChange={(strandUm) => onChange(null, { strandUm })}
    />
    <label className={styles.stack}>
      <span>Texture</span>
      <Segmented
        block
        value={hair.texture}
        options={choices(textures)}
        onChange={(texture) => onChange(null, { texture })}
      />
    </label>
    <label className={styles.stack}>
      <span>Edges</span>
      <Segmented
        block
        value={hair.edges}
        options={choices(edges)}
        onChange={(found) => onChange(null, { edges: found })}
      />
    </label>
    <Toggle
      label="Tender scalp"
      checked={hair.tenderScalp}
      onChange={(tenderScalp) => onChange(null, { tenderScalp })}
    />
  </>
);

interface MeasureProps {
  label: string;
  unit: string;
  value: number;
  options: { label: string; value: number }[];
  onChange: (value: number) => void;
}

/** A word for a number, with the number beside it. */
const Measure = ({ label, unit, value, options, onChange }: MeasureProps) => (
  <label className={styles.stack}>
    <span>
      {label} <small>{`${value} ${unit}`}</small>
    </span>
    <Segmented block value={value} options={options} onChange={onChange} />
  </label>
);
