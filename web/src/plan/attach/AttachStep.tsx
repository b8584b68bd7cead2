import { PlayCircleOutlined } from "@ant-design/icons";
import { Button, Skeleton } from "antd";
import { lazy, memo, Suspense, useState } from "react";
import { useWork, useKnownCatalogue } from "../../api/queries";
import type { Attachment, Ground, PlanInput } from "../../api/types";
import { usePreferences } from "../../lib/preferences";
import { length } from "../../lib/units";
import styles from "../../ui/panel.module.css";
import { BeforeGoingOn } from "../../ui/BeforeGoingOn";
import { Parts } from "../../ui/Parts";
import { Trouble } from "../../ui/Trouble";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import { Around } from "./Around";
import { Departures } from "./Departures";
import { StepList, Still } from "./moves/StepList";
import { methodOf, UseList, usesText, wayName } from "../hair";
import { useBench, useComputed } from "../draft/onBench";
import { countOf } from "../../lib/countOf";

const WayList = lazy(async () => ({ default: (await import("./WayList")).WayList }));
const MethodAdvice = lazy(async () => ({ default: (await import("./MethodAdvice")).MethodAdvice }));
const MoveWalk = lazy(async () => ({ default: (await import("./moves/MoveWalk")).MoveWalk }));

/** How the pieces go on: methods, who gets which, the steps and the hours; what could hurt is read first. */
export const AttachStep = memo(function AttachStep() {
  const act = useAct();
  const { plan } = useBench();
  return (
    <BeforeGoingOn plan={plan.isStored ? plan.id : ""} onRemedy={(input) => act(actions.bringBack(input))}>
      <Attaching />
    </BeforeGoingOn>
  );
});

function Attaching() {
  const { input } = useBench().draft;
  const result = useComputed();
  const catalogue = useKnownCatalogue();
  const work = useWork(input);
  const { ways } = input;
  const done = work.data?.work ?? [];
  return (
    <>
      {work.error && <Trouble error={work.error} retry={() => void work.refetch()} />}
      <Parts
        step="attach"
        parts={[
          {
            key: "ways",
            title: "Methods",
            says: ways
              .filter((w) => done.length === 0 || done.some((d) => d.way === w.key))
              .map((w) => wayName(catalogue, input, w.key))
              .join(", "),
            paths: ["ways"],
            content: (
              <>
                <Suspense>
                  <WayList input={input} done={done} />
                </Suspense>
                <Departures input={input} />
              </>
            ),
          },
          {
            key: "advice",
            title: "Which method",
            says: "compared for this head",
            paths: ["wishes"],
            content: (
              <Suspense fallback={<Skeleton active />}>
                <MethodAdvice input={input} />
              </Suspense>
            ),
          },
          {
            key: "uses",
            title: "What goes where",
            says: usesText(input, result),
            paths: ["uses"],
            content: <UseList input={input} result={result} />,
          },
          {
            key: "steps",
            title: "Steps",
            says: countOf(done.length, "method"),
            content: work.data ? <StepsByWay work={done} input={input} /> : <Skeleton active />,
          },
          {
            key: "around",
            title: "Before and after",
            says: work.data ? `${work.data.before.length} to do before, ${work.data.after.length} after` : "",
            paths: ["customs"],
            content: work.data ? (
              <Around input={input} before={work.data.before} after={work.data.after} />
            ) : (
              <Skeleton active />
            ),
          },
        ]}
      />
      <p className={styles.caution}>
        Pain, bumps or stinging mean too tight: loosen now. Nothing on sore, broken or infected scalp; with
        hair loss or a recent chemical service ask a clinician first.
      </p>
    </>
  );
}

export const groundNames: Readonly<Record<Ground, string>> = {
  plait: "on the plaits",
  tracks: "on the cornrows",
  net: "through the net",
  linked: "on the linked plaits",
  laid: "on plaits laid back",
  end: "from the ends of the cornrows",
};

interface StepsProps {
  work: readonly Attachment[];
  input: PlanInput;
}

/** The moves in order, of one way of working at a time. */
function StepsByWay({ work, input }: StepsProps) {
  const catalogue = useKnownCatalogue();
  const unit = usePreferences((p) => p.unit);
  const [at, setAt] = useState(0);
  const [walks, setWalks] = useState(false);
  const shown = work[Math.min(at, work.length - 1)];
  if (!shown) return <p className={styles.lead}>Nothing hangs on this head yet.</p>;
  const method = methodOf(catalogue, shown.method);
  const nameOf = (w: Attachment) => {
    const piece =
      input.pieces.length > 1 ? `, ${input.pieces.find((p) => p.key === w.piece)?.name ?? ""}` : "";
    return `${wayName(catalogue, input, w.way)} ${groundNames[w.ground]}${piece}`;
  };
  return (
    <>
      {work.length > 1 && (
        <div className={styles.picks} role="group" aria-label="Steps of">
          {work.map((w, i) => (
            <Button
              key={`${w.way} ${w.piece} ${w.ground}`}
              type={w === shown ? "primary" : "default"}
              aria-pressed={w === shown}
              onClick={() => setAt(i)}
            >
              {nameOf(w)}
            </Button>
          ))}
        </div>
      )}
      <h3>
        {nameOf(shown)}: {countOf(shown.pieces, "piece")}
      </h3>
      <p className={styles.lead}>{method?.summary}</p>
      {method && (
        <Button
          type="primary"
          size="large"
          block
          icon={<PlayCircleOutlined aria-hidden />}
          onClick={() => setWalks(true)}
        >
          Show the pictures
        </Button>
      )}
      <dl className={styles.facts}>
        {shown.ground === "plait" && (
          <>
            <dt>Plait to hide</dt>
            <dd>
              {between(shown.plaitMm, (mm) => length(mm, unit))},{" "}
              {between(shown.thicknessMm, (mm) => mm.toFixed(1))} mm thick
            </dd>
          </>
        )}
        {shown.passes.most > 0 && (
          <>
            <dt>Passes</dt>
            <dd>{between(shown.passes, String)}</dd>
          </>
        )}
        {shown.ribbonMm.most > 0 && (
          <>
            <dt>Wrapping hair</dt>
            <dd>
              {between(shown.ribbonMm, (mm) => length(mm, unit))} in{" "}
              {between(shown.turns, (n) => String(Math.round(n)))} turns: {between(shown.strands, String)}{" "}
              {shown.strands.most === 1 ? "strand" : "strands"}
            </dd>
          </>
        )}
        <dt>Minutes a piece, practised</dt>
        <dd>
          {shown.attachMin.toFixed(1)}
          {shown.concealMin.most > 0 &&
            ` + ${between(shown.concealMin, (m) => m.toFixed(1))} to hide the plait`}
        </dd>
      </dl>
      {walks && method && (
        <Suspense fallback={null}>
          <MoveWalk
            title={nameOf(shown)}
            method={method}
            on={shown.steps}
            off={shown.takeDown}
            onClose={() => setWalks(false)}
          />
        </Suspense>
      )}
      <StepList steps={shown.steps} />
      {method && (
        <dl className={styles.facts}>
          <dt>Hidden by</dt>
          <dd>{shown.hidesBy}</dd>
          <dt>Root</dt>
          <dd>{method.root}</dd>
          <dt>Washing</dt>
          <dd>{shown.wash}</dd>
          <dt>Usual wear</dt>
          <dd>
            {method.wearWeeks[0]} to {method.wearWeeks[1]} weeks
          </dd>
        </dl>
      )}
      {method && (
        <>
          <h3>Usual mistake</h3>
          <div className={styles.mistake}>
            <p className={styles.lead}>
              {method.mistake} <strong>Fix:</strong> {method.mend}
            </p>
            <Still figure={method.wrong} still={0} />
          </div>
        </>
      )}
      <h3>To take it off</h3>
      <StepList steps={shown.takeDown} />
      {shown.cutBelowMm === 0 && <p className={styles.lead}>No piece is cut through.</p>}
    </>
  );
}

/** A number that differs between places. */
function between({ least, most }: Attachment["passes"], write: (v: number) => string): string {
  const [from, to] = [write(least), write(most)];
  return from === to ? to : `${from} to ${to}`;
}
