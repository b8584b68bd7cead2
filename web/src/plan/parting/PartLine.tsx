import { Segmented } from "antd";
import { memo } from "react";
import type { HeadShape, Part } from "../../api/types";
import { LengthSlider, RefusedHere, Toggle } from "../../ui/fields";
import { usePreferences } from "../../lib/preferences";
import { length, type LengthUnit } from "../../lib/units";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import steps from "../../ui/panel.module.css";
import styles from "./PartLine.module.css";

const kinds: Record<Part["kind"], string> = {
  middle: "Middle",
  side: "Side",
  diagonal: "Diagonal",
  none: "None",
  levels: "Levels",
};

const notes: Record<Part["kind"], string> = {
  middle: "Along the middle of the head.",
  side: "Beside the middle, at one distance from it.",
  diagonal: "It starts and ends at different distances from the middle.",
  none: "No part shows: front rows run from ear to ear.",
  levels: "Ring after ring along the hairline, to a short oval at the top.",
};

interface Props {
  part: Part;
  head: HeadShape;
  /** True where a base lies behind, which no part line cuts through. */
  based: boolean;
}

/** Where the part line runs and stops, and where the ear-to-ear part crosses. */
export const PartLine = memo(function PartLine({ part, head, based }: Props) {
  const unit = usePreferences((p) => p.unit);
  const act = useAct();
  const set = (group: string | null, part: Partial<Part>) =>
    act(actions.setPart(group && `parting.part.${group}`, part));
  const kind = (next: Part["kind"]) => {
    const off = part.offsetMm || 25.4;
    set(null, {
      kind: next,
      ...(next === "side" && { offsetMm: off }),
      ...(next === "diagonal" && { offsetMm: off, endOffsetMm: part.endOffsetMm }),
    });
  };
  const shows = part.kind === "middle" || part.kind === "side" || part.kind === "diagonal";
  const crown = head.toCrownMm;
  return (
    <section>
      <h3>Part line</h3>
      <Segmented<Part["kind"]>
        block
        className={styles.kinds ?? ""}
        aria-label="Part line"
        value={part.kind}
        options={(Object.keys(kinds) as Part["kind"][]).map((value) => ({ value, label: kinds[value] }))}
        onChange={kind}
      />
      <p className={steps.lead}>{notes[part.kind]}</p>
      <RefusedHere path="parting.part.kind" />
      {(part.kind === "side" || part.kind === "diagonal") && (
        <PlaceSlide
          label={part.kind === "side" ? "Off the middle" : "Starts at the hairline"}
          path="parting.part.offsetMm"
          says={besideMiddle(part.offsetMm, unit)}
          value={-part.offsetMm}
          min={-55}
          max={55}
          ends={["client’s left", "client’s right"]}
          onChange={(v) => set("offsetMm", { offsetMm: -v })}
        />
      )}
      {part.kind === "diagonal" && (
        <PlaceSlide
          label="Ends"
          path="parting.part.endOffsetMm"
          says={besideMiddle(part.endOffsetMm, unit)}
          value={-part.endOffsetMm}
          min={-55}
          max={55}
          ends={["client’s left", "client’s right"]}
          onChange={(v) => set("endOffsetMm", { endOffsetMm: -v })}
        />
      )}
      {shows && (
        <>
          <Toggle
            label={based ? "It stops off the ear-to-ear part" : "It stops before the nape"}
            note={
              based
                ? "In front of the crown, or on behind it; the base comes up to the stop."
                : "A section stands straight behind the stop, so no line opens there."
            }
            checked={part.stopMm > 0}
            onChange={(on) => set(null, { stopMm: on ? Math.round(crown) : 0 })}
          />
          {part.stopMm > 0 && (
            <PlaceSlide
              label="Stops"
              path="parting.part.stopMm"
              says={`${length(part.stopMm, unit)} from the front hairline`}
              value={part.stopMm}
              min={50}
              max={Math.round(head.middleMm - 70)}
              ends={["front", "nape"]}
              mark={{ at: crown, text: "crown" }}
              onChange={(v) => set("stopMm", { stopMm: v })}
            />
          )}
        </>
      )}
      {part.kind !== "levels" && (
        <PlaceSlide
          label="Ear-to-ear part"
          path="parting.part.earPartMm"
          says={
            Math.abs(part.earPartMm) < 1
              ? "straight over the top"
              : `${length(Math.abs(part.earPartMm), unit)} ${part.earPartMm > 0 ? "in front of" : "behind"} the top`
          }
          value={-part.earPartMm}
          min={-50}
          max={40}
          ends={["forward", "back"]}
          onChange={(v) => set("earPartMm", { earPartMm: -v })}
        />
      )}
    </section>
  );
});

const besideMiddle = (mm: number, unit: LengthUnit) =>
  Math.abs(mm) < 1
    ? "on the middle"
    : `${length(Math.abs(mm), unit)} to the client’s ${mm > 0 ? "left" : "right"}`;

interface SlideProps {
  label: string;
  path: string;
  says: string;
  value: number;
  min: number;
  max: number;
  ends: readonly [string, string];
  mark?: { at: number; text: string };
  onChange: (mm: number) => void;
}

/** A place on the head to slide, in eighths of an inch or in millimetres, 0 always among them. */
function PlaceSlide({ label, path, says, value, min, max, ends, mark, onChange }: SlideProps) {
  return (
    <div className={styles.slide}>
      <div>
        <span>{label}</span> <strong>{says}</strong>
      </div>
      <LengthSlider
        label={label}
        mm={value}
        min={min}
        max={max}
        says={says}
        marks={[{ at: min, text: ends[0] }, { at: max, text: ends[1] }, ...(mark ? [mark] : [])]}
        place
        onChange={onChange}
      />
      <RefusedHere path={path} />
    </div>
  );
}
