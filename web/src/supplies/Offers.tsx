import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Select } from "antd";
import { useCurrency, useSuppliers } from "../api/queries";
import type { Item } from "../api/types";
import { minorUnits } from "../lib/units";
import { FieldErrorsUnder, NumberField } from "../ui/fields";
import fields from "../ui/panel.module.css";
import styles from "./ItemCard.module.css";

interface OffersProps {
  item: Item;
  set: (control: string | null, part: Partial<Item>) => void;
}

/** What it costs, and who sells it. */
export function Offers({ item, set }: OffersProps) {
  const suppliers = useSuppliers().data ?? [];
  const currency = useCurrency();
  const minor = minorUnits(currency);
  const { offers } = item;
  const put = (at: number, part: Partial<Item["offers"][number]>) =>
    set(`offer${at}`, { currency, offers: offers.map((o, i) => (i === at ? { ...o, ...part } : o)) });
  return (
    <>
      <h2>What it costs</h2>
      {offers.length === 0 && (
        <p className={fields.lead}>No price yet: plans count it as bought for nothing.</p>
      )}
      {offers.map((o, i) => (
        <div key={i} className={styles.offer}>
          <Select<string>
            aria-label={`Supplier of offer ${i + 1}`}
            value={o.supplier ?? ""}
            options={[
              { value: "", label: "Any shop" },
              ...suppliers
                .filter((s) => !s.archived || s.key === o.supplier)
                .map((s) => ({ value: s.key, label: s.name })),
            ]}
            onChange={(supplier) => {
              const rest = { packs: o.packs, priceMinor: o.priceMinor };
              set(null, {
                offers: offers.map((x, k) => (k === i ? { ...rest, ...(supplier && { supplier }) } : x)),
              });
            }}
          />
          <NumberField
            label="Packs"
            path={`offers[${i}].packs`}
            value={o.packs}
            onChange={(packs) => put(i, { packs })}
          />
          <NumberField
            label="for"
            path={`offers[${i}].priceMinor`}
            unit={currency}
            step={0.5}
            value={o.priceMinor / minor}
            onChange={(price) => put(i, { priceMinor: Math.round(price * minor) })}
          />
          <Button
            type="text"
            icon={<DeleteOutlined />}
            aria-label={`Take away offer ${i + 1}`}
            onClick={() => set(null, { offers: offers.filter((_, k) => k !== i) })}
          />
        </div>
      ))}
      <FieldErrorsUnder path="currency" />
      <Button
        icon={<PlusOutlined />}
        onClick={() => set(null, { currency, offers: [...offers, { packs: 1, priceMinor: 10 * minor }] })}
      >
        Add a price
      </Button>
    </>
  );
}
