import { Segmented } from "antd";
import type { Catalogue, Item } from "../api/types";
import { LengthField, NumberField, Toggle } from "../ui/fields";
import fields from "../ui/panel.module.css";
import { pieceEnds } from "../ui/pieceEnds";

interface FactsProps {
  item: Item;
  unit: string;
  loose: boolean;
  fibres: Catalogue["fibres"];
  set: (control: string | null, part: Partial<Item>) => void;
}

/** What hair is like: how long, how thick, how heavy, and how it bends. */
export function HairFacts({ item, unit, loose, fibres, set }: FactsProps) {
  return (
    <>
      <LengthField
        label={loose ? "Length in the pack" : "Hanging length"}
        path="lengthMm"
        mm={item.lengthMm}
        onChange={(lengthMm) => set("length", { lengthMm })}
      />
      {loose && (
        <Toggle
          label="Lies folded in the pack"
          note="opened out a strand is twice as long"
          checked={item.folded}
          onChange={(folded) => set(null, { folded })}
        />
      )}
      {item.kind !== "wrapping-hair" && (
        <NumberField
          label="Thickness as it hangs"
          path="thicknessMm"
          unit="mm"
          step={0.5}
          value={item.thicknessMm}
          onChange={(thicknessMm) => set("thickness", { thicknessMm })}
        />
      )}
      <NumberField
        label={`Weight of one ${unit}`}
        path="massG"
        unit="g"
        step={0.1}
        value={item.massG}
        onChange={(massG) => set("mass", { massG })}
      />
      {!loose && (
        <NumberField
          label="Its loop opens"
          path="loopMm"
          help="When stretched; 0 if you have not measured it"
          unit="mm"
          step={0.5}
          value={item.loopMm}
          onChange={(loopMm) => set("loop", { loopMm })}
        />
      )}
      <label className={fields.stack}>
        <span>How it bends</span>
        <Segmented<Item["stiffness"]>
          block
          value={item.stiffness}
          options={[
            { value: "", label: "Not felt" },
            { value: "supple", label: "Supple" },
            { value: "firm", label: "Firm" },
            { value: "stiff", label: "Stiff" },
          ]}
          onChange={(stiffness) => set(null, { stiffness })}
        />
      </label>
      <label className={fields.stack}>
        <span>Its ends</span>
        <Segmented<NonNullable<Item["ends"]>>
          block
          value={item.ends ?? ""}
          options={pieceEnds}
          onChange={(ends) => set(null, { ends })}
        />
      </label>
      <label className={fields.stack}>
        <span>Fibre</span>
        <Segmented<Item["fibre"]>
          block
          value={item.fibre}
          options={fibres.map((f) => ({ value: f.fibre, label: f.name }))}
          onChange={(fibre) => set(null, { fibre })}
        />
      </label>
      <p className={fields.lead}>{fibres.find((f) => f.fibre === item.fibre)?.care}</p>
      <Toggle
        label="Coated"
        note="its coating irritates some scalps: rinse and dry it before use"
        checked={item.coated}
        onChange={(coated) => set(null, { coated })}
      />
    </>
  );
}
