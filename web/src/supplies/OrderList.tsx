import { Button, Empty, Skeleton } from "antd";
import { useState } from "react";
import { Link } from "react-router";
import { server } from "../api/client";
import { useChange, useMay, useMoney, useOrders, useSuppliers } from "../api/queries";
import type { StockOrder } from "../api/types";
import { localDay } from "../lib/localDay";
import { day } from "../lib/units";
import { Trouble } from "../ui/Trouble";
import { Arrival } from "./Arrival";

import styles from "./OrderList.module.css";
import { countOf } from "../lib/countOf";

const states = {
  listed: "To be ordered",
  ordered: "Under way",
  arrived: "Arrived",
} as const;

/** The orders, by how far they have come. */
export function OrderList() {
  const orders = useOrders();
  const [arriving, setArriving] = useState<StockOrder>();
  const list = orders.data ?? [];
  return (
    <>
      {orders.isPending && <Skeleton active />}
      {orders.error && <Trouble error={orders.error} retry={() => void orders.refetch()} />}
      {orders.data?.length === 0 && (
        <Empty
          image={Empty.PRESENTED_IMAGE_SIMPLE}
          description="Nothing is on order. A plan puts what it lacks on the list: open one, 3 Hair, To buy."
        />
      )}
      {(Object.keys(states) as (keyof typeof states)[]).map((state) => {
        const here = list.filter((o) => o.state === state);
        if (here.length === 0) return null;
        return (
          <section key={state} className={styles.state}>
            <h2>{states[state]}</h2>
            <ul>
              {here.map((o) => (
                <OrderCard key={o.id} order={o} onArrived={() => setArriving(o)} />
              ))}
            </ul>
          </section>
        );
      })}
      {arriving && <Arrival order={arriving} onClose={() => setArriving(undefined)} />}
    </>
  );
}

function OrderCard({ order, onArrived }: { order: StockOrder; onArrived: () => void }) {
  const money = useMoney();
  const suppliers = useSuppliers().data ?? [];
  const place = useChange(server.placeOrder, "orders");
  const drop = useChange(server.dropOrder, "orders");
  const may = useMay("placeOrder");
  const seller = suppliers.find((s) => s.key === order.supplier);
  const error = place.error ?? drop.error;
  return (
    <li className={styles.order}>
      <div className={styles.top}>
        <h3>{seller?.name ?? (order.supplier || "Any shop")}</h3>
        <strong>{money(order.goodsMinor + order.feeMinor)}</strong>
      </div>
      <p>
        {order.feeMinor > 0 && `${money(order.feeMinor)} of it for delivery. `}
        {order.state === "listed" && seller && `Comes about ${seller.days} days after it is ordered. `}
        {order.orderedOn && `Ordered ${day(order.orderedOn)}. `}
        {order.state === "ordered" && order.dueOn && <b>Due {day(order.dueOn)}. </b>}
        {order.arrivedOn && `Came ${day(order.arrivedOn)}. `}
        {order.plan && order.planId && (
          <>
            For <Link to={`/plans/${order.planId}/hair`}>{order.plan}</Link>.
          </>
        )}
      </p>
      <ul className={styles.lines}>
        {order.lines.map((l, i) => (
          <li key={i}>
            <span>
              {l.count} × {l.offer.packs === 1 ? "pack" : `set of ${l.offer.packs} packs`}, {l.name}
              {l.colour && `, ${l.colour.toLowerCase()}`}
            </span>
            <span>{money(l.count * l.offer.priceMinor)}</span>
            {l.came && (
              <small data-short={l.came.pieces < l.count * l.offer.packs * l.pack}>
                {came(l.came, l.count * l.offer.packs, l.pack)}
              </small>
            )}
          </li>
        ))}
      </ul>
      {error && <Trouble error={error} />}
      {order.state !== "arrived" && (
        <div className={styles.does}>
          {order.state === "listed" && may && (
            <Button
              type="primary"
              loading={place.isPending}
              onClick={() => place.mutate({ id: order.id, on: localDay() })}
            >
              Ordered today
            </Button>
          )}
          {order.state === "ordered" && (
            <Button type="primary" onClick={onArrived}>
              Check arrival
            </Button>
          )}
          {may && (
            <Button loading={drop.isPending} onClick={() => drop.mutate(order.id)}>
              Remove
            </Button>
          )}
        </div>
      )}
    </li>
  );
}

const checked = { label: "by the labels", counted: "counted", weighed: "weighed" } as const;

function came(c: NonNullable<StockOrder["lines"][number]["came"]>, packs: number, pack: number) {
  const parts = [`${c.packs} of ${countOf(packs, "pack")} came, ${checked[c.checked]}`];
  const short = c.packs * pack - c.pieces;
  if (short > 0) parts.push(`${short} missing in them`);
  if (short < 0) parts.push(`${-short} too many in them`);
  return parts.join("; ");
}
