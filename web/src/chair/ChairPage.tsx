import { LeftOutlined, ToolOutlined } from "@ant-design/icons";
import { Button, Drawer, Segmented, Skeleton } from "antd";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { comeIn } from "../api/queries";
import { useNarrow } from "../lib/narrow";
import { usePreferences } from "../lib/preferences";
import { clockOf, hours } from "../lib/units";
import { Toggle } from "../ui/fields";
import { Trouble } from "../ui/Trouble";
import { CheckPart } from "./CheckPart";
import styles from "./Chair.module.css";
import type { Following, Shown } from "./following";
import { Ring } from "./Ring";
import { canHear, canSpeak, useAwake } from "./senses";
import { useFollowing, useShown } from "./useFollowing";
import { WatchPart } from "./WatchPart";
import { WorkPart } from "./WorkPart";
import { countOf } from "../lib/countOf";

const parts = [
  { value: "work", label: "Work" },
  { value: "watch", label: "Watch" },
  { value: "check", label: "Check" },
] as const;

type Part = (typeof parts)[number]["value"];

/** The chair: one big next step until the last piece is on. */
export default function ChairPage() {
  const { id = "" } = useParams();
  const { following, error, retry } = useFollowing(id);
  if (error)
    return (
      <main className={styles.wait}>
        <Trouble error={error} retry={retry} />
        <Link to="/">Today</Link>
      </main>
    );
  if (!following)
    return (
      <main className={styles.wait}>
        <Skeleton active />
      </main>
    );
  return <AtChair following={following} />;
}

function AtChair({ following }: { following: Following }) {
  const shown = useShown(following);
  const [part, setPart] = useState<Part>("work");
  const [open, setOpen] = useState(false);
  const [listens, setListens] = useState(false);
  const narrow = useNarrow();
  const { brief } = following.install;
  const { view } = shown;
  useAwake(view.working);
  return (
    <div className={styles.chair}>
      <header className={styles.top}>
        <Link to="/" className={styles.back} aria-label="Today">
          <LeftOutlined aria-hidden />
        </Link>
        <Ring done={view.watch.done} of={view.watch.of} />
        <div className={styles.what}>
          <h1>{brief.client || brief.title}</h1>
          <Standing shown={shown} />
        </div>
        {!narrow && (
          <Segmented<Part>
            size="large"
            value={part}
            options={[...parts]}
            onChange={setPart}
            aria-label="Part"
          />
        )}
        <Button
          size="large"
          icon={<ToolOutlined aria-hidden />}
          aria-label="How it works here"
          onClick={() => setOpen(true)}
        />
      </header>
      <SendingNote shown={shown} />
      {part === "work" && (
        <WorkPart following={following} shown={shown} listens={listens} onCheck={() => setPart("check")} />
      )}
      {part === "watch" && <WatchPart following={following} shown={shown} onWork={() => setPart("work")} />}
      {part === "check" && <CheckPart following={following} shown={shown} onWork={() => setPart("work")} />}
      {narrow && (
        <Segmented<Part>
          block
          size="large"
          className={styles.parts ?? ""}
          value={part}
          options={[...parts]}
          onChange={setPart}
          aria-label="Part"
        />
      )}
      <Drawer
        open={open}
        placement="right"
        size={330}
        title="How it works here"
        onClose={() => setOpen(false)}
      >
        <Here following={following} listens={listens} onListens={setListens} />
      </Drawer>
    </div>
  );
}

/** How far it is, and when it ends, in a line. */
function Standing({ shown: { view } }: { shown: Shown }) {
  const { watch } = view;
  const [, likely] = watch.ends;
  if (view.over) return <p>Finished · {watch.pieces} pieces on</p>;
  return (
    <p>
      {watch.pieces} of {watch.piecesOf} pieces
      {likely !== undefined && view.working && (
        <>
          {" "}
          · till about <strong>{clockOf(likely)}</strong>
        </>
      )}
      {!view.working && view.begun && <> · {hours(watch.leftMin.likely)} left</>}
    </p>
  );
}

/** What is not sent, while there is anything. */
function SendingNote({ shown: { sending, waiting, trouble } }: { shown: Shown }) {
  const kept = `${countOf(waiting, "thing is", "things are")} kept on this device`;
  const text = {
    sent: undefined,
    waiting: undefined,
    away:
      waiting > 0
        ? `No connection: ${kept} and sent later. Go on.`
        : "No connection. Go on: everything is kept on this device and sent later.",
    "signed-out": `Signed out elsewhere: ${kept}. Sign in again, and it is sent.`,
    refused: `The studio does not take what is told here: ${kept}.`,
  }[sending];
  const says = [text, trouble].filter(Boolean).join(" ");
  return (
    <p
      className={styles.sending}
      role="status"
      data-sending={sending}
      data-waiting={waiting}
      hidden={says === ""}
    >
      {says}
      {sending === "signed-out" && (
        <Button size="large" onClick={() => comeIn(null)}>
          Sign in
        </Button>
      )}
    </p>
  );
}

/** Who works with this device and how, and what it does by itself. */
function Here({
  following,
  listens,
  onListens,
}: {
  following: Following;
  listens: boolean;
  onListens: (on: boolean) => void;
}) {
  const { speaks, mirror, dim, leftHanded, set } = usePreferences();
  const { brief, id, planId, papers, hand } = following.install;
  const hands = brief.hands.map((h) => ({ value: h.key, label: h.name || "You" }));
  // Who the plan has no hand for comes to help.
  if (!brief.hands.some((h) => h.key === hand)) hands.push({ value: hand, label: "Me, helping" });
  const [wish, setWish] = useState(following.wish);
  const change = (next: Partial<typeof wish>) => {
    following.setWish(next);
    setWish(following.wish);
  };
  return (
    <div className={styles.here}>
      {hands.length > 1 && (
        <div role="group" aria-label="Who works with this device">
          <h2>Who works with this device</h2>
          <Segmented<string>
            block
            vertical
            size="large"
            value={wish.hand}
            options={hands}
            onChange={(hand) => change({ hand })}
          />
        </div>
      )}
      <div role="group" aria-label="In which stages">
        <h2>In which stages</h2>
        <Segmented<string>
          block
          vertical
          size="large"
          value={wish.byRow ? "row" : "all"}
          options={[
            { value: "all", label: "Plait the whole head, then attach" },
            { value: "row", label: "Plait a row, attach it, then the next" },
          ]}
          onChange={(value) => change({ byRow: value === "row" })}
        />
      </div>
      <div className={styles.toggles}>
        <h2>On this device</h2>
        <Toggle
          label="As in the mirror"
          note="Left and right change sides"
          checked={mirror}
          onChange={(on) => set({ mirror: on })}
        />
        <Toggle label="Dim, for the evening" checked={dim} onChange={(on) => set({ dim: on })} />
        {canSpeak() && (
          <Toggle
            label="Say the next step"
            note="By the voice of this device"
            checked={speaks}
            onChange={(on) => set({ speaks: on })}
          />
        )}
        {canHear() && (
          <Toggle
            label="Hear “done”, “back” and “break”"
            note="Some browsers send what they hear to their maker; without a connection this does not work"
            checked={listens}
            onChange={onListens}
          />
        )}
        <Toggle
          label="Left-handed drawings"
          checked={leftHanded}
          onChange={(on) => set({ leftHanded: on })}
        />
      </div>
      <div className={styles.papers}>
        <h2>As it was when it began</h2>
        {papers && (
          <>
            <a href={`/api/v1/installs/${id}/day-sheet.pdf`} download>
              Day sheet
            </a>
            <a href={`/api/v1/installs/${id}/plan-sheet.pdf`} download>
              Plan sheet
            </a>
          </>
        )}
        {planId !== undefined && <Link to={`/plans/${planId}/day`}>The plan</Link>}
      </div>
      <p className={styles.keys}>
        Keys: Space or a pedal (Page Down) is done, Backspace or Page Up takes the last one back, R closes the
        row. Screen off by itself? It stays on while work goes on, where the browser lets it.
      </p>
    </div>
  );
}
