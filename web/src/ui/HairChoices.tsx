import { Segmented } from "antd";
import styles from "./panel.module.css";

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
  density: number;
  strand: number;
  onDensity: (hairsPerCm2: number) => void;
  onStrand: (um: number) => void;
}

/** How dense the hair grows and how thick a strand is. */
export const HairChoices = ({ density, strand, onDensity, onStrand }: Props) => (
  <>
    <Choice label="Density" unit="hairs per cm²" value={density} options={densities} onChange={onDensity} />
    <Choice label="Strand" unit="µm thick" value={strand} options={strands} onChange={onStrand} />
  </>
);

interface ChoiceProps {
  label: string;
  unit: string;
  value: number;
  options: { label: string; value: number }[];
  onChange: (value: number) => void;
}

/** A word for a number, with the number beside it. */
const Choice = ({ label, unit, value, options, onChange }: ChoiceProps) => (
  <label className={styles.stack}>
    <span>
      {label} <small>{`${value} ${unit}`}</small>
    </span>
    <Segmented block value={value} options={options} onChange={onChange} />
  </label>
);
