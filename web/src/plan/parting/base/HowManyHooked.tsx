import { Button, Segmented } from "antd";
import { useMoney, usePreview } from "../../../api/queries";
import type { Layout, PlanInput } from "../../../api/types";
import { countOf } from "../../../lib/countOf";
import { usePreferences } from "../../../lib/preferences";
import { useSettled } from "../../../lib/settled";
import { hours, length, weight } from "../../../lib/units";
import { CountField, LengthField } from "../../../ui/fields";
import panel from "../../../ui/panel.module.css";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";
import styles from "./base.module.css";

const restTime = 300; // ms

/** How much fuller a full base is than one by the usual distance: 120 against 80. */
const fuller = 1.5;

const even = (n: number) => 2 * Math.max(1, Math.round(n / 2));

/** Pieces hooked on the base, those that cornrows go on as apart. */
export const hookedOn = (layout: Layout): number =>
  layout.tracks.reduce((n, t) => n + t.hooks.length - (t.fed ? 1 : 0), 0) +
  layout.nets.reduce((n, t) => n + t.hooks.length, 0);

/** The plan with so many pieces on its base; 0 lets their distance say. */
const withHooks = (input: PlanInput, n: number): PlanInput => ({
  ...input,
  parting: { ...input.parting, base: { ...input.parting.base, hooks: n } },
});

/** How many pieces are hooked on the base: as their distance gives, or a number that is spread over it. */
export function HowManyHooked({ input, layout }: { input: PlanInput; layout: Layout }) {
  const act = useAct();
  const unit = usePreferences((p) => p.unit);
  const { base } = input.parting;
  const wished = base.hooks ?? 0;
  const now = hookedOn(layout);
  const set = (hooks: number) => act(actions.setBase(null, { hooks }));
  const pack = input.pieces.find((p) => p.key === (input.uses[1]?.piece ?? input.uses[0]?.piece))?.pack;
  const perPack = pack ? pack.units * pack.cuts * pack.splits : 0;
  return (
    <section>
      <h3>Pieces on the base</h3>
      <Segmented<"distance" | "number">
        block
        aria-label="How many pieces on the base"
        value={wished > 0 ? "number" : "distance"}
        options={[
          { value: "distance", label: "By distance" },
          { value: "number", label: "A number" },
        ]}
        onChange={(by) => set(by === "number" ? now : 0)}
      />
      {wished > 0 ? (
        <>
          <CountField
            label="Spread over the base"
            path="parting.base.hooks"
            value={wished}
            max={400}
            onChange={set}
          />
          <p className={panel.lead}>
            {length(layout.spacingMm, unit)} apart in the middle of it. Closer at the part, airy behind: a
            rule of What goes where.
          </p>
          <div className={panel.quick}>
            {perPack > 0 && perPack <= 100 && (
              <Button onClick={() => set(2 * perPack)}>Pack a side: {2 * perPack}</Button>
            )}
            <Button onClick={() => set(even((wished * 2) / 3))}>
              A third fewer: {even((wished * 2) / 3)}
            </Button>
          </div>
        </>
      ) : (
        <LengthField
          label="A piece every"
          help={`Empty: as the piece is thick, here ${length(layout.spacingMm, unit)}; it makes ${countOf(now, "piece")}`}
          path="parting.base.spacingMm"
          empty
          mm={base.spacingMm}
          onChange={(mm) => act(actions.setBase("parting.base.spacingMm", { spacingMm: mm }))}
        />
      )}
      <LightAndFull input={input} onTake={set} />
    </section>
  );
}

/** The base light and full, side by side: what either takes. */
function LightAndFull({ input, onTake }: { input: PlanInput; onTake: (n: number) => void }) {
  const still = useSettled(input, restTime);
  const byDistance = usePreview(withHooks(still, 0)).answer?.result;
  const light = byDistance && hookedOn(byDistance.layout);
  if (!light) return null;
  return (
    <div className={styles.states}>
      <State name="Light" n={even(light)} input={still} onTake={onTake} />
      <State name="Full" n={even(fuller * light)} input={still} onTake={onTake} />
    </div>
  );
}

interface StateProps {
  name: string;
  n: number;
  input: PlanInput;
  onTake: (n: number) => void;
}

function State({ name, n, input, onTake }: StateProps) {
  const unit = usePreferences((p) => p.unit);
  const money = useMoney();
  const { answer, error } = usePreview(withHooks(input, n));
  const tally = answer?.result.tally;
  const chosen = input.parting.base.hooks === n;
  return (
    <div className={styles.state} data-chosen={chosen || undefined}>
      <h4>
        {name}: {n}
      </h4>
      {error ? (
        <p>No room for so many of this piece.</p>
      ) : (
        <dl aria-busy={!tally}>
          <dt>In all</dt>
          <dd>{tally ? countOf(tally.pieces, "piece") : "…"}</dd>
          <dt>Buy</dt>
          <dd>{tally ? `${countOf(tally.packs, "pack")}, ${money(tally.costMinor)}` : "…"}</dd>
          <dt>Hours</dt>
          <dd>{tally ? hours(tally.minutes) : "…"}</dd>
          <dt>Weight</dt>
          <dd>{tally ? weight(tally.weightG, unit) : "…"}</dd>
        </dl>
      )}
      <Button disabled={chosen || !tally} onClick={() => onTake(n)}>
        {chosen ? "Taken" : `Take ${name.toLowerCase()}`}
      </Button>
    </div>
  );
}
