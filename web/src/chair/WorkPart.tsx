import {
  CheckOutlined,
  EllipsisOutlined,
  PlayCircleOutlined,
  RedoOutlined,
  UndoOutlined,
} from "@ant-design/icons";
import { App } from "antd";
import { Suspense, useCallback, useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import type { ChairCard, ChairView } from "../api/types";
import { cornrowName, WorkedHead } from "../head";
import { usePreferences } from "../lib/preferences";
import { length } from "../lib/units";
import styles from "./Chair.module.css";
import { DueNow } from "./DueNow";
import type { Following, Shown, Telling } from "./following";
import { How } from "./How";
import { More } from "./More";
import { useHeard, useSaid } from "./senses";
import { statesOf } from "./states";
import { usePedal } from "./usePedal";
import { countOf } from "../lib/countOf";

/** A press this soon after the last is a slip of the finger, ms. */
const slip = 220;

interface Props {
  following: Following;
  shown: Shown;
  listens: boolean;
  onCheck: () => void;
}

/** The next step, as large as can be, with one large thing to do about it. */
export function WorkPart({ following, shown, listens, onCheck }: Props) {
  const { message } = App.useApp();
  const { unit, mirror, speaks } = usePreferences();
  const { brief } = following.install;
  const { head, layout } = following.result;
  const { view } = shown;
  const { card } = view;
  const [more, setMore] = useState(false);
  // What was missed and is left for later, by its tasks.
  const [later, setLater] = useState("");
  const behind = view.behind && view.behind.tasks.join() !== later ? view.behind : undefined;

  const large = useRef<HTMLButtonElement>(null);
  const busy = useRef(false);
  const pressed = useRef(0);
  const tell = useCallback(
    async (...what: Telling[]) => {
      if (busy.current) return;
      busy.current = true;
      try {
        await following.tell(...what);
      } finally {
        busy.current = false;
      }
    },
    [following],
  );
  const undo = useCallback(() => {
    const last = view.undo[0];
    if (!last) return;
    void tell({ kind: "undone", of: last.id });
    void message.info(`Taken back: ${last.says}`);
  }, [view.undo, tell, message]);

  const step = stepOf(view, behind !== undefined);
  const press = useCallback(() => {
    const now = Date.now();
    if (now - pressed.current < slip) return;
    pressed.current = now;
    switch (step) {
      case "begin":
        return void tell({ kind: "began" });
      case "behind":
        following.goTo(view.behind?.tasks[0]);
        return;
      case "again":
        return void tell({ kind: "redo", tasks: [card?.task ?? ""] });
      case "check":
        onCheck();
        return;
      case "done":
        if ("vibrate" in navigator) navigator.vibrate(15);
        return void tell({ kind: "done", tasks: [card?.task ?? ""] });
    }
  }, [step, tell, following, view.behind, card, onCheck]);
  const closeRow = useCallback(() => {
    if (card && card.rowTasks.length > 0 && step === "done")
      void tell({ kind: "done", tasks: card.rowTasks });
  }, [card, step, tell]);
  const pause = useCallback(() => {
    if (view.working) void tell({ kind: "paused", text: "break" });
  }, [view.working, tell]);

  usePedal(press, undo, closeRow, more);
  useHeard({ done: press, finished: press, back: undo, undo, break: pause, row: closeRow }, listens);
  const words = card && step === "done" ? spokenOf(card, brief.pieces[card.piece]?.name, unit) : "";
  useSaid(words, speaks);

  const places = useMemo(() => statesOf(view), [view]);
  const labels = useMemo(
    () => new Map(layout.sections.map((s, i) => [s.id, `${s.id}: ${places[i]?.name ?? ""}`])),
    [layout, places],
  );
  const touch = (place: number) => {
    const id = brief.places[place]?.id;
    if (id === undefined) return;
    const plait = view.plaits[place] === "open";
    following.goTo(`${plait ? "plait" : "attach"}/${id}`);
  };
  const piece = card && card.piece >= 0 ? brief.pieces[card.piece] : undefined;
  return (
    <>
      <main className={styles.work}>
        <section className={styles.head} aria-label="Where">
          <Suspense>
            <WorkedHead
              head={head}
              layout={layout}
              places={places}
              next={card && card.planned >= 0 ? card.planned : undefined}
              line={card && layout.tracks.find((t) => isAt(card.where, t))?.line}
              mirror={mirror}
              labels={labels}
              onTouch={touch}
            />
          </Suspense>
          <button
            type="button"
            className={styles.mirror}
            aria-pressed={mirror}
            onClick={() => usePreferences.getState().set({ mirror: !mirror })}
          >
            {mirror ? "In the mirror" : "Directly"}
          </button>
        </section>
        <section className={styles.card} aria-live="polite" data-step={step} data-task={card?.task}>
          {behind ? (
            <>
              <p className={styles.kicker}>Before you leave {behind.region}</p>
              <h2>{countOf(behind.tasks.length, "was missed", "were missed")}</h2>
              <p className={styles.measure}>{behind.says}</p>
              <button type="button" className={styles.wide} onClick={() => setLater(behind.tasks.join())}>
                Leave for later
              </button>
            </>
          ) : card ? (
            <>
              <p className={styles.kicker}>
                {card.title}
                {card.again && " · once more"}
                {card.twin && " · the second of two"}
                {card.done && " · done already"}
              </p>
              <h2>
                {card.rowName ? (
                  <>
                    {card.rowName} <span>{card.where.slice(card.rowName.length + 2)}</span>
                  </>
                ) : (
                  card.where
                )}
              </h2>
              {piece && (
                <p className={styles.piece}>
                  <i style={{ background: piece.swatch ?? "var(--line)" }} aria-hidden />
                  {card.count > 1 && `${card.count} × `}
                  {piece.name}
                  {piece.colour && `, ${piece.colour}`}
                  {card.beside.length > 0 && ` and ${card.beside.join(", ")}`}
                </p>
              )}
              {card.measures.length > 0 && (
                <p className={styles.measure}>
                  {card.measures.map((m) => withLengths(m, card.lengthsMm, unit)).join(" · ")}
                </p>
              )}
              <How following={following} card={card} key={`${card.kind}${card.step}`} />
            </>
          ) : (
            <>
              <p className={styles.kicker}>{view.over ? "Finished" : "Nothing is open"}</p>
              <h2>{view.over ? "The last piece is on" : "Everything is on"}</h2>
              {view.over && (
                <Link className={styles.wide} to={`/log/${following.install.id}`}>
                  See how it went
                </Link>
              )}
            </>
          )}
          <DueNow view={view} tell={tell} />
        </section>
      </main>
      <footer className={styles.foot}>
        <button
          type="button"
          className={styles.side}
          disabled={view.undo.length === 0}
          aria-label={view.undo[0] ? `Undo: ${view.undo[0].says}` : "Undo"}
          onClick={undo}
        >
          <UndoOutlined aria-hidden />
          <span>Undo</span>
        </button>
        <button ref={large} type="button" className={styles.done} data-step={step} onClick={press}>
          {icons[step]}
          <span>{names[step]}</span>
        </button>
        <button
          type="button"
          className={styles.side}
          aria-label="More: something else"
          onClick={() => setMore(true)}
        >
          <EllipsisOutlined aria-hidden />
          <span>More</span>
        </button>
        {step === "done" && card && card.rowTasks.length > 1 && (
          <button type="button" className={styles.rowDone} onClick={closeRow}>
            Close row: {card.rowTasks.length} left
          </button>
        )}
        {step === "again" && (
          <button type="button" className={styles.rowDone} onClick={() => following.goTo(undefined)}>
            Skip this one
          </button>
        )}
      </footer>
      <More
        open={more}
        following={following}
        view={view}
        tell={tell}
        onClose={() => setMore(false)}
        onClosed={() => large.current?.focus()}
      />
    </>
  );
}

type StepNow = "begin" | "behind" | "again" | "check" | "done";

/** Whether a step is at a cornrow, by its name; installs begun earlier name it by its id. */
const isAt = (where: string, cornrow: { zone: string; id: string }) =>
  where === cornrowName(cornrow) || where.endsWith(` ${cornrow.id}`);

const names: Readonly<Record<StepNow, string>> = {
  begin: "Begin",
  behind: "Show me",
  again: "Do it again",
  check: "Look it over",
  done: "Done",
};

const icons: Readonly<Record<StepNow, React.ReactNode>> = {
  begin: <PlayCircleOutlined aria-hidden />,
  behind: <UndoOutlined aria-hidden />,
  again: <RedoOutlined aria-hidden />,
  check: <CheckOutlined aria-hidden />,
  done: <CheckOutlined aria-hidden />,
};

/** What the large button does. */
function stepOf(view: ChairView, missed: boolean): StepNow {
  if (!view.card || view.card.kind === "finish") return view.working || view.over ? "check" : "begin";
  if (!view.working) return "begin";
  if (missed) return "behind";
  return view.card.done ? "again" : "done";
}

const withLengths = (text: string, lengths: Readonly<Record<string, number>>, unit: "in" | "cm") =>
  text.replace(/\{(\w+)\}/g, (all, name: string) =>
    lengths[name] === undefined ? all : length(lengths[name], unit),
  );

/** The next step as it is said aloud. */
function spokenOf(card: ChairCard, piece: string | undefined, unit: "in" | "cm"): string {
  const words = { in: "inches", cm: "centimetres" }[unit];
  return [card.title, card.where, piece, ...card.measures.map((m) => withLengths(m, card.lengthsMm, unit))]
    .filter(Boolean)
    .join(". ")
    .replace(new RegExp(`(\\d|[⅛¼⅜½⅝¾⅞]) ${unit}\\b`, "g"), `$1 ${words}`);
}
