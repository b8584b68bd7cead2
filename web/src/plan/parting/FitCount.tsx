import { Alert, Button, Select } from "antd";
import { memo, useState } from "react";
import { Refusal, server } from "../../api/client";
import { useChange } from "../../api/queries";
import type { Fitted, PlanInput } from "../../api/types";
import { Numeric } from "../../ui/Numeric";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import styles from "../../ui/panel.module.css";

/** What the number is of, and with it which sizes may change. */
type Of = "both" | "front" | "back" | "frontAlone" | "backAlone";

const wishes: Record<Of, { label: string; keep?: "front" | "back"; alone?: boolean }> = {
  both: { label: "The whole head; front and back may change" },
  back: { label: "The whole head; the front stays", keep: "front" },
  front: { label: "The whole head; the back stays", keep: "back" },
  frontAlone: { label: "The front alone; the back stays", keep: "back", alone: true },
  backAlone: { label: "The back alone; the front stays", keep: "front", alone: true },
};

interface Props {
  input: PlanInput;
  sections: number;
}

/** Parts fitted to a number of sections: the pieces are in hand already. */
export const FitCount = memo(function FitCount({ input, sections }: Props) {
  const [total, setTotal] = useState<number | null>(null);
  const [of, setOf] = useState<Of>("both");
  const [split, setSplit] = useState(0);
  const fit = useChange(server.fitCount);
  const act = useAct();
  // Of one zone alone there is no number to start from.
  const wanted = total ?? (wishes[of].alone ? null : sections);
  const take = (f: Fitted) => {
    act(actions.changeParting(null, () => f.parting));
    setSplit(f.split ?? 0);
    fit.reset();
    setTotal(null);
  };
  const ask = () => {
    setSplit(0);
    fit.mutate(
      {
        input,
        total: wanted ?? sections,
        ...(wishes[of].keep && { keep: wishes[of].keep }),
        ...(wishes[of].alone && { alone: true }),
      },
      { onSuccess: (found) => found.length === 1 && found[0] && take(found[0]) },
    );
  };
  const refusal = fit.error instanceof Refusal ? (fit.error.fields.total ?? fit.error.message) : undefined;
  return (
    <section>
      <h3>Match a count</h3>
      <p className={styles.lead}>
        Have a set of pieces? Say how many sections; the sizes follow. Where left and right mirror each other
        and nothing crosses the middle, only even counts can be met.
      </p>
      <div className={styles.fit}>
        <Numeric
          aria-label="Sections wished for"
          value={wanted}
          placeholder="how many"
          unit="sections"
          next={(by) => Math.max(1, (wanted ?? sections) + by)}
          onChange={setTotal}
          onEnter={() => wanted !== null && ask()}
        />
        <Button type="primary" loading={fit.isPending} disabled={wanted === null} onClick={ask}>
          Match the count
        </Button>
      </div>
      <Select<Of>
        aria-label="What the number is of"
        value={of}
        options={(Object.keys(wishes) as Of[]).map((value) => ({ value, label: wishes[value].label }))}
        onChange={setOf}
      />
      {fit.error && <Alert type="error" showIcon title={refusal ?? "Kladotex cannot be reached."} />}
      {split > 0 && (
        <p role="status">
          No size alone makes that many:{" "}
          {split === 1 ? "the largest section was" : "the two largest sections were"} split in two. You find
          it under By hand, where it can be taken back.
        </p>
      )}
      {fit.data && fit.data.length > 1 && (
        <div className={styles.nearest} role="status">
          <p>No sizes make exactly {wanted}. The nearest two:</p>
          {fit.data.map((f) => (
            <Button key={f.sections} onClick={() => take(f)}>
              Use {!wishes[of].alone ? f.sections : wishes[of].keep === "back" ? f.front : f.back} sections
            </Button>
          ))}
        </div>
      )}
    </section>
  );
});
