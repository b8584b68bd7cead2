import styles from "./PlaitedLine.module.css";

/** The studio's one ornament: a three-strand plait laid along a line. */
export const PlaitedLine = () => (
  <svg className={styles.line} width="100%" height="8" aria-hidden>
    <defs>
      <pattern id="plait" width="24" height="8" patternUnits="userSpaceOnUse">
        <g fill="none" strokeWidth="2.4" strokeLinecap="round">
          <path d="M-4 1.6C2 1.6 4 6.4 10 6.4" className={styles.leaf} />
          <path d="M4 6.4C10 6.4 12 1.6 18 1.6" className={styles.marigold} />
          <path d="M12 1.6C18 1.6 20 6.4 26 6.4" className={styles.ink} />
          <path d="M20 6.4C26 6.4 28 1.6 34 1.6M-4 6.4C2 6.4 4 1.6 10 1.6" className={styles.leaf} />
        </g>
      </pattern>
    </defs>
    <rect width="100%" height="8" fill="url(#plait)" />
  </svg>
);
