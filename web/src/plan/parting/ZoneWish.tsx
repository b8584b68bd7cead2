import { Segmented } from "antd";
import { memo, useCallback, useState } from "react";
import type { Catalogue, Wish } from "../../api/types";
import { SizeSlider, Toggle } from "../../ui/fields";
import { Slide } from "../../ui/Slide";
import { usePreferences } from "../../lib/preferences";
import { length } from "../../lib/units";
import { PatternIcon, patternNames, patternNotes } from "./patterns";
import styles from "../../ui/panel.module.css";

interface Props {
  /** The field of the parting that holds the wish. */
  zone: "front" | "back";
  name: string;
  /** Stands before the names of the zone's fields, where there are two of each. */
  prefix: string;
  /** Where rows start, from where widths may grow; none for rows that run all round the head. */
  from?: string | undefined;
  wish: Wish;
  limits: Catalogue["sizes"];
  onChange: ChangeWish;
}

/** Changes a zone's wish; control is the part being slid, or null for a choice. */
export type ChangeWish = (control: string | null, update: (wish: Wish) => Wish) => void;

/** How one zone is parted: pattern, section size, and whether sections grow. */
export const ZoneWish = memo(function ZoneWish({ zone, name, prefix, from, wish, limits, onChange }: Props) {
  const unit = usePreferences((p) => p.unit);
  const label = (text: string) => (prefix ? prefix + text.toLowerCase() : text);
  // Unequal sides are never shown as square, however they came about.
  const [asked, setApart] = useState(false);
  const apart = asked || Math.abs(wish.widthMm - wish.heightMm) > 0.01;
  const choosePreset = useCallback(
    (mm: number) => {
      setApart(false);
      onChange(null, (w) => ({ ...w, widthMm: mm, heightMm: mm }));
    },
    [onChange],
  );
  return (
    <section>
      <h3>{name}</h3>
      <PatternChoice name={name} pattern={wish.pattern} onChange={onChange} />
      <Presets
        name={name}
        presets={limits.presets}
        chosen={apart ? undefined : wish.widthMm}
        onChoose={choosePreset}
      />
      <SizeSlider
        label={label(apart ? "Section width" : "Section size")}
        path={`parting.${zone}.widthMm`}
        mm={wish.widthMm}
        min={limits.minMm}
        max={limits.maxMm}
        onChange={(mm) =>
          onChange("widthMm", (w) => ({ ...w, widthMm: mm, heightMm: apart ? w.heightMm : mm }))
        }
      />
      {apart && (
        <SizeSlider
          label={label("Section height")}
          path={`parting.${zone}.heightMm`}
          mm={wish.heightMm}
          min={limits.minMm}
          max={limits.maxMm}
          onChange={(mm) => onChange("heightMm", (w) => ({ ...w, heightMm: mm }))}
        />
      )}
      <Toggle
        label={label("Sections square")}
        checked={!apart}
        onChange={(square) => {
          setApart(!square);
          if (square) onChange(null, (w) => ({ ...w, heightMm: w.widthMm }));
        }}
      />
      <Ramp
        label={`How sections grow from the hairline up, ${name.toLowerCase()}`}
        says={
          wish.ramp === 1
            ? "One size in all rows"
            : `From ${length(wish.widthMm, unit)} at the hairline to ${length(wish.widthMm * wish.ramp, unit)} at the top`
        }
        field="ramp"
        value={wish.ramp}
        onChange={onChange}
      />
      {from && (
        <Ramp
          label={`How sections grow along a row, ${name.toLowerCase()}`}
          says={wish.along === 1 ? "One width along each row" : `Widths grow ${wish.along} times ${from}`}
          field="along"
          value={wish.along}
          onChange={onChange}
        />
      )}
    </section>
  );
});

interface PresetProps {
  name: string;
  presets: Catalogue["sizes"]["presets"];
  /** The size that is chosen, mm; none while width and height differ. */
  chosen: number | undefined;
  onChoose: (mm: number) => void;
}

/** Sizes by name and by number. */
const Presets = memo(function Presets({ name, presets, chosen, onChoose }: PresetProps) {
  const unit = usePreferences((p) => p.unit);
  return (
    <div className={styles.presets} role="group" aria-label={`Sizes by name, ${name.toLowerCase()}`}>
      {presets.map((p) => (
        <button
          key={p.name}
          type="button"
          aria-pressed={chosen !== undefined && Math.abs(chosen - p.sizeMm) < 0.01}
          onClick={() => onChoose(p.sizeMm)}
        >
          <strong>{length(p.sizeMm, unit)}</strong>
          {p.name}
        </button>
      ))}
    </div>
  );
});

interface RampProps {
  label: string;
  says: string;
  field: "ramp" | "along";
  value: number;
  onChange: ChangeWish;
}

/** By what factor sections grow; it is drawn anew only when it changes. */
const Ramp = memo(function Ramp({ label, says, field, value, onChange }: RampProps) {
  return (
    <div className={styles.ramp}>
      <span>{says}</span>
      <Slide
        label={label}
        says={`${value} times`}
        value={Math.round(value * perTime)}
        min={perTime / 2}
        max={perTime * 2}
        marks={evenMark}
        onChange={(steps) => onChange(field, (w) => ({ ...w, [field]: steps / perTime }))}
      />
    </div>
  );
});

const perTime = 20; // steps of the slider
const evenMark = [{ at: perTime, text: "even" }];

interface PatternProps {
  name: string;
  pattern: Wish["pattern"];
  onChange: ChangeWish;
}

const PatternChoice = memo(function PatternChoice({ name, pattern, onChange }: PatternProps) {
  return (
    <>
      <Segmented<Wish["pattern"]>
        block
        aria-label={`Pattern, ${name.toLowerCase()}`}
        className={styles.patterns ?? ""}
        value={pattern}
        options={(Object.keys(patternNames) as Wish["pattern"][]).map((value) => ({
          value,
          label: (
            <span className={styles.patternLabel}>
              <PatternIcon pattern={value} />
              {patternNames[value]}
            </span>
          ),
        }))}
        onChange={(next) => onChange(null, (w) => ({ ...w, pattern: next }))}
      />
      <p className={styles.lead}>{patternNotes[pattern]}</p>
    </>
  );
});
