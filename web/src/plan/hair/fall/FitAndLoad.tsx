import { CheckCircleFilled, ExclamationCircleFilled, WarningFilled } from "@ant-design/icons";
import { Button, Segmented, Skeleton } from "antd";
import { useState } from "react";
import { useFitting } from "../../../api/queries";
import type { Fitting, PlanInput } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { weight } from "../../../lib/units";
import panel from "../../../ui/panel.module.css";
import { Trouble } from "../../../ui/Trouble";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";
import styles from "./FitAndLoad.module.css";
import { fitKey, loadKey } from "../../draft/worn";
import { useAsked } from "../../draft/useAsked";

interface Props {
  input: PlanInput;
  clientId: string;
}

/** Whether the pieces suit their plaits and are not too heavy, zone by zone, with what puts it right. */
export function FitAndLoad({ input, clientId }: Props) {
  const [look, setLook] = useState(fitKey);
  useAsked(look);
  const { data, error, refetch } = useFitting(input, clientId);
  if (error) return <Trouble error={error} retry={() => void refetch()} />;
  if (!data) return <Skeleton active />;
  return (
    <>
      <Segmented<string>
        block
        aria-label="Show on head"
        value={look}
        options={[
          { value: fitKey, label: "Fit on the head" },
          { value: loadKey, label: "Load on the head" },
        ]}
        onChange={setLook}
      />
      <HeadLoad load={data.load} />
      {data.zones.map((z) => (
        <Zone key={z.name} zone={z} />
      ))}
    </>
  );
}

/** What hangs on the whole head, against what heads carry. */
function HeadLoad({ load }: { load: Fitting["load"] }) {
  const unit = usePreferences((p) => p.unit);
  const most = Math.max(1.15 * load.mostG, load.dryG);
  const at = (g: number) => `${(100 * g) / most}%`;
  const word = load.dryG > load.mostG ? "too" : load.dryG > load.heavyG ? "heavy" : "fine";
  return (
    <section className={styles.head} aria-label="Load on the head">
      <div className={styles.sums}>
        <span>
          <strong>{weight(load.dryG, unit)}</strong> dry
        </span>
        <span>
          <strong>{weight(load.soakedG, unit)}</strong> soaked, about
        </span>
      </div>
      <div className={styles.scale} aria-hidden>
        <i data-word={word} style={{ width: at(load.dryG) }} />
        <b style={{ left: at(load.heavyG) }}>
          <span>heavy to wear {weight(load.heavyG, unit).replace(" ", "\u00a0")}</span>
        </b>
        <b style={{ left: at(load.mostG) }}>
          <span>too heavy for most {weight(load.mostG, unit).replace(" ", "\u00a0")}</span>
        </b>
      </div>
      {load.says.map((s) => (
        <p key={s}>{s}</p>
      ))}
      <p>
        A hair carries {load.medianMg.toFixed(1)} mg in the middle, {load.greatestMg.toFixed(1)} mg at most;{" "}
        {load.usualMg.toFixed(1)} mg is usual.
      </p>
      <p className={styles.honest}>{load.noLimit}</p>
    </section>
  );
}

const range = (b: { least: number; most: number }) =>
  b.least.toFixed(1) === b.most.toFixed(1) ? b.most.toFixed(1) : `${b.least.toFixed(1)}–${b.most.toFixed(1)}`;

const icons = {
  danger: <WarningFilled aria-label="Danger" />,
  look: <ExclamationCircleFilled aria-label="Look at this" />,
  hint: <ExclamationCircleFilled aria-label="A hint" />,
} as const;

/** One zone: its plaits, its load, what is wrong there and what puts it right. */
function Zone({ zone }: { zone: Fitting["zones"][number] }) {
  const act = useAct();
  return (
    <section className={styles.zone} aria-label={zone.name}>
      <h3>
        {zone.name}
        <small>
          {zone.places}{" "}
          {zone.hooked ? (zone.places === 1 ? "spot" : "spots") : zone.places === 1 ? "plait" : "plaits"}
        </small>
      </h3>
      <p className={panel.lead}>
        {zone.hooked ? "Hair under a spot" : "Plaits"} {range(zone.plaitMm)} mm thick, {range(zone.loadMg)} mg
        a hair
      </p>
      {zone.findings.length === 0 && (
        <p className={styles.suits}>
          <CheckCircleFilled aria-hidden /> Suits, and is not heavy
        </p>
      )}
      {zone.findings.map((f) => (
        <div key={f.code} className={styles.finding} data-severity={f.severity}>
          <p>
            {icons[f.severity]} {f.count < zone.places && `At ${f.count} of ${zone.places} spots. `}
            {f.reason}
          </p>
          {f.remedies.length === 0 && <p className={styles.words}>{f.words}</p>}
          <div className={styles.remedies}>
            {f.remedies.map((r) => (
              <Button key={r.says} onClick={() => act(actions.bringBack(r.input))}>
                {r.says}
              </Button>
            ))}
          </div>
        </div>
      ))}
    </section>
  );
}
