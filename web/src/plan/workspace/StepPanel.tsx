import { Skeleton } from "antd";
import { Suspense, type ComponentProps } from "react";
import { FieldErrors } from "../../ui/fields";
import { useBench } from "../draft/onBench";
import { stepNames, type Step } from "../draft/steps";
import { AttachStep, DayStep, HairStep, HeadStep, PartingStep } from "./panels";
import styles from "./PlanWorkspace.module.css";
import { StepNav } from "./StepNav";

/** What is drawn of each step; all but the head wait until the plan was computed. */
const drawn = { head: HeadStep, parting: PartingStep, hair: HairStep, attach: AttachStep, day: DayStep };

interface Props {
  id: string;
  step: Step;
  errors: ComponentProps<typeof FieldErrors>["value"];
  /** Nothing is changed while an earlier version is looked at. */
  still: boolean;
}

/** The step that is open, beside the head. */
export function StepPanel({ id, step, errors, still }: Props) {
  const { result } = useBench();
  const Open = drawn[step];
  return (
    <section className={styles.panel} aria-label={stepNames[step]}>
      <StepNav id={id} />
      <FieldErrors value={errors}>
        <div className={styles.step} inert={still}>
          <Suspense fallback={<Skeleton active paragraph={{ rows: 8 }} />}>
            {(step === "head" || result) && <Open />}
          </Suspense>
        </div>
      </FieldErrors>
    </section>
  );
}
