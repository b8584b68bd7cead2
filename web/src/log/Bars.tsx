import styles from "./Log.module.css";

interface Props {
  planned: number;
  actual: number;
  /** What the longest bar stands for, minutes. */
  most: number;
}

/** What was planned and what it took, one above the other. */
export function Bars({ planned, actual, most }: Props) {
  const width = (minutes: number) => `${Math.max(1, (100 * minutes) / Math.max(1, most))}%`;
  return (
    <span className={styles.bars} aria-hidden>
      <i className={styles.planned} style={{ width: width(planned) }} />
      <i className={styles.actual} data-over={actual > planned * 1.1} style={{ width: width(actual) }} />
    </span>
  );
}
