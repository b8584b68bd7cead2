import { CheckCircleOutlined, WarningOutlined } from "@ant-design/icons";
import type { ChairWatch } from "../api/types";
import { clockOf, hours } from "../lib/units";
import styles from "./Chair.module.css";
import type { Following, Shown } from "./following";
import { countOf } from "../lib/countOf";

interface Props {
  following: Following;
  shown: Shown;
  onWork: () => void;
}

/** How it stands: hours against the plan, packs against reach, left against right, what was missed. */
export function WatchPart({ following, shown: { view }, onWork }: Props) {
  const { watch } = view;
  const { brief } = following.install;
  return (
    <main className={styles.watch} tabIndex={0}>
      <Hours watch={watch} working={view.working} />
      <section aria-label="Stages">
        <h2>Stages</h2>
        {watch.stages.map((s) => (
          <div key={s.kind} className={styles.stage}>
            <span>{s.name}</span>
            <Bar done={s.done} of={s.of} name={s.name} />
            <span className={styles.number}>
              {s.done} of {s.of}
            </span>
            <small>{s.leftMin > 0 ? `${hours(s.leftMin)} left as planned` : "done"}</small>
          </div>
        ))}
      </section>
      <section aria-label="Missed spots">
        <h2>Missed spots</h2>
        {watch.missed.length === 0 ? (
          <p className={styles.good}>
            <CheckCircleOutlined aria-hidden /> Nothing was missed.
          </p>
        ) : (
          watch.missed.map((m) => (
            <button
              key={m.region}
              type="button"
              className={styles.large}
              onClick={() => {
                following.goTo(m.tasks[0]);
                onWork();
              }}
            >
              <strong>
                {m.tasks.length} {m.region}
              </strong>
              <small>{m.says}</small>
            </button>
          ))
        )}
      </section>
      <section aria-label="Packs">
        <h2>Packs</h2>
        {watch.packs
          .filter((p) => (brief.pieces[p.piece]?.need ?? 0) > 0)
          .map((p) => {
            const piece = brief.pieces[p.piece];
            if (!piece) return null;
            return (
              <div key={piece.key} className={styles.pack} data-short={p.short > 0}>
                <h3>
                  <i style={{ background: piece.swatch ?? "var(--line)" }} aria-hidden />
                  {piece.name}
                  {piece.colour && `, ${piece.colour}`}
                </h3>
                <Packs
                  used={p.used}
                  have={p.used + p.loose + p.shut}
                  yieldOf={piece.yield}
                  opened={p.opened}
                />
                <p>
                  {p.short > 0 ? <WarningOutlined aria-hidden /> : <CheckCircleOutlined aria-hidden />}{" "}
                  {p.says}
                </p>
                <small>
                  {p.used} used{p.spoilt > 0 && `, ${p.spoilt} of them spoilt`} · {countOf(p.opened, "pack")}{" "}
                  opened
                </small>
                {p.checks.length > 1 && (
                  <ul>
                    {p.checks.map((c) => (
                      <li key={c.region}>
                        {c.closed ? "Closed" : "Closes"} {c.region} with <strong>{c.now.toFixed(1)}</strong>{" "}
                        packs, planned {c.planned.toFixed(1)}
                      </li>
                    ))}
                  </ul>
                )}
              </div>
            );
          })}
      </section>
      {watch.balance.length > 0 && (
        <section aria-label="Left against right">
          <h2>Left against right</h2>
          <table className={styles.balance}>
            <thead>
              <tr>
                <th scope="col">Row</th>
                <th scope="col">Left</th>
                <th scope="col">Right</th>
              </tr>
            </thead>
            <tbody>
              {watch.balance.map((b) => (
                <tr key={b.name} data-odd={b.odd}>
                  <th scope="row">
                    {b.name}
                    {b.odd && <small> · the sides differ</small>}
                  </th>
                  <td>
                    {b.leftDone} of {b.left}
                  </td>
                  <td>
                    {b.rightDone} of {b.right}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      {view.notes.length > 0 && (
        <section aria-label="Notes">
          <h2>Notes</h2>
          <ul className={styles.notes}>
            {view.notes.map((n, i) => (
              <li key={i}>
                <small>{clockOf(n.at)}</small> {n.photo === undefined ? n.text : `Picture: ${n.text}`}
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}

function Hours({ watch, working }: { watch: ChairWatch; working: boolean }) {
  const [soonest = 0, likely = 0, latest = 0] = watch.ends;
  return (
    <section aria-label="Hours" className={styles.hours}>
      <h2>Hours</h2>
      <dl>
        <div>
          <dt>At it so far</dt>
          <dd>{hours(watch.workedMin)}</dd>
        </div>
        <div>
          <dt>Still to do, breaks apart</dt>
          <dd>
            {hours(watch.leftMin.likely)}
            <small>
              {hours(watch.leftMin.low)} to {hours(watch.leftMin.high)}
            </small>
          </dd>
        </div>
        {working && (
          <div>
            <dt>{watch.sitting || "It"} ends about</dt>
            <dd>
              {clockOf(likely)}
              <small>
                {clockOf(soonest)} to {clockOf(latest)}, with breaks
              </small>
            </dd>
          </div>
        )}
      </dl>
      <p>{watch.says}</p>
    </section>
  );
}

const Bar = ({ done, of, name }: { done: number; of: number; name: string }) => (
  <progress className={styles.bar} value={done} max={of} aria-label={name} />
);

/** Packs in a row: used up, open, shut. */
function Packs({
  used,
  have,
  yieldOf,
  opened,
}: {
  used: number;
  have: number;
  yieldOf: number;
  opened: number;
}) {
  const count = Math.max(1, Math.ceil(have / Math.max(1, yieldOf)));
  return (
    <div
      className={styles.packs}
      role="img"
      aria-label={`${used} of ${have} pieces used, ${opened} packs opened`}
    >
      {Array.from({ length: Math.min(count, 24) }, (_, i) => {
        const share = Math.max(0, Math.min(1, (used - i * yieldOf) / yieldOf));
        return (
          <span key={i} data-open={i < opened}>
            <i style={{ height: `${100 * (1 - share)}%` }} />
          </span>
        );
      })}
    </div>
  );
}
