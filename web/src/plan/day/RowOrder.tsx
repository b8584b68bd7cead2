import { ArrowDownOutlined, ArrowUpOutlined, HolderOutlined } from "@ant-design/icons";
import { Button, Segmented } from "antd";
import { useRef, useState, type PointerEvent } from "react";
import type { DayPlan, DayRow, PlanInput } from "../../api/types";
import { hours } from "../../lib/units";
import { Toggle } from "../../ui/fields";
import panel from "../../ui/panel.module.css";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import { useAsked } from "../draft/useAsked";
import styles from "./day.module.css";
import { orderKey } from "./order";
import { countOf } from "../../lib/countOf";

/** In which order the rows are done: by rule, or dragged into an order of one's own. */
export function RowOrder({ input, day }: { input: PlanInput; day: DayPlan }) {
  const act = useAct();
  useAsked(orderKey);
  const order = input.day?.order;
  const own = (order?.rows?.length ?? 0) > 0;
  const two = day.hands.length > 1;
  return (
    <>
      <Segmented<string>
        block
        aria-label="Where the first piece goes"
        value={input.customs?.start ?? "back"}
        options={[
          { value: "back", label: "Back corner first" },
          { value: "front", label: "The front first" },
        ]}
        onChange={(start) => act(actions.setCustom("start", start))}
      />
      <Toggle
        label="Both sides level"
        note="Left and right row by row; otherwise one side first"
        checked={!order?.apart}
        onChange={(level) => act(actions.setOrder({ apart: !level }))}
      />
      {!two && (
        <Toggle
          label="Attach every row once it is plaited"
          note="Otherwise the whole head is plaited first"
          checked={order?.byRow ?? false}
          onChange={(byRow) => act(actions.setOrder({ byRow }))}
        />
      )}
      {own ? (
        <div className={styles.own}>
          <span>An order of your own.</span>
          <Button onClick={() => act(actions.setOrder({ rows: [] }))}>By rule again</Button>
        </div>
      ) : (
        <p className={panel.lead}>
          The numbers stand on the head. Drag a row by its handle, or move it with its arrows.
        </p>
      )}
      <Rows rows={day.rows} />
    </>
  );
}

function Rows({ rows }: { rows: readonly DayRow[] }) {
  const act = useAct();
  const list = useRef<HTMLOListElement>(null);
  const [drag, setDrag] = useState<{ from: number; to: number }>();
  const moved = (from: number, to: number) => {
    const keys = rows.map((r) => r.key);
    const [key] = keys.splice(from, 1);
    if (key === undefined || to < 0 || to >= rows.length || to === from) return;
    keys.splice(to, 0, key);
    act(actions.setOrder({ rows: keys }));
  };
  const under = (y: number) => {
    const items = [...(list.current?.children ?? [])];
    const at = items.findIndex((li) => y < li.getBoundingClientRect().bottom);
    return at < 0 ? items.length - 1 : at;
  };
  const begin = (from: number, event: PointerEvent<HTMLElement>) => {
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag({ from, to: from });
  };
  const end = () => {
    if (drag) moved(drag.from, drag.to);
    setDrag(undefined);
  };
  return (
    <ol ref={list} className={styles.rows}>
      {rows.map((r, i) => (
        <li
          key={r.key}
          data-row={r.key}
          data-dragged={drag?.from === i}
          data-before={drag && drag.to === i && drag.to < drag.from}
          data-behind={drag && drag.to === i && drag.to > drag.from}
        >
          <span
            className={styles.handle}
            onPointerDown={(event) => begin(i, event)}
            onPointerMove={(event) => drag && setDrag({ from: drag.from, to: under(event.clientY) })}
            onPointerUp={end}
            onPointerCancel={() => setDrag(undefined)}
            aria-hidden
          >
            <HolderOutlined />
          </span>
          <b>{r.number}</b>
          <span className={styles.rowName}>
            {r.name}
            <small>
              {countOf(r.pieces, "piece")} · {hours(r.plaitMin + r.attachMin)}
            </small>
          </span>
          <Button
            type="text"
            icon={<ArrowUpOutlined />}
            aria-label={`Earlier: ${r.name}`}
            disabled={i === 0}
            onClick={() => moved(i, i - 1)}
          />
          <Button
            type="text"
            icon={<ArrowDownOutlined />}
            aria-label={`Later: ${r.name}`}
            disabled={i === rows.length - 1}
            onClick={() => moved(i, i + 1)}
          />
        </li>
      ))}
    </ol>
  );
}
