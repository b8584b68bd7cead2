import { lazy, memo, Suspense, useMemo, useState, type RefObject } from "react";
import type { Given, PlanInput, PlanResult } from "../../api/types";
import { HeadMap, hooksOf, type Stance } from "../../head";
import { useAct } from "../draft/act";
import { useDay, useDrape, useFitting, useKnownCatalogue } from "../../api/queries";
import { drapeKey, fitKey, landingKey, loadKey, useWorn } from "../draft/worn";
import { type AssignTool, givenReadings, useAssign, useDrapeLayer, useFallReadings } from "../hair";
import { HandBar, type HandTool, useHandwork } from "../parting";
import { orderReading } from "../day";
import type { Reaching } from "../draft/onBench";

/** What is read of the parting alone, and makes room where pieces are chosen. */
const ownKinds: readonly string[] = ["row", "stagger", "seen"];
const none: readonly string[] = [];

const AssignBar = lazy(async () => ({ default: (await import("../hair/assign/AssignBar")).AssignBar }));

interface Props {
  step: string;
  input: PlanInput;
  /** Whose head it is; left out while that is open. */
  clientId: string | undefined;
  result: PlanResult;
  marked: ReadonlySet<string> | undefined;
  stanceRef: RefObject<Stance>;
  /** Packs that are pointed at, to be shown on the head. */
  reach: Reaching | undefined;
  /** False while an earlier state is only looked at. */
  mayWork: boolean;
}

/** The head of a plan, with the tools and colours of the step that is open. */
export const PlanHead = memo(function PlanHead(props: Props) {
  const { step, input, clientId, result, marked, stanceRef, reach, mayWork } = props;
  const catalogue = useKnownCatalogue();
  const { head, layout } = result;
  const act = useAct();
  const [handTool, setHandTool] = useState<HandTool>("turn");
  const [assignTool, setAssignTool] = useState<AssignTool>("turn");
  const hand = useHandwork({ input, layout, head, act });
  const assign = useAssign(input, layout, head, act);
  const [shown, setShown] = useState<string>();
  const asked = useWorn((w) => w.asked);
  const layer = useDrapeLayer(input, shown === drapeKey);
  const landed = useDrape(input, "down", shown === landingKey).data;
  const layers = useMemo(() => [layer], [layer]);
  const fitting = useFitting(input, clientId ?? "", shown === fitKey || shown === loadKey).data;
  const falls = step === "hair";
  const fallen = useFallReadings(falls, fitting, landed);
  const day = useDay(input, step === "day").data;
  const readings = useMemo(
    () => [
      ...(step === "day" && day ? [orderReading(day)] : []),
      ...givenReadings(input, catalogue, reach),
      ...fallen,
    ],
    [step, day, input, catalogue, reach, fallen],
  );
  const parting = mayWork && step === "parting";
  // Under the drape there is nothing to pick.
  const giving = mayWork && (step === "hair" || step === "attach") && shown !== drapeKey;
  const bar = parting ? (
    <HandBar
      tool={handTool}
      onTool={(tool) => {
        setHandTool(tool);
        hand.pickNone();
      }}
      both={hand.both}
      onBoth={hand.setBoth}
      brush={hand.brush}
      onBrush={hand.setBrush}
      picked={hand.summary}
      onDoes={hand.does}
      leftOut={layout.leftOut.length}
      full={hand.full}
    />
  ) : giving ? (
    <Suspense>
      <AssignBar
        tool={assignTool}
        onTool={(tool) => {
          setAssignTool(tool);
          assign.pickNone();
        }}
        input={input}
        layout={layout}
        count={assign.count}
        both={assign.both}
        onBoth={assign.setBoth}
        onNone={assign.pickNone}
        onRow={assign.wholeRows}
        onCornrow={assign.pickCornrow}
        onGive={assign.give}
        onAdorn={assign.adorn}
      />
    </Suspense>
  ) : undefined;
  const tool = parting ? hand.tools[handTool]() : giving && assignTool === "assign" ? assign.tool : undefined;
  // Where pieces or ways differ, their step shows them at once.
  const mixed = (of: (g: Given) => number) =>
    new Set([...layout.sections, ...hooksOf(layout)].map(({ given }) => of(given))).size > 1;
  const start =
    (step === "hair" || step === "day") && asked
      ? asked
      : step === "hair" && reach
        ? "reach"
        : step === "hair" && mixed((g) => g.piece)
          ? "piece"
          : step === "attach" && mixed((g) => g.way)
            ? "method"
            : undefined;
  return (
    <HeadMap
      head={head}
      layout={layout}
      marked={marked}
      stanceRef={stanceRef}
      tool={tool}
      bar={bar}
      readings={readings}
      without={falls || step === "day" ? ownKinds : none}
      layers={layers}
      startReading={start}
      onReading={setShown}
    />
  );
});
