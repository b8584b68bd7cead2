import { ArrowRightOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Skeleton } from "antd";
import { Link, useNavigate } from "react-router";
import { useClients, useMe, usePlans } from "../api/queries";
import type { PlanEntry } from "../api/types";
import { Page } from "../app/Page";
import { Trouble } from "../app/Trouble";
import { when } from "../app/units";
import { FirstPlan } from "../plans/FirstPlan";
import { PlanFigures } from "../plans/PlanFigures";
import styles from "./TodayPage.module.css";

const inWork = 6; // plans shown

/** The first page: plans in work and what each waits for. */
export function TodayPage() {
  const me = useMe().data;
  const plans = usePlans();
  const clients = useClients();
  const navigate = useNavigate();
  const day = new Intl.DateTimeFormat(undefined, { weekday: "long", day: "numeric", month: "long" }).format(
    new Date(),
  );
  const [first, ...others] = plans.data?.slice(0, inWork) ?? [];
  return (
    <Page
      title="Today"
      lead={me ? `${day} · ${me.name}` : day}
      actions={
        first && (
          <Button
            type="primary"
            size="large"
            icon={<PlusOutlined />}
            onClick={() => void navigate("/plans/new/look")}
          >
            New plan
          </Button>
        )
      }
    >
      {plans.isPending && <Skeleton active />}
      {plans.error && <Trouble error={plans.error} retry={() => void plans.refetch()} />}
      {plans.data && !first && <FirstPlan clients={clients.data?.length ?? 0} />}
      {first && (
        <div className={styles.columns}>
          <LastWorkedOn plan={first} />
          <section className={styles.others}>
            <h2>{others.length > 0 ? "Also in work" : "Nothing else in work"}</h2>
            <ul>
              {others.map((p) => (
                <li key={p.id}>
                  <Link to={nextPlace(p)} className={styles.other}>
                    <img src={pictureOf(p)} alt="" width={64} height={64} />
                    <span className={styles.what}>
                      <strong>{p.title}</strong>
                      <small>{p.client ?? "No client yet"}</small>
                      <NextStep plan={p} />
                    </span>
                    <ArrowRightOutlined aria-hidden />
                  </Link>
                </li>
              ))}
            </ul>
            {clients.data && (
              <p className={styles.count}>
                {clients.data.length === 0
                  ? "No clients on file yet. "
                  : `${clients.data.length} clients on file. `}
                <Link to="/clients">Open the clients</Link>
              </p>
            )}
          </section>
        </div>
      )}
    </Page>
  );
}

const pictureOf = (p: PlanEntry) => `/api/v1/plans/${p.id}/picture.svg?v=${p.version}`;

/** Where the next step of a plan is taken. */
const nextPlace = (p: PlanEntry) => `/plans/${p.id}/${p.next === "client" ? "look" : "parting"}`;

function NextStep({ plan }: { plan: PlanEntry }) {
  const text = {
    client: "Say whose head it is",
    warnings: plan.warnings === 1 ? "Look at 1 warning" : `Look at ${plan.warnings} warnings`,
    sheet: "Ready: take the plan sheet along",
  }[plan.next];
  return (
    <span className={styles.next} data-next={plan.next}>
      {text}
    </span>
  );
}

/** The plan saved last, large: one tap and the work goes on. */
function LastWorkedOn({ plan }: { plan: PlanEntry }) {
  return (
    <section className={styles.last}>
      <img src={pictureOf(plan)} alt="" width={260} height={260} />
      <div>
        <p className={styles.kicker}>Go on where you were</p>
        <h2>{plan.title}</h2>
        <p>
          {plan.client ?? "No client yet"} · {plan.pattern} · {plan.method.toLowerCase()}
        </p>
        <PlanFigures plan={plan} />
        <NextStep plan={plan} />
        <Link to={nextPlace(plan)} className={styles.open}>
          Open the plan <ArrowRightOutlined aria-hidden />
        </Link>
        <p className={styles.saved}>
          Saved {when(plan.updated)}
          {plan.savedBy && ` by ${plan.savedBy}`}
        </p>
      </div>
    </section>
  );
}
