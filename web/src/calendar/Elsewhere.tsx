import { CopyOutlined, DownloadOutlined, ReloadOutlined, UploadOutlined } from "@ant-design/icons";
import { Alert, App, Button, Select, Upload } from "antd";
import Input from "antd/es/input/Input";
import { useState } from "react";
import { server } from "../api/client";
import { useChange, useFeed, useMay, useMe, usePeople } from "../api/queries";
import { download } from "../lib/download";
import { toldOf } from "../ui/Trouble";
import styles from "./CalendarPage.module.css";

/** The calendar in other programs, and other calendars in this one. */
export function Elsewhere() {
  return (
    <div className={styles.elsewhere}>
      <Follow />
      <ReadIn />
    </div>
  );
}

/** The calendar as a file, and where it can be followed. */
function Follow() {
  const mayFollow = useMay("readFeed");
  const mayRenew = useMay("renewFeed");
  const [shown, setShown] = useState(false);
  const feed = useFeed(shown && mayFollow);
  const { message, modal } = App.useApp();
  const renew = useChange(server.renewFeed, "feed");
  const address = feed.data ? window.location.origin + feed.data.path : "";
  return (
    <section aria-label="Follow this calendar">
      <h2>In your own calendar</h2>
      <p>
        A file once, or an address that your calendar looks at by itself. Whoever knows the address sees names
        and times; give it to nobody else.
      </p>
      <div className={styles.acts}>
        <Button icon={<DownloadOutlined />} onClick={() => download("/api/v1/calendar.ics")}>
          Calendar file
        </Button>
        {mayFollow && !shown && <Button onClick={() => setShown(true)}>Show the address</Button>}
      </div>
      {feed.data && (
        <>
          <div className={styles.address}>
            <Input readOnly aria-label="Address of the calendar" value={address} />
            <Button
              icon={<CopyOutlined />}
              aria-label="Copy the address"
              onClick={() =>
                void navigator.clipboard.writeText(address).then(
                  () => message.success("Copied."),
                  () => message.info("Mark the address and copy it by hand."),
                )
              }
            />
          </div>
          {mayRenew && (
            <Button
              icon={<ReloadOutlined />}
              loading={renew.isPending}
              onClick={() =>
                void modal.confirm({
                  title: "A new address?",
                  content: "The old one stops working: every calendar that follows it needs the new one.",
                  okText: "Renew it",
                  onOk: () => renew.mutateAsync(undefined).catch(() => undefined),
                })
              }
            >
              Renew the address
            </Button>
          )}
        </>
      )}
      {(feed.error ?? renew.error) && (
        <Alert type="error" showIcon title={toldOf(feed.error ?? renew.error ?? new Error())} />
      )}
    </section>
  );
}

/** Another calendar read in: its times are busy times of a person. */
function ReadIn() {
  const me = useMe().data;
  const people = usePeople().data ?? [];
  const [person, setPerson] = useState<string>();
  const who = person ?? me?.id ?? "";
  const read = useChange(server.importBusy, "calendar", "clashes");
  return (
    <section aria-label="Busy times">
      <h2>Busy elsewhere</h2>
      <p>
        Read a calendar file in, and its times are busy times here: a plan that wants them says so. A new file
        takes the place of the one before.
      </p>
      <div className={styles.acts}>
        {me?.role === "owner" && (
          <Select<string>
            aria-label="Whose calendar it is"
            value={who}
            options={people.map((p) => ({ value: p.id, label: p.name }))}
            onChange={setPerson}
          />
        )}
        <Upload
          accept=".ics,text/calendar"
          showUploadList={false}
          beforeUpload={(file) => {
            read.mutate({ person: who, file });
            return false;
          }}
        >
          <Button icon={<UploadOutlined />} loading={read.isPending}>
            Read in file
          </Button>
        </Upload>
      </div>
      {read.data && (
        <Alert
          type={read.data.leftOut.length > 0 ? "warning" : "success"}
          showIcon
          title={`${read.data.count} busy ${read.data.count === 1 ? "time" : "times"} read in.`}
          {...(read.data.leftOut.length > 0 && {
            description: `Not understood: ${read.data.leftOut.join("; ")}`,
          })}
        />
      )}
      {read.error && <Alert type="error" showIcon title={toldOf(read.error)} />}
    </section>
  );
}
