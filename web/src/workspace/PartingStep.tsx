import { Button } from "antd";
import { memo, useCallback, useState } from "react";
import type { Catalogue, Hairline, Layout, PlanResult, Wish } from "../api/types";
import { LengthSlider, RefusedHere, Toggle } from "../app/fields";
import { usePreferences } from "../app/preferences";
import { area, length } from "../app/units";
import { EditList } from "../byhand/EditList";
import { zoneName } from "../head/names";
import { useSettled } from "../app/settled";
import type { ChangeDraft } from "../app/undoable";
import { Balance } from "./Balance";
import { BaseWish } from "./BaseWish";
import type { Change, Draft } from "./draft";
import { FitCount } from "./FitCount";
import { PartLine } from "./PartLine";
import { RowGuide } from "./RowGuide";
import styles from "./steps.module.css";
import { StructureChoice } from "./StructureChoice";
import { TrackTable } from "./TrackTable";
import { TradeOff } from "./TradeOff";
import { Variants, type Variant } from "./Variants";
import { ZoneWish, type ChangeWish } from "./ZoneWish";

interface Props {
  draft: Draft;
  result: PlanResult;
  catalogue: Catalogue;
  change: Change;
  changeDraft: ChangeDraft<Draft>;
}

const restTime = 300; // ms
const none: Variant[] = [];

const same = (a: Wish, b: Wish) => JSON.stringify(a) === JSON.stringify(b);

/** How the head is parted: patterns, sizes, and what comes of them. */
export function PartingStep({ draft, result, catalogue, change, changeDraft }: Props) {
  const { input } = draft;
  const { front, back } = input.parting;
  // What is not looked at while a size slides waits until it rests.
  const still = useSettled(input, restTime);
  const [wanted, setAlike] = useState(same(front, back));
  const alike = wanted && same(front, back);
  const onFront: ChangeWish = useCallback(
    (control, update) =>
      change(control && `parting.front.${control}`, (i) => {
        const wish = update(i.parting.front);
        return { ...i, parting: { ...i.parting, front: wish, back: alike ? wish : i.parting.back } };
      }),
    [change, alike],
  );
  const onBack: ChangeWish = useCallback(
    (control, update) =>
      change(control && `parting.back.${control}`, (i) => ({
        ...i,
        parting: { ...i.parting, back: update(i.parting.back) },
      })),
    [change],
  );
  const { parting } = input;
  const rings = parting.part.kind === "levels";
  const rule = catalogue.structures.find((r) => r.structure === parting.structure);
  // Where no back is parted into sections, one size is enough.
  const based = rule?.base ?? false;
  const backless = rings || (based && parting.base.kind !== "linked" && !parting.napeGuard);
  return (
    <div className={styles.step}>
      <StructureChoice structure={parting.structure} rules={catalogue.structures} change={change} />
      {parting.structure !== "perimeter" && (
        <PartLine part={parting.part} middle={input.head.frontToNapeMm} based={based} change={change} />
      )}
      <BaseWish settings={parting} rule={rule} change={change} />
      {!backless && (
        <Toggle
          label="Front and back alike"
          checked={alike}
          onChange={(on) => {
            setAlike(on);
            if (on) change(null, (i) => ({ ...i, parting: { ...i.parting, back: i.parting.front } }));
          }}
        />
      )}
      <ZoneWish
        key={alike || backless ? "all" : "front"}
        zone="front"
        name={backless && !rings ? "Individuals" : alike || backless ? "All over" : "Front"}
        prefix={alike || backless ? "" : "Front "}
        from={
          rings || parting.structure === "perimeter"
            ? undefined
            : parting.part.kind === "none"
              ? "from the middle out"
              : "from the hairline back"
        }
        wish={front}
        limits={catalogue.sizes}
        onChange={onFront}
      />
      {!alike && !backless && (
        <ZoneWish
          zone="back"
          name="Back"
          prefix="Back "
          from="from the middle out"
          wish={back}
          limits={catalogue.sizes}
          onChange={onBack}
        />
      )}
      <Outcome layout={result.layout} />
      <EditList edits={parting.edits} leftOut={parting.leftOut} layout={result.layout} change={change} />
      <HairlineWish hairline={input.hairline} edges={parting.edgesMm} change={change} />
      <Variants
        variants={draft.variants ?? none}
        input={still}
        sections={result.tally.sections}
        backless={backless}
        change={changeDraft}
      />
      <FitCount input={still} sections={result.tally.sections} change={change} />
      <TradeOff input={still} change={change} />
    </div>
  );
}

/** The counts and what there is to know about the parts. */
const Outcome = memo(function Outcome({ layout }: { layout: Layout }) {
  const unit = usePreferences((p) => p.unit);
  const { stagger } = layout;
  const [guide, setGuide] = useState(false);
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
                  .map((r) => `${r.sections}${r.edited ? "*" : ""}`)
                  .join(" · ")}
              </td>
              <td>{z.sections}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {layout.rows.some((r) => r.edited) && (
        <p className={styles.lead}>* joined, split or left out by hand</p>
      )}
      <Balance balance={layout.balance} />
      <TrackTable layout={layout} />
      <dl className={styles.facts}>
        <dt>Scalp in sections</dt>
        <dd>{area(layout.areaMm2, unit)}</dd>
        {layout.baseAreaMm2 > 0 && (
          <>
            <dt>Scalp on the base</dt>
            <dd>{area(layout.baseAreaMm2, unit)}</dd>
          </>
        )}
        {layout.leftOut.length > 0 && (
          <>
            <dt>Left out</dt>
            <dd>
              {layout.leftOut.length} {layout.leftOut.length === 1 ? "section" : "sections"},{" "}
              {area(layout.outAreaMm2, unit)}
            </dd>
          </>
        )}
        <dt>A typical section</dt>
        <dd>{area(layout.areaMm2 / layout.sections.length, unit)}</dd>
      </dl>
      {stagger.mean > 0 && (
        <p className={styles.lead}>
          Where hair shall fall between, a part ends {percent(stagger.mean)} of a section away from the parts
          of the next row, {percent(stagger.min)} at the least: half is a perfect brick, under a quarter can
          open.
        </p>
      )}
      <dl className={styles.facts}>
        {layout.seams.length > 0 && (
          <>
            <dt>Column seams, both sides</dt>
            <dd>
              {layout.seams
                .filter((s) => !s.zone.endsWith("R") || s.zone === "R")
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
      <Button size="large" onClick={() => setGuide(true)}>
        At the mirror: row guide
      </Button>
      {guide && <RowGuide layout={layout} onClose={() => setGuide(false)} />}
    </section>
  );
});

interface HairlineProps {
  hairline: Hairline;
  edges: number;
  change: Change;
}

const usual: Hairline = (() => {
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

/** How the hairline departs from the usual one, and how much of it is left alone. */
const HairlineWish = memo(function HairlineWish({ hairline, edges, change }: HairlineProps) {
  const unit = usePreferences((p) => p.unit);
  const moved = JSON.stringify(hairline) !== JSON.stringify(usual);
  return (
    <section>
      <h2>Hairline and edges</h2>
      <p className={styles.lead}>
        {moved
          ? "The hairline is drawn as it was dragged."
          : "The usual hairline. A high forehead, a peak, a receding temple or a low nape: choose Hairline above the head and drag its dots."}
      </p>
      {moved && (
        <Button onClick={() => change(null, (i) => ({ ...i, hairline: usual }))}>
          Back to the usual hairline
        </Button>
      )}
      <div>
        <span>
          {edges > 0 ? `${length(edges, unit)} of edges left out all round` : "Edges are plaited in"}
        </span>
        <LengthSlider
          label="Edges left out all round"
          mm={edges}
          min={0}
          max={unit === "in" ? 25.4 : 20}
          onChange={(mm) =>
            change("parting.edgesMm", (i) => ({ ...i, parting: { ...i.parting, edgesMm: mm } }))
          }
        />
        <RefusedHere path="parting.edgesMm" />
      </div>
    </section>
  );
});

const sideless = (zone: string) => zoneName(zone).split(" ")[0];

const percent = (share: number) => `${Math.round(share * 100)} %`;
