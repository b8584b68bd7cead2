import { CalendarOutlined, CheckCircleFilled, WarningFilled } from "@ant-design/icons";
import { App, Button, Skeleton } from "antd";
import { Link } from "react-router";
import { v4 } from "uuid";
import { server } from "../../api/client";
import { useBooking, useChange, useClashes, useMay } from "../../api/queries";
import type { Booking, DayPlan, PlanInput } from "../../api/types";
import { ToTheChair } from "../../chair";
import { day as writeDay, hours, when } from "../../lib/units";
import { BeforeGoingOn } from "../../ui/BeforeGoingOn";
import panel from "../../ui/panel.module.css";
import { toldOf, Trouble } from "../../ui/Trouble";
import type { StoredPlan } from "../draft/stored";
import styles from "./day.module.css";
import { sittingName } from "./kinds";

interface Props {
  plan: StoredPlan;
  input: PlanInput;
  day: DayPlan;
}

/** The sittings on the studio's calendar: what stands in their way, and how they were booked. */
export function Book({ plan, input, day }: Props) {
  const booking = useBooking(plan.isStored ? plan.id : "");
  const clashes = useClashes(plan.isStored ? plan.id : "", input);
  const mayBook = useMay("bookPlan");
  const { modal } = App.useApp();
  const touched = ["booking", "calendar", "clashes"];
  const book = useChange(
    async () => {
      await plan.save();
      const version = plan.savedVersion();
      if (version === undefined) throw new Error("The plan could not be saved; what is saved is booked.");
      return server.book({ plan: plan.id, version, id: v4() });
    },
    ...touched,
  );
  const cancel = useChange(server.cancelBooking, ...touched);
  const dated = day.sittings.some((s) => s.on !== "");
  const booked = booking.data;
  const moved = booked && !same(booked, day);
  return (
    <>
      {clashes.error && <Trouble error={clashes.error} retry={() => void clashes.refetch()} />}
      {!clashes.data && !clashes.error && <Skeleton active />}
      {clashes.data && clashes.data.length > 0 && (
        <ul className={styles.clashes} aria-label="What stands in the way">
          {clashes.data.map((c) => (
            <li key={`${c.kind}${c.sitting}${c.says}`}>
              <WarningFilled aria-hidden />
              <span>
                {c.sitting >= 0 && day.sittings.length > 1 && <b>{sittingName(day, c.sitting)}: </b>}
                {c.says}
              </span>
            </li>
          ))}
        </ul>
      )}
      {clashes.data?.length === 0 && dated && (
        <p className={styles.fits}>
          <CheckCircleFilled aria-hidden /> Chair, people and hair are free then.
        </p>
      )}
      {!dated && <p className={panel.lead}>Give the first sitting a date; then it can go on the calendar.</p>}
      {booked && (
        <section className={styles.booked} aria-label="On the calendar">
          <h3>
            <CalendarOutlined aria-hidden /> On the calendar
          </h3>
          <ul>
            {booked.booked.sittings.map((s, i) => (
              <li key={i}>
                {writeDay(s.on)}, {s.at}, {hours(s.minutes)}
              </li>
            ))}
          </ul>
          <p>
            Booked {when(booked.at)} by {booked.by}.{" "}
            {moved && "The plan has changed since. What is booked stays as it was, until it is booked again."}
          </p>
        </section>
      )}
      <BeforeGoingOn plan={plan.isStored ? plan.id : ""} readers={false}>
        {mayBook ? (
          <div className={styles.bookActs}>
            {(!booked || moved) && (
              <Button
                type="primary"
                size="large"
                icon={<CalendarOutlined />}
                disabled={!dated}
                loading={book.isPending}
                onClick={() => book.mutate()}
              >
                {booked ? "Book again" : "Put on calendar"}
              </Button>
            )}
            {booked && (
              <Button
                danger
                size="large"
                loading={cancel.isPending}
                onClick={() =>
                  void modal.confirm({
                    title: "Take it off the calendar?",
                    content: "The plan itself stays as it is.",
                    okText: "Take it off",
                    okButtonProps: { danger: true },
                    onOk: () => cancel.mutateAsync(booked.id).catch(() => undefined),
                  })
                }
              >
                Take it off
              </Button>
            )}
            <Link to="/calendar">See the calendar</Link>
          </div>
        ) : (
          <p className={panel.lead}>An owner or a stylist books.</p>
        )}
        <p className={panel.lead}>
          When it begins: the plan is kept as it is then, with its papers, and followed piece by piece on
          tablet and phone.
        </p>
        <ToTheChair plan={plan.id} save={plan.save} disabled={!plan.isStored} />
      </BeforeGoingOn>
      {[book.error, cancel.error].map(
        (error, i) => error && <Trouble key={i} error={new Error(toldOf(error))} />,
      )}
    </>
  );
}

/** Whether what is booked is what the plan says now. */
const same = ({ booked }: Booking, day: DayPlan) =>
  booked.sittings.length === day.sittings.length &&
  booked.sittings.every((s, i) => {
    const now = day.sittings[i];
    return now && s.on === now.on && s.at === now.at && Math.abs(s.minutes - now.minutes) < 0.5;
  });
