import { Alert, Button, Skeleton } from "antd";
import Input from "antd/es/input/Input";
import TextArea from "antd/es/input/TextArea";
import { useState } from "react";
import { Refusal, server } from "../api/client";
import { useChange, useCurrency, useHouse, useMay, usePeople } from "../api/queries";
import type { HouseDocument, Terms as StudioTerms } from "../api/types";
import { omit } from "../lib/omit";
import { minorUnits } from "../lib/units";
import { FieldErrors, NumberField, Toggle } from "../ui/fields";
import { toldOf } from "../ui/Trouble";
import styles from "./HouseRulesPage.module.css";

/** What the studio asks for its work: hours, tax, deposit, and what stands on every quote. */
export function Terms() {
  const house = useHouse();
  return (
    <section className={styles.sheet} aria-label="Prices and quotes">
      <h2>Prices and quotes</h2>
      <p className={styles.note}>
        For new quotes. Those that were given stay as they are. Tax rules differ by place: check yours.
      </p>
      {house.data ? <Fields key={house.data.version} house={house.data} /> : <Skeleton active />}
    </section>
  );
}

function Fields({ house }: { house: HouseDocument }) {
  const may = useMay("saveHouse");
  const currency = useCurrency();
  const people = usePeople().data ?? [];
  const whole = minorUnits(currency);
  const [terms, setTerms] = useState<StudioTerms>(house.asks);
  const save = useChange(server.saveHouse, "house", "price");
  const set = (part: Partial<StudioTerms>) => setTerms((t) => ({ ...t, ...part }));
  const changed = JSON.stringify(terms) !== JSON.stringify(house.asks);
  const errors = save.error instanceof Refusal ? save.error.fields : {};
  const rateOf = (id: string) => terms.ratesMinor?.[id] ?? terms.rateMinor;
  const setRate = (id: string, minor: number) => {
    const others = omit(terms.ratesMinor ?? {}, id);
    set({ ratesMinor: minor === terms.rateMinor ? others : { ...others, [id]: minor } });
  };
  return (
    <FieldErrors
      value={Object.fromEntries(Object.entries(errors).map(([path, e]) => [path.replace(/^terms\./, ""), e]))}
    >
      <fieldset className={styles.terms} disabled={!may}>
        <label className={styles.rule}>
          <span>What the studio is called on a quote</span>
          <Input value={terms.name} maxLength={120} onChange={(event) => set({ name: event.target.value })} />
        </label>
        <NumberField
          label="An hour's work"
          path="rateMinor"
          unit={currency}
          value={terms.rateMinor / whole}
          onChange={(v) => set({ rateMinor: Math.round(v * whole) })}
        />
        {people.length > 1 &&
          people.map((p) => (
            <NumberField
              key={p.id}
              label={`An hour of ${p.name}`}
              path={`ratesMinor.${p.id}`}
              unit={currency}
              value={rateOf(p.id) / whole}
              onChange={(v) => setRate(p.id, Math.round(v * whole))}
            />
          ))}
        <NumberField
          label="Deposit"
          path="depositPercent"
          help="To book the day"
          unit="%"
          value={terms.depositPercent}
          onChange={(depositPercent) => set({ depositPercent })}
        />
        <label className={styles.rule}>
          <span>What the tax is called</span>
          <Input
            value={terms.taxName}
            maxLength={40}
            onChange={(event) => set({ taxName: event.target.value })}
          />
        </label>
        <NumberField
          label="Tax"
          path="taxPercent"
          help="0 where none is charged"
          unit="%"
          value={terms.taxPercent}
          onChange={(taxPercent) => set({ taxPercent })}
        />
        <Toggle
          label="Prices have the tax in them"
          checked={terms.taxIncluded}
          onChange={(taxIncluded) => set({ taxIncluded })}
        />
        <NumberField
          label="A quote holds for"
          path="validDays"
          unit="days"
          value={terms.validDays}
          onChange={(validDays) => set({ validDays })}
        />
        <label className={styles.rule}>
          <span>What else holds, on every quote</span>
          <TextArea
            value={terms.conditions}
            maxLength={600}
            rows={3}
            placeholder="When the deposit is kept, how late a day can be moved …"
            onChange={(event) => set({ conditions: event.target.value })}
          />
        </label>
        {may && (
          <Button
            type="primary"
            disabled={!changed}
            loading={save.isPending}
            onClick={() => save.mutate({ ...house, rules: { ...house.rules, terms } })}
          >
            Keep these prices
          </Button>
        )}
        {save.error && <Alert type="error" showIcon title={toldOf(save.error)} />}
      </fieldset>
    </FieldErrors>
  );
}
