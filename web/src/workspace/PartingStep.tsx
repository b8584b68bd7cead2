import { Button, Switch } from "antd";
import { memo, useCallback, useState } from "react";
import type { Catalogue, Layout, PlanResult, Wish } from "../api/types";
import { usePreferences } from "../app/preferences";
import { area, length } from "../app/units";
import { zoneName } from "../head/names";
import { useSettled } from "../app/settled";
import type { ChangeDraft } from "../app/undoable";
import type { Change, Draft } from "./draft";
import { FitCount } from "./FitCount";
import { RowGuide } from "./RowGuide";
import styles from "./steps.module.css";
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
        return { ...i, parting: { front: wish, back: alike ? wish : i.parting.back } };
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
  return (
    <div className={styles.step}>
      <label className={styles.toggle}>
        <Switch
          checked={alike}
          onChange={(on) => {
            setAlike(on);
            if (on)
              change(null, (i) => ({ ...i, parting: { front: i.parting.front, back: i.parting.front } }));
          }}
        />
        <span>Front and back alike</span>
      </label>
      <ZoneWish
        key={alike ? "all" : "front"}
        zone="front"
        name={alike ? "All over" : "Front"}
        prefix={alike ? "" : "Front "}
        wish={front}
        limits={catalogue.sizes}
        onChange={onFront}
      />
      {!alike && (
        <ZoneWish
          zone="back"
          name="Back"
          prefix="Back "
          wish={back}
          limits={catalogue.sizes}
          onChange={onBack}
        />
      )}
      <Outcome layout={result.layout} />
      <Variants
        variants={draft.variants ?? none}
        input={still}
        sections={result.tally.sections}
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
        {stagger.mean > 0 && (
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
      <Button size="large" onClick={() => setGuide(true)}>
        At the mirror: row guide
      </Button>
      {guide && <RowGuide layout={layout} onClose={() => setGuide(false)} />}
    </section>
  );
});

const sideless = (zone: string) => zoneName(zone).split(" ")[0];

const percent = (share: number) => `${Math.round(share * 100)} %`;
