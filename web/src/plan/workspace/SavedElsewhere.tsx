import { Button, Modal, Skeleton } from "antd";
import { useQuery } from "@tanstack/react-query";
import { server } from "../../api/client";
import { useSaveState, type Autosave } from "../../document/autosave";
import { useTakeTheirs } from "../../document/useDocument";
import { Trouble } from "../../ui/Trouble";
import { when } from "../../lib/units";
import { ChangeList } from "../draft/ChangeList";
import type { Draft } from "../draft/draft";
import styles from "./SavedElsewhere.module.css";

interface Props {
  autosave: Autosave<Draft>;
  draft: Draft;
  replace: (draft: Draft) => void;
}

/** Someone else saved this plan: who changed what is told, and you choose which of the two goes on. */
export function SavedElsewhere({ autosave, draft, replace }: Props) {
  const state = useSaveState(autosave);
  const id = autosave.id;
  const stale = state.kind === "stale";
  const found = useQuery({
    // A third save in between is another comparison.
    queryKey: ["compare", id, stale && state.times],
    queryFn: () => server.compare(id, { base: autosave.base, mine: draft }),
    enabled: stale,
    gcTime: 0,
    staleTime: Infinity,
  });
  const theirs = useTakeTheirs(autosave, replace);
  const difference = found.data;
  const other = difference?.savedBy ?? "Someone";
  if (!stale) return null;
  return (
    <Modal
      open
      closable={false}
      title={`${other} saved this plan too`}
      footer={[
        <Button key="theirs" size="large" loading={theirs.isPending} onClick={() => theirs.mutate()}>
          Use that one
        </Button>,
        <Button
          key="mine"
          size="large"
          type="primary"
          disabled={!difference}
          onClick={() => difference && void autosave.keepMine(difference.version)}
        >
          Keep mine
        </Button>,
      ]}
    >
      {theirs.error && <Trouble error={theirs.error} />}
      {found.error && <Trouble error={found.error} retry={() => void found.refetch()} />}
      {found.isPending && <Skeleton active />}
      {difference && (
        <div className={styles.both}>
          <section>
            <h3>
              {other}, {when(difference.savedAt)}
            </h3>
            <ChangeList changes={difference.theirs} none="Saved without a change to the plan’s numbers." />
          </section>
          <section>
            <h3>You, not saved yet</h3>
            <ChangeList changes={difference.mine} none="No change to the plan’s numbers." />
          </section>
        </div>
      )}
      <p className={styles.note}>The one that is not kept stays in the plan’s history if it was saved.</p>
    </Modal>
  );
}
