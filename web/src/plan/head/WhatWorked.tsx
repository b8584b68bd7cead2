import { BulbOutlined } from "@ant-design/icons";
import { Link } from "react-router";
import { useHeads } from "../../api/queries";
import { localDay } from "../../lib/localDay";
import { newAddress } from "../../lib/madeHere";
import { day } from "../../lib/units";
import styles from "./WhatWorked.module.css";

/** What the client's last head teaches this plan: what to keep, what to change, and the plan to begin from. */
export function WhatWorked({ client }: { client: string }) {
  const worked = useHeads(client).data?.worked;
  if (!worked) return null;
  return (
    <section className={styles.worked} aria-label="What worked">
      <h3>
        <BulbOutlined aria-hidden /> What worked
      </h3>
      <p className={styles.what}>
        {worked.title}, {day(worked.on)}
      </p>
      <ul>
        {worked.keep.map((k) => (
          <li key={k} data-kind="keep">
            {k}
          </li>
        ))}
        {worked.change.map((c) => (
          <li key={c} data-kind="change">
            {c}
          </li>
        ))}
      </ul>
      {worked.readyOn !== undefined && worked.readyOn > localDay() && (
        <p className={styles.what}>
          Rest until {day(worked.readyOn)}. {worked.readyWhy}
        </p>
      )}
      {worked.planId !== undefined && (
        <Link to={newAddress("plans", { from: worked.planId, client })} className={styles.begin}>
          Begin from that plan
        </Link>
      )}
    </section>
  );
}
