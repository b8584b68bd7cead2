import { useMoney } from "../../api/queries";
import type { Change } from "../../api/types";
import { usePreferences } from "../../lib/preferences";
import { changeText } from "./changeText";
import styles from "./ChangeList.module.css";

/** What was changed, line by line. */
export function ChangeList({ changes, none }: { changes: Change[]; none: string }) {
  const unit = usePreferences((p) => p.unit);
  const money = useMoney();
  if (changes.length === 0) return <p className={styles.none}>{none}</p>;
  return (
    <ul className={styles.changes}>
      {changes.map((c) => (
        <li key={c.path}>{changeText(c, unit, money)}</li>
      ))}
    </ul>
  );
}
