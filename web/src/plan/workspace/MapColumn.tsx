import { Alert, Button, Skeleton } from "antd";
import { lazy, Suspense, useMemo, type RefObject } from "react";
import type { Notice } from "../../api/types";
import { useSaveState, type Autosave } from "../../document/autosave";
import { when } from "../../lib/units";
import type { Stance } from "../../head";
import type { Draft } from "../draft/draft";
import type { Reaching } from "../draft/onBench";
import type { Step } from "../draft/steps";
import { PlanHead } from "./PlanHead";
import styles from "./PlanWorkspace.module.css";
import type { PlanDraftState } from "./usePlanDraft";

const RedoNote = lazy(async () => ({ default: (await import("../head/RedoNote")).RedoNote }));
const AtChairNote = lazy(async () => ({ default: (await import("./AtChairNote")).AtChairNote }));

interface Props {
  plan: PlanDraftState;
  step: Step;
  /** What it is about is marked on the head. */
  notice: Notice | undefined;
  onUnmark: () => void;
  stance: RefObject<Stance>;
  reach: Reaching | undefined;
}

/** The head, under what there is to know about the plan as it is shown. */
export function MapColumn({ plan, step, notice, onUnmark, stance, reach }: Props) {
  const { looking, install, draft, shown, answer, error, refusal } = plan;
  const result = answer?.result;
  const marked = useMemo(
    () =>
      notice && result?.notices.some((n) => n.code === notice.code && n.reason === notice.reason)
        ? new Set(notice.about)
        : undefined,
    [notice, result],
  );
  return (
    <div className={styles.map}>
      {looking && (
        <Alert
          type="info"
          showIcon
          title={`The plan as ${looking.version.savedBy || "someone"} left it ${when(looking.version.savedAt)}`}
          action={
            <div className={styles.lookBack}>
              <Button onClick={plan.leave}>Back to now</Button>
              <Button type="primary" onClick={plan.bringBack}>
                Bring it back
              </Button>
            </div>
          }
        />
      )}
      {install !== undefined && (
        <Suspense>
          <AtChairNote plan={plan.autosave.id} install={install} />
        </Suspense>
      )}
      {draft.input.redo && (
        <Suspense>
          <RedoNote redo={draft.input.redo} />
        </Suspense>
      )}
      <Refused autosave={plan.autosave} />
      {error && (
        <Alert
          type="error"
          showIcon
          title={refusal ? refusal.message : "Kladotex cannot be reached. Is it still running?"}
          {...(result && {
            description: "The head and the numbers are those from before this change.",
          })}
        />
      )}
      {answer ? (
        <PlanHead
          step={step}
          input={answer.input}
          clientId={shown.clientId}
          result={answer.result}
          marked={marked}
          stanceRef={stance}
          reach={reach}
          mayWork={looking === undefined}
        />
      ) : (
        <Skeleton active className={styles.waitingHead ?? ""} />
      )}
      {marked && (
        <Button className={styles.unmark ?? ""} onClick={onUnmark}>
          Hide the marks
        </Button>
      )}
    </div>
  );
}

/** What the server refused of a draft for other reasons than its numbers, which the preview tells. */
function Refused({ autosave }: { autosave: Autosave<Draft> }) {
  const state = useSaveState(autosave);
  const outside =
    state.kind === "refused" && Object.keys(state.fields).every((f) => f === "title" || f === "clientId");
  return outside ? <Alert type="error" showIcon title={state.message} /> : null;
}
