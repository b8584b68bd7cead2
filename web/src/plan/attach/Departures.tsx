import { Button } from "antd";
import { useDepartures } from "../../api/queries";
import type { PlanInput } from "../../api/types";
import panel from "../../ui/panel.module.css";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import styles from "./Departures.module.css";

/** Where this plan is not done as the house does it, and the way back. */
export function Departures({ input }: { input: PlanInput }) {
  const act = useAct();
  const { data = [], isPlaceholderData } = useDepartures(input);
  if (data.length === 0) return null;
  return (
    <section aria-label="Differs from house rules">
      <h3>Differs from house rules</h3>
      <ul className={styles.list}>
        {data.map((d) => (
          <li key={d.key}>
            <p>
              <strong>{d.ask}:</strong> {d.plan.name.toLowerCase()}. The house: {d.house.name.toLowerCase()}.
            </p>
            <p className={panel.lead}>
              {d.house.reason}. It changes {d.touches.join(", ")}.
            </p>
            <Button
              disabled={isPlaceholderData} // an answer to an earlier plan would take the last change back
              aria-label={`Follow house rules: ${d.ask}`}
              onClick={() => act(actions.bringBack(d.asHouse))}
            >
              Follow house rules
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
