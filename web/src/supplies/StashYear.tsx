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
  const [now] = useState(() => new Date().getFullYear());
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
              <Came account={data.moneyMinor} write={money} /> ={" "}
              <Became account={data.moneyMinor} write={money} />
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
                  <Came account={y.account} write={(n) => `${n} ${y.unit}`} /> ={" "}
                  <Became account={y.account} write={count} />
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

interface Written {
  account: Account;
  write: (n: number) => string;
}

const count = (n: number) => String(n);

/** What there was: what lay there, what was bought, what came back from heads of before. */
function Came({ account: a, write }: Written) {
  const parts = [
    a.opening !== 0 && `${write(a.opening)} there at the beginning`,
    a.bought !== 0 && `${write(a.bought)} bought`,
    a.usedUp < 0 && `${write(-a.usedUp)} back from earlier heads`,
  ].filter(Boolean);
  return <b>{parts.join(" + ") || write(0)}</b>;
}

/** What became of it. */
function Became({ account: a, write }: Written) {
  const parts = outs.filter((o) => a[o.key] > 0).map((o) => `${write(a[o.key])} ${o.name}`);
  if (a.other !== 0) parts.push(`${write(a.other)} ${a.other > 0 ? "missing" : "put right"}`);
  return parts.join(" + ") || write(0);
}

const Stack = ({ account }: { account: Account }) => (
  <div className={styles.stack} aria-hidden>
    {outs.map(
      (o) => account[o.key] > 0 && <i key={o.key} style={{ flexGrow: account[o.key], background: o.tone }} />,
    )}
  </div>
);
