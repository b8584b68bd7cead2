import { DeleteOutlined } from "@ant-design/icons";
import { Alert, Button } from "antd";
import { memo } from "react";
import type { Layout, Settings } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { length } from "../../../lib/units";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";
import styles from "./EditList.module.css";
import { editName, oneSided, whereabouts, withEdits } from "./edits";

interface Props {
  /** The changes by hand and the spots left out, of the plan's settings. */
  edits: Settings["edits"];
  leftOut: Settings["leftOut"];
  layout: Layout;
}

/** What was changed by hand and left out, and what of it no longer fits. */
export const EditList = memo(function EditList({ edits, leftOut: spots, layout }: Props) {
  const unit = usePreferences((p) => p.unit);
  const rejected = layout.rejected;
  const alone = oneSided(edits);
  const act = useAct();
  const keep = (update: (s: Settings) => Settings) => act(actions.changeParting(null, update));
  const dropEdits = (drop: (index: number) => boolean) =>
    keep((s) => ({ ...s, edits: s.edits.filter((_, i) => !drop(i)) }));
  return (
    <section>
      {edits.length + spots.length === 0 && (
        <p className={styles.lead}>
          Nothing yet. Above the head, choose <strong>Sections</strong> to drag part lines and parts, join and
          split, or <strong>Leave out</strong> to paint what stays loose.
        </p>
      )}
      {rejected.length > 0 && (
        <Alert
          type="warning"
          showIcon
          title={
            rejected.length === 1
              ? "1 change no longer applies"
              : `${rejected.length} changes no longer apply`
          }
          description={
            <>
              <ul className={styles.rejected}>
                {rejected.map((m) => {
                  const e = edits[m.edit];
                  return (
                    <li key={m.edit}>
                      {e && `${editName(e)} ${whereabouts(m.at)}: `}
                      {m.message}
                    </li>
                  );
                })}
              </ul>
              <p>Left as they are they wait, and are made again when they apply.</p>
            </>
          }
          action={
            <Button
              onClick={() => {
                const gone = new Set(rejected.map((m) => m.edit));
                dropEdits((i) => gone.has(i));
              }}
            >
              {rejected.length === 1 ? "Take it out" : "Take them out"}
            </Button>
          }
        />
      )}
      {edits.length + spots.length > 0 && (
        <>
          <ul className={styles.list}>
            {edits.map((e, i) => (
              <li key={`${e.kind}${e.at.join()}${i}`} data-rejected={rejected.some((m) => m.edit === i)}>
                <span>
                  {editName(e)} <small>{whereabouts(e.at)}</small>
                </span>
                <Button
                  type="text"
                  icon={<DeleteOutlined />}
                  aria-label={`Take back: ${editName(e)} ${whereabouts(e.at)}`}
                  onClick={() => dropEdits((k) => k === i)}
                />
              </li>
            ))}
            {spots.map((spot, i) => (
              <li key={`${spot.at.join()}${i}`}>
                <span>
                  Spot left out, {length(2 * spot.radiusMm, unit)} across{" "}
                  <small>{whereabouts(spot.at)}</small>
                </span>
                <Button
                  type="text"
                  icon={<DeleteOutlined />}
                  aria-label={`Put back: spot ${whereabouts(spot.at)}`}
                  onClick={() => keep((s) => ({ ...s, leftOut: s.leftOut.filter((_, k) => k !== i) }))}
                />
              </li>
            ))}
          </ul>
          <div className={styles.foot}>
            <Button disabled={alone.length === 0} onClick={() => keep((s) => withEdits(s, alone))}>
              Mirror it
            </Button>
            <Button onClick={() => keep((s) => ({ ...s, edits: [], leftOut: [] }))}>Take all back</Button>
          </div>
        </>
      )}
    </section>
  );
});
