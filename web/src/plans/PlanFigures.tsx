import type { PlanEntry } from "../api/types";
import { usePreferences } from "../app/preferences";
import { hours, money } from "../app/units";

/** The four figures by which one knows a plan again. */
export function PlanFigures({ plan }: { plan: PlanEntry }) {
  const currency = usePreferences((p) => p.currency);
  const figures = [
    ["Sections", plan.sections],
    ["Packs", plan.packs],
    ["Cost", money(plan.costMinor, currency)],
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
