import { App, Button, Segmented, Select } from "antd";
import { useState } from "react";
import { useNavigate } from "react-router";
import { v4 as uuid } from "uuid";
import { server } from "../api/client";
import { useChange, useWear } from "../api/queries";
import type { WearKind, WornHead } from "../api/types";
import { useNarrow } from "../lib/narrow";
import { hours } from "../lib/units";
import { Count } from "../ui/Numeric";
import { Refused, refusalOf } from "./Refused";
import { SavedCounts } from "./SavedCounts";
import { localDay } from "../lib/localDay";
import styles from "./Wear.module.css";
import { weeks } from "./words";

const mends = [
  { value: "put-back", label: "Put back" },
  { value: "replaced", label: "Replaced" },
  { value: "lost", label: "Lost" },
] as const satisfies readonly { value: WearKind; label: string }[];

/** Pieces that came loose, and the outer rows done again. */
export function MendPart({ head }: { head: WornHead }) {
  const { message } = App.useApp();
  const narrow = useNarrow();
  const [kind, setKind] = useState<(typeof mends)[number]["value"]>("put-back");
  const [piece, setPiece] = useState(head.pieces[0]?.key ?? "");
  const [count, setCount] = useState(1);
  const chosen = head.pieces.find((p) => p.key === piece);
  const keep = useWear(head.id, () =>
    server.putWear(head.id, { id: uuid(), on: localDay(), day: 0, kind, piece, count }),
  );
  return (
    <>
      <h3>A loose or lost piece</h3>
      <div className={styles.mend}>
        <Segmented
          size="large"
          block={narrow}
          aria-label="What was done"
          value={kind}
          options={[...mends]}
          onChange={setKind}
        />
        {head.pieces.length > 1 && (
          <Select
            size="large"
            aria-label="Which piece"
            value={piece}
            options={head.pieces.map((p) => ({
              value: p.key,
              label: [p.name, p.colour].filter(Boolean).join(", "),
            }))}
            onChange={setPiece}
          />
        )}
        <Count
          label="How many"
          value={count}
          min={1}
          max={chosen?.hung ?? 1}
          onChange={(n) => setCount(n ?? 1)}
        />
        <Button
          type="primary"
          size="large"
          loading={keep.isPending}
          onClick={() =>
            keep.mutate(undefined, {
              onSuccess: () => {
                setCount(1);
                void message.success("Noted.");
              },
            })
          }
        >
          Note it
        </Button>
      </div>
      {kind === "replaced" && chosen && (
        <p className={styles.note}>
          {chosen.kept
            ? "The new ones come out of the stash."
            : "This piece is not among the supplies: nothing is taken out of the stash."}
        </p>
      )}
      <Refused error={keep.error} />
      <h3>The ring again</h3>
      {head.renewals.length === 0 ? (
        <p>No pieces hang loose along this hairline: there is no ring to do again.</p>
      ) : (
        <Renewals head={head} />
      )}
    </>
  );
}

/** What doing one or both outer rows again costs and gains, and a plan of it. */
function Renewals({ head }: { head: WornHead }) {
  const navigate = useNavigate();
  const { message } = App.useApp();
  const [saving, setSaving] = useState<number>();
  const best = [...head.renewals].reverse().find((r) => r.pays);
  const plan = useChange(async (rows: number) => {
    const id = uuid();
    await server.createPlan(id, await server.begin({ renews: head.id, rows: String(rows) }));
    return id;
  }, "plans");
  return (
    <>
      <div className={styles.renewals}>
        {head.renewals.map((r) => (
          <article key={r.rows} data-pays={r.pays}>
            <h4>{r.rows === 1 ? "Outer row" : "Both outer rows"}</h4>
            <dl>
              <div>
                <dt>Places</dt>
                <dd>{r.places}</dd>
              </div>
              <div>
                <dt>Pieces</dt>
                <dd>{r.pieces}</dd>
              </div>
              <div>
                <dt>Hours</dt>
                <dd>{hours(r.minutes)}</dd>
              </div>
              <div>
                <dt>Gains</dt>
                <dd>{weeks(r.weeks)}</dd>
              </div>
            </dl>
            <p>
              <strong>{r.pays ? "It pays." : "Not now."}</strong> {r.why}
            </p>
            <Button size="large" type={r === best ? "primary" : "default"} onClick={() => setSaving(r.rows)}>
              {r.rows === 1 ? "Redo the ring" : "Do both again"}
            </Button>
          </article>
        ))}
      </div>
      {saving !== undefined && (
        <div className={styles.link}>
          <RingOff
            key={saving}
            head={head}
            rows={saving}
            busy={plan.isPending}
            onDone={() =>
              plan.mutate(saving, {
                onSuccess: (id) => void navigate(`/plans/${id}/hair`),
                onError: (e) => void message.error(refusalOf(e)),
              })
            }
          />
        </div>
      )}
    </>
  );
}

interface RingOffProps {
  head: WornHead;
  rows: number;
  /** True while the plan is made. */
  busy: boolean;
  onDone: () => void;
}

/** Pieces of the ring that can be hung again, before the plan of it is made. */
function RingOff({ head, rows, busy, onDone }: RingOffProps) {
  const pieces = head.renewals.find((r) => r.rows === rows)?.pieces ?? 0;
  const [saved, setSaved] = useState(() => head.pieces.map((p) => ({ piece: p.key, good: 0, worn: 0 })));
  const any = saved.some((s) => s.good + s.worn > 0);
  const keep = useWear(head.id, () =>
    server.putWear(head.id, {
      id: uuid(),
      on: localDay(),
      day: 0,
      kind: "ring-off",
      rows,
      saved: saved.filter((s) => s.good + s.worn > 0),
    }),
  );
  return (
    <>
      <p>
        <strong>Off already?</strong> Of its {pieces} pieces, how many can be hung again? They go to the
        stash, and the plan takes them first. Nothing to count yet: just plan.
      </p>
      <SavedCounts head={head} saved={saved} most={pieces} onChange={setSaved} />
      <Refused error={keep.error} />
      <div className={styles.buttons}>
        <Button
          type="primary"
          size="large"
          loading={keep.isPending || busy}
          onClick={() => (any ? keep.mutate(undefined, { onSuccess: onDone }) : onDone())}
        >
          {any ? "Keep and plan" : "Plan it"}
        </Button>
      </div>
    </>
  );
}
