import { ScissorOutlined } from "@ant-design/icons";
import { App, Button, Input, Segmented } from "antd";
import { useState } from "react";
import { v4 as uuid } from "uuid";
import { server } from "../api/client";
import { useWear } from "../api/queries";
import type { Saved, WearEntry, WearGuide, WornHead } from "../api/types";
import { useNarrow } from "../lib/narrow";
import { usePreferences } from "../lib/preferences";
import { hours, length } from "../lib/units";
import { LengthField } from "../ui/fields";
import { pictureOf } from "../ui/movePicture";
import { Count } from "../ui/Numeric";
import { StepText } from "../ui/StepText";
import { Refused } from "./Refused";
import { SavedCounts } from "./SavedCounts";
import { localDay } from "../lib/localDay";
import styles from "./Wear.module.css";
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
    return <p className={styles.noCut}>Nothing is cut on this head: it comes off by hand alone.</p>;
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
        Feel for the end of the own hair at every piece; it may be longer than it was.
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

const feels = [
  { value: "comfortable", label: "Comfortable" },
  { value: "tight", label: "Tight" },
  { value: "painful", label: "It hurt" },
] as const;
const edgesNow = [
  { value: "better", label: "Better" },
  { value: "same", label: "As before" },
  { value: "worse", label: "Thinner" },
] as const;

/** What is told once it is down: pieces saved, time, how it felt, edges, length. */
function ItIsDown({ head }: { head: WornHead }) {
  const { message } = App.useApp();
  const narrow = useNarrow();
  const usual = (key: string) =>
    head.takedown.parts.filter((p) => p.piece === key).reduce((n, p) => n + p.usuallyBack, 0);
  const [saved, setSaved] = useState<Saved[]>(() =>
    head.pieces.map((p) => ({ piece: p.key, good: Math.min(usual(p.key), p.hung), worn: 0 })),
  );
  const [things, setThings] = useState(() => head.things.map((t) => t.count));
  const [how, setHow] = useState<NonNullable<WearEntry["felt"]>>("comfortable");
  const [edge, setEdge] = useState<NonNullable<WearEntry["edges"]>>("same");
  const [minutes, setMinutes] = useState(() => Math.max(5, 5 * Math.round(head.takedown.totalMin / 5)));
  const [mm, setMm] = useState(0);
  const [text, setText] = useState("");
  const keep = useWear(head.id, () =>
    server.putWear(head.id, {
      id: uuid(),
      on: localDay(),
      day: 0,
      kind: "taken-down",
      saved: saved.filter((s) => s.good + s.worn > 0),
      ...(things.length > 0 && { things }),
      minutes,
      ...(head.keepsHealth && {
        felt: how,
        edges: edge,
        ...(mm > 0 && { lengthMm: mm }),
        ...(text.trim() && { text: text.trim() }),
      }),
    }),
  );
  const expected = head.pieces.some((p) => usual(p.key) > 0);
  return (
    <section className={styles.isDown} aria-label="It is down">
      <h3>It is down: count what is saved</h3>
      <p>
        {expected
          ? "What usually comes back is filled in; put it right. Good ones can show again, worn ones fill or lie underneath."
          : "Cut pieces do not come back. Count those that came off whole."}
      </p>
      <SavedCounts head={head} saved={saved} onChange={setSaved} />
      {head.things.map((t, i) => (
        <label key={t.name} className={styles.thing}>
          {t.name}, of {t.count}
          <Count
            label={`${t.name} saved`}
            value={things[i] ?? 0}
            min={0}
            max={t.count}
            onChange={(n) => setThings(things.map((x, k) => (k === i ? (n ?? 0) : x)))}
          />
        </label>
      ))}
      <div className={styles.asked}>
        {head.keepsHealth && (
          <>
            <span>How was it to wear?</span>
            <Segmented
              size="large"
              block
              vertical={narrow}
              aria-label="How was it to wear?"
              value={how}
              options={[...feels]}
              onChange={setHow}
            />
            <span>The edges now</span>
            <Segmented
              size="large"
              block
              vertical={narrow}
              aria-label="The edges now"
              value={edge}
              options={[...edgesNow]}
              onChange={setEdge}
            />
          </>
        )}
        <label className={styles.thing}>
          Minutes it took
          <Count
            label="Minutes it took"
            value={minutes}
            min={0}
            max={3000}
            onChange={(n) => setMinutes(n ?? 0)}
          />
        </label>
        {head.keepsHealth && (
          <LengthField
            label="Longest own hair now, stretched"
            path="lengthMm"
            help="Leave it empty where nobody measures."
            mm={mm}
            empty
            onChange={setMm}
          />
        )}
      </div>
      {head.keepsHealth ? (
        <Input.TextArea
          aria-label="Note on the taking down"
          placeholder="What to remember next time"
          value={text}
          rows={2}
          maxLength={2000}
          onChange={(e) => setText(e.target.value)}
        />
      ) : (
        <p className={styles.note}>
          How it felt, the edges and notes are kept only with consent, which the card does not have.
        </p>
      )}
      <Refused error={keep.error} />
      <div className={styles.buttons}>
        <Button
          type="primary"
          size="large"
          loading={keep.isPending}
          onClick={() =>
            keep.mutate(undefined, {
              onSuccess: () => void message.success("Down. What was saved lies in the stash."),
            })
          }
        >
          It is down
        </Button>
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
    entry.minutes && `It took ${hours(entry.minutes)}; ${hours(head.takedown.totalMin)} was reckoned with.`,
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
