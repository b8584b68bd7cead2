import { Alert, App, Button, Skeleton } from "antd";
import { lazy, Suspense, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Navigate, useLocation, useNavigate, useParams } from "react-router";
import { Refusal, server } from "../api/client";
import {
  queryClient,
  useBegin,
  useCatalogue,
  useChange,
  usePerson,
  usePlan,
  usePreview,
  askAhead,
} from "../api/queries";
import type { Catalogue, Notice, PlanDocument, PlanVersion, Tally } from "../api/types";
import { useAfterPaint } from "../lib/afterPaint";
import { useAutosave, useSaveState, useSaving, type Autosave, type Stored } from "../lib/autosave";
import { FieldErrors } from "../ui/fields";
import { Header } from "../ui/Header";
import { useKeys } from "../lib/keys";
import { usePreferences } from "../lib/preferences";
import { newAddress, useMadeHere } from "../lib/madeHere";
import { ShelfPlace } from "../lib/shelf";
import { Trouble } from "../ui/Trouble";
import { useUndoable } from "../lib/undoable";
import { when } from "../lib/units";
import { startStance } from "../head";
import { ActContext } from "./act";
import { actions, type Act, type Variant } from "./actions";
import { draftOf, planKeeper, planKind, type Draft } from "./draft";
import { AttachStep, DayStep, fetchSteps, HairStep, LookStep, PartingStep } from "./panels";
import { PlanHead } from "./PlanHead";
import { PlanBar } from "./PlanBar";
import styles from "./PlanWorkspace.module.css";
import { StepNav } from "./StepNav";
import { isStep, stepNames, steps, type Step } from "./steps";
import { takeAlong, type TakeAlong } from "./takeAlong";
import type { Reaching } from "./ways";
import { TallyStrip } from "./TallyStrip";

const KeySheet = lazy(async () => ({ default: (await import("./KeySheet")).KeySheet }));
const SavedElsewhere = lazy(async () => ({ default: (await import("./SavedElsewhere")).SavedElsewhere }));
const RedoNote = lazy(async () => ({ default: (await import("./RedoNote")).RedoNote }));
const AtChairNote = lazy(async () => ({ default: (await import("./AtChairNote")).AtChairNote }));
const HistoryDrawer = lazy(async () => ({ default: (await import("./HistoryDrawer")).HistoryDrawer }));

const noErrors = {};
const noVariants: readonly Variant[] = [];

/** Opens a plan, or a new one, at a step. */
export function PlanWorkspace() {
  const { step } = useParams();
  const { id, isNew, from } = useMadeHere();
  const { search } = useLocation();
  const navigate = useNavigate();
  const person = usePerson();
  // A new plan loses the mark in its address when it is first saved; the workspace stays.
  const [made, setMade] = useState<string>();
  const fresh = isNew || id === made;
  const catalogue = useCatalogue();
  const shelf = useMemo(() => new ShelfPlace<Draft>(person.id, planKind, id), [person.id, id]);
  const plan = usePlan(fresh ? undefined : id);
  // What a new plan starts from stands in the address it is opened with.
  const [begin] = useState(from);
  const begun = useBegin(begin, fresh);
  const onMade = useCallback(
    (created: Stored, at: Step) => {
      setMade(created.id);
      void navigate(`/plans/${created.id}/${at}`, { replace: true });
    },
    [navigate],
  );

  // A step chosen in the instant in which the plan was made still has the mark: put right.
  useEffect(() => {
    if (isNew && made === id && isStep(step)) void navigate(`/plans/${made}/${step}`, { replace: true });
  }, [id, isNew, made, step, navigate]);

  if (id === "new") return <Navigate to={newAddress("plans", from, step)} replace />;
  if (!isStep(step)) return <Navigate to={`/plans/${id}/look${search}`} replace />;
  // Made here and never saved: it lies on the shelf alone.
  const unsaved = plan.error instanceof Refusal && plan.error.status === 404 ? shelf.look() : undefined;
  const error = catalogue.error ?? (unsaved ? undefined : plan.error) ?? begun.error;
  const opened = fresh ? undefined : plan.data;
  const base = opened ? draftOf(opened) : (unsaved?.base ?? begun.data);
  if (!catalogue.data || !base)
    return (
      <div className={styles.waiting}>
        <Header />
        <main>{error ? <Trouble error={error} /> : <Skeleton active paragraph={{ rows: 10 }} />}</main>
      </div>
    );
  return (
    <Bench
      key={id}
      id={id}
      step={step}
      catalogue={catalogue.data}
      opened={opened}
      base={base}
      shelf={shelf}
      onMade={onMade}
    />
  );
}

interface BenchProps {
  id: string;
  step: Step;
  catalogue: Catalogue;
  opened: PlanDocument | undefined;
  /** The plan as it is stored, or what a new one starts from. */
  base: Draft;
  shelf: ShelfPlace<Draft>;
  onMade: (plan: Stored, step: Step) => void;
}

/** The one screen a plan is made on: head, step panel and tally. */
function Bench({ id, step, catalogue, opened, base, shelf, onMade }: BenchProps) {
  const navigate = useNavigate();
  const { search } = useLocation();
  const latest = useRef<Tally>(undefined);
  const tally = useCallback(() => latest.current, []);
  const autosave = useAutosave<Draft>(
    { id, opened: opened && { ...opened, draft: base }, start: base, shelf },
    planKeeper,
  );
  const { draft, before, change, undo, redo, replace, canUndo, canRedo } = useUndoable<Draft, Tally>(
    autosave.first,
    tally,
  );
  // A plan that is or was at the chair stays as it is: it is copied, and the copy is changed.
  const install = opened?.installId;
  const { message } = App.useApp();
  const act: Act = useCallback(
    ({ group, update }) => {
      if (install !== undefined) {
        void message.info({ key: "frozen", content: "This plan stays as it is. Copy it to change it." });
        return;
      }
      change(group, (before) => {
        const next = update(before);
        if (next.input !== before.input) askAhead(next.input);
        return next;
      });
    },
    [change, install, message],
  );
  const rename = useCallback((title: string) => act(actions.rename(title)), [act]);
  const { looking, look, bringBack, leave } = useLookBack(id, act);
  const shown = looking ? { ...looking.draft, ...(draft.clientId && { clientId: draft.clientId }) } : draft;
  const { answer, error } = usePreview(shown.input);
  const result = answer?.result;
  // The head is painted first; panel and tally follow it.
  const told = useAfterPaint(result);
  useEffect(() => {
    latest.current = result?.tally;
  }, [result]);

  const onSaved = useCallback(
    (stored: Stored, created: boolean) => {
      void queryClient.invalidateQueries({ queryKey: ["plans"] });
      void queryClient.invalidateQueries({ queryKey: ["clearance"] });
      if (created) onMade(stored, step);
    },
    [onMade, step],
  );
  useSaving(autosave, draft, onSaved);
  const [notice, setNotice] = useState<Notice>();
  const marked = useMemo(
    () =>
      notice && result?.notices.some((n) => n.code === notice.code && n.reason === notice.reason)
        ? new Set(notice.about)
        : undefined,
    [notice, result],
  );
  const refusal = error instanceof Refusal ? error : undefined;
  const errors = refusal?.fields ?? noErrors;

  const [reach, setReach] = useState<Reaching>();
  const { isStored } = autosave;
  const kept = useMemo(
    () => ({ id, isStored, save: () => autosave.save(), savedVersion: () => autosave.savedVersion }),
    [id, isStored, autosave],
  );
  const stance = useRef(startStance);
  const [history, setHistory] = useState(false);
  const [keys, setKeys] = useState(false);
  const { unit, paper } = usePreferences();
  const take = useCallback(
    async (what: TakeAlong) => {
      await autosave.save();
      if (autosave.isStored && autosave.isSaved)
        takeAlong(what, autosave.id, stance.current, { unit, paper });
    },
    [autosave, unit, paper],
  );
  const openHistory = useCallback(() => void autosave.save().then(() => setHistory(true)), [autosave]);
  const openKeys = useCallback(() => setKeys(true), []);
  const closeKeys = useCallback(() => setKeys(false), []);
  const onTake = useCallback((what: TakeAlong) => void take(what), [take]);

  const onKey = useCallback(
    (key: string) => {
      const go = (by: number) => {
        const next = steps[steps.indexOf(step) + by];
        if (next) void navigate(`/plans/${id}/${next}${search}`, { replace: true });
      };
      const nextNotice = () => {
        const all = result?.notices.filter((n) => n.about.length > 0) ?? [];
        setNotice(all[(all.findIndex((n) => n.reason === notice?.reason) + 1) % all.length]);
      };
      const acts: Record<string, () => void> = {
        "[": () => go(-1),
        "]": () => go(1),
        w: nextNotice,
        h: openHistory,
        p: () => onTake("sheet"),
        m: () => document.querySelector<SVGElement>("[data-head]")?.focus(),
        "?": openKeys,
      };
      acts[key.toLowerCase()]?.();
    },
    [id, step, search, navigate, result, notice, openHistory, openKeys, onTake],
  );
  useKeys(onKey);
  // The step that is open comes first.
  const isShown = told !== undefined;
  useEffect(() => {
    if (isShown) void fetchSteps();
  }, [isShown]);

  return (
    <ActContext value={act}>
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
        <Suspense>
          <SavedElsewhere autosave={autosave} draft={draft} replace={replace} />
        </Suspense>
        {history && autosave.isStored && (
          <Suspense>
            <HistoryDrawer
              id={id}
              onClose={() => setHistory(false)}
              onLook={(version) => {
                setHistory(false);
                look(version);
              }}
            />
          </Suspense>
        )}
        {keys && (
          <Suspense>
            <KeySheet onClose={closeKeys} />
          </Suspense>
        )}

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
            {install !== undefined && (
              <Suspense>
                <AtChairNote plan={id} install={install} />
              </Suspense>
            )}
            {draft.input.redo && (
              <Suspense>
                <RedoNote redo={draft.input.redo} />
              </Suspense>
            )}
            <Refused autosave={autosave} />
            {error && (
              <Alert
                type="error"
                showIcon
                title={refusal ? refusal.message : "Kladotex can not be reached. Is it still running?"}
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
                catalogue={catalogue}
                marked={marked}
                stanceRef={stance}
                reach={reach}
                mayWork={looking === undefined}
              />
            ) : (
              <Skeleton active className={styles.waitingHead ?? ""} />
            )}
            {marked && (
              <Button className={styles.unmark ?? ""} onClick={() => setNotice(undefined)}>
                Hide the marks
              </Button>
            )}
          </div>

          <section className={styles.panel} aria-label={stepNames[step]}>
            <StepNav id={id} />
            <FieldErrors value={errors}>
              <div className={styles.step} inert={looking !== undefined}>
                <Suspense fallback={<Skeleton active paragraph={{ rows: 8 }} />}>
                  {step === "look" && <LookStep draft={shown} catalogue={catalogue} />}
                  {told && step === "parting" && (
                    <PartingStep draft={shown} result={told} catalogue={catalogue} />
                  )}
                  {told && step === "hair" && (
                    <HairStep
                      plan={kept}
                      input={shown.input}
                      clientId={shown.clientId ?? ""}
                      variants={shown.variants ?? noVariants}
                      result={told}
                      catalogue={catalogue}
                      onReach={setReach}
                    />
                  )}
                  {told && step === "attach" && (
                    <AttachStep plan={isStored ? id : ""} draft={shown} result={told} catalogue={catalogue} />
                  )}
                  {told && step === "day" && <DayStep plan={kept} draft={shown} catalogue={catalogue} />}
                </Suspense>
              </div>
            </FieldErrors>
          </section>
        </main>

        {told && <TallyStrip result={told} before={before} onNotice={setNotice} />}
      </div>
    </ActContext>
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
function useLookBack(id: string, act: Act) {
  const [looking, setLooking] = useState<{ version: PlanVersion; draft: Draft }>();
  const { mutate } = useChange((version: PlanVersion) => server.version(id, version.version));
  const look = (version: PlanVersion) =>
    mutate(version, { onSuccess: (draft) => setLooking({ version, draft }) });
  const leave = () => setLooking(undefined);
  const bringBack = () => {
    if (looking) act(actions.bringBack(looking.draft.input, looking.draft.title));
    leave();
  };
  return { looking, look, bringBack, leave };
}

export default PlanWorkspace;
