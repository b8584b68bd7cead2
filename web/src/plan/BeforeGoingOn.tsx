import { Alert, Button, Skeleton } from "antd";
import type { ReactNode } from "react";
import { server } from "../api/client";
import { useChange, useClient, useMay } from "../api/queries";
import { toldOf, Trouble } from "../ui/Trouble";
import { when } from "../lib/units";
import panel from "../ui/panel.module.css";
import styles from "./BeforeGoingOn.module.css";

interface Props {
  /** Whose head it is; empty where nobody was chosen. */
  clientId: string;
  children: ReactNode;
}

/** Holds a step back until what could hurt this client was read; who read it stays in sight. */
export function BeforeGoingOn({ clientId, children }: Props) {
  const card = useClient(clientId || undefined);
  const client = card.data;
  const may = useMay("acknowledge");
  const read = useChange((caution: string) => server.acknowledge(clientId, caution), "client");
  if (!clientId) return children;
  // Nothing before it is known what the card says.
  if (!client)
    return card.error ? (
      <Trouble error={card.error} retry={() => void card.refetch()} />
    ) : (
      <Skeleton active paragraph={{ rows: 6 }} />
    );
  const byOf = (key: string) => client.acknowledged.find((a) => a.caution === key);
  const unread = client.grave.filter((g) => !byOf(g.key));
  if (unread.length === 0)
    return (
      <>
        {children}
        {client.grave.length > 0 && (
          <ul className={styles.read} aria-label="Cautions that were read">
            {client.grave.map((g) => {
              const by = byOf(g.key);
              return (
                <li key={g.key}>
                  {g.text}{" "}
                  {by && (
                    <small>
                      Read by {by.person}, {when(by.at)}.
                    </small>
                  )}
                </li>
              );
            })}
          </ul>
        )}
      </>
    );
  return (
    <section className={styles.gate} aria-label="Before you go on">
      <h2>Before you go on</h2>
      {unread.map((g) => (
        <div key={g.key} className={styles.caution}>
          <p>{g.text}</p>
          <Button
            type="primary"
            size="large"
            disabled={!may}
            loading={read.isPending}
            aria-label={`I have read this: ${g.text}`}
            onClick={() => read.mutate(g.key)}
          >
            I have read this
          </Button>
        </div>
      ))}
      {read.error && <Alert type="error" showIcon title={toldOf(read.error)} />}
      <p className={panel.lead}>
        Usual practice, not medical advice: ask a clinician, and check the rules that hold where you work.
        Your name and the day are kept with the client’s card.
        {!may && " A stylist or an owner has to read it."}
      </p>
    </section>
  );
}
