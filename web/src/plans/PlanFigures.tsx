import type { PlanEntry } from "../api/types";
import { useMoney } from "../api/queries";
import { hours } from "../lib/units";

/** The four figures by which one knows a plan again. */
export function PlanFigures({ plan }: { plan: PlanEntry }) {
  const money = useMoney();
  const figures = [
    ["Sections", plan.sections],
    ["Packs", plan.packs],
    ["Cost", money(plan.costMinor)],
    ["Time", hours(plan.minutes)],
  ] as const;
  return (
    <dl>
      {figures.map(([name, figure]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>{figure}</dd>
        </div>
      ))}
    </dl>
  );
}
