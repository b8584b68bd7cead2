import styles from "./Proposals.module.css";

interface Props {
  /** Limits that are broken. */
  breaks?: readonly string[];
  gains: readonly string[];
  loses: readonly string[];
}

/** What a plan breaks, gains and gives up, a line each. */
export function GivesAndTakes({ breaks = [], gains, loses }: Props) {
  const lines = (mark: string, name: string, list: readonly string[]) =>
    list.map((text) => (
      <li key={text}>
        <b role="img" aria-label={name}>
          {mark}
        </b>
        {text}
      </li>
    ));
  return (
    <ul className={styles.against}>
      {lines("✕", "Against it", breaks)}
      {lines("+", "Gains", gains)}
      {lines("−", "Gives up", loses)}
    </ul>
  );
}
