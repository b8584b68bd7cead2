import { Link } from "react-router";
import { useMoney } from "../api/queries";
import type { WornHead } from "../api/types";
import styles from "./Wear.module.css";

const kinds = [
  { key: "hangs", name: "on the head", tone: "var(--leaf)" },
  { key: "usedUp", name: "used up", tone: "#7d6a52" },
  { key: "spoilt", name: "spoilt", tone: "var(--brick)" },
  { key: "saved", name: "saved", tone: "var(--marigold)" },
  { key: "left", name: "never hung", tone: "#94b690" },
] as const;

/** What became of every piece, as pieces and as money, and the lots they came back into. */
export function BackPart({ head }: { head: WornHead }) {
  const money = useMoney();
  const kept = head.pieces.filter((p) => !p.kept);
  return (
    <>
      {head.account
        .filter((a) => a.came > 0)
        .map((a) => (
          <section key={a.piece} className={styles.account}>
            <h3>{a.name}</h3>
            <div className={styles.stack} aria-hidden>
              {kinds.map(
                (k) => a[k.key] > 0 && <i key={k.key} style={{ flexGrow: a[k.key], background: k.tone }} />,
              )}
            </div>
            <p>
              <b>{a.came}</b> came ={" "}
              {kinds
                .filter((k) => a[k.key] > 0)
                .map((k) => `${a[k.key]} ${k.name}`)
                .join(" + ")}
            </p>
            {a.priceMinor > 0 && (
              <p className={styles.note}>
                {money(Math.round(a.came * a.priceMinor))} came,{" "}
                {money(Math.round((a.usedUp + a.spoilt) * a.priceMinor))} spent,{" "}
                {money(Math.round((a.saved + a.left) * a.priceMinor))} still to be used.
              </p>
            )}
          </section>
        ))}
      {head.back.length > 0 && (
        <>
          <h3>Back in the stash</h3>
          <ul className={styles.lines}>
            {head.back.map((b) => (
              <li key={`${b.item} ${b.condition} ${b.round}`}>
                {`${b.pieces} of ${b.name}, ${b.condition === "good" ? "good" : "to fill or lie underneath"}; hung ${b.round === 1 ? "once" : `${b.round} times`} so far.`}
              </li>
            ))}
          </ul>
          <p>
            <Link to="/supplies/stash">The stash</Link> keeps them for this client: hair goes back to the head
            it came from. Wash them before the next round. A plan takes them first where it asks to.
          </p>
        </>
      )}
      {kept.length > 0 && head.account.some((a) => a.saved > 0) && head.back.length === 0 && (
        <p className={styles.note}>
          {kept.map((p) => p.name).join(", ")} {kept.length === 1 ? "is" : "are"} not among the supplies, so
          nothing went to the stash.
        </p>
      )}
    </>
  );
}
