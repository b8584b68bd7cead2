import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Notice, PlanDocument } from "../../api/types";
import { useAfterPaint } from "../../lib/afterPaint";
import type { Stored } from "../../document/autosave";
import type { ShelfPlace } from "../../lib/shelf";
import { startStance } from "../../head";
import { ActContext } from "../draft/act";
import type { Draft } from "../draft/draft";
import { BenchContext, type OnBench, type Reaching } from "../draft/onBench";
import type { Step } from "../draft/steps";
import { BenchBar } from "./BenchBar";
import { MapColumn } from "./MapColumn";
import { fetchSteps } from "./panels";
import styles from "./PlanWorkspace.module.css";
import { StepPanel } from "./StepPanel";
import { TallyStrip } from "./TallyStrip";
import { useBenchKeys } from "./useBenchKeys";
import { usePlanDraft } from "./usePlanDraft";
import { useTakingAlong } from "./useTakingAlong";

interface Props {
  id: string;
  step: Step;
  opened: PlanDocument | undefined;
  /** The plan as it is stored, or what a new one starts from. */
  base: Draft;
  shelf: ShelfPlace<Draft>;
  onMade: (plan: Stored, step: Step) => void;
}

/** The one screen a plan is made on: head, step panel and tally. */
export function Bench({ id, step, opened, base, shelf, onMade }: Props) {
  const made = useCallback((plan: Stored) => onMade(plan, step), [onMade, step]);
  const plan = usePlanDraft({ id, opened, base, shelf, onMade: made });
  const { autosave, shown, answer } = plan;
  // The head is painted first; panel and tally follow it.
  const told = useAfterPaint(answer?.result);
  const [notice, setNotice] = useState<Notice>();
  const [reach, setReach] = useState<Reaching>();
  const [opens, setOpens] = useState<"history" | "keys">();
  const stance = useRef(startStance);
  const take = useTakingAlong(autosave, stance);
  const openHistory = useCallback(() => void autosave.save().then(() => setOpens("history")), [autosave]);
  const openKeys = useCallback(() => setOpens("keys"), []);
  const close = useCallback(() => setOpens(undefined), []);
  useBenchKeys({ id, step, notices: answer?.result.notices, notice, setNotice, openHistory, openKeys, take });
  // The step that is open comes first.
  const isShown = told !== undefined;
  useEffect(() => {
    if (isShown) void fetchSteps();
  }, [isShown]);

  const { isStored } = autosave;
  const kept = useMemo(
    () => ({ id, isStored, save: () => autosave.save(), savedVersion: () => autosave.savedVersion }),
    [id, isStored, autosave],
  );
  const bench = useMemo<OnBench>(
    () => ({ plan: kept, draft: shown, result: told, point: setReach }),
    [kept, shown, told],
  );
  return (
    <ActContext value={plan.act}>
      <BenchContext value={bench}>
        <div className={styles.bench}>
          <BenchBar
            plan={plan}
            opens={opens}
            onHistory={openHistory}
            onKeys={openKeys}
            onClose={close}
            take={take}
          />
          <main className={styles.main}>
            <MapColumn
              plan={plan}
              step={step}
              notice={notice}
              onUnmark={() => setNotice(undefined)}
              stance={stance}
              reach={reach}
            />
            <StepPanel id={id} step={step} errors={plan.errors} still={plan.looking !== undefined} />
          </main>
          {told && <TallyStrip result={told} before={plan.before} onNotice={setNotice} />}
        </div>
      </BenchContext>
    </ActContext>
  );
}
