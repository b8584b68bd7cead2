import { CheckOutlined } from "@ant-design/icons";
import { App } from "antd";
import { useState } from "react";
import { Link } from "react-router";
import { Count } from "../ui/Numeric";
import styles from "./Chair.module.css";
import type { Following, Shown } from "./following";
import { Photo } from "./Photo";
import { smallPicture } from "./smallPicture";
import { countOf } from "../lib/countOf";

interface Props {
  following: Following;
  shown: Shown;
  onWork: () => void;
}

/** The last check, guided: what to look for in two mirrors, what was filled in, a picture, and the end. */
export function CheckPart({ following, shown: { view }, onWork }: Props) {
  const { message } = App.useApp();
  const { brief } = following.install;
  const [fill, setFill] = useState(1);
  const open = view.watch.of - view.watch.done;
  const finish = view.head.find((t) => t.task.startsWith("finish"));
  const looked = view.looks.filter((l) => l.done).length;
  const lacking = open - (finish && !finish.done ? 1 : 0);
  const end = () =>
    following
      .tell(...(finish && !finish.done ? [{ kind: "done" as const, tasks: [finish.task] }] : []), {
        kind: "ended",
      })
      .then(() => void message.success("Finished. What was used comes out of the stash."));
  if (view.over)
    return (
      <main className={styles.watch} tabIndex={0}>
        <section>
          <h2>Finished</h2>
          <p>
            {view.watch.pieces} pieces are on. What was used and spoilt comes out of the stash, and the pace
            goes into the next plan.
          </p>
          <Link className={styles.wide} to={`/log/${following.install.id}`}>
            See how it went
          </Link>
          <button
            type="button"
            className={styles.wide}
            onClick={() => void following.tell({ kind: "began" }).then(onWork)}
          >
            Go on
          </button>
        </section>
      </main>
    );
  return (
    <main className={styles.watch} tabIndex={0}>
      <section aria-label="The last check">
        <h2>
          The last check{" "}
          <small>
            {looked} of {view.looks.length}
          </small>
        </h2>
        <p>One mirror behind, one in hand. Touch each when you have looked.</p>
        {view.looks.map((l) => (
          <button
            key={l.key}
            type="button"
            className={styles.look}
            aria-pressed={l.done}
            onClick={() => void (!l.done && following.tell({ kind: "checked", text: l.key }))}
          >
            <i aria-hidden>{l.done && <CheckOutlined />}</i>
            <span>
              <strong>{l.title}</strong>
              <span>{l.says}</span>
              {l.wants && <em>{l.wants}</em>}
            </span>
          </button>
        ))}
      </section>
      <section aria-label="Filled in">
        <h2>Filled in where it was thin</h2>
        <div className={styles.count}>
          <span>How many pieces</span>
          <Count
            label="How many pieces were filled in"
            value={fill}
            min={1}
            max={60}
            onChange={(n) => setFill(n ?? 1)}
          />
        </div>
        <div className={styles.larges}>
          {brief.pieces
            .filter((p) => p.need > 0)
            .map((p) => (
              <button
                key={p.key}
                type="button"
                className={styles.large}
                onClick={() =>
                  void following
                    .tell({ kind: "filled", piece: p.key, count: fill })
                    .then(() => void message.success(`${fill} filled in: told`))
                }
              >
                <strong>{p.name}</strong>
                <small>{p.colour}</small>
              </button>
            ))}
        </div>
      </section>
      <section aria-label="A picture of it">
        <h2>A picture of it</h2>
        <Photo
          asks={brief.ownHead ? "Keep a picture of your own head?" : "Ask the client: may a picture be kept?"}
          onPicture={async (file) => {
            await following.photograph(await smallPicture(file), "finished");
            void message.success("The picture is kept");
          }}
        />
      </section>
      <section aria-label="The end">
        <h2>The end</h2>
        {lacking > 0 && (
          <p role="status">
            {countOf(lacking, "thing is", "things are")} not told of yet. Go on, or finish as it is.
          </p>
        )}
        <button type="button" className={styles.done} onClick={() => void end()}>
          <CheckOutlined aria-hidden />
          <span>Finished</span>
        </button>
        <button type="button" className={styles.wide} onClick={onWork}>
          Back to work
        </button>
      </section>
    </main>
  );
}
