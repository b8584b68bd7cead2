import { FilePdfOutlined, TableOutlined } from "@ant-design/icons";
import { Button, Switch } from "antd";
import Input from "antd/es/input/Input";
import { Link } from "react-router";
import { server } from "../../../api/client";
import { useChange, useMoney, useOrders } from "../../../api/queries";
import type { PlanInput, Shopping } from "../../../api/types";
import { download } from "../../../lib/download";
import { localDay } from "../../../lib/localDay";
import { usePreferences } from "../../../lib/preferences";
import { day } from "../../../lib/units";
import panel from "../../../ui/panel.module.css";
import { Trouble } from "../../../ui/Trouble";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";
import type { StoredPlan } from "../../draft/stored";
import styles from "./StashAndOrders.module.css";
import { countOf } from "../../../lib/countOf";

interface Props {
  plan: StoredPlan;
  input: PlanInput;
  shop: Shopping;
}

/** The day of the install, what the plan holds of the stash, and what is ordered from which supplier by when. */
export function StashAndOrders({ plan, input, shop }: Props) {
  const act = useAct();
  const money = useMoney();
  const { unit, paper } = usePreferences();
  const hold = useChange(
    async (holds: boolean) => {
      await plan.save();
      return server.holdStash(plan.id, holds);
    },
    "shopping",
    "stash",
    "items",
  );
  const list = useChange(
    async () => {
      await plan.save();
      return server.orderForPlan(plan.id);
    },
    "orders",
    "shopping",
  );
  const orders = useOrders(plan.isStored ? plan.id : "-");
  const listed = orders.data ?? [];
  const take = async (what: string) => {
    await plan.save();
    download(`/api/v1/plans/${plan.id}/${what}?${new URLSearchParams({ unit, paper }).toString()}`);
  };
  const fromStash = shop.lines.reduce((n, l) => n + l.stash, 0);
  return (
    <>
      <label className={panel.stack}>
        <span>Day of the install</span>
        <Input
          type="date"
          size="large"
          value={input.day?.install ?? ""}
          onChange={(event) => act(actions.setInstallDay(event.target.value))}
        />
      </label>
      {shop.homeBy !== "" ? (
        <p className={panel.lead}>
          The hair must be at home by <b>{day(shop.homeBy)}</b>
          {shop.rinseOn !== "" && (
            <>
              ; rinse it on <b>{day(shop.rinseOn)}</b> and let it dry overnight
            </>
          )}
          .
        </p>
      ) : (
        <p className={panel.lead}>
          With a day the last dates to order and to rinse are counted back from it.
        </p>
      )}
      <label className={styles.hold}>
        <Switch
          checked={shop.holds}
          loading={hold.isPending}
          disabled={!plan.isStored}
          onChange={(holds) => hold.mutate(holds)}
        />
        <span>
          Reserve stash
          <small>
            {shop.holds
              ? `${fromStash} pieces are kept for this plan; what it needs no more is free at once.`
              : fromStash > 0
                ? `${fromStash} pieces of the stash would be kept for it, and no other plan is promised them.`
                : "Nothing there suits it now."}
          </small>
        </span>
      </label>
      <label className={styles.hold}>
        <Switch checked={input.reuseFirst ?? false} onChange={(on) => act(actions.setReuseFirst(on))} />
        <span>
          Reuse first
          <small>
            {input.reuseFirst
              ? "Pieces that were worn before go first, the good ones leading."
              : "New pieces go first, those worn before only where they run out."}{" "}
            What a client wore goes to that client alone.
          </small>
        </span>
      </label>
      {hold.error && <Trouble error={hold.error} />}
      {shop.orders.length === 0 && (
        <p className={panel.lead}>Nothing to order: it lies there, or is on its way.</p>
      )}
      {shop.orders.map((o) => (
        <section key={o.supplier} className={styles.order} aria-label={o.name}>
          <div>
            <h3>{o.name}</h3>
            <strong>{money(o.goodsMinor + o.feeMinor)}</strong>
          </div>
          <ul>
            {o.lines.map((l, i) => (
              <li key={i}>
                <span>
                  {l.count} × {l.offer.packs === 1 ? "pack" : `set of ${l.offer.packs}`}, {l.name}
                  {l.colour && `, ${l.colour.toLowerCase()}`}
                </span>
                <span>{money(l.count * l.offer.priceMinor)}</span>
              </li>
            ))}
            {o.feeMinor > 0 && (
              <li>
                <span>Delivery</span>
                <span>{money(o.feeMinor)}</span>
              </li>
            )}
          </ul>
          <p>
            {o.orderBy !== "" && (
              <>
                Order by <b data-late={o.orderBy < today()}>{day(o.orderBy)}</b>
                {o.orderBy < today() && ", which is past: buy it in a shop, or move the day"}.{" "}
              </>
            )}
            {o.days > 0 && `It takes ${o.days} days to come.`}
          </p>
        </section>
      ))}
      {shop.orders.length > 0 && (
        <>
          <p className={panel.sum}>
            <span>All together{shop.feesMinor > 0 && ", with delivery"}</span>
            <strong>{money(shop.goodsMinor + shop.feesMinor)}</strong>
          </p>
          <Button
            type="primary"
            size="large"
            disabled={!plan.isStored}
            loading={list.isPending}
            onClick={() => list.mutate(undefined)}
          >
            Add to orders
          </Button>
        </>
      )}
      {list.error && <Trouble error={list.error} />}
      {listed.length > 0 && (
        <p className={`${panel.lead} ${styles.listed}`} role="status">
          {countOf(listed.length, "order")} for this plan: {listed.map((o) => states[o.state]).join(", ")}.{" "}
          <Link to="/supplies/orders">Look at them</Link>
        </p>
      )}
      <div className={styles.take}>
        <Button
          icon={<FilePdfOutlined />}
          disabled={!plan.isStored}
          onClick={() => void take("shopping.pdf")}
        >
          Shopping list, PDF
        </Button>
        <Button icon={<TableOutlined />} disabled={!plan.isStored} onClick={() => void take("shopping.csv")}>
          Table, CSV
        </Button>
      </div>
    </>
  );
}

const states = { listed: "to be ordered", ordered: "under way", arrived: "arrived" } as const;

const today = localDay;
