import { Button, Empty, Skeleton } from "antd";
import { useState } from "react";
import { server } from "../api/client";
import { useChange, useMay, useMoney, useSuppliers } from "../api/queries";
import type { Supplier } from "../api/types";
import { Fold } from "../ui/Fold";
import { Trouble } from "../ui/Trouble";
import { SupplierForm } from "./SupplierForm";
import { TodaysLists } from "./TodaysLists";
import styles from "./SupplierList.module.css";
import { countOf } from "../lib/countOf";

/** Whom the studio orders from; the simulated ones with their lists of today. */
export function SupplierList({ onAdd }: { onAdd: () => void }) {
  const suppliers = useSuppliers();
  const practise = useChange(server.practiseSuppliers, "suppliers", "shopping");
  const [changing, setChanging] = useState<Supplier>();
  const may = useMay("addSupplier");
  const all = suppliers.data ?? [];
  const [now, past] = [all.filter((s) => !s.archived), all.filter((s) => s.archived)];
  const simulated = now.filter((s) => s.practice);
  const toPractise = (
    <Button size="large" loading={practise.isPending} onClick={() => practise.mutate(undefined)}>
      Add practice suppliers
    </Button>
  );
  const cards = (list: readonly Supplier[]) => (
    <ul className={styles.list}>
      {list.map((s) => (
        <SupplierCard key={s.key} of={s} {...(may && { onChange: () => setChanging(s) })} />
      ))}
    </ul>
  );
  return (
    <div className={styles.page}>
      {suppliers.isPending && <Skeleton active />}
      {suppliers.error && <Trouble error={suppliers.error} retry={() => void suppliers.refetch()} />}
      {practise.error && <Trouble error={practise.error} />}
      {suppliers.data && now.length === 0 && (
        <Empty
          image={Empty.PRESENTED_IMAGE_SIMPLE}
          description="No suppliers yet. Enter whom you order from: how many days an order takes and what delivery costs go into every plan."
        >
          {may && (
            <div className={styles.first}>
              <Button type="primary" size="large" onClick={onAdd}>
                Enter the first
              </Button>
              {toPractise}
            </div>
          )}
        </Empty>
      )}
      {now.length > 0 && cards(now)}
      {now.length > 0 && simulated.length === 0 && may && <div>{toPractise}</div>}
      {past.length > 0 && <Fold title={`Archived, ${past.length}`}>{cards(past)}</Fold>}
      {simulated.length > 0 && <TodaysLists suppliers={simulated} />}
      {changing && <SupplierForm of={changing} onClose={() => setChanging(undefined)} />}
    </div>
  );
}

function SupplierCard({ of, onChange }: { of: Supplier; onChange?: () => void }) {
  const money = useMoney();
  const came = of.came;
  return (
    <li className={styles.card}>
      <div className={styles.top}>
        <h3>{of.name}</h3>
        {of.practice && <span>simulated</span>}
      </div>
      <p>
        {of.days === 0 ? "There the same day" : `Comes ${countOf(of.days, "day")} after it is ordered`};{" "}
        {of.feeMinor > 0 ? `${money(of.feeMinor)} for delivery of an order` : "delivery costs nothing"}.
      </p>
      {of.note && <p className={styles.note}>{of.note}</p>}
      <p>
        {came
          ? `${countOf(came.orders, "order")} came: ${countOf(came.missing, "piece")} missing in ${came.packs} packs that were looked into${came.lacking > 0 ? `, ${countOf(came.lacking, "pack")} did not come at all` : ""}.`
          : "Nothing has come from there yet."}
      </p>
      {onChange && (
        <Button onClick={onChange} aria-label={`Change ${of.name}`}>
          Change
        </Button>
      )}
    </li>
  );
}
