import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { App, Button, Skeleton } from "antd";
import { Link, useNavigate } from "react-router";
import { usePlans, useRemovePlan } from "../api/queries";
import type { PlanEntry } from "../api/types";
import { Header } from "../app/Header";
import { usePreferences } from "../app/preferences";
import { hours, money } from "../app/units";
import { Trouble } from "../app/Trouble";
import styles from "./PlansPage.module.css";

/** All plans, each with a small picture of its parted head. */
export function PlansPage() {
  const plans = usePlans();
  const navigate = useNavigate();
  const open = () => navigate("/plans/new/look");
  return (
    <div className={styles.page}>
      <Header />
      <main className={styles.main}>
        <div className={styles.top}>
          <div>
            <h1>Plans</h1>
            <p>Part the head, count the pieces, know the hours before the first part is drawn.</p>
          </div>
          <Button type="primary" size="large" icon={<PlusOutlined />} onClick={open}>
            New plan
          </Button>
        </div>
        {plans.isPending && <Skeleton active />}
        {plans.error && <Trouble error={plans.error} retry={() => void plans.refetch()} />}
        {plans.data?.length === 0 && <FirstPlan onNew={open} />}
        <ul className={styles.list}>
          {plans.data?.map((p) => (
            <PlanCard key={p.id} plan={p} />
          ))}
        </ul>
      </main>
    </div>
  );
}

function PlanCard({ plan }: { plan: PlanEntry }) {
  const currency = usePreferences((p) => p.currency);
  const { modal, message } = App.useApp();
  const remove = useRemovePlan();
  const ask = () =>
    modal.confirm({
      title: `Delete “${plan.title}”?`,
      content: "The plan and its numbers are gone for good.",
      okText: "Delete the plan",
      okButtonProps: { danger: true },
      onOk: () => remove.mutateAsync(plan.id).catch((e: Error) => void message.error(e.message)),
    });
  return (
    <li className={styles.card}>
      <Link to={`/plans/${plan.id}/parting`} className={styles.open}>
        <img src={`/api/v1/plans/${plan.id}/picture.svg?v=${plan.version}`} alt="" width={132} height={132} />
        <div>
          <h2>{plan.title}</h2>
          <p className={styles.kind}>
            {plan.pattern === "brick" ? "Brick" : "Grid"} · {plan.method}
          </p>
          <dl>
            <div>
              <dt>Sections</dt>
              <dd>{plan.sections}</dd>
            </div>
            <div>
              <dt>Packs</dt>
              <dd>{plan.packs}</dd>
            </div>
            <div>
              <dt>Cost</dt>
              <dd>{money(plan.costMinor, currency)}</dd>
            </div>
            <div>
              <dt>Time</dt>
              <dd>{hours(plan.minutes)}</dd>
            </div>
          </dl>
          <p className={styles.saved}>
            Saved{" "}
            {new Date(plan.updated).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" })}
          </p>
        </div>
      </Link>
      <Button
        type="text"
        icon={<DeleteOutlined />}
        className={styles.remove ?? ""}
        aria-label={`Delete ${plan.title}`}
        onClick={ask}
      />
    </li>
  );
}

/** What a newcomer sees: what to do first. */
const FirstPlan = ({ onNew }: { onNew: () => void }) => (
  <section className={styles.first}>
    <h2>Start with a tape measure</h2>
    <ol>
      <li>Take three lengths: around the head, front to nape, ear to ear.</li>
      <li>Choose grid or brick and how large the sections are.</li>
      <li>Read off sections, pieces, packs to buy and hours.</li>
    </ol>
    <Button type="primary" size="large" icon={<PlusOutlined />} onClick={onNew}>
      Make the first plan
    </Button>
  </section>
);
