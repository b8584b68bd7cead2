import type { Saved, WornHead } from "../api/types";
import { Count } from "../ui/Numeric";
import styles from "./Wear.module.css";

interface Props {
  head: WornHead;
  saved: readonly Saved[];
  /** How many can be saved at the most; of each piece no more than hang. */
  most?: number;
  onChange: (saved: Saved[]) => void;
}

/** In which ways a piece hung, where there is more than one. */
function ways(head: WornHead, key: string): string {
  const parts = head.takedown.parts.filter((p) => p.piece === key);
  return parts.length < 2 ? "" : ` (${parts.map((p) => `${p.pieces} ${p.way.toLowerCase()}`).join(", ")})`;
}

/** How many of each piece came back, good and worn, to be stepped with a finger. */
export function SavedCounts({ head, saved, most = Infinity, onChange }: Props) {
  return (
    <ul className={styles.saved}>
      {head.pieces.map((p) => {
        const s = saved.find((x) => x.piece === p.key) ?? { piece: p.key, good: 0, worn: 0 };
        const name = [p.name, p.colour].filter(Boolean).join(", ");
        const set = (change: Partial<Saved>) =>
          onChange([...saved.filter((x) => x.piece !== p.key), { ...s, ...change }]);
        const hung = Math.min(p.hung, most);
        return (
          <li key={p.key}>
            <span className={styles.pieceName}>
              <i style={{ background: p.swatch ?? "#6b4a31" }} aria-hidden />
              <span>
                {name}
                <small>
                  {p.hung} hung
                  {ways(head, p.key)}
                  {p.rounds > 0 && ` · stands ${p.rounds} rounds`}
                </small>
              </span>
            </span>
            <label>
              Good
              <Count
                label={`Good ones of ${name}`}
                value={s.good}
                min={0}
                max={hung - s.worn}
                onChange={(n) => set({ good: n ?? 0 })}
              />
            </label>
            <label>
              Worn
              <Count
                label={`Worn ones of ${name}`}
                value={s.worn}
                min={0}
                max={hung - s.good}
                onChange={(n) => set({ worn: n ?? 0 })}
              />
            </label>
          </li>
        );
      })}
    </ul>
  );
}
