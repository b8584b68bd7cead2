import { ArrowRightOutlined } from "@ant-design/icons";
import { Link } from "react-router";
import { useAtChair } from "../api/queries";
import { Ring } from "../chair";
import { clockOf, hours } from "../lib/units";
import styles from "./TodayPage.module.css";

/** The installs that go on, each one touch from its chair. */
export function AtTheChair() {
  const { data } = useAtChair();
  if (!data || data.length === 0) return null;
  return (
    <section className={styles.chairs} aria-label="At the chair">
      {data.map(({ id, title, client, view }) => {
        const { watch, card } = view;
        const [, likely] = watch.ends;
        const short = watch.packs.some((p) => p.short > 0);
        return (
          <Link key={id} to={`/chair/${id}`} className={styles.chair}>
            <Ring done={watch.done} of={watch.of} />
            <span className={styles.what}>
              <span className={styles.kicker}>At the chair</span>
              <strong>{client || title}</strong>
              <small>
                {watch.pieces} of {watch.piecesOf} pieces · {hours(watch.leftMin.likely)} left
                {view.working && likely !== undefined && `, till about ${clockOf(likely)}`}
              </small>
              {card && <small>Next: {card.where}</small>}
              {(watch.missed.length > 0 || short) && (
                <span className={styles.next}>
                  {[
                    ...watch.missed.map((m) => `${m.tasks.length} missed ${m.region}`),
                    ...(short ? ["hair runs short"] : []),
                  ].join(" · ")}
                </span>
              )}
            </span>
            <span className={styles.goOn}>
              Go on <ArrowRightOutlined aria-hidden />
            </span>
          </Link>
        );
      })}
    </section>
  );
}
