import { useEffect, useState } from "react";
import type { PlanInput, Shopping } from "../../../api/types";
import panel from "../../../ui/panel.module.css";
import { pieceName } from "../pieceChoice";
import type { Reaching } from "../../draft/onBench";
import styles from "./PackReach.module.css";

interface Props {
  input: PlanInput;
  shop: Shopping;
  onReach: (reach: Reaching | undefined) => void;
}

/** How far 1, 2, 3 … packs go in working order; the pack pointed at is shown on the head. */
export function PackReach({ input, shop, onReach }: Props) {
  const [shown, setShown] = useState<{ piece: string; packs: number }>();
  const filling = shop.fillings.find((f) => f.piece === shown?.piece);
  useEffect(() => {
    onReach(filling && shown ? { filling, packs: shown.packs } : undefined);
  }, [filling, shown, onReach]);
  useEffect(() => () => onReach(undefined), [onReach]);
  return (
    <>
      <p className={panel.lead}>
        From the back corner upward, the hairline and the part line last. Point at a pack to see on the head
        how far it goes.
      </p>
      {shop.fillings.map((f) => {
        const piece = input.pieces.find((p) => p.key === f.piece);
        return (
          <section key={f.piece} className={styles.filling} aria-label={piece?.name ?? f.piece}>
            <h3>{piece && pieceName(input.pieces, piece)}</h3>
            <ol>
              {f.reach.map((r) => {
                const on = shown?.piece === f.piece && shown.packs === r.packs;
                const point = () => setShown({ piece: f.piece, packs: r.packs });
                return (
                  <li key={r.packs}>
                    <button
                      type="button"
                      aria-pressed={on}
                      onClick={() => (on ? setShown(undefined) : point())}
                      onMouseEnter={point}
                      onFocus={point}
                    >
                      <strong>{r.packs}</strong>
                      <span>
                        {r.packs === 1 ? "pack reaches" : "packs reach"} {r.at.toLowerCase()}
                      </span>
                      <small>{r.pieces} hang</small>
                    </button>
                  </li>
                );
              })}
            </ol>
          </section>
        );
      })}
    </>
  );
}
