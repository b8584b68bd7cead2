import { lazy, Suspense } from "react";
import { actions } from "../draft/actions";
import { PlanBar } from "./PlanBar";
import type { TakeAlong } from "./takeAlong";
import type { PlanDraftState } from "./usePlanDraft";

const KeySheet = lazy(async () => ({ default: (await import("./KeySheet")).KeySheet }));
const SavedElsewhere = lazy(async () => ({ default: (await import("./SavedElsewhere")).SavedElsewhere }));
const HistoryDrawer = lazy(async () => ({ default: (await import("./HistoryDrawer")).HistoryDrawer }));

interface Props {
  plan: PlanDraftState;
  opens: "history" | "keys" | undefined;
  onHistory: () => void;
  onKeys: () => void;
  onClose: () => void;
  take: (what: TakeAlong) => void;
}

/** The bar over the bench, with what opens from it. */
export function BenchBar({ plan, opens, onHistory, onKeys, onClose, take }: Props) {
  const { autosave, draft, act } = plan;
  return (
    <>
      <PlanBar
        title={draft.title}
        autosave={autosave}
        canUndo={plan.canUndo}
        canRedo={plan.canRedo}
        rename={(title) => act(actions.rename(title))}
        undo={plan.undo}
        redo={plan.redo}
        take={take}
        onHistory={onHistory}
        onKeys={onKeys}
      />
      <Suspense>
        <SavedElsewhere autosave={autosave} draft={draft} replace={plan.replace} />
      </Suspense>
      {opens === "history" && autosave.isStored && (
        <Suspense>
          <HistoryDrawer
            id={autosave.id}
            onClose={onClose}
            onLook={(version) => {
              onClose();
              plan.look(version);
            }}
          />
        </Suspense>
      )}
      {opens === "keys" && (
        <Suspense>
          <KeySheet onClose={onClose} />
        </Suspense>
      )}
    </>
  );
}
