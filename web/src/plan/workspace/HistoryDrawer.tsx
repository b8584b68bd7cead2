import { Button, Drawer, Skeleton } from "antd";
import { useVersions } from "../../api/queries";
import type { PlanVersion } from "../../api/types";
import { Trouble } from "../../ui/Trouble";
import { when } from "../../lib/units";
import { ChangeList } from "../draft/ChangeList";
import styles from "./HistoryDrawer.module.css";

interface Props {
  id: string;
  onLook: (version: PlanVersion) => void;
  onClose: () => void;
}

/** The plan as it was saved before, newest first; any of it can be looked at. */
export function HistoryDrawer({ id, onLook, onClose }: Props) {
  const versions = useVersions(id);
  return (
    <Drawer open title="History of this plan" size={440} onClose={onClose}>
      {versions.error && <Trouble error={versions.error} retry={() => void versions.refetch()} />}
      {versions.isPending && <Skeleton active />}
      <ol className={styles.versions}>
        {versions.data?.map((v, i) => (
          <li key={v.version}>
            <div className={styles.head}>
              <strong>{i === 0 ? "Now" : when(v.savedAt)}</strong>
              <span>
                {v.sections} sections{v.savedBy && ` · ${v.savedBy}`}
              </span>
              {i > 0 && (
                <Button onClick={() => onLook(v)} aria-label={`View it: the plan of ${when(v.savedAt)}`}>
                  View it
                </Button>
              )}
            </div>
            <ChangeList
              changes={v.changes}
              none={i === versions.data.length - 1 ? "The oldest that is kept." : "Name or client changed."}
            />
          </li>
        ))}
      </ol>
      <p className={styles.note}>
        Every change is saved; the history keeps about one state for every ten minutes of work.
      </p>
    </Drawer>
  );
}
