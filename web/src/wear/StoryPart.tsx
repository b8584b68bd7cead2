import { DeleteOutlined } from "@ant-design/icons";
import { App, Button, Input, Popconfirm } from "antd";
import { useState } from "react";
import { useNavigate } from "react-router";
import { v4 as uuid } from "uuid";
import { server } from "../api/client";
import { useChange, useMay, useWear } from "../api/queries";
import type { WornHead } from "../api/types";
import { day } from "../lib/units";
import { remainsText } from "../ui/remains";
import { Refused, refusalOf } from "./Refused";
import { localDay } from "../lib/localDay";
import styles from "./Wear.module.css";
import { told } from "./words";

/** All that was seen and done, the latest first; each can be deleted. */
export function StoryPart({ head }: { head: WornHead }) {
  const { message, modal } = App.useApp();
  const navigate = useNavigate();
  const may = useMay("dropWear");
  const mayForget = useMay("deleteInstall");
  const [text, setText] = useState("");
  const drop = useWear(head.id, (entry: string) => server.dropWear(head.id, entry));
  const note = useWear(head.id, () =>
    server.putWear(head.id, { id: uuid(), on: localDay(), day: 0, kind: "noted", text: text.trim() }),
  );
  const forget = useChange(() => server.removeInstall(head.id), "worn", "heads", "log", "installs", "plans");
  return (
    <>
      <ol className={styles.story}>
        {head.entries.toReversed().map((e) => (
          <li key={e.id}>
            <span>
              <b>{day(e.on)}</b> {told(e, head)}
              {e.text && <em>{e.text}</em>}
              {e.photo && (
                <img
                  src={`/api/v1/installs/${head.id}/photos/${e.photo}`}
                  alt={`The head on ${day(e.on)}`}
                  loading="lazy"
                />
              )}
              {e.by && <small>{e.by}</small>}
            </span>
            {may && e.kind !== "renewed" && (
              <Popconfirm
                title="Delete this for good? What it moved in the stash is put right."
                okText="Delete"
                cancelText="Leave it"
                onConfirm={() => drop.mutate(e.id, { onError: (x) => void message.error(refusalOf(x)) })}
              >
                <Button
                  size="large"
                  type="text"
                  icon={<DeleteOutlined />}
                  aria-label={`Delete: ${told(e, head)}, ${day(e.on)}`}
                />
              </Popconfirm>
            )}
          </li>
        ))}
        {head.entries.length === 0 && (
          <li>Nothing yet. The first check is due on day 2: pull shows by then.</li>
        )}
      </ol>
      {head.keepsHealth && (
        <div className={styles.noteLine}>
          <Input.TextArea
            aria-label="A note"
            placeholder="A note"
            value={text}
            rows={1}
            maxLength={2000}
            onChange={(e) => setText(e.target.value)}
          />
          <Button
            size="large"
            disabled={text.trim() === ""}
            loading={note.isPending}
            onClick={() => note.mutate(undefined, { onSuccess: () => setText("") })}
          >
            Keep
          </Button>
        </div>
      )}
      <Refused error={note.error} />
      {mayForget && (
        <Popconfirm
          title="Delete this install for good: its events, pictures, notes and log? The stash stays as it is."
          okText="Delete all of it"
          cancelText="Leave it"
          onConfirm={() =>
            forget.mutate(undefined, {
              onSuccess: (remains) => {
                void navigate("/wear", { replace: true });
                const says = remainsText(remains);
                if (says.length > 0)
                  modal.info({
                    title: "Deleted. What remains:",
                    content: says.map((x) => <p key={x}>{x}</p>),
                  });
              },
            })
          }
        >
          <Button danger size="large" className={styles.forget ?? ""} loading={forget.isPending}>
            Delete this install
          </Button>
        </Popconfirm>
      )}
    </>
  );
}
