import { useState } from "react";
import type { ChairAnswer, ChairView } from "../api/types";
import styles from "./Chair.module.css";
import type { Telling } from "./following";

const answers: readonly { value: ChairAnswer; label: string }[] = [
  { value: "fine", label: "Fine" },
  { value: "pulls", label: "It pulls" },
  { value: "hurts", label: "It hurts" },
];

/** What to do about what was answered. Usual practice, no medical advice. */
const advice: Partial<Record<ChairAnswer, string>> = {
  pulls: "Loosen it now, where it pulls: a plait that pulls today hurts tonight.",
  hurts:
    "Stop there and take it out. Pain, bumps or stinging mean too tight or too heavy; if they stay, ask a clinician.",
};

interface Props {
  view: ChairView;
  tell: (...what: Telling[]) => Promise<void>;
}

/** What is to be asked or done now: how it feels, arms down, water, a break. */
export function DueNow({ view, tell }: Props) {
  const [said, setSaid] = useState<ChairAnswer>();
  const due = view.due[0];
  const what = said && advice[said];
  if (what)
    return (
      <div className={styles.due} data-grave role="alert">
        <p>{what}</p>
        <div className={styles.answers}>
          <button type="button" onClick={() => setSaid(undefined)}>
            Understood
          </button>
        </div>
      </div>
    );
  if (!due) return null;
  return (
    <div className={styles.due} role="status">
      <strong>{due.title}</strong>
      <p>{due.says}</p>
      <div className={styles.answers}>
        {due.asks ? (
          answers.map(({ value, label }) => (
            <button
              key={value}
              type="button"
              onClick={() => {
                setSaid(value);
                void tell({ kind: "answered", text: due.key, answer: value });
              }}
            >
              {label}
            </button>
          ))
        ) : (
          <>
            <button
              type="button"
              onClick={() =>
                void tell(due.pauses ? { kind: "paused", text: "break" } : { kind: "rested", text: due.key })
              }
            >
              {due.pauses ? "Take it now" : "Did it"}
            </button>
            {due.pauses && (
              <button type="button" onClick={() => void tell({ kind: "rested", text: due.key })}>
                Not now
              </button>
            )}
          </>
        )}
      </div>
    </div>
  );
}
