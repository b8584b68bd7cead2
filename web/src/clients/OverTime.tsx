import { Link } from "react-router";
import { useHeads } from "../api/queries";
import type { PastHead } from "../api/types";
import { localDay } from "../lib/localDay";
import { usePreferences } from "../lib/preferences";
import { day, hours, length, weight } from "../lib/units";
import styles from "./OverTime.module.css";

const felt = { comfortable: "comfortable", tight: "tight", painful: "it hurt" } as const;
const edges = { better: "edges better", same: "edges as before", worse: "edges thinner" } as const;

/** The client's installs in a row, the oldest first: weeks, comfort, pace, packs, edges, length, pictures. */
export function OverTime({ id }: { id: string }) {
  const { data } = useHeads(id);
  if (!data || data.heads.length === 0) return null;
  const heads = data.heads.toReversed();
  const most = Math.max(...heads.map((h) => h.weeks), 8);
  return (
    <section className={styles.over} aria-label="Over time">
      <h2>Over time</h2>
      {data.worked?.readyOn !== undefined && data.worked.readyOn > localDay() && (
        <p>
          {data.heads[0]?.worn
            ? "An install is being worn now."
            : `The next install may follow from ${day(data.worked.readyOn)} on. ${data.worked.readyWhy ?? ""}`}
        </p>
      )}
      <Lengths heads={heads} />
      <ol className={styles.row}>
        {heads.map((h) => (
          <li key={h.id} data-worn={h.worn}>
            <Link to={`/wear/${h.id}`}>
              <strong>{h.title}</strong>
              <small>
                {day(h.on)} {new Date(h.on).getFullYear()}
              </small>
            </Link>
            <span className={styles.weeks} aria-hidden>
              <i style={{ width: `${(100 * h.weeks) / most}%` }} data-felt={h.felt} />
            </span>
            <p>
              <b>{h.weeks === 0 && !h.worn ? "Taking down not noted" : `${Math.round(h.weeks)} weeks`}</b>
              {h.worn && " so far"}
              {h.felt && `, ${felt[h.felt]}`}
              {h.edges && `, ${edges[h.edges]}`}
            </p>
            <Facts head={h} />
            {h.photos.length > 0 && (
              <div className={styles.photos}>
                {h.photos.slice(0, 4).map((p) => (
                  <img
                    key={p}
                    src={`/api/v1/installs/${h.id}/photos/${p}`}
                    alt={`${h.title}, a picture`}
                    loading="lazy"
                  />
                ))}
              </div>
            )}
            {h.change[0] && <p className={styles.change}>{h.change[0]}</p>}
          </li>
        ))}
      </ol>
    </section>
  );
}

function Facts({ head: h }: { head: PastHead }) {
  const unit = usePreferences((p) => p.unit);
  const pace = h.plannedMin > 0 ? Math.round((100 * h.workedMin) / h.plannedMin) : 0;
  return (
    <p className={styles.facts}>
      {h.pieces} pieces, {weight(h.massG, unit)} · {h.packs} packs opened · {hours(h.workedMin)}
      {pace > 0 && `, ${pace} % of the plan`}
      {h.mended + h.lost > 0 && ` · ${h.mended} put back, ${h.lost} lost`}
      {h.saved > 0 && ` · ${h.saved} saved`}
    </p>
  );
}

/** How own hair grew, from what was measured at each taking down. */
function Lengths({ heads }: { heads: readonly PastHead[] }) {
  const unit = usePreferences((p) => p.unit);
  const measured = heads.filter((h) => h.lengthMm > 0);
  const [first, last] = [measured[0], measured[measured.length - 1]];
  if (!first || !last) return null;
  const grown = last.lengthMm - first.beforeMm;
  return (
    <p>
      Longest own hair {length(first.beforeMm, unit)} before the first of these, {length(last.lengthMm, unit)}{" "}
      at the last taking down:{" "}
      <b>{grown >= 0 ? `${length(grown, unit)} kept` : `${length(-grown, unit)} less`}</b>.
    </p>
  );
}
