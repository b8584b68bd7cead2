import { LeftOutlined, RightOutlined } from "@ant-design/icons";
import { Button, Skeleton } from "antd";
import { useState } from "react";
import { useMoney, useYear } from "../api/queries";
import type { Account } from "../api/types";
import { Trouble } from "../ui/Trouble";
import styles from "./StashYear.module.css";

const outs = [
  { key: "usedUp", name: "used up", tone: "#7d6a52" },
  { key: "spoilt", name: "spoilt", tone: "var(--brick)" },
  { key: "given", name: "given away", tone: "#6d5f8d" },
  { key: "leftSaved", name: "saved, still here", tone: "var(--marigold)" },
  { key: "leftNew", name: "never worn, still here", tone: "#94b690" },
] as const satisfies readonly { key: keyof Account; name: string; tone: string }[];

/** The stash over a year: what came and what became of it, in pieces and in money. It closes. */
export function StashYear() {
  const now = new Date().getFullYear();
  const [year, setYear] = useState(now);
  const { data, error, isPending, refetch } = useYear(year);
  const money = useMoney();
  return (
    <>
      <div className={styles.which}>
        <Button
          size="large"
          icon={<LeftOutlined />}
          aria-label="The year before"
          disabled={year <= 2000}
          onClick={() => setYear(year - 1)}
        />
        <h2 aria-live="polite">{year}</h2>
        <Button
          size="large"
          icon={<RightOutlined />}
          aria-label="The year after"
          disabled={year >= now}
          onClick={() => setYear(year + 1)}
        />
      </div>
      {isPending && <Skeleton active />}
      {error && <Trouble error={error} retry={() => void refetch()} />}
      {data?.items.length === 0 && <p>Nothing lay in the stash in {year}, and nothing came.</p>}
      {data && data.items.length > 0 && (
        <>
          <section className={styles.all} aria-label="All of it">
            <h3>All of it, in money</h3>
            <Stack account={data.moneyMinor} />
            <p>
              {money(data.moneyMinor.opening)} there at the beginning +{" "}
              <b>{money(data.moneyMinor.bought)} bought</b> ={" "}
              {outs
                .filter((o) => data.moneyMinor[o.key] !== 0)
                .map((o) => `${money(data.moneyMinor[o.key])} ${o.name}`)
                .join(" + ")}
              {data.moneyMinor.other !== 0 && ` + ${money(data.moneyMinor.other)} missing or put right`}
            </p>
            {data.all.saved > 0 && (
              <p className={styles.note}>
                {data.all.saved} pieces came back from heads: {money(data.moneyMinor.saved)} that did not have
                to be bought again.
              </p>
            )}
          </section>
          <ul className={styles.items}>
            {data.items.map((y) => (
              <li key={y.item + y.colour}>
                <strong>
                  {y.name}
                  {y.colour && `, ${y.colour.toLowerCase()}`}
                </strong>
                <Stack account={y.account} />
                <p>
                  <b>
                    {y.account.opening + y.account.bought} {y.unit}
                  </b>{" "}
                  ({y.account.opening} there, {y.account.bought} bought) ={" "}
                  {outs
                    .filter((o) => y.account[o.key] !== 0)
                    .map((o) => `${y.account[o.key]} ${o.name}`)
                    .join(" + ") || "0"}
                  {y.account.other !== 0 && ` + ${y.account.other} missing or put right`}
                  {y.account.saved > 0 && ` · ${y.account.saved} came back`}
                </p>
              </li>
            ))}
          </ul>
          <p className={styles.note}>
            A piece costs what was paid for its lot, or what its item costs now. Used up is what hung and did
            not come back.
          </p>
        </>
      )}
    </>
  );
}

const Stack = ({ account }: { account: Account }) => (
  <div className={styles.stack} aria-hidden>
    {outs.map(
      (o) => account[o.key] > 0 && <i key={o.key} style={{ flexGrow: account[o.key], background: o.tone }} />,
    )}
  </div>
);
