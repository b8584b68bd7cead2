import type { Step } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { pictureOf } from "../../../ui/movePicture";
import { StepText } from "../../../ui/StepText";
import styles from "./StepList.module.css";

/** The moves in order, each with its picture where it has one. */
export function StepList({ steps }: { steps: readonly Step[] }) {
  return (
    <ol className={styles.steps}>
      {steps.map((s) => (
        <li key={s.text}>
          <span>
            <StepText step={s} />
          </span>
          {s.shows && (
            <Still figure={s.shows.figure} still={s.shows.last} back={s.shows.last < s.shows.first} />
          )}
        </li>
      ))}
    </ol>
  );
}

/** A small still; the step beside it says the same in words. */
export function Still({ figure, still, back = false }: { figure: string; still: number; back?: boolean }) {
  const left = usePreferences((p) => p.leftHanded);
  return (
    <img
      className={styles.still}
      src={pictureOf(figure, still, left, back)}
      width={108}
      height={126}
      loading="lazy"
      alt=""
    />
  );
}
