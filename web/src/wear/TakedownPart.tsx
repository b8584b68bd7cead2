import { ScissorOutlined } from "@ant-design/icons";
import type { WearEntry, WearGuide, WornHead } from "../api/types";
import { usePreferences } from "../lib/preferences";
import { hours, length } from "../lib/units";
import { pictureOf } from "../ui/movePicture";
import { StepText } from "../ui/StepText";
import styles from "./Wear.module.css";
import { ItIsDown } from "./ItIsDown";
import { edges, felt } from "./words";

/** How the head comes off: back first, by method, with the mark; then what is told of it. */
export function TakedownPart({ head }: { head: WornHead }) {
  const { takedown: g } = head;
  const down = head.entries.find((e) => e.kind === "taken-down");
  return (
    <>
      {down && <Told entry={down} head={head} />}
      {!down && (
        <>
          <Mark guide={g} />
          <dl className={styles.figures}>
            <Figure name="Pieces off" minutes={g.offMin} />
            <Figure name="Undo the base" minutes={g.baseMin} />
            <Figure name="Comb out" minutes={g.combMin} />
            <Figure name="Detangle, wash" minutes={g.washMin} />
            <Figure name="All of it" minutes={g.totalMin} whole />
          </dl>
          <Lines title="Before" lines={g.before} />
          <h3>In this order</h3>
          <ol className={styles.areas}>
            {g.areas.map((a) => (
              <li key={a.name}>
                <strong>{a.name.replace(/^./, (c) => c.toUpperCase())}</strong> {a.pieces} pieces ·{" "}
                {hours(a.minutes)}
              </li>
            ))}
          </ol>
          {g.parts.map((p) => (
            <section key={p.piece + p.method} className={styles.method}>
              <h3>
                {p.way}{" "}
                <small>
                  {p.pieces} of {p.name}
                </small>
              </h3>
              <Moves steps={p.steps} />
              <p className={styles.note}>
                {p.usuallyBack > 0
                  ? `Usually ${p.usuallyBack} of ${p.pieces} come back whole.`
                  : "Cut, they do not come back."}
              </p>
            </section>
          ))}
          <Lines title="Once all are off" lines={g.after} />
        </>
      )}
      <ShedHair guide={g} />
      <Lines title="What is not shed hair" lines={g.worry} />
      <p className={styles.rest}>
        <strong>{g.restDays} days of rest</strong> before the next install. {g.restWhy}
      </p>
      {!down && <ItIsDown head={head} />}
    </>
  );
}

const Figure = ({ name, minutes, whole }: { name: string; minutes: number; whole?: boolean }) => (
  <div data-whole={whole}>
    <dt>{name}</dt>
    <dd>{hours(minutes)}</dd>
  </div>
);

function Lines({ title, lines }: { title: string; lines: readonly string[] }) {
  return (
    <>
      <h3>{title}</h3>
      <ul className={styles.lines}>
        {lines.map((l) => (
          <li key={l}>{l}</li>
        ))}
      </ul>
    </>
  );
}

/** The mark above which no piece is cut through, drawn: scalp, own hair, an inch to spare, then scissors. */
function Mark({ guide }: { guide: WearGuide }) {
  const unit = usePreferences((p) => p.unit);
  if (guide.markMm === 0)
    return <p className={styles.noCut}>No piece is cut through on this head: it comes off by hand.</p>;
  const marks = guide.parts.filter((p) => p.cutBelowMm > 0);
  return (
    <div className={styles.mark}>
      <svg
        viewBox="0 0 320 58"
        role="img"
        aria-label={`No piece is cut through within ${length(guide.markMm, unit)} of the scalp`}
      >
        <rect x="0" y="4" width="14" height="42" className={styles.rootScalp} />
        <path d="M14 25 H306" className={styles.markPiece} />
        <path d="M14 25 H178" className={styles.markOwn} />
        <path d="M214 6 V44" className={styles.markLine} />
        <text x="96" y="54" textAnchor="middle">
          own hair
        </text>
        <text x="196" y="54" textAnchor="middle">
          1 in
        </text>
        <g transform="translate(236 13)" className={styles.markScissors}>
          <path d="M0 4 L22 18 M0 20 L22 6" />
          <circle cx="26" cy="4" r="4" />
          <circle cx="26" cy="20" r="4" />
        </g>
        <text x="250" y="54" textAnchor="middle">
          cut here
        </text>
      </svg>
      <p>
        <ScissorOutlined aria-hidden />{" "}
        <strong>Never cut a piece through within {length(guide.markMm, unit)} of the scalp.</strong>
        {marks.length > 1 &&
          ` ${marks.map((p) => `${p.way}: ${length(p.cutBelowMm, unit)}`).join(" · ")}.`}{" "}
        Feel for the end of own hair at every piece; it may be longer than it was.
      </p>
    </div>
  );
}

/** The moves of a method as it comes off, drawn. */
function Moves({ steps }: { steps: WearGuide["parts"][number]["steps"] }) {
  const leftHanded = usePreferences((p) => p.leftHanded);
  return (
    <ol className={styles.moves}>
      {steps.map((s) => (
        <li key={s.text}>
          {s.shows && (
            <img
              src={pictureOf(s.shows.figure, s.shows.last, leftHanded, s.shows.last < s.shows.first)}
              alt=""
              width={76}
              height={88}
              loading="lazy"
            />
          )}
          <p>
            <StepText step={s} />
          </p>
        </li>
      ))}
    </ol>
  );
}

/** How much shed hair is no reason to be frightened. */
function ShedHair({ guide: { shed } }: { guide: WearGuide }) {
  const unit = usePreferences((p) => p.unit);
  const wide = 10 + 46 * Math.min(1, shed.ballMm / 90);
  return (
    <section className={styles.shed}>
      <svg viewBox="0 0 120 120" aria-hidden>
        {[0, 1, 2, 3, 4, 5, 6].map((i) => (
          <ellipse
            key={i}
            cx="60"
            cy="60"
            rx={wide * (0.98 - 0.06 * (i % 3))}
            ry={wide * (0.62 + 0.05 * (i % 4))}
            transform={`rotate(${i * 27} 60 60)`}
            className={styles.shedHair}
          />
        ))}
      </svg>
      <div>
        <h3>Shed hair: do not be frightened</h3>
        <p>
          A head sheds 50 to 100 hairs a day, and plaits held them. After {Math.round(shed.days / 7)} weeks{" "}
          <strong>
            {shed.least.toLocaleString()} to {shed.most.toLocaleString()} hairs
          </strong>{" "}
          come at once: up to a loose ball {length(shed.ballMm, unit)} wide,{" "}
          {Math.max(1, Math.round(shed.massG))} g. That is no hair loss.
        </p>
      </div>
    </section>
  );
}

/** What was told of a taking down. */
function Told({ entry, head }: { entry: WearEntry; head: WornHead }) {
  const unit = usePreferences((p) => p.unit);
  const facts = [
    entry.felt && `It felt ${felt[entry.felt]}.`,
    entry.edges && `The edges came out ${edges[entry.edges]}.`,
    entry.minutes && `It took ${hours(entry.minutes)}; ${hours(head.takedown.totalMin)} was planned.`,
    entry.lengthMm && `Longest own hair ${length(entry.lengthMm, unit)}.`,
    entry.text,
  ].filter(Boolean);
  return (
    <ul className={styles.lines}>
      {facts.map((f) => (
        <li key={f}>{f}</li>
      ))}
    </ul>
  );
}
