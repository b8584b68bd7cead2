import styles from "./Swatch.module.css";

/** A colour as it hangs: root above, ends below. */
export const Swatch = ({ colour, tip }: { colour: string | undefined; tip?: string | undefined }) => (
  <span
    className={styles.swatch}
    aria-hidden
    style={{
      background: colour
        ? tip
          ? `linear-gradient(${colour} 45%, ${tip} 70%)`
          : colour
        : "repeating-linear-gradient(45deg, var(--line) 0 3px, transparent 3px 6px)",
    }}
  />
);
