import { Alert, Button } from "antd";
import { useQuery } from "@tanstack/react-query";
import { useTakeTheirs, type Document } from "../document/useDocument";
import { when } from "../lib/units";
import { Trouble } from "./Trouble";
import styles from "./CardFrame.module.css";

/** Someone else saved the card: the one to keep is held against the one that was read here. */
export function CardSavedElsewhere<D>({ document }: { document: Document<D> }) {
  const { autosave, replace, state } = document;
  const times = state.kind === "stale" ? state.times : 0;
  const found = useQuery({
    queryKey: ["savedElsewhere", autosave.id, times],
    queryFn: autosave.theirs,
    enabled: times > 0,
    staleTime: Infinity,
    gcTime: 0,
  });
  const theirs = useTakeTheirs(autosave, replace);
  const error = theirs.error ?? found.error;
  const stored = found.data;
  if (times === 0) return null;
  return (
    <>
      <Alert
        type="warning"
        showIcon
        title={
          stored
            ? `This card was saved elsewhere ${when(stored.updated)}, since you opened it.`
            : "This card was saved elsewhere since you opened it."
        }
        action={
          <div className={styles.choice}>
            <Button loading={theirs.isPending} onClick={() => theirs.mutate()}>
              Use that one
            </Button>
            <Button
              type="primary"
              disabled={!stored}
              onClick={() => stored && void autosave.keepMine(stored.version)}
            >
              Keep mine
            </Button>
          </div>
        }
      />
      {error && <Trouble error={error} retry={() => void found.refetch()} />}
    </>
  );
}
