import { Button } from "antd";
import { memo, useCallback, useState } from "react";
import { server } from "../api/client";
import { queryClient, useChange, useClient, useMay } from "../api/queries";
import type { Catalogue, Layout, PlanInput, PlanResult, Wish } from "../api/types";
import { zoneName } from "../head";
import { usePreferences } from "../lib/preferences";
import { useSettled } from "../lib/settled";
import { area, length } from "../lib/units";
import { LengthSlider, RefusedHere, Toggle } from "../ui/fields";
import { isUsual, usualHairline } from "../ui/HairlineFields";
import styles from "../ui/panel.module.css";
import { Parts } from "../ui/Parts";
import { Trouble } from "../ui/Trouble";
import { useAct } from "./act";
import { actions, type Variant } from "./actions";
import { Balance } from "./Balance";
import { BaseWish } from "./BaseWish";
import { EditList } from "./byhand/EditList";
import type { Draft } from "./draft";
import { FitCount } from "./FitCount";
import { PartLine } from "./PartLine";
import { patternNames } from "./patterns";
import { RowGuide } from "./RowGuide";
import { StructureChoice } from "./StructureChoice";
import { structures } from "./structures";
import { TrackTable } from "./TrackTable";
import { TradeOff } from "./TradeOff";
import { Variants } from "./Variants";
import { ZoneWish, type ChangeWish } from "./ZoneWish";

interface Props {
  draft: Draft;
  result: PlanResult;
  catalogue: Catalogue;
}

const restTime = 300; // ms
const none: Variant[] = [];

const same = (a: Wish, b: Wish) => JSON.stringify(a) === JSON.stringify(b);

const partNames = {
  middle: "middle part",
  side: "side part",
  diagonal: "diagonal part",
  none: "no part",
  levels: "levels",
} as const;

/** How the head is parted: structure, sizes, counts, and what comes of them. */
export const PartingStep = memo(function PartingStep({ draft, result, catalogue }: Props) {
  const { input } = draft;
  const { parting } = input;
  const { front, back } = parting;
  const act = useAct();
  const unit = usePreferences((p) => p.unit);
  // What is not looked at while a size slides waits until it rests.
  const still = useSettled(input, restTime);
  const [wanted, setAlike] = useState(same(front, back));
  const alike = wanted && same(front, back);
  const onFront: ChangeWish = useCallback(
    (group, update) => act(actions.setWish("front", alike, group && `parting.front.${group}`, update)),
    [act, alike],
  );
  const onBack: ChangeWish = useCallback(
    (group, update) => act(actions.setWish("back", false, group && `parting.back.${group}`, update)),
    [act],
  );
  const [guide, setGuide] = useState(false);
  const rings = parting.part.kind === "levels";
  const rule = catalogue.structures.find((r) => r.structure === parting.structure);
  // Where no back is parted into sections, one size is enough.
  const based = rule?.base ?? false;
  const backless = rings || (based && parting.base.kind !== "linked" && !parting.napeGuard);
  const size = (w: Wish) =>
    same({ ...w, widthMm: w.heightMm }, w)
      ? length(w.widthMm, unit)
      : `${length(w.widthMm, unit)} × ${length(w.heightMm, unit)}`;
  const changes = parting.edits.length + parting.leftOut.length;
  const { rejected, leftOut } = result.layout;
  return (
    <>
      <Parts
        step="parting"
        parts={[
          {
            key: "structure",
            title: "Structure",
            says: `${structures[parting.structure].name}, ${partNames[parting.part.kind]}`,
            paths: [
              "parting.structure",
              "parting.part",
              "parting.base",
              "parting.rows",
              "parting.perSide",
              "parting.design",
            ],
            content: (
              <>
                <StructureChoice structure={parting.structure} rules={catalogue.structures} />
                {parting.structure !== "perimeter" && (
                  <PartLine part={parting.part} head={result.head} based={based} />
                )}
                <BaseWish settings={parting} rule={rule} />
              </>
            ),
          },
          {
            key: "sizes",
            title: "Sizes",
            says:
              alike || backless
                ? `${patternNames[front.pattern]}, ${size(front)}`
                : `${size(front)} in front, ${size(back)} behind`,
            paths: ["parting.front", "parting.back"],
            content: (
              <>
                {!backless && (
                  <Toggle
                    label="Front and back alike"
                    checked={alike}
                    onChange={(on) => {
                      setAlike(on);
                      if (on) act(actions.backAsFront());
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
              </>
            ),
          },
          {
            key: "count",
            title: "Count",
            says: `${result.tally.sections} sections`,
            content: (
              <>
                <FitCount input={still} sections={result.tally.sections} />
                <TradeOff input={still} />
              </>
            ),
          },
          {
            key: "byhand",
            title: "By hand",
            says:
              rejected.length > 0
                ? `${rejected.length} no longer ${rejected.length === 1 ? "fits" : "fit"}`
                : changes + leftOut.length === 0
                  ? "nothing changed"
                  : `${changes} ${changes === 1 ? "change" : "changes"}`,
            paths: ["parting.edits", "parting.leftOut", "parting.edgesMm", "hairline"],
            content: (
              <>
                <EditList edits={parting.edits} leftOut={parting.leftOut} layout={result.layout} />
                <HairlineWish input={input} clientId={draft.clientId} />
              </>
            ),
          },
          {
            key: "read",
            title: "Read",
            says: `${result.tally.rows} rows, ${area(result.layout.areaMm2, unit)}`,
            content: (
              <>
                <Outcome layout={result.layout} />
                <Button size="large" onClick={() => setGuide(true)}>
                  At the mirror: row guide
                </Button>
              </>
            ),
          },
          {
            key: "compare",
            title: "Compare",
            says: draft.variants?.length ? `${draft.variants.length} pinned` : "nothing pinned",
            content: (
              <Variants
                variants={draft.variants ?? none}
                input={still}
                sections={result.tally.sections}
                backless={backless}
              />
            ),
          },
        ]}
      />
      {guide && <RowGuide input={input} layout={result.layout} onClose={() => setGuide(false)} />}
    </>
  );
});

/** The counts and what there is to know about the parts. */
const Outcome = memo(function Outcome({ layout }: { layout: Layout }) {
  const unit = usePreferences((p) => p.unit);
  const edited = new Set(layout.sections.filter((s) => s.edited).map((s) => `${s.zone}${s.row}`));
  return (
    <>
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
                  .map((r) => `${r.sections}${edited.has(`${r.zone}${r.row}`) ? "*" : ""}`)
                  .join(" · ")}
              </td>
              <td>{z.sections}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {edited.size > 0 && <p className={styles.lead}>* joined, split or left out by hand</p>}
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
        <dd>{area(layout.areaMm2 / Math.max(1, layout.sections.length), unit)}</dd>
      </dl>
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
    </>
  );
});

/** How the hairline departs from the usual one, and how much of it is left alone. */
function HairlineWish({ input, clientId }: { input: PlanInput; clientId: string | undefined }) {
  const unit = usePreferences((p) => p.unit);
  const act = useAct();
  const { hairline, parting } = input;
  const edges = parting.edgesMm;
  return (
    <section>
      <h3>Hairline and edges</h3>
      <p className={styles.lead}>
        {isUsual(hairline)
          ? "The usual hairline. A high forehead, a peak, a receding temple or a low nape: choose Hairline above the head and drag its dots."
          : "The hairline is drawn as it was dragged, or as the client’s card has it."}
      </p>
      {!isUsual(hairline) && (
        <Button onClick={() => act(actions.setHairline(null, usualHairline))}>
          Back to the usual hairline
        </Button>
      )}
      {clientId !== undefined && <KeepOnCard clientId={clientId} hairline={hairline} />}
      <div>
        <span>
          {edges > 0 ? `${length(edges, unit)} of edges left out all round` : "Edges are plaited in"}
        </span>
        <LengthSlider
          label="Edges left out all round"
          mm={edges}
          min={0}
          max={unit === "in" ? 25.4 : 20}
          onChange={(edgesMm) => act(actions.setParting("parting.edgesMm", { edgesMm }))}
        />
        <RefusedHere path="parting.edgesMm" />
      </div>
    </section>
  );
}

/** Writes the hairline on the client's card, where it belongs. */
function KeepOnCard({ clientId, hairline }: { clientId: string; hairline: PlanInput["hairline"] }) {
  const mayKeep = useMay("saveClient");
  const client = useClient(clientId).data;
  const keep = useChange(async () => {
    const { name, archived, facts, version } = await server.client(clientId);
    await server.saveClient(clientId, version, { name, archived, facts: { ...facts, hairline } });
    await queryClient.invalidateQueries({ queryKey: ["client", clientId] });
  });
  if (!client || !mayKeep || JSON.stringify(client.facts.hairline) === JSON.stringify(hairline)) return null;
  return (
    <>
      <Button loading={keep.isPending} onClick={() => keep.mutate(undefined)}>
        Keep it on {client.name}’s card
      </Button>
      {keep.error && <Trouble error={keep.error} />}
    </>
  );
}

const sideless = (zone: string) => zoneName(zone).split(" ")[0];
