import { DeleteOutlined, DownloadOutlined, InboxOutlined, PlusOutlined } from "@ant-design/icons";
import { App, Button } from "antd";
import { Link, useNavigate } from "react-router";
import { server } from "../api/client";
import { useChange, useMay, usePlans } from "../api/queries";
import type { ClientDraft } from "../api/types";
import { download } from "../lib/download";
import { newAddress } from "../lib/madeHere";
import type { ChangeDraft } from "../lib/undoable";
import { PlanList } from "../plans";
import { MoreButton } from "../ui/MoreButton";
import steps from "../ui/panel.module.css";
import { remainsText } from "../ui/remains";
import { toldOf } from "../ui/Trouble";
import styles from "./ClientCard.module.css";

/** The plans made for the client. */
export function TheirPlans({ id }: { id: string }) {
  const plans = usePlans(id);
  const navigate = useNavigate();
  return (
    <div>
      <div className={styles.plansTop}>
        <h2>Plans</h2>
        <Button
          type="primary"
          size="large"
          icon={<PlusOutlined />}
          onClick={() => void navigate(newAddress("plans", { client: id }))}
        >
          New plan
        </Button>
      </div>
      {plans.items?.length === 0 && (
        <p className={steps.lead}>None yet. A new plan starts with the tapes and the hair on this card.</p>
      )}
      <PlanList plans={plans.items ?? []} />
      <MoreButton more={plans.more} busy={plans.fetchingMore} />
    </div>
  );
}

interface KeepingProps {
  id: string;
  draft: ClientDraft;
  change: ChangeDraft<ClientDraft>;
  save: () => Promise<void>;
}

/** Archive, hand out, delete. */
export function Keeping({ id, draft, change, save }: KeepingProps) {
  const { modal, message } = App.useApp();
  const navigate = useNavigate();
  const owner = useMay("deleteClient");
  const remove = useChange(server.removeClient, "clients", "plans");
  const ask = () =>
    modal.confirm({
      title: `Delete ${draft.name} and all their plans?`,
      content:
        "The card, the plans and their history are deleted for good. To put them out of sight, archive the card instead.",
      okText: "Delete for good",
      okButtonProps: { danger: true },
      onOk: () =>
        remove
          .mutateAsync(id)
          .then((remains) => {
            void navigate("/clients");
            const says = remainsText(remains);
            if (says.length > 0)
              modal.info({ title: "Deleted. What remains:", content: says.map((x) => <p key={x}>{x}</p>) });
          })
          .catch((e: unknown) => void message.error(toldOf(e))),
    });
  const hand = async () => {
    await save();
    download(`/api/v1/clients/${id}/export`);
  };
  return (
    <div className={styles.keeping}>
      <Button icon={<DownloadOutlined />} onClick={() => void hand()}>
        Export everything
      </Button>
      <Button icon={<InboxOutlined />} onClick={() => change(null, (d) => ({ ...d, archived: !d.archived }))}>
        {draft.archived ? "Restore" : "Archive the card"}
      </Button>
      {owner && (
        <Button danger icon={<DeleteOutlined />} onClick={() => void ask()}>
          Delete for good
        </Button>
      )}
      <Link to="/clients">All clients</Link>
    </div>
  );
}
