import { Alert, Button, Skeleton, Tabs } from "antd";
import { memo, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Navigate, useNavigate, useParams, useSearchParams } from "react-router";
import { Refusal, server } from "../api/client";
import { queryClient, useBegin, useCatalogue, useChange, usePlan, usePreview } from "../api/queries";
import type { Catalogue, PlanDocument, PlanVersion, Tally, Warning } from "../api/types";
import { shelfName, useAutosave, useSaveState, type Autosave, type Stored } from "../app/autosave";
import { FieldErrors } from "../app/fields";
import { Header } from "../app/Header";
import { useKeys } from "../app/keys";
import { usePreferences } from "../app/preferences";
import { shelf, type Shelved } from "../app/shelf";
import { Trouble } from "../app/Trouble";
import { useUndoable } from "../app/undoable";
import { when } from "../app/units";
import { startStance } from "../head/camera";
import { HeadMap } from "../head/HeadMap";
import { AttachStep } from "./AttachStep";
import { draftOf, planKeeper, type Change, type Draft } from "./draft";
import { HairStep } from "./HairStep";
import { HistoryDrawer } from "./HistoryDrawer";
import { KeySheet } from "./KeySheet";
import { LookStep } from "./LookStep";
import { PartingStep } from "./PartingStep";
import { PlanBar } from "./PlanBar";
import styles from "./PlanWorkspace.module.css";
import { SavedElsewhere } from "./SavedElsewhere";
import { takeAlong, type TakeAlong } from "./takeAlong";
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
  const [query] = useSearchParams();
  const navigate = useNavigate();
  // A new plan gets its address when it is first saved; the workspace stays as it is.
  const [made, setMade] = useState<string>();
  const fresh = id === newPlan || id === made;
  const catalogue = useCatalogue();
  const plan = usePlan(fresh ? undefined : id);
  // What a new plan starts from stands in the address it is opened with, not in those of its steps.
  const [begin] = useState(() => Object.fromEntries(query));
  const begun = useBegin(begin, fresh);
  const onMade = useCallback(
    (created: Stored, at: Step) => {
      setMade(created.id);
      void navigate(`/plans/${created.id}/${at}`, { replace: true });
    },
    [navigate],
  );

  // A step chosen in the instant in which the plan was made still goes to "new": put right.
  useEffect(() => {
    if (id === newPlan && made && isStep(step)) void navigate(`/plans/${made}/${step}`, { replace: true });
  }, [id, made, step, navigate]);

  if (!isStep(step)) return <Navigate to={`/plans/${id}/look${query.size > 0 ? `?${query}` : ""}`} replace />;
  const error = catalogue.error ?? plan.error ?? begun.error;
  const opened = fresh ? undefined : plan.data;
  const base = opened ? draftOf(opened) : begun.data;
  if (!catalogue.data || !base)
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
      base={base}
      onMade={onMade}
    />
  );
}

interface BenchProps {
  step: Step;
  catalogue: Catalogue;
  opened: PlanDocument | undefined;
  /** The plan as it is stored, or what a new one starts from. */
  base: Draft;
  onMade: (plan: Stored, step: Step) => void;
}

/** The one screen a plan is made on: head, step panel and tally. */
function Bench({ step, catalogue, opened, base, onMade }: BenchProps) {
  const { id = newPlan } = useParams();
  const navigate = useNavigate();
  const latest = useRef<Tally>(undefined);
  const tally = useCallback(() => latest.current, []);
  // What was typed here and never reached the server goes on.
  const [kept] = useState<Shelved<Draft> | undefined>(() => shelf.look(shelfName("plan", opened?.id)));
  const { draft, before, change, undo, redo, replace, canUndo, canRedo } = useUndoable<Draft, Tally>(
    kept?.draft ?? base,
    tally,
  );
  const changeInput: Change = useCallback(
    (control, update) => change(control, (d) => ({ ...d, input: update(d.input) })),
    [change],
  );
  const rename = useCallback((title: string) => change("title", (d) => ({ ...d, title })), [change]);
  const { looking, look, bringBack, leave } = useLookBack(id, change);
  const shown = looking ? { ...looking.draft, ...(draft.clientId && { clientId: draft.clientId }) } : draft;
  const { result, error } = usePreview(shown.input);
  useEffect(() => {
    latest.current = result?.tally;
  }, [result]);

  const onSaved = useCallback(
    (stored: Stored, created: boolean) => {
      void queryClient.invalidateQueries({ queryKey: ["plans"] });
      if (created) onMade(stored, step);
    },
    [onMade, step],
  );
  const autosave = useAutosave(
    draft,
    kept?.base ?? base,
    opened && { ...opened, version: kept?.version ?? opened.version },
    planKeeper,
    onSaved,
  );
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

  const stance = useRef(startStance);
  const [history, setHistory] = useState(false);
  const [keys, setKeys] = useState(false);
  const { unit, currency, paper } = usePreferences();
  const take = useCallback(
    async (what: TakeAlong) => {
      await autosave.save();
      if (autosave.id && autosave.isSaved)
        takeAlong(what, autosave.id, stance.current, { unit, currency, paper });
    },
    [autosave, unit, currency, paper],
  );
  const openHistory = useCallback(() => void autosave.save().then(() => setHistory(true)), [autosave]);
  const openKeys = useCallback(() => setKeys(true), []);
  const closeKeys = useCallback(() => setKeys(false), []);
  const onTake = useCallback((what: TakeAlong) => void take(what), [take]);

  const canWork = step === "parting" && !looking;
  const work = useMemo(
    () => (canWork ? { input: draft.input, change: changeInput } : undefined),
    [canWork, draft.input, changeInput],
  );

  const act = useCallback(
    (key: string) => {
      const go = (by: number) => {
        const next = steps[steps.indexOf(step) + by];
        if (next) void navigate(`/plans/${id}/${next}`, { replace: true });
      };
      const nextWarning = () => {
        const all = result?.warnings.filter((w) => w.sections.length > 0) ?? [];
        setWarning(all[(all.findIndex((w) => w.message === warning?.message) + 1) % all.length]);
      };
      const acts: Record<string, () => void> = {
        "[": () => go(-1),
        "]": () => go(1),
        w: nextWarning,
        h: openHistory,
        p: () => onTake("sheet"),
        m: () => document.querySelector<SVGElement>("[data-head]")?.focus(),
        "?": openKeys,
      };
      acts[key.toLowerCase()]?.();
    },
    [id, step, navigate, result, warning, openHistory, openKeys, onTake],
  );
  useKeys(act);

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
        take={onTake}
        onHistory={openHistory}
        onKeys={openKeys}
      />
      <SavedElsewhere autosave={autosave} draft={draft} replace={replace} />
      {history && autosave.id && (
        <HistoryDrawer
          id={autosave.id}
          onClose={() => setHistory(false)}
          onLook={(version) => {
            setHistory(false);
            look(version);
          }}
        />
      )}
      <KeySheet open={keys} onClose={closeKeys} />

      <main className={styles.main}>
        <div className={styles.map}>
          {looking && (
            <Alert
              type="info"
              showIcon
              title={`The plan as ${looking.version.savedBy || "someone"} left it ${when(looking.version.savedAt)}`}
              action={
                <div className={styles.lookBack}>
                  <Button onClick={leave}>Back to now</Button>
                  <Button type="primary" onClick={bringBack}>
                    Bring it back
                  </Button>
                </div>
              }
            />
          )}
          <Refused autosave={autosave} />
          {error && (
            <Alert
              type="error"
              showIcon
              title={refusal ? refusal.message : "Kladotex can not be reached. Is it still running?"}
              {...(result && { description: "The head and the numbers are those from before this change." })}
            />
          )}
          {result ? (
            <HeadMap result={result} marked={marked} stanceRef={stance} work={work} />
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
            <div className={styles.step} inert={looking !== undefined}>
              {step === "look" && (
                <LookStep draft={shown} catalogue={catalogue} change={changeInput} changeDraft={change} />
              )}
              {result && step === "parting" && (
                <PartingStep
                  draft={shown}
                  result={result}
                  catalogue={catalogue}
                  change={changeInput}
                  changeDraft={change}
                />
              )}
              {result && step === "hair" && (
                <HairStep input={shown.input} result={result} catalogue={catalogue} change={changeInput} />
              )}
              {result && step === "attach" && (
                <AttachStep input={shown.input} result={result} catalogue={catalogue} change={changeInput} />
              )}
            </div>
          </FieldErrors>
        </section>
      </main>

      {result && <TallyStrip result={result} before={before} onWarning={setWarning} />}
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

/** An earlier version on the screen in place of the draft, until it is brought back or left. */
function useLookBack(id: string, change: (control: null, update: (draft: Draft) => Draft) => void) {
  const [looking, setLooking] = useState<{ version: PlanVersion; draft: Draft }>();
  const { mutate } = useChange((version: PlanVersion) => server.version(id, version.version));
  const look = (version: PlanVersion) =>
    mutate(version, { onSuccess: (draft) => setLooking({ version, draft }) });
  const leave = () => setLooking(undefined);
  const bringBack = () => {
    if (looking) change(null, (d) => ({ ...d, title: looking.draft.title, input: looking.draft.input }));
    leave();
  };
  return { looking, look, bringBack, leave };
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
