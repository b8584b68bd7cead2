import { Button, Skeleton } from "antd";
import { Suspense, useMemo, useState } from "react";
import { Link, useParams } from "react-router";
import { useWornOf } from "../api/queries";
import type { WornHead } from "../api/types";
import { GrownHead } from "../head";
import { usePreferences } from "../lib/preferences";
import { comb, day } from "../lib/units";
import { Page } from "../ui/Page";
import { Slide } from "../ui/Slide";
import { Parts, type Part } from "../ui/Parts";
import { Trouble } from "../ui/Trouble";
import { BackPart } from "./BackPart";
import { CarePart } from "./CarePart";
import { ClockPart } from "./ClockPart";
import { LookPart } from "./LookPart";
import { MendPart } from "./MendPart";
import { StoryPart } from "./StoryPart";
import { TakedownPart } from "./TakedownPart";
import { WearRing } from "./WearRing";
import styles from "./Wear.module.css";
import { deeds, left, nextLook, span, weeks, within } from "./words";
import { countOf } from "../lib/countOf";

/** One head being worn, from the first look to what came back. */
function WornHeadPage() {
  const { id = "" } = useParams();
  const { data, error, refetch } = useWornOf(id);
  if (!data)
    return (
      <Page title="Wear" lead="">
        {error ? <Trouble error={error} retry={() => void refetch()} /> : <Skeleton active />}
      </Page>
    );
  return (
    <Page
      title={data.client || data.title}
      lead={`${data.client ? `${data.title} · ` : ""}worn since ${day(data.on)}`}
      actions={
        <>
          {data.clientId !== undefined && (
            <Link to={`/clients/${data.clientId}`}>
              <Button size="large">The card</Button>
            </Link>
          )}
          <Link to={`/log/${data.id}`}>
            <Button size="large">See the log</Button>
          </Link>
        </>
      }
    >
      <Shown head={data} />
    </Page>
  );
}

function Shown({ head }: { head: WornHead }) {
  const parts = usePartsOf(head);
  const { clock, advice } = head;
  return (
    <div className={styles.columns}>
      <section className={styles.seen} aria-label="The head today">
        <Grown head={head} />
      </section>
      <section className={styles.today} data-state={head.downOn ? "down" : clock.state}>
        <WearRing clock={clock} down={head.downOn !== undefined} />
        <div>
          {head.downOn !== undefined ? (
            <>
              <h2>Taken down {day(head.downOn)}</h2>
              {head.readyOn !== undefined && <p>The next install may follow from {day(head.readyOn)} on.</p>}
            </>
          ) : (
            <>
              <h2>
                {clock.state === "over" ? "Past its day: " : "Take down "}
                {day(head.dueOn)}
              </h2>
              <p>
                {left(clock)} · usual from week {Math.round(clock.from / 7)} to week{" "}
                {Math.round(clock.latest / 7)}
              </p>
            </>
          )}
          {advice.slice(0, 2).map((a) => (
            <p key={a.do + a.sign} className={styles.asks} data-do={a.do}>
              <strong>{deeds[a.do]}</strong>, {within(a.withinDays)}. {a.text}
            </p>
          ))}
        </div>
      </section>
      <div className={styles.side}>
        <Parts step={head.downOn === undefined ? "wear" : "worn"} parts={parts} />
      </div>
    </div>
  );
}

/** The parts of a head: while it is worn what to do, once it is down what came back. */
function usePartsOf(head: WornHead): readonly Part[] {
  const { clock } = head;
  const down = head.downOn !== undefined;
  const ring = head.renewals.find((r) => r.pays);
  const back = head.account.reduce((n, a) => n + a.saved, 0);
  const all: (Part & { shown: boolean })[] = [
    {
      key: "look",
      title: "Look at it",
      says: nextLook(head),
      content: <LookPart head={head} />,
      shown: !down,
    },
    {
      key: "back",
      title: "What came back",
      says: `${back} pieces saved, every piece accounted for`,
      content: <BackPart head={head} />,
      shown: down,
    },
    {
      key: "clock",
      title: "The clock",
      says: `${span(Math.round(clock.from / 7), Math.round(clock.latest / 7))}, and why`,
      content: <ClockPart head={head} />,
      shown: !down,
    },
    {
      key: "care",
      title: "Care",
      says: head.link ? "Handed over" : "Print it, or hand it over on a phone",
      content: <CarePart head={head} />,
      shown: !down,
    },
    {
      key: "mend",
      title: "Repairs and the ring",
      says: ring ? `Doing the ring again gains ${weeks(ring.weeks)}` : "Loose and lost pieces",
      content: <MendPart head={head} />,
      shown: !down,
    },
    {
      key: "down",
      title: down ? "How it came off" : "Take it down",
      says: down ? "What was told of it" : "Back first, the mark, shed hair, what is saved",
      content: <TakedownPart head={head} />,
      shown: true,
    },
    {
      key: "story",
      title: "What was seen and done",
      says: countOf(head.entries.length, "entry", "entries"),
      content: <StoryPart head={head} />,
      shown: true,
    },
  ];
  return all.filter((p) => p.shown);
}

/** The head with what has grown out at its roots, week by week. */
function Grown({ head }: { head: WornHead }) {
  const unit = usePreferences((p) => p.unit);
  const now = Math.min(head.growing.length - 1, Math.floor(head.clock.day / 7));
  const [week, setWeek] = useState(now);
  const grown = head.growing[week];
  const swatches = useMemo(() => head.pieces.map((p) => p.swatch ?? "#6b4a31"), [head.pieces]);
  if (!grown) return null;
  const words = `${comb(grown.likelyMm, unit)} ${unit} grown out after ${weeks(week)}, between ${comb(grown.leastMm, unit)} and ${comb(grown.mostMm, unit)}.`;
  return (
    <>
      <div className={styles.head}>
        <Suspense>
          <GrownHead
            head={head.head.head}
            layout={head.head.layout}
            grownMm={grown.likelyMm}
            swatches={swatches}
            label={words}
          />
        </Suspense>
      </div>
      <div className={styles.weeks}>
        <p aria-live="polite">
          <strong>
            {comb(grown.likelyMm, unit)} {unit}
          </strong>{" "}
          between scalp and piece after {weeks(week)}
          {week === now ? ", as today" : ""}{" "}
          <small>
            ({comb(grown.leastMm, unit)}–{comb(grown.mostMm, unit)} {unit}) {head.growsBy}
          </small>
        </p>
        <Slide
          label="Weeks of wear"
          says={words}
          min={0}
          max={head.growing.length - 1}
          value={week}
          marks={[0, 4, 8, 12, 16].map((w) => ({
            at: w,
            text: w === 0 ? "on" : w === 16 ? "16 weeks" : `${w}`,
          }))}
          onChange={setWeek}
        />
        <TrueSize mm={grown.likelyMm} />
      </div>
    </>
  );
}

/** A root beside a ruler, at twice its size: scalp, grown-out hair, the piece. */
function TrueSize({ mm }: { mm: number }) {
  const unit = usePreferences((p) => p.unit);
  const k = 2;
  const step = unit === "in" ? 25.4 / 4 : 5;
  const ticks = Array.from({ length: Math.floor(56 / step) + 1 }, (_, i) => i * step);
  return (
    <svg className={styles.root} viewBox="-6 -16 132 44" aria-hidden>
      <rect x="-6" y="-16" width="6" height="28" className={styles.rootScalp} />
      <text x="126" y="-10" textAnchor="end">
        a root, twice its size
      </text>
      <path d={`M0 -2 H${mm * k}`} className={styles.rootOwn} />
      <path d={`M${mm * k} -2 H126`} className={styles.rootPiece} />
      {ticks.map((t, i) => (
        <g key={t} className={styles.rootTick}>
          <path d={`M${t * k} 14 v${(unit === "in" ? i % 4 === 0 : i % 2 === 0) ? 6 : 3}`} />
          {(unit === "in" ? i % 4 === 0 : i % 2 === 0) && (
            <text x={t * k} y="27" textAnchor="middle">
              {unit === "in" ? i / 4 : t / 10}
              {i === 0 ? ` ${unit}` : ""}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}

export default WornHeadPage;
