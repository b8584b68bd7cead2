import { Skeleton } from "antd";
import { memo, type ReactNode } from "react";
import { useDay } from "../../api/queries";
import type { DayPlan, Sittings } from "../../api/types";
import { day as writeDay, hours } from "../../lib/units";
import { Parts } from "../../ui/Parts";
import { Trouble } from "../../ui/Trouble";
import { BeforePart } from "./BeforePart";
import { Book } from "./Book";
import { FitHours } from "./FitHours";
import { daySum, HandsPart, HoursPart } from "./HoursPart";
import { Messages } from "./Messages";
import { Papers } from "./Papers";
import { RowOrder } from "./RowOrder";
import { LengthPart, SittingsPart } from "./SittingsPart";
import { TryOne } from "./TryOne";
import { useBench } from "../draft/onBench";

/** When it is done, by whom and in which order: hours that hold, sittings that end. */
export const DayStep = memo(function DayStep() {
  const {
    plan,
    draft: { input },
  } = useBench();
  const asked = useDay(input);
  const day = asked.data;
  const told = (draw: (day: DayPlan) => ReactNode) =>
    day ? (
      draw(day)
    ) : asked.error ? (
      <Trouble error={asked.error} retry={() => void asked.refetch()} />
    ) : (
      <Skeleton active />
    );
  const total = day?.hours.total;
  const within = input.day?.withinMin ?? 0;
  return (
    <Parts
      step="day"
      parts={[
        {
          key: "hours",
          chapter: "Hours",
          title: "What it takes",
          says: total && `${hours(total.low)} to ${hours(total.high)}`,
          content: told((d) => <HoursPart day={d} />),
        },
        {
          key: "hands",
          chapter: "Hours",
          title: "Who works",
          says: day && day.hands.map((h) => h.name || "practised hands").join(" and "),
          paths: ["day.hands"],
          content: told((d) => <HandsPart input={input} day={d} />),
        },
        {
          key: "try",
          chapter: "Hours",
          title: "Try the first piece",
          says:
            day &&
            (day.paces.length > 0
              ? `${day.paces.reduce((n, p) => n + p.pieces, 0)} timed`
              : "time it, and project"),
          paths: ["day.trials"],
          content: told((d) => <TryOne day={d} />),
        },
        {
          key: "fit",
          chapter: "Hours",
          title: "Within your hours",
          says:
            day &&
            (within === 0
              ? "say how long it may take"
              : daySum(day) <= within
                ? "within your hours"
                : "longer than wished"),
          paths: ["day.withinMin"],
          content: told((d) => <FitHours input={input} day={d} />),
        },
        {
          key: "sittings",
          chapter: "Sittings",
          title: "Sittings",
          says: day && sittingsText(day),
          paths: ["day.sittings.slots", "day.install"],
          content: told((d) => <SittingsPart input={input} day={d} />),
        },
        {
          key: "length",
          chapter: "Sittings",
          title: "Length and breaks",
          says: day && lengthText(input.day?.sittings ?? day.usual),
          paths: ["day.sittings.longest", "day.sittings.at", "day.sittings.every", "day.sittings.breaks"],
          content: told((d) => <LengthPart input={input} day={d} />),
        },
        {
          key: "order",
          chapter: "Sittings",
          title: "Working order",
          says:
            day &&
            `${day.rows.length} rows${(input.day?.order?.rows?.length ?? 0) > 0 ? ", an own order" : ""}`,
          paths: ["day.order"],
          content: told((d) => <RowOrder input={input} day={d} />),
        },
        {
          key: "before",
          chapter: "Sittings",
          title: "Before it",
          says: day && `${day.due.length} things`,
          content: told((d) => <BeforePart plan={plan} input={input} day={d} />),
        },
        {
          key: "book",
          chapter: "Take along",
          title: "On the calendar",
          says: "chair, people, clashes",
          content: told((d) => <Book plan={plan} input={input} day={d} />),
        },
        {
          key: "papers",
          chapter: "Take along",
          title: "Papers",
          says: "day sheet, plan sheet",
          content: <Papers plan={plan} />,
        },
        {
          key: "messages",
          chapter: "Take along",
          title: "Messages",
          says: "to prepare, a reminder, care",
          content: <Messages plan={plan} input={input} />,
        },
      ]}
    />
  );
});

const lengthText = ({ longestMin, at, breaks }: Sittings) =>
  `up to ${hours(longestMin)} from ${at}${breaks.afterMin > 0 ? "" : ", no breaks"}`;

/** How many sittings, and from when. */
function sittingsText({ sittings }: DayPlan): string {
  const n = sittings.length;
  const first = sittings[0]?.on ?? "";
  return `${n === 1 ? "one" : n}${first === "" ? ", no date yet" : `, from ${writeDay(first)}`}`;
}
