import styles from "./Ring.module.css";

const radius = 19;
const round = 2 * Math.PI * radius;

/** How much is done, as a ring. */
export function Ring({ done, of }: { done: number; of: number }) {
  const share = of > 0 ? done / of : 0;
  const percent = Math.floor(100 * share);
  return (
    <svg className={styles.ring} viewBox="0 0 48 48" role="img" aria-label={`${percent} percent done`}>
      <circle cx="24" cy="24" r={radius} className={styles.ringBack} />
      <circle
        cx="24"
        cy="24"
        r={radius}
        className={styles.ringDone}
        strokeDasharray={`${(share * round).toFixed(1)} ${round.toFixed(1)}`}
        transform="rotate(-90 24 24)"
      />
      <text x="24" y="28.5" textAnchor="middle">
        {percent}
      </text>
    </svg>
  );
}
