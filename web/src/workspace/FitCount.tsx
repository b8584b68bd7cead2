import { Alert, Button, InputNumber, Segmented } from "antd";
import { memo, useState } from "react";
import { Refusal, server } from "../api/client";
import { useChange } from "../api/queries";
import type { Fitted, PlanInput } from "../api/types";
import type { Change } from "./draft";
import styles from "./steps.module.css";

type Keep = "both" | "front" | "back";

interface Props {
  input: PlanInput;
  sections: number;
  change: Change;
}

/** Parts fitted to a number of sections: the pieces are in hand already. */
export const FitCount = memo(function FitCount({ input, sections, change }: Props) {
  const [total, setTotal] = useState<number | null>(null);
  const [keep, setKeep] = useState<Keep>("both");
  const fit = useChange(server.fitCount);
  const take = (f: Fitted) => {
    change(null, (i) => ({ ...i, parting: f.parting }));
    fit.reset();
    setTotal(null);
  };
  const ask = () =>
    fit.mutate(
      { input, total: total ?? sections, ...(keep !== "both" && { keep }) },
      { onSuccess: (found) => found.length === 1 && found[0] && take(found[0]) },
    );
  const refusal = fit.error instanceof Refusal ? (fit.error.fields.total ?? fit.error.message) : undefined;
  return (
    <section>
      <h2>Fit to a count</h2>
      <p className={styles.lead}>
        A set of pieces is in hand? Say how many sections; the sizes follow. Where left and right mirror each
        other and nothing crosses the middle, only even counts can be met.
      </p>
      <div className={styles.fit}>
        <InputNumber<number>
          aria-label="Sections wished for"
          value={total ?? sections}
          min={1}
          step={1}
          suffix="sections"
          onChange={setTotal}
          onPressEnter={ask}
        />
        <Button type="primary" loading={fit.isPending} onClick={ask}>
          Fit the sizes
        </Button>
      </div>
      <Segmented<Keep>
        block
        aria-label="Which sizes may change"
        value={keep}
        options={[
          { value: "both", label: "Change both" },
          { value: "front", label: "Keep front" },
          { value: "back", label: "Keep back" },
        ]}
        onChange={setKeep}
      />
      {fit.error && <Alert type="error" showIcon title={refusal ?? "Kladotex can not be reached."} />}
      {fit.data && fit.data.length > 1 && (
        <div className={styles.nearest} role="status">
          <p>No layout has exactly {total ?? sections}. The nearest two:</p>
          {fit.data.map((f) => (
            <Button key={f.sections} onClick={() => take(f)}>
              Use {f.sections} sections
            </Button>
          ))}
        </div>
      )}
    </section>
  );
});
