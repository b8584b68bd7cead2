import { DownloadOutlined } from "@ant-design/icons";
import { Button, Segmented, Skeleton } from "antd";
import { useState } from "react";
import { Link } from "react-router";
import { useLog, usePaces, usePerson } from "../api/queries";
import type { LearntPace, LoggedInstall } from "../api/types";
import { download } from "../lib/download";
import { useNarrow } from "../lib/narrow";
import { hours, when } from "../lib/units";
import { MoreButton } from "../ui/MoreButton";
import { Page } from "../ui/Page";
import { Trouble } from "../ui/Trouble";
import { Bars } from "./Bars";
import styles from "./Log.module.css";
import { PaceTrend } from "./PaceTrend";
import { countOf } from "../lib/countOf";

/** What heads really took, and what that taught. */
function LogPage() {
  const log = useLog();
  const paces = usePaces();
  return (
    <Page
      title="Log"
      lead="What each head really took, piece by piece, and what the next plan makes of it."
      actions={
        log.items &&
        log.items.length > 0 && (
          <Button size="large" icon={<DownloadOutlined />} onClick={() => download("/api/v1/log.csv")}>
            As a table
          </Button>
        )
      }
    >
      {log.isPending && <Skeleton active />}
      {log.error && <Trouble error={log.error} retry={() => void log.refetch()} />}
      {log.items?.length === 0 && (
        <section className={styles.empty}>
          <h2>No install is finished yet</h2>
          <p>
            Take a plan <strong>to the chair</strong>, from Today or from its Day step, and tap along. When
            the last check is taken, it stands here: hours by task, hair used, and what to do differently.
          </p>
          <Link to="/">Today</Link>
        </section>
      )}
      {paces.data && <Paces paces={paces.data.filter((p) => p.skills.length > 0)} />}
      {log.items && log.items.length > 0 && (
        <section aria-label="Finished installs">
          <h2 className={styles.title}>Finished installs</h2>
          <ul className={styles.list}>
            {log.items.map((l) => (
              <li key={l.id}>
                <Finished logged={l} />
              </li>
            ))}
          </ul>
        </section>
      )}
      <MoreButton more={log.more} busy={log.fetchingMore} />
    </Page>
  );
}

function Finished({ logged }: { logged: LoggedInstall }) {
  const { log } = logged;
  const stages = log.stages.filter((s) => s.plannedMin > 0);
  const planned = stages.reduce((sum, s) => sum + s.plannedMin, 0);
  const actual = stages.reduce((sum, s) => sum + s.actualMin, 0);
  const used = log.pieces.reduce((sum, p) => sum + p.used, 0);
  return (
    <Link to={`/log/${logged.id}`} className={styles.finished}>
      <span className={styles.what}>
        <strong>{logged.title}</strong>
        <small>
          {logged.client || "No client"} · {when(logged.closed)}
        </small>
      </span>
      <Bars planned={planned} actual={actual} most={Math.max(planned, actual)} />
      <span className={styles.figures}>
        {hours(actual)} for {hours(planned)} planned · {used} pieces
      </span>
      {log.change[0] && <span className={styles.lesson}>{log.change[0]}</span>}
    </Link>
  );
}

/** What the log says of the pace of people, with its evidence. */
function Paces({ paces }: { paces: readonly LearntPace[] }) {
  const me = usePerson().id;
  const narrow = useNarrow();
  const [who, setWho] = useState<string>();
  const shown = paces.find((p) => p.personId === (who ?? me)) ?? paces[0];
  if (!shown) return null;
  return (
    <section className={styles.paces} aria-label="Pace">
      <h2 className={styles.title}>Pace</h2>
      {paces.length > 1 && (
        <Segmented<string>
          size="large"
          className={styles.who ?? ""}
          vertical={narrow}
          block={narrow}
          aria-label="Whose pace"
          value={shown.personId}
          options={paces.map((p) => ({ value: p.personId, label: p.name }))}
          onChange={setWho}
        />
      )}
      <p>
        1 × is what practised hands take on another’s head. New plans that {shown.name} works on use what is
        learnt here, and say so.
      </p>
      <div className={styles.skills}>
        {shown.skills.map((s) => (
          <article key={s.skill} className={styles.skill}>
            <h3>{s.name}</h3>
            <p className={styles.factor}>
              {s.factor.toFixed(2)} ×<small> give or take {Math.round(100 * s.spread)} %</small>
            </p>
            <PaceTrend skill={s} />
            <p className={styles.evidence}>
              {countOf(s.lines.length, "install")}, {hours(s.lines.reduce((sum, l) => sum + l.actualMin, 0))}{" "}
              timed; before it the hand alone said {s.guess.toFixed(2)} ×.
            </p>
          </article>
        ))}
      </div>
    </section>
  );
}

export default LogPage;
