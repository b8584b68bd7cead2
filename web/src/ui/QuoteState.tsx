import { CheckCircleFilled, ClockCircleOutlined, CloseCircleFilled } from "@ant-design/icons";
import { Tag } from "antd";
import type { Quote } from "../api/types";

const states = {
  given: { name: "Open", colour: "gold", icon: <ClockCircleOutlined /> },
  accepted: { name: "Accepted", colour: "green", icon: <CheckCircleFilled /> },
  declined: { name: "Declined", colour: "red", icon: <CloseCircleFilled /> },
} as const;

/** What became of a quote. */
export function QuoteState({ quote: { state, expired } }: { quote: Pick<Quote, "state" | "expired"> }) {
  const { name, colour, icon } = states[state];
  return (
    <Tag color={colour} icon={icon}>
      {expired ? "Ran out" : name}
    </Tag>
  );
}
