import { useEffect, useState } from "react";
import type { ChairCard, Step } from "../api/types";
import { usePreferences } from "../lib/preferences";
import { pictureOf } from "../ui/movePicture";
import { StepText } from "../ui/StepText";
import styles from "./Chair.module.css";
import type { Following } from "./following";

/** How the next step is done: its moves, drawn small, one after the other at a touch. */
export function How({ following, card }: { following: Following; card: ChairCard }) {
  const left = usePreferences((p) => p.leftHanded);
  const [at, setAt] = useState(0);
  const steps = stepsOf(following, card);
  const step = steps[at];
  // Kept on the device, so that they are there without a connection.
  useEffect(() => {
    for (const { shows } of steps)
      if (shows) void fetch(pictureOf(shows.figure, shows.last, left, false)).catch(() => undefined);
  }, [steps, left]);
  if (!step) return null;
  const shows = step.shows ?? steps.slice(at).find((s) => s.shows)?.shows;
  return (
    <button type="button" className={styles.how} onClick={() => setAt((at + 1) % steps.length)}>
      {shows && <img src={pictureOf(shows.figure, shows.last, left, false)} alt="" width={84} height={98} />}
      <span>
        <StepText step={step} />
        {steps.length > 1 && (
          <small>
            {at + 1} of {steps.length} · touch for the next move
          </small>
        )}
      </span>
    </button>
  );
}

/** The moves of a step: those of a method, of a plait, or what comes before the first part. */
function stepsOf({ install }: Following, card: ChairCard): readonly Step[] {
  const { how } = install;
  if (card.step >= 0) return how.work[card.step]?.steps ?? [];
  return { settle: how.before, plaits: how.plait, finish: how.after }[card.kind as string] ?? [];
}
