import { BulbOutlined, DeleteOutlined, FilePdfOutlined } from "@ant-design/icons";
import { App, Button, Skeleton } from "antd";
import { Link, useParams } from "react-router";
import { server } from "../api/client";
import { useChange, useLogOf, useMay } from "../api/queries";
import { newAddress } from "../lib/madeHere";
import { hours, when } from "../lib/units";
import { Page } from "../ui/Page";
import { Trouble } from "../ui/Trouble";
import { Bars } from "./Bars";
import styles from "./Log.module.css";

const points: Readonly<Record<string, string>> = {
  "first-row": "After the first row",
  half: "At half",
  all: "With all of it on",
};
const felt = { fine: "fine", pulls: "it pulled", hurts: "it hurt", "": "" } as const;

/** One finished head: planned against actual, hair, and what to do differently. */
function InstallLog() {
  const { id = "" } = useParams();
  const { data, error, refetch } = useLogOf(id);
  if (!data)
    return (
      <Page title="Log" lead="">
        {error ? <Trouble error={error} retry={() => void refetch()} /> : <Skeleton active />}
      </Page>
    );
  const { log } = data;
  const most = Math.max(...log.stages.map((s) => Math.max(s.plannedMin, s.actualMin)), 1);
  return (
    <Page
      title={data.title}
      lead={`${data.client ? `${data.client} · ` : ""}finished ${when(data.closed)} · ${hours(log.workedMin)} at it for ${hours(log.plannedMin)} planned`}
      actions={
        data.planId !== undefined && (
          <Link to={newAddress("plans", { from: data.planId })}>
            <Button type="primary" size="large">
              Plan it again
            </Button>
          </Link>
        )
      }
    >
      <div className={styles.columns}>
        <section className={styles.card} aria-label="What to change">
          <h2>
            <BulbOutlined aria-hidden /> What to change
          </h2>
          {log.change.length === 0 ? (
            <p>It went as planned: nothing to change.</p>
          ) : (
            <ul className={styles.change}>
              {log.change.map((c) => (
                <li key={c}>{c}</li>
              ))}
            </ul>
          )}
        </section>
        <section className={styles.card} aria-label="Planned against actual">
          <h2>Planned against actual</h2>
          <p className={styles.key}>
            <i className={styles.planned} aria-hidden /> planned <i className={styles.actual} aria-hidden />{" "}
            as it was
          </p>
          {log.stages.map((s) => (
            <div key={s.kind} className={styles.stage}>
              <strong>{s.name}</strong>
              <Bars planned={s.plannedMin} actual={s.actualMin} most={most} />
              <span>
                {s.timed > 0
                  ? `${hours(s.actualMin)} for ${hours(s.plannedMin)}`
                  : "not timed: told of in one go, or afterwards"}
              </span>
              {s.timed > 0 && s.timed < s.tasks && (
                <small>
                  {s.timed} of {s.tasks} timed
                </small>
              )}
            </div>
          ))}
        </section>
        <section className={styles.card} aria-label="Hair">
          <h2>Hair</h2>
          {log.pieces
            .filter((p) => p.used + p.spoilt > 0)
            .map((p) => (
              <dl key={p.piece.key} className={styles.hair}>
                <dt>
                  {p.piece.name}
                  {p.piece.colour && `, ${p.piece.colour}`}
                </dt>
                <dd>
                  <b>{p.used}</b> on the head, {p.piece.need} planned
                </dd>
                <dd>
                  <b>{p.spoilt}</b> spoilt
                </dd>
                <dd>
                  <b>{p.opened}</b> packs opened, {p.piece.packs} planned
                </dd>
                <dd>
                  <b>{p.left}</b> left
                </dd>
              </dl>
            ))}
          {data.stash.map((b) => (
            <p key={b.piece}>
              Out of the stash: {b.used} used{b.spoilt > 0 && `, ${b.spoilt} spoilt`} of {b.piece}
              {b.beyond > 0 && `; ${b.beyond} more were never put into it`}.
            </p>
          ))}
        </section>
        <section className={styles.card} aria-label="What came of it">
          <h2>What came of it</h2>
          <ul className={styles.change}>
            {log.twice > 0 && <li>{log.twice} came out as two</li>}
            {log.out > 0 && <li>{log.out} left out</li>}
            {log.again > 0 && <li>{log.again} done again</li>}
            {Object.entries(log.felt).map(([at, answer]) => (
              <li key={at}>
                {points[at] ?? at}: {felt[answer as keyof typeof felt] || answer}
              </li>
            ))}
          </ul>
          {log.notes.map((n, i) => (
            <Noted key={i} install={id} text={n.text} {...(n.photo !== undefined && { photo: n.photo })} />
          ))}
          <p className={styles.papers}>
            {data.papers && (
              <>
                <a href={`/api/v1/installs/${id}/day-sheet.pdf`} download>
                  <FilePdfOutlined aria-hidden /> Day sheet
                </a>
                <a href={`/api/v1/installs/${id}/plan-sheet.pdf`} download>
                  <FilePdfOutlined aria-hidden /> Plan sheet
                </a>
              </>
            )}
            <Link to={`/chair/${id}`}>Look at the chair</Link>
          </p>
        </section>
      </div>
    </Page>
  );
}

/** A note, or a picture that can be deleted. */
function Noted({ install, text, photo }: { install: string; text: string; photo?: string }) {
  const mayDrop = useMay("dropPhoto");
  const drop = useChange(server.dropPhoto, "log");
  const { modal } = App.useApp();
  if (photo === undefined) return <p>{text}</p>;
  if (drop.isSuccess) return <p>The picture is deleted.</p>;
  return (
    <figure className={styles.photo}>
      <img src={`/api/v1/installs/${install}/photos/${photo}`} alt={text || "The finished install"} />
      <figcaption>
        {text}
        {mayDrop && (
          <Button
            size="large"
            icon={<DeleteOutlined />}
            aria-label="Delete the picture"
            onClick={() =>
              void modal.confirm({
                title: "Delete the picture?",
                content: "It cannot be brought back.",
                okText: "Delete it",
                okButtonProps: { danger: true },
                onOk: () => drop.mutateAsync({ id: install, photo }).catch(() => undefined),
              })
            }
          />
        )}
      </figcaption>
    </figure>
  );
}

export default InstallLog;
