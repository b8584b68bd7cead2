import { Alert, Button, Checkbox, Skeleton } from "antd";
import { useState, type ReactNode } from "react";
import { server } from "../api/client";
import { useChange, useClearance, useMay } from "../api/queries";
import type { Caution, Clearance, PlanInput } from "../api/types";
import { when } from "../lib/units";
import styles from "./BeforeGoingOn.module.css";
import panel from "./panel.module.css";
import { toldOf, Trouble } from "./Trouble";

interface Props {
  /** Id of the plan; empty while it is not stored. */
  plan: string;
  children: ReactNode;
  /** Takes a plan that may be carried out in place of one that may not. */
  onRemedy?: (input: PlanInput, says: string) => void;
  /** False where it is said elsewhere on the page who read what. */
  readers?: boolean;
}

/** Holds back what goes on with a plan until what could hurt was asked about and read; who read it stays in sight. */
export function BeforeGoingOn({ plan, children, onRemedy, readers = true }: Props) {
  const clearance = useClearance(plan);
  if (plan === "") return children;
  // Nothing before it is known what the card says.
  if (!clearance.data)
    return clearance.error ? (
      <Trouble error={clearance.error} retry={() => void clearance.refetch()} />
    ) : (
      <Skeleton active paragraph={{ rows: 3 }} />
    );
  const { clear, cautions } = clearance.data;
  if (!clear) return <Gate plan={plan} clearance={clearance.data} {...(onRemedy && { onRemedy })} />;
  return (
    <>
      {children}
      {readers && cautions.length > 0 && <Readers cautions={cautions} />}
    </>
  );
}

const Readers = ({ cautions }: { cautions: readonly Caution[] }) => (
  <ul className={styles.read} aria-label="Cautions that were read">
    {cautions.map((c) => (
      <li key={c.key}>
        {c.text}{" "}
        {c.by && c.at && (
          <small>
            Read by {c.by}, {when(c.at)}.
          </small>
        )}
      </li>
    ))}
  </ul>
);

interface GateProps {
  plan: string;
  clearance: Clearance;
  onRemedy?: (input: PlanInput, says: string) => void;
}

function Gate({ plan, clearance, onRemedy }: GateProps) {
  const may = useMay("readCaution");
  const read = useChange((caution: string) => server.readCaution(plan, caution), "clearance", "client");
  return (
    <section className={styles.gate} aria-label="Before you go on">
      <h2>Before you go on</h2>
      {clearance.refusals.map((r) => (
        <div key={r.code} className={styles.caution}>
          <p>{r.reason}</p>
          {onRemedy &&
            r.remedies.map((x) => (
              <Button key={x.says} size="large" onClick={() => onRemedy(x.input, x.says)}>
                {x.says}
              </Button>
            ))}
          {!onRemedy && <p>Open the plan, step Attach: what would be right is offered there.</p>}
        </div>
      ))}
      {!clearance.asked && <Questions plan={plan} clearance={clearance} />}
      {clearance.cautions
        .filter((c) => !c.by)
        .map((c) => (
          <div key={c.key} className={styles.caution}>
            <p>{c.text}</p>
            <Button
              type="primary"
              size="large"
              disabled={!may}
              loading={read.isPending}
              aria-label={`Read and understood: ${c.text}`}
              onClick={() => read.mutate(c.key)}
            >
              Read and understood
            </Button>
          </div>
        ))}
      {read.error && <Alert type="error" showIcon title={toldOf(read.error)} />}
      <p className={panel.lead}>
        Usual practice, not medical advice: ask a clinician, and check the rules that hold where you work.
        Your name and the day are kept with it.
        {!may && " A stylist or an owner has to read it."}
      </p>
    </section>
  );
}

/** What is asked about a head that no card speaks of. */
function Questions({ plan, clearance }: { plan: string; clearance: Clearance }) {
  const may = useMay("askAboutHead");
  const [yes, setYes] = useState<readonly string[]>([]);
  const ask = useChange((history: readonly string[]) => server.askAboutHead(plan, history), "clearance");
  return (
    <fieldset className={styles.caution}>
      <legend>About this head</legend>
      {clearance.questions.map((q) => (
        <Checkbox
          key={q.key}
          className={styles.question ?? ""}
          checked={yes.includes(q.key)}
          onChange={(e) => setYes(e.target.checked ? [...yes, q.key] : yes.filter((k) => k !== q.key))}
        >
          {q.text}
        </Checkbox>
      ))}
      <Button
        type="primary"
        size="large"
        disabled={!may}
        loading={ask.isPending}
        onClick={() => ask.mutate(yes)}
      >
        {yes.length === 0 ? "None of these" : "Save answers"}
      </Button>
      {ask.error && <Alert type="error" showIcon title={toldOf(ask.error)} />}
    </fieldset>
  );
}
