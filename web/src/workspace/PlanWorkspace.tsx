import { Alert, Button, Skeleton, Tabs } from "antd";
import { memo, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Navigate, useNavigate, useParams } from "react-router";
import { Refusal } from "../api/client";
import { queryClient, useCatalogue, usePlan, usePreview } from "../api/queries";
import type { Catalogue, PlanDocument, Tally, Warning } from "../api/types";
import { Header } from "../app/Header";
import { Trouble } from "../app/Trouble";
import { HeadMap } from "../head/HeadMap";
import { AttachStep } from "./AttachStep";
import { useAutosave } from "./autosave";
import { useDraft, type Draft } from "./draft";
import { FieldErrors } from "./fields";
import { HairStep } from "./HairStep";
import { LookStep } from "./LookStep";
import { PartingStep } from "./PartingStep";
import { PlanBar, SavedElsewhere } from "./PlanBar";
import styles from "./PlanWorkspace.module.css";
import { TallyStrip } from "./TallyStrip";

const steps = ["look", "parting", "hair", "attach"] as const;
type Step = (typeof steps)[number];
const stepNames: Record<Step, string> = { look: "Look", parting: "Parting", hair: "Hair", attach: "Attach" };
const isStep = (text: string | undefined): text is Step => steps.some((s) => s === text);

const newPlan = "new";
const noErrors = {};

/** Opens a plan, or a new one, at a step. */
export function PlanWorkspace() {
  const { id = newPlan, step } = useParams();
  const navigate = useNavigate();
  // A new plan gets its address when it is first saved; the workspace stays as it is.
  const [made, setMade] = useState<string>();
  const fresh = id === newPlan || id === made;
  const catalogue = useCatalogue();
  const plan = usePlan(fresh ? undefined : id);
  const onMade = useCallback(
    (created: PlanDocument, at: Step) => {
      setMade(created.id);
      void navigate(`/plans/${created.id}/${at}`, { replace: true });
    },
    [navigate],
  );

  if (!isStep(step)) return <Navigate to={`/plans/${id}/look`} replace />;
  const error = catalogue.error ?? plan.error;
  const opened = fresh ? undefined : plan.data;
  if (!catalogue.data || (!fresh && !opened))
    return (
      <div className={styles.waiting}>
        <Header />
        <main>{error ? <Trouble error={error} /> : <Skeleton active paragraph={{ rows: 10 }} />}</main>
      </div>
    );
  return (
    <Bench
      key={fresh ? newPlan : id}
      step={step}
      catalogue={catalogue.data}
      opened={opened}
      onMade={onMade}
    />
  );
}

interface BenchProps {
  step: Step;
  catalogue: Catalogue;
  opened: PlanDocument | undefined;
  onMade: (plan: PlanDocument, step: Step) => void;
}

/** The one screen a plan is made on: head, step panel and tally. */
function Bench({ step, catalogue, opened, onMade }: BenchProps) {
  const { id = newPlan } = useParams();
  const latest = useRef<Tally>(undefined);
  const tally = useCallback(() => latest.current, []);
  const [initial] = useState<Draft>(() =>
    opened ? { title: opened.title, input: opened.input } : { title: "New plan", input: catalogue.default },
  );
  const { draft, before, change, rename, undo, redo, replace, canUndo, canRedo } = useDraft(initial, tally);
  const { result, error } = usePreview(draft.input);
  useEffect(() => {
    latest.current = result?.tally;
  }, [result]);

  const onSaved = useCallback(
    (plan: PlanDocument, created: boolean) => {
      void queryClient.invalidateQueries({ queryKey: ["plans"] });
      if (created) onMade(plan, step);
    },
    [onMade, step],
  );
  const autosave = useAutosave(draft, opened, onSaved);
  const [warning, setWarning] = useState<Warning>();
  const marked = useMemo(
    () =>
      warning && result?.warnings.some((w) => w.message === warning.message)
        ? new Set(warning.sections)
        : undefined,
    [warning, result],
  );
  const refusal = error instanceof Refusal ? error : undefined;
  const errors = refusal?.fields ?? noErrors;

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z") return;
      event.preventDefault();
      if (event.shiftKey) redo();
      else undo();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [undo, redo]);

  return (
    <div className={styles.bench}>
      <PlanBar
        title={draft.title}
        autosave={autosave}
        canUndo={canUndo}
        canRedo={canRedo}
        rename={rename}
        undo={undo}
        redo={redo}
      />

      <main className={styles.main}>
        <div className={styles.map}>
          <SavedElsewhere autosave={autosave} replace={replace} />
          {error && (
            <Alert
              type="error"
              showIcon
              title={refusal ? refusal.message : "Kladotex can not be reached. Is it still running?"}
              {...(result && { description: "The head and the numbers are those from before this change." })}
            />
          )}
          {result ? (
            <HeadMap result={result} marked={marked} />
          ) : (
            <Skeleton active className={styles.waitingHead ?? ""} />
          )}
          {marked && (
            <Button className={styles.unmark ?? ""} onClick={() => setWarning(undefined)}>
              Hide the marks
            </Button>
          )}
        </div>

        <section className={styles.panel} aria-label={stepNames[step]}>
          <StepTabs id={id} step={step} />
          <FieldErrors value={errors}>
            <div className={styles.step}>
              {step === "look" && <LookStep input={draft.input} catalogue={catalogue} change={change} />}
              {result && step === "parting" && (
                <PartingStep input={draft.input} result={result} catalogue={catalogue} change={change} />
              )}
              {result && step === "hair" && (
                <HairStep input={draft.input} result={result} catalogue={catalogue} change={change} />
              )}
              {result && step === "attach" && (
                <AttachStep input={draft.input} result={result} catalogue={catalogue} change={change} />
              )}
            </div>
          </FieldErrors>
        </section>
      </main>

      {result && <TallyStrip result={result} before={before} onWarning={setWarning} />}
    </div>
  );
}

/** The steps of a plan, in the order people work. */
const StepTabs = memo(function StepTabs({ id, step }: { id: string; step: Step }) {
  const navigate = useNavigate();
  return (
    <Tabs
      activeKey={step}
      onChange={(key) => void navigate(`/plans/${id}/${key}`, { replace: true })}
      items={steps.map((s, i) => ({ key: s, label: `${i + 1} ${stepNames[s]}` }))}
    />
  );
});

export default PlanWorkspace;
