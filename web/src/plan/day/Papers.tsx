import { CalendarOutlined, FilePdfOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { useHouse } from "../../api/queries";
import { download } from "../../lib/download";
import { usePreferences } from "../../lib/preferences";
import panel from "../../ui/panel.module.css";
import type { StoredPlan } from "../draft/stored";

/** The papers to take along. */
export function Papers({ plan }: { plan: StoredPlan }) {
  const { unit, paper } = usePreferences();
  const size = useHouse().data?.rules.paper ?? paper;
  const take = async (what: string) => {
    await plan.save();
    download(`/api/v1/plans/${plan.id}/${what}?${new URLSearchParams({ unit, paper: size }).toString()}`);
  };
  return (
    <>
      <p className={panel.lead}>On {size === "a4" ? "A4" : "letter"} paper, as the house rules or you say.</p>
      <div className={panel.picks}>
        <Button icon={<FilePdfOutlined />} disabled={!plan.isStored} onClick={() => void take("day.pdf")}>
          Day sheet: order, times, checks
        </Button>
        <Button icon={<FilePdfOutlined />} disabled={!plan.isStored} onClick={() => void take("sheet.pdf")}>
          Plan sheet: everything, with the gauge card
        </Button>
        <Button
          icon={<FilePdfOutlined />}
          disabled={!plan.isStored}
          onClick={() => void take("shopping.pdf")}
        >
          Shopping and preparation
        </Button>
        <Button icon={<CalendarOutlined />} onClick={() => download("/api/v1/calendar.ics")}>
          The studio’s calendar, as a file
        </Button>
      </div>
    </>
  );
}
