import { CopyOutlined, DeleteOutlined } from "@ant-design/icons";
import { App, Button } from "antd";
import { Link, useNavigate } from "react-router";
import { server } from "../api/client";
import { useChange, useMay } from "../api/queries";
import type { PlanEntry } from "../api/types";
import { newAddress } from "../lib/madeHere";
import { toldOf } from "../ui/Trouble";
import { when } from "../lib/units";
import { PlanFigures } from "./PlanFigures";
import styles from "./PlansPage.module.css";

/** Plans as cards: picture, figures, and a new start from any of them. */
export const PlanList = ({ plans }: { plans: PlanEntry[] }) => (
  <ul className={styles.list}>
    {plans.map((p) => (
      <PlanCard key={p.id} plan={p} />
    ))}
  </ul>
);

function PlanCard({ plan }: { plan: PlanEntry }) {
  const { modal, message } = App.useApp();
  const navigate = useNavigate();
  const mayDelete = useMay("deletePlan");
  const remove = useChange(server.removePlan, "plans");
  const ask = () =>
    modal.confirm({
      title: `Delete “${plan.title}”?`,
      content: "The plan, its numbers and its history are deleted for good.",
      okText: "Delete the plan",
      okButtonProps: { danger: true },
      onOk: () => remove.mutateAsync(plan.id).catch((e: unknown) => void message.error(toldOf(e))),
    });
  return (
    <li className={styles.card}>
      <Link to={`/plans/${plan.id}/parting`} className={styles.open}>
        <img
          src={`/api/v1/plans/${plan.id}/picture.svg?v=${plan.version}`}
          alt=""
          width={132}
          height={132}
          loading="lazy"
        />
        <div>
          <h2>{plan.title}</h2>
          <p className={styles.kind}>
            {plan.client ?? "No client yet"} · {plan.pattern} · {plan.method.toLowerCase()}
          </p>
          <PlanFigures plan={plan} />
          <p className={styles.saved}>
            {plan.installId === undefined ? "Saved" : "Kept as it was at the chair, saved"}{" "}
            {when(plan.updated)}
            {plan.savedBy && ` by ${plan.savedBy}`}
          </p>
        </div>
      </Link>
      <div className={styles.tools}>
        <Button
          type="text"
          icon={<CopyOutlined />}
          title="Start a new plan from this one"
          aria-label={`Start a new plan from ${plan.title}`}
          onClick={() => void navigate(newAddress("plans", { from: plan.id }))}
        />
        {mayDelete && (
          <Button
            type="text"
            icon={<DeleteOutlined />}
            title="Delete this plan"
            aria-label={`Delete ${plan.title}`}
            onClick={() => void ask()}
          />
        )}
      </div>
    </li>
  );
}
