import { Button, Segmented, Skeleton } from "antd";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { v4 as uuid } from "uuid";
import { server } from "../api/client";
import { useCatalogue, useChange, useItemChoice, useMay, useMoney, useSupplierList } from "../api/queries";
import type { Supplier } from "../api/types";
import { usePreferences } from "../lib/preferences";
import { length } from "../lib/units";
import { Trouble } from "../ui/Trouble";
import { Swatch } from "./Swatch";
import { counted, kindOf } from "./words";
import styles from "./TodaysLists.module.css";
import { countOf } from "../lib/countOf";

/** What the simulated suppliers have today, and what they ask for it. */
export function TodaysLists({ suppliers }: { suppliers: readonly Supplier[] }) {
  const [key, setKey] = useState<string>();
  const here = suppliers.find((s) => s.key === key) ?? suppliers[0];
  const may = useMay("createItem");
  if (!here) return null;
  return (
    <section aria-labelledby="todays-lists">
      <div className={styles.top}>
        <h2 id="todays-lists">Today’s lists</h2>
        {suppliers.length > 1 && (
          <Segmented<string>
            className={styles.who ?? ""}
            aria-label="Whose list"
            value={here.key}
            options={suppliers.map((s) => ({ value: s.key, label: s.name }))}
            onChange={setKey}
          />
        )}
      </div>
      {may && <Prices suppliers={suppliers} />}
      <List supplier={here.key} may={may} />
    </section>
  );
}

/** Today's prices: what changed, and taking them over. */
function Prices({ suppliers }: { suppliers: readonly Supplier[] }) {
  const money = useMoney();
  const ask = useMutation({ mutationFn: () => server.refreshPrices(false) });
  const save = useChange(() => server.refreshPrices(true), "items", "shopping");
  return (
    <div className={styles.prices}>
      <Button size="large" loading={ask.isPending} onClick={() => ask.mutate()}>
        Get today’s prices
      </Button>
      {ask.error && <Trouble error={ask.error} />}
      {ask.data && (
        <section aria-label="Today’s prices" className={styles.changes}>
          {ask.data.length === 0 || save.isSuccess ? (
            <p>{save.isSuccess ? "Taken over." : "Every price on file is today’s."}</p>
          ) : (
            <>
              <ul>
                {ask.data.map((c) => (
                  <li key={`${c.item}${c.supplier}${c.packs}`}>
                    <span>
                      {c.name}, {countOf(c.packs, "pack")}
                      <small>{suppliers.find((s) => s.key === c.supplier)?.name}</small>
                    </span>
                    <span>
                      {c.wasMinor > 0 ? money(c.wasMinor) : "new"} →{" "}
                      <strong>{c.isMinor > 0 ? money(c.isMinor) : "no longer sold"}</strong>
                    </span>
                  </li>
                ))}
              </ul>
              <Button
                type="primary"
                size="large"
                loading={save.isPending}
                onClick={() => save.mutate(undefined)}
              >
                Take {ask.data.length} over
              </Button>
              <p>Plans keep the prices they were made with until their piece is chosen anew.</p>
            </>
          )}
          {save.error && <Trouble error={save.error} />}
        </section>
      )}
    </div>
  );
}

function List({ supplier, may }: { supplier: string; may: boolean }) {
  const list = useSupplierList(supplier);
  const catalogue = useCatalogue().data;
  const choice = useItemChoice();
  const items = choice.data;
  const unit = usePreferences((p) => p.unit);
  const money = useMoney();
  const add = useChange(
    (item: NonNullable<typeof list.data>[number]["item"]) =>
      server.createItem(uuid(), { item, archived: false }),
    "items",
  );
  if (list.error) return <Trouble error={list.error} retry={() => void list.refetch()} />;
  if (choice.error) return <Trouble error={choice.error} retry={() => void choice.refetch()} />;
  if (!list.data || !catalogue || !items) return <Skeleton active />;
  return (
    <>
      {add.error && <Trouble error={add.error} />}
      <ul className={styles.list}>
        {list.data.map(({ number, item }) => {
          const kind = kindOf(catalogue, item.kind);
          const have = items.some((i) =>
            i.item.articles.some((a) => a.supplier === supplier && a.number === number),
          );
          return (
            <li key={number}>
              <span className={styles.name}>
                <strong>{item.name}</strong>
                <small>
                  {kind.name}, no. {number}
                  {kind.hair && `, ${length(item.lengthMm, unit)}, ${item.massG} g a ${kind.unit}`};{" "}
                  {counted(item.pack.units, kind)} a pack
                </small>
              </span>
              <span className={styles.colours}>
                {item.colours.map((c) => (
                  <Swatch key={c.name} colour={c.swatch} tip={c.tip} />
                ))}
              </span>
              <span className={styles.offers}>
                {item.offers.map((o) => (
                  <span key={o.packs}>
                    {money(o.priceMinor)} <small>{o.packs === 1 ? "a pack" : `for ${o.packs}`}</small>
                  </span>
                ))}
              </span>
              {have ? (
                <em>on file</em>
              ) : (
                may && (
                  <Button
                    loading={add.isPending}
                    onClick={() => add.mutate(item)}
                    aria-label={`Put on file: ${item.name}`}
                  >
                    Put on file
                  </Button>
                )
              )}
            </li>
          );
        })}
      </ul>
    </>
  );
}
