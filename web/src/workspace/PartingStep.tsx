import { Checkbox, Segmented } from "antd";
import { memo, useState } from "react";
import type { Catalogue, Layout, PlanInput, PlanResult, Size } from "../api/types";
import { usePreferences } from "../app/preferences";
import { area, length } from "../app/units";
import { zoneName } from "../head/names";
import type { Change } from "./draft";
import { SizeSlider } from "../app/fields";
import styles from "./steps.module.css";

interface Props {
  input: PlanInput;
  result: PlanResult;
  catalogue: Catalogue;
  change: Change;
}

const PatternIcon = ({ brick }: { brick: boolean }) => (
  <svg viewBox="0 0 44 28" width="44" height="28" aria-hidden className={styles.patternIcon}>
    <path
      d={
        brick
          ? "M2 10h40M2 19h40M15 1v9M29 1v9M8 10v9M22 10v9M36 10v9M15 19v8M29 19v8"
          : "M2 10h40M2 19h40M12 1v26M22 1v26M32 1v26"
      }
    />
  </svg>
);

/** How the head is parted: pattern, sizes, and what comes of them. */
export function PartingStep({ input, result, catalogue, change }: Props) {
  const { parting } = input;
  return (
    <div className={styles.step}>
      <PatternChoice pattern={parting.pattern} change={change} />
      <section>
        <h2>Section size</h2>
        <ZoneSize zone="front" size={parting.front} limits={catalogue.sizes} change={change} />
        <ZoneSize zone="back" size={parting.back} limits={catalogue.sizes} change={change} />
      </section>
      <Outcome layout={result.layout} brick={parting.pattern === "brick"} />
    </div>
  );
}

type Pattern = PlanInput["parting"]["pattern"];

const PatternChoice = memo(function PatternChoice({ pattern, change }: { pattern: Pattern; change: Change }) {
  return (
    <section>
      <h2>Pattern</h2>
      <Segmented<Pattern>
        block
        value={pattern}
        options={[
          { value: "grid", label: <PatternLabel name="Grid" brick={false} /> },
          { value: "brick", label: <PatternLabel name="Brick" brick /> },
        ]}
        onChange={(next) => change(null, (i) => ({ ...i, parting: { ...i.parting, pattern: next } }))}
      />
      <p className={styles.lead}>
        {pattern === "grid"
          ? "Parts of neighbouring rows line up: clean lines, on purpose."
          : "Each section sits over the part of the next row, so hair falls between and no line opens."}
      </p>
    </section>
  );
});

/** The counts and what there is to know about the parts. */
const Outcome = memo(function Outcome({ layout, brick }: { layout: Layout; brick: boolean }) {
  const unit = usePreferences((p) => p.unit);
  const { stagger } = layout;
  return (
    <section>
      <h2>What comes of it</h2>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Zone</th>
            <th scope="col">Sections by row, lowest first</th>
            <th scope="col">All</th>
          </tr>
        </thead>
        <tbody>
          {layout.zones.map((z) => (
            <tr key={z.zone}>
              <th scope="row">{zoneName(z.zone)}</th>
              <td className={styles.rows}>
                {layout.rows
                  .filter((r) => r.zone === z.zone)
                  .map((r) => r.sections)
                  .join(" · ")}
              </td>
              <td>{z.sections}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <dl className={styles.facts}>
        <dt>Scalp under hair</dt>
        <dd>{area(layout.areaMm2, unit)}</dd>
        <dt>A typical section</dt>
        <dd>{area(layout.areaMm2 / layout.sections.length, unit)}</dd>
        {brick && (
          <>
            <dt>Parts stand off the next row by</dt>
            <dd>
              {percent(stagger.mean)}, at least {percent(stagger.min)} of a section
            </dd>
          </>
        )}
        {layout.seams.length > 0 && (
          <>
            <dt>Column seams, both sides</dt>
            <dd>
              {layout.seams
                .filter((s) => s.zone.endsWith("L"))
                .map((s) => `${sideless(s.zone)} above row ${s.belowRow}: ${s.below} to ${s.above}`)
                .join("; ")}
            </dd>
          </>
        )}
        {layout.channels.length > 0 && (
          <>
            <dt>Straight channels</dt>
            <dd>
              {layout.channels.length}, the longest{" "}
              {length(Math.max(...layout.channels.map((c) => c.lengthMm)), unit)}
            </dd>
          </>
        )}
      </dl>
    </section>
  );
});

const sideless = (zone: string) => zoneName(zone).split(" ")[0];

const percent = (share: number) => `${Math.round(share * 100)} %`;

const PatternLabel = ({ name, brick }: { name: string; brick: boolean }) => (
  <span className={styles.patternLabel}>
    <PatternIcon brick={brick} />
    {name}
  </span>
);

interface ZoneSizeProps {
  zone: "front" | "back";
  size: Size;
  limits: Catalogue["sizes"];
  change: Change;
}

const zoneLabels = { front: "Front", back: "Back" };

/** Width and height of a zone's sections: one size for a square, two when they differ. */
const ZoneSize = memo(function ZoneSize({ zone, size, limits, change }: ZoneSizeProps) {
  const [apart, setApart] = useState(size.widthMm !== size.heightMm);
  const name = zoneLabels[zone];
  const put = (part: keyof Size | null, next: Size) =>
    change(part && `parting.${zone}.${part}`, (i) => ({ ...i, parting: { ...i.parting, [zone]: next } }));
  return (
    <div className={styles.zoneSize}>
      <SizeSlider
        label={apart ? `${name}, width` : name}
        path={`parting.${zone}.widthMm`}
        mm={size.widthMm}
        min={limits.minMm}
        max={limits.maxMm}
        onChange={(mm) => put("widthMm", { widthMm: mm, heightMm: apart ? size.heightMm : mm })}
      />
      {apart && (
        <SizeSlider
          label={`${name}, height`}
          path={`parting.${zone}.heightMm`}
          mm={size.heightMm}
          min={limits.minMm}
          max={limits.maxMm}
          onChange={(mm) => put("heightMm", { ...size, heightMm: mm })}
        />
      )}
      <Checkbox
        checked={!apart}
        onChange={(event) => {
          setApart(!event.target.checked);
          if (event.target.checked) put(null, { ...size, heightMm: size.widthMm });
        }}
      >
        {name} sections square
      </Checkbox>
    </div>
  );
});
