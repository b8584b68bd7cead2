import { ArrowRightOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Skeleton } from "antd";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { useAnyClient, useLatestPlans, useMe } from "../api/queries";
import type { PlanEntry } from "../api/types";
import { newAddress } from "../lib/madeHere";
import { Page } from "../ui/Page";
import { Trouble } from "../ui/Trouble";
import { when } from "../lib/units";
import { FirstPlan } from "../plans";
import { PlanFigures } from "../plans";
import { AtTheChair } from "./AtTheChair";
import { HeadsWorn } from "./HeadsWorn";
import { NextSittings } from "./NextSittings";
import styles from "./TodayPage.module.css";

const inWork = 6; // plans shown
const lookedAt = 30; // those that are or were at the chair are left out

const weekday = new Intl.DateTimeFormat(undefined, { weekday: "long", day: "numeric", month: "long" });

/** The first page: the next sittings, plans in work and what each waits for. */
export function TodayPage() {
  const me = useMe().data;
  const plans = useLatestPlans(lookedAt);
  const anyClient = useAnyClient().data;
  const navigate = useNavigate();
  const [day] = useState(() => weekday.format(new Date()));
  const [first, ...others] = (plans.data ?? []).filter((p) => p.installId === undefined).slice(0, inWork);
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
            onClick={() => void navigate(newAddress("plans"))}
          >
            New plan
          </Button>
        )
      }
    >
      <AtTheChair />
      <NextSittings />
      <HeadsWorn />
      {plans.isPending && <Skeleton active />}
      {plans.error && <Trouble error={plans.error} retry={() => void plans.refetch()} />}
      {plans.data?.length === 0 && <FirstPlan anyClient={anyClient ?? false} />}
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
            <p className={styles.count}>
              <Link to="/plans">All plans</Link>
              {" · "}
              {anyClient === false && "No clients on file yet. "}
              <Link to="/clients">{anyClient === false ? "Put the first on file" : "All clients"}</Link>
            </p>
          </section>
        </div>
      )}
    </Page>
  );
}

const pictureOf = (p: PlanEntry) => `/api/v1/plans/${p.id}/picture.svg?v=${p.version}`;

/** Where the next step of a plan is taken. */
const nextPlace = (p: PlanEntry) => `/plans/${p.id}/${p.next === "client" ? "head" : "parting"}`;

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

export default TodayPage;
