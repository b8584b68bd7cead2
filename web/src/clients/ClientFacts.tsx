import { Input, Select } from "antd";
import type { Facts } from "../api/types";
import { localDay } from "../lib/localDay";
import { LengthField, Toggle } from "../ui/fields";
import { HairFields } from "../ui/HairFields";
import { choices, productNames } from "../ui/hairNames";
import steps from "../ui/panel.module.css";

interface FactsProps {
  facts: Facts;
  set: (control: string | null, part: Partial<Facts>) => void;
}

/** The client's own hair, by zone. */
export function HairFacts({ facts, set }: FactsProps) {
  const { hair } = facts;
  return (
    <section>
      <h2>The client’s hair, stretched</h2>
      <HairFields
        hair={hair}
        mayBeOpen
        onChange={(control, part) => set(control, { hair: { ...hair, ...part } })}
      />
    </section>
  );
}

const events: Record<Facts["history"][number], string> = {
  "sore-scalp": "Sore, broken or infected scalp",
  "hair-loss": "Hair loss",
  chemical: "Recent chemical service",
  "product-allergy": "Product allergy",
  "fibre-itch": "Itched from fibre coating",
  "pain-before": "An earlier install hurt",
  "heat-damage": "Heat damage",
};

/** What every plan for the client is careful of. */
export function CautionFacts({ facts, set }: FactsProps) {
  return (
    <section>
      <h2>What calls for caution</h2>
      <p className={steps.lead}>
        Every plan for the client shows what these mean. They are usual practice, not medical advice: with
        sore scalp or hair loss, refer to a clinician.
      </p>
      <Select
        mode="multiple"
        aria-label="What calls for caution"
        placeholder="Nothing known"
        value={facts.history}
        options={choices(events)}
        onChange={(history: Facts["history"]) => set(null, { history })}
      />
      <Select
        mode="multiple"
        aria-label="Allergic to"
        placeholder="Allergic to none of the products"
        value={facts.allergies ?? []}
        options={choices(productNames)}
        onChange={(allergies: NonNullable<Facts["allergies"]>) => set(null, { allergies })}
      />
    </section>
  );
}

/** What is kept of a client only with consent. */
const keepings = [
  { key: "health", label: "Notes on scalp and hair", note: "what is seen while a head is worn" },
  { key: "photos", label: "Pictures", note: "each is asked for once more when it is taken" },
] as const;

/** Whom to reach, who decides, and what was agreed to. */
export function PersonFacts({ facts, set }: FactsProps) {
  const { consent } = facts;
  const agree = (control: string | null, part: Partial<Facts["consent"]>) =>
    set(control, { consent: { ...consent, ...part } });
  return (
    <section>
      <h2>The person</h2>
      <LengthField
        label="Height, standing"
        path="statureMm"
        empty
        mm={facts.statureMm}
        onChange={(statureMm) => set("stature", { statureMm })}
      />
      <label className={steps.stack}>
        <span>How to reach the client</span>
        <Input
          value={facts.contact}
          maxLength={200}
          onChange={(event) => set("contact", { contact: event.target.value })}
        />
      </label>
      <label className={steps.stack}>
        <span>
          Guardian <small>for a child: who decides</small>
        </span>
        <Input
          value={facts.guardian}
          maxLength={120}
          onChange={(event) => set("guardian", { guardian: event.target.value })}
        />
      </label>
      <label className={steps.stack}>
        <span>Notes</span>
        <Input.TextArea
          value={facts.notes}
          maxLength={4000}
          rows={4}
          onChange={(event) => set("notes", { notes: event.target.value })}
        />
      </label>
      <Toggle
        label="Consent given"
        note="to the work and to keeping these notes; rules differ by place"
        checked={consent.given}
        onChange={(given) => agree(null, { given, on: given ? localDay() : "" })}
      />
      {consent.given && (
        <>
          <label className={steps.stack}>
            <span>On</span>
            <Input
              type="date"
              value={consent.on}
              onChange={(event) => agree("consent.on", { on: event.target.value })}
            />
          </label>
          <label className={steps.stack}>
            <span>To what</span>
            <Input
              value={consent.covers}
              maxLength={500}
              onChange={(event) => agree("consent.covers", { covers: event.target.value })}
            />
          </label>
          {keepings.map(({ key, label, note }) => (
            <Toggle
              key={key}
              label={label}
              note={note}
              checked={!consent.withheld?.includes(key)}
              onChange={(agreed) => {
                const others = (consent.withheld ?? []).filter((k) => k !== key);
                agree(null, { withheld: agreed ? others : [...others, key] });
              }}
            />
          ))}
        </>
      )}
    </section>
  );
}
