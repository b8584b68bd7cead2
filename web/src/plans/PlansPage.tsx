import { ImportOutlined, PlusOutlined } from "@ant-design/icons";
import { App, Button, Skeleton, Upload } from "antd";
import { useNavigate } from "react-router";
import { v4 as uuid } from "uuid";
import { Refusal, server } from "../api/client";
import { useAnyClient, useChange, usePlans } from "../api/queries";
import type { PlanDraft } from "../api/types";
import { newAddress } from "../lib/madeHere";
import { MoreButton } from "../ui/MoreButton";
import { NeverSaved } from "../ui/NeverSaved";
import { Page } from "../ui/Page";
import { Trouble } from "../ui/Trouble";
import { FirstPlan } from "./FirstPlan";
import { PlanList } from "./PlanList";
import styles from "./PlansPage.module.css";

/** All plans, each with a small picture of its parted head. */
function PlansPage() {
  const plans = usePlans();
  const anyClient = useAnyClient().data ?? false;
  const navigate = useNavigate();
  return (
    <Page
      title="Plans"
      lead="Part the head, count the pieces, know the hours before the first part is drawn."
      actions={
        <>
          <ImportPlan />
          <Button
            type="primary"
            size="large"
            icon={<PlusOutlined />}
            onClick={() => void navigate(newAddress("plans"))}
          >
            New plan
          </Button>
        </>
      }
    >
      {plans.isPending && <Skeleton active />}
      {plans.error && <Trouble error={plans.error} retry={() => void plans.refetch()} />}
      <NeverSaved<PlanDraft> kind="plan" place="plans" nameOf={(draft) => draft.title} />
      {plans.items?.length === 0 && <FirstPlan anyClient={anyClient} />}
      <PlanList plans={plans.items ?? []} />
      <MoreButton more={plans.more} busy={plans.fetchingMore} />
    </Page>
  );
}

/** Takes in a plan that was exported as a file, here or in another studio. */
function ImportPlan() {
  const { modal, message } = App.useApp();
  const take = useChange(server.importPlan, "plans");
  const navigate = useNavigate();
  const read = (file: File) =>
    take.mutate(
      { id: uuid(), file },
      {
        onSuccess: (plan) => {
          void message.success(`“${plan.title}” is here.`);
          void navigate(`/plans/${plan.id}/parting`);
        },
        onError: (error) =>
          void modal.error({
            title: "This file was not taken in",
            content:
              error instanceof Refusal ? (
                <ul className={styles.faults}>
                  {Object.entries(error.fields).map(([field, fault]) => (
                    <li key={field}>
                      <code>{field}</code> {fault}
                    </li>
                  ))}
                  {Object.keys(error.fields).length === 0 && <li>{error.message}</li>}
                </ul>
              ) : (
                "Kladotex cannot be reached. Is it still running?"
              ),
          }),
      },
    );
  return (
    <Upload
      accept=".json,application/json"
      showUploadList={false}
      beforeUpload={(file) => {
        read(file);
        return Upload.LIST_IGNORE;
      }}
    >
      <Button size="large" icon={<ImportOutlined />} loading={take.isPending}>
        Import a plan
      </Button>
    </Upload>
  );
}

export default PlansPage;
