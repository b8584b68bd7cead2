import { CalendarOutlined, CopyOutlined, FilePdfOutlined, MobileOutlined } from "@ant-design/icons";
import { App, Button, Popconfirm } from "antd";
import { server } from "../api/client";
import { useChange } from "../api/queries";
import type { WornHead } from "../api/types";
import { download } from "../lib/download";
import { usePreferences } from "../lib/preferences";
import { day } from "../lib/units";
import styles from "./Wear.module.css";

const often = (days: number) => (days === 0 ? "" : days === 1 ? "every day" : `every ${days} days`);

/** What the client does while the head is worn: on paper, on a phone, in a calendar. */
export function CarePart({ head }: { head: WornHead }) {
  const { message } = App.useApp();
  const paper = usePreferences((p) => p.paper);
  const hand = useChange(() => server.handCare(head.id), "worn");
  const revoke = useChange(() => server.revokeCare(head.id), "worn");
  const address = head.link && `${window.location.origin}${head.link.path}`;
  return (
    <>
      <div className={styles.buttons}>
        <Button
          size="large"
          icon={<FilePdfOutlined aria-hidden />}
          onClick={() => download(`/api/v1/installs/${head.id}/care.pdf?paper=${paper}`)}
        >
          Print
        </Button>
        <Button
          size="large"
          icon={<CalendarOutlined aria-hidden />}
          onClick={() => download(`/api/v1/installs/${head.id}/care.ics`)}
        >
          Calendar
        </Button>
        {!head.link && (
          <Button
            type="primary"
            size="large"
            icon={<MobileOutlined aria-hidden />}
            loading={hand.isPending}
            onClick={() => hand.mutate(undefined, { onError: (e) => void message.error(e.message) })}
          >
            Hand over
          </Button>
        )}
      </div>
      {head.link && address && (
        <div className={styles.link}>
          <p>
            <strong>Open until {day(head.link.until)}.</strong> Who has this address reads the care and its
            days: no name, no picture, nothing else.
          </p>
          <a href={address} target="_blank" rel="noreferrer">
            {address}
          </a>
          <div className={styles.buttons}>
            <Button
              size="large"
              icon={<CopyOutlined aria-hidden />}
              onClick={() =>
                void navigator.clipboard
                  .writeText(address)
                  .then(() => message.success("Copied."))
                  .catch(() => message.error("This browser does not copy: hold the address, then copy it."))
              }
            >
              Copy
            </Button>
            <Button size="large" loading={hand.isPending} onClick={() => hand.mutate(undefined)}>
              New address
            </Button>
            <Popconfirm
              title="The page no longer works."
              okText="Revoke"
              cancelText="Leave it"
              onConfirm={() => revoke.mutate(undefined)}
            >
              <Button size="large" danger loading={revoke.isPending}>
                Revoke
              </Button>
            </Popconfirm>
          </div>
        </div>
      )}
      <ul className={styles.care}>
        {head.care.map((c) => (
          <li key={c.key} data-avoid={c.avoid}>
            <h3>
              {c.avoid && <span aria-hidden>✕ </span>}
              {c.title} {c.everyDays > 0 && <small>{often(c.everyDays)}</small>}
            </h3>
            <p>{c.text}</p>
          </li>
        ))}
      </ul>
      <p className={styles.note}>Usual practice of the trade, not medical advice.</p>
    </>
  );
}
