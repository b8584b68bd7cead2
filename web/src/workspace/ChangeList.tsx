import type { Change } from "../api/types";
import { usePreferences } from "../app/preferences";
import { changeText } from "./changeText";
import styles from "./ChangeList.module.css";

/** What was changed, line by line. */
export function ChangeList({ changes, none }: { changes: Change[]; none: string }) {
  const { unit, currency } = usePreferences();
  if (changes.length === 0) return <p className={styles.none}>{none}</p>;
  return (
    <ul className={styles.changes}>
      {changes.map((c) => (
        <li key={c.path}>{changeText(c, unit, currency)}</li>
      ))}
    </ul>
  );
}
