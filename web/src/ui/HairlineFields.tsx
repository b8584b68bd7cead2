import { Button } from "antd";
import type { Hairline } from "../api/types";
import { usePreferences } from "../lib/preferences";
import { length } from "../lib/units";
import { LengthSlider, RefusedHere } from "./fields";
import styles from "./panel.module.css";

/** The hairline as most have it. */
export const usualHairline: Hairline = (() => {
  const still = { upMm: 0, backMm: 0 };
  return {
    frontMm: 0,
    templeCorner: still,
    temple: still,
    sideburn: still,
    behindEar: still,
    napeCorner: still,
  };
})();

export const isUsual = (h: Hairline) => JSON.stringify(h) === JSON.stringify(usualHairline);

const farthest = 40; // mm

const landmarks = [
  ["templeCorner", "Temple corner"],
  ["temple", "Temple"],
  ["sideburn", "Sideburn"],
  ["behindEar", "Behind the ear"],
  ["napeCorner", "Nape corner"],
] as const;

interface Props {
  hairline: Hairline;
  onChange: (control: string | null, hairline: Hairline) => void;
}

/** Where the client's hairline departs from the usual one, both sides together. */
export function HairlineFields({ hairline, onChange }: Props) {
  const unit = usePreferences((p) => p.unit);
  const says = (mm: number, more: string, less: string) =>
    Math.abs(mm) < 0.5 ? "as usual" : `${length(Math.abs(mm), unit)} ${mm > 0 ? more : less}`;
  const slide = (
    path: string,
    label: string,
    mm: number,
    words: readonly [string, string],
    put: (mm: number) => Hairline,
  ) => (
    <div key={path} className={styles.ramp}>
      <span>
        {label}: <strong>{says(mm, ...words)}</strong>
      </span>
      <LengthSlider
        label={label}
        mm={mm}
        min={-farthest}
        max={farthest}
        says={says(mm, ...words)}
        place
        onChange={(v) => onChange(`hairline.${path}`, put(v))}
      />
      <RefusedHere path={`hairline.${path}`} />
    </div>
  );
  return (
    <>
      <p className={styles.lead}>
        A high forehead, a receding temple, a low nape: every plan for this head starts with it.
      </p>
      {slide("frontMm", "Front centre", hairline.frontMm, ["higher", "lower"], (frontMm) => ({
        ...hairline,
        frontMm,
      }))}
      {landmarks.flatMap(([name, label]) => [
        slide(`${name}.upMm`, label, hairline[name].upMm, ["higher", "lower"], (upMm) => ({
          ...hairline,
          [name]: { ...hairline[name], upMm },
        })),
        slide(
          `${name}.backMm`,
          `${label}, along`,
          hairline[name].backMm,
          ["further back", "further forward"],
          (backMm) => ({ ...hairline, [name]: { ...hairline[name], backMm } }),
        ),
      ])}
      {!isUsual(hairline) && <Button onClick={() => onChange(null, usualHairline)}>Usual hairline</Button>}
    </>
  );
}
