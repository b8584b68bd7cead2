import { CheckCircleFilled, ClockCircleOutlined, CloseCircleFilled } from "@ant-design/icons";
import type { Quote } from "../api/types";
import styles from "./QuoteState.module.css";

const states = {
  given: { name: "Open", icon: <ClockCircleOutlined aria-hidden /> },
  accepted: { name: "Accepted", icon: <CheckCircleFilled aria-hidden /> },
  declined: { name: "Declined", icon: <CloseCircleFilled aria-hidden /> },
} as const;

/** What became of a quote. */
export function QuoteState({ quote: { state, expired } }: { quote: Pick<Quote, "state" | "expired"> }) {
  const { name, icon } = states[state];
  return (
    <span className={styles.state} data-state={state}>
      {icon} {expired ? "Ran out" : name}
    </span>
  );
}
