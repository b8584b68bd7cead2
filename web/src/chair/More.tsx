import { App, Button, Drawer, Input } from "antd";
import { useState, type ReactNode } from "react";
import type { ChairView } from "../api/types";
import { Count } from "../ui/Numeric";
import styles from "./Chair.module.css";
import type { Following, Telling } from "./following";
import { Photo } from "./Photo";
import { smallPicture } from "./smallPicture";

interface Props {
  open: boolean;
  following: Following;
  view: ChairView;
  tell: (...what: Telling[]) => Promise<void>;
  onClose: () => void;
  /** Told once it is shut: the keys are for the large button again. */
  onClosed: () => void;
}

type Page = "all" | "spoilt" | "opened" | "short" | "bought" | "note" | "moved" | "rows" | "photo";

const titles: Readonly<Record<Page, string>> = {
  all: "Something else",
  spoilt: "Spoilt",
  opened: "Pack opened",
  short: "A pack held fewer",
  bought: "Packs came",
  note: "Note",
  moved: "It came out elsewhere",
  rows: "Go to a row",
  photo: "Picture",
};

/** All else that happens at the chair, in large buttons. */
export function More({ open, following, view, tell, onClose, onClosed }: Props) {
  const [page, setPage] = useState<Page>("all");
  const { message } = App.useApp();
  const { brief } = following.install;
  const { card } = view;
  const place = card?.place;
  const close = () => {
    onClose();
    setPage("all");
  };
  const say = (word: string, ...what: Telling[]) => {
    close();
    void tell(...what).then(() => void message.success(word));
  };
  const large = (label: string, small: string, onClick: () => void, disabled = false) => (
    <button type="button" key={label} className={styles.large} disabled={disabled} onClick={onClick}>
      <strong>{label}</strong>
      <small>{small}</small>
    </button>
  );
  const onPieces = (kind: "spoilt" | "opened" | "short" | "bought", unit: string) => (
    <Pieces
      following={following}
      unit={unit}
      onSay={(piece, count) => say(`${titles[kind]}: told`, { kind, piece, count })}
    />
  );
  const pages: Readonly<Record<Page, () => ReactNode>> = {
    all: () => (
      <div className={styles.larges}>
        {view.working
          ? large("Break", "The clock stops", () => say("Break", { kind: "paused", text: "break" }))
          : large("Go on", "The clock runs", () => say("Go on", { kind: "began" }))}
        {large("Spoilt one", "A piece that is not used", () => setPage("spoilt"))}
        {large("Pack opened", "So that packs are counted", () => setPage("opened"))}
        {place !== undefined && [
          large("Came out as two", "One more plait and piece", () =>
            say("One more spot beside it", { kind: "split", places: [place] }),
          ),
          large("Leave it out", "No piece hangs here", () =>
            say("Left out", { kind: "left-out", places: [place] }),
          ),
          large("Came out elsewhere", "Say where it is now", () => setPage("moved")),
        ]}
        {large("Go to a row", "Any order will do", () => setPage("rows"))}
        {large("Note", "For the log", () => setPage("note"))}
        {large("Picture", "Only with consent", () => setPage("photo"))}
        {large("Pack held fewer", "Than its label says", () => setPage("short"))}
        {large("Packs came", "Bought or fetched since", () => setPage("bought"))}
        {large("Enough for today", "Go on another day", () =>
          say("All is kept. Until next time.", { kind: "paused", text: "for today" }),
        )}
      </div>
    ),
    spoilt: () => onPieces("spoilt", "pieces"),
    opened: () => onPieces("opened", "packs"),
    short: () => onPieces("short", "pieces too few"),
    bought: () => onPieces("bought", "packs"),
    note: () => (
      <Words label="What to keep in mind" onSay={(text) => say("Noted", { kind: "noted", text })} />
    ),
    moved: () => (
      <Words
        label="Where it is now, such as one row up"
        onSay={(text) => say("Noted", { kind: "moved", places: [place ?? ""], text })}
      />
    ),
    rows: () => (
      <div className={styles.larges}>
        {brief.rows.map((row, r) => {
          const open = brief.tasks.filter(
            (t) =>
              t.place >= 0 &&
              brief.places[t.place]?.row === r &&
              (t.kind === "plaits" ? view.plaits : view.pieces)[t.place] === "open",
          );
          const first = open[0];
          return large(
            row.name,
            first ? `${open.length} to do, ${row.region}` : "done",
            () => {
              following.goTo(first?.key);
              close();
            },
            first === undefined,
          );
        })}
      </div>
    ),
    photo: () => (
      <Photo
        asks={brief.ownHead ? "Keep a picture of your own head?" : "Ask: may a picture be kept?"}
        onPicture={async (file) => {
          await following.photograph(await smallPicture(file), card?.where ?? "");
          close();
          void message.success("The picture is kept");
        }}
      />
    ),
  };
  return (
    <Drawer
      open={open}
      placement="bottom"
      size={560}
      title={titles[page]}
      onClose={close}
      afterOpenChange={(is) => !is && onClosed()}
    >
      {pages[page]()}
      {page !== "all" && (
        <Button size="large" className={styles.backTo ?? ""} onClick={() => setPage("all")}>
          Back
        </Button>
      )}
    </Drawer>
  );
}

/** How many of which piece. */
function Pieces({
  following,
  unit,
  onSay,
}: {
  following: Following;
  unit: string;
  onSay: (piece: string, count: number) => void;
}) {
  const [count, setCount] = useState(1);
  return (
    <>
      <div className={styles.count}>
        <span>How many {unit}</span>
        <Count
          label={`How many ${unit}`}
          value={count}
          min={1}
          max={200}
          onChange={(n) => setCount(n ?? 1)}
        />
      </div>
      <div className={styles.larges}>
        {following.install.brief.pieces
          .filter((p) => p.need > 0)
          .map((p) => (
            <button type="button" key={p.key} className={styles.large} onClick={() => onSay(p.key, count)}>
              <strong>{p.name}</strong>
              <small>{p.colour || "no colour named"}</small>
            </button>
          ))}
      </div>
    </>
  );
}

function Words({ label, onSay }: { label: string; onSay: (text: string) => void }) {
  const [text, setText] = useState("");
  return (
    <label className={styles.words}>
      <span>{label}</span>
      <Input.TextArea
        autoFocus
        rows={4}
        maxLength={500}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <Button type="primary" size="large" disabled={text.trim() === ""} onClick={() => onSay(text.trim())}>
        Keep it
      </Button>
    </label>
  );
}
