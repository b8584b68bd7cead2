import { Button } from "antd";
import { memo, useState } from "react";
import { useTradeOff } from "../../api/queries";
import type { PlanInput, Structure, StructurePoint, TradePoint } from "../../api/types";
import { usePreferences } from "../../lib/preferences";
import { hours, length } from "../../lib/units";
import { useMoney } from "../../api/queries";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import { structures } from "./structures";
import styles from "./TradeOff.module.css";

const [wide, high, pad] = [360, 52, 6];

const none: never[] = [];

interface Props {
  input: PlanInput;
}

/** For this head: how sections, hours and hair change with the size. */
export const TradeOff = memo(function TradeOff({ input }: Props) {
  const unit = usePreferences((p) => p.unit);
  const money = useMoney();
  const act = useAct();
  const trade = useTradeOff(input).data;
  const points = trade?.sizes ?? none;
  const own = input.parting.back.widthMm;
  const [picked, setPicked] = useState<number>();
  const nearest = points.reduce<TradePoint | undefined>(
    (best, p) =>
      best && Math.abs(best.widthMm - (picked ?? own)) <= Math.abs(p.widthMm - (picked ?? own)) ? best : p,
    undefined,
  );
  const [first, last] = [points[0], points[points.length - 1]];
  if (!first || !last || !nearest) return null;
  const x = (mm: number) =>
    pad + ((mm - first.widthMm) / (last.widthMm - first.widthMm || 1)) * (wide - 2 * pad);
  const curves = [
    { name: "Sections", of: (p: TradePoint) => p.sections, write: String },
    { name: "Hours", of: (p: TradePoint) => p.minutes, write: hours },
    { name: "Hair", of: (p: TradePoint) => p.costMinor, write: (v: number) => money(v) },
  ];
  const take = () => {
    act(actions.scaleSizes(nearest.widthMm / own));
    setPicked(undefined);
  };
  return (
    <section>
      <h3>Larger or smaller?</h3>
      <p className={styles.lead}>
        What the size behind does to this plan, the front in step with it. Tap a size to read it.
      </p>
      {curves.map(({ name, of, write }) => {
        const most = Math.max(...points.map(of));
        const y = (p: TradePoint) => high - pad - (of(p) / (most || 1)) * (high - 2 * pad);
        return (
          <div key={name} className={styles.curve}>
            <span className={styles.name}>
              {name} <strong>{write(of(nearest))}</strong>
            </span>
            <svg viewBox={`0 0 ${wide} ${high}`} role="img" aria-label={`${name} by section size`}>
              <line x1={x(own)} x2={x(own)} y1={0} y2={high} className={styles.own} />
              <path
                d={`M${points.map((p) => `${x(p.widthMm)} ${y(p)}`).join("L")}`}
                className={styles.line}
              />
              <circle cx={x(nearest.widthMm)} cy={y(nearest)} r={4.5} className={styles.point} />
            </svg>
          </div>
        );
      })}
      <div className={styles.scale}>
        <span>Size behind, {unit}</span>
        <div className={styles.sizes} role="group" aria-label="Section size behind">
          {points.map(
            (p, i) =>
              i % 2 === 0 && (
                <button
                  key={p.widthMm}
                  type="button"
                  aria-pressed={p === nearest}
                  aria-label={`${length(p.widthMm, unit)}: ${p.sections} sections, ${hours(p.minutes)}, ${p.packs} packs, ${money(p.costMinor)}`}
                  onClick={() => setPicked(p.widthMm)}
                >
                  {length(p.widthMm, unit).replace(/ \w+$/, "")}
                </button>
              ),
          )}
        </div>
      </div>
      <div className={styles.foot}>
        <span>
          At {length(nearest.widthMm, unit)}: {nearest.sections} sections, {nearest.packs} packs
        </span>
        <Button disabled={Math.abs(nearest.widthMm - own) < 0.01} onClick={take}>
          Use this size
        </Button>
      </div>
      <Savings points={trade?.structures ?? none} own={input.parting.structure} />
    </section>
  );
});

/** What each structure saves against individuals all over, in hours and hair. */
function Savings({ points, own }: { points: readonly StructurePoint[]; own: Structure }) {
  const money = useMoney();
  return (
    <table className={styles.savings}>
      <caption>What a structure saves against individuals all over</caption>
      <thead>
        <tr>
          <th scope="col">Structure</th>
          <th scope="col">Hours</th>
          <th scope="col">Saved</th>
          <th scope="col">Hair</th>
        </tr>
      </thead>
      <tbody>
        {points.map((p) => (
          <tr key={p.structure} aria-current={p.structure === own}>
            <th scope="row">{structures[p.structure].name}</th>
            <td>{hours(p.minutes)}</td>
            <td>
              {Math.abs(p.savedMinutes) < 1
                ? "–"
                : `${p.savedMinutes < 0 ? "−" : ""}${hours(Math.abs(p.savedMinutes))}`}
            </td>
            <td>{money(p.costMinor)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
