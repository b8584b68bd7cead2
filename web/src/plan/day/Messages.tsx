import { SendOutlined } from "@ant-design/icons";
import { useQuery } from "@tanstack/react-query";
import { Button, Segmented, Skeleton } from "antd";
import Input from "antd/es/input/Input";
import TextArea from "antd/es/input/TextArea";
import { useState } from "react";
import { v4 } from "uuid";
import { server } from "../../api/client";
import { useChange, useMessages, useKnownCatalogue } from "../../api/queries";
import type { MessageKind, PlanInput } from "../../api/types";
import { when } from "../../lib/units";
import panel from "../../ui/panel.module.css";
import { toldOf, Trouble } from "../../ui/Trouble";
import type { StoredPlan } from "../draft/stored";
import styles from "./day.module.css";

interface Props {
  plan: StoredPlan;
  input: PlanInput;
}

interface Words {
  subject: string;
  body: string;
}

/** What the client is told: the studio's words, filled, looked at, and sent through the simulated outbox. */
export function Messages({ plan, input }: Props) {
  const catalogue = useKnownCatalogue();
  const [kind, setKind] = useState<MessageKind>("prepare");
  const [reworded, setReworded] = useState<Partial<Record<MessageKind, Words>>>({});
  const letter = useQuery({
    queryKey: ["letter", plan.id, kind, input],
    queryFn: async () => {
      await plan.save();
      return server.letter(plan.id, kind);
    },
    enabled: plan.isStored,
    gcTime: 0,
  });
  const sent = useMessages(plan.isStored ? plan.id : "");
  const send = useChange(
    (words: Words) => server.sendMessage({ plan: plan.id, id: v4(), kind, ...words }),
    "messages",
  );
  const words = reworded[kind] ?? letter.data;
  const put = (part: Partial<Words>) =>
    words && setReworded({ ...reworded, [kind]: { subject: words.subject, body: words.body, ...part } });
  if (!plan.isStored) return <p className={panel.lead}>Once the plan is saved, messages are written here.</p>;
  return (
    <>
      <Segmented<MessageKind>
        block
        aria-label="Which message"
        value={kind}
        options={catalogue.messages.map((m) => ({ value: m.kind, label: m.short }))}
        onChange={setKind}
      />
      {letter.error && <Trouble error={letter.error} retry={() => void letter.refetch()} />}
      {!words && !letter.error && <Skeleton active />}
      {words && (
        <>
          <p className={panel.lead}>
            To <b>{letter.data?.to}</b>. {catalogue.messages.find((m) => m.kind === kind)?.when}. The words
            are the studio’s, from the house rules.
          </p>
          <label className={panel.stack}>
            <span>Subject</span>
            <Input maxLength={160} value={words.subject} onChange={(e) => put({ subject: e.target.value })} />
          </label>
          <label className={panel.stack}>
            <span>Message</span>
            <TextArea
              rows={12}
              maxLength={6000}
              value={words.body}
              onChange={(e) => put({ body: e.target.value })}
            />
          </label>
          <Button
            type="primary"
            size="large"
            icon={<SendOutlined />}
            loading={send.isPending}
            disabled={words.subject.trim() === "" || words.body.trim() === ""}
            onClick={() => send.mutate({ subject: words.subject, body: words.body })}
          >
            Send
          </Button>
          <p className={panel.lead}>A simulated outbox: it stays here; nothing leaves this machine.</p>
        </>
      )}
      {send.error && <Trouble error={new Error(toldOf(send.error))} />}
      {sent.data && sent.data.length > 0 && (
        <section aria-label="Sent" className={styles.sent}>
          <h3>Sent</h3>
          {sent.data.map((m) => (
            <details key={m.id}>
              <summary>
                <b>{m.says.subject}</b>
                <small>
                  {when(m.at)} by {m.by}
                </small>
              </summary>
              <p>{m.says.body}</p>
            </details>
          ))}
        </section>
      )}
    </>
  );
}
