import { CalendarOutlined, FilePdfOutlined } from "@ant-design/icons";
import { Button, Checkbox } from "antd";
import { useState } from "react";
import type { operations } from "../../api/schema";
import { useHouse } from "../../api/queries";
import { download } from "../../lib/download";
import { usePreferences } from "../../lib/preferences";
import panel from "../../ui/panel.module.css";
import styles from "./Papers.module.css";
import type { StoredPlan } from "../draft/stored";

type Part = NonNullable<NonNullable<operations["planSheet"]["parameters"]["query"]>["parts"]>[number];

/** What a plan sheet is made of, in the order of its pages. */
const sheetParts: readonly { value: Part; label: string }[] = [
  { value: "chair", label: "At the chair: all on one page" },
  { value: "buy", label: "To buy, before and the sittings" },
  { value: "steps", label: "Steps, with pictures" },
  { value: "hang", label: "How it hangs" },
  { value: "guide", label: "Row guide" },
  { value: "cut", label: "Gauge cards and row tapes" },
];

/** The papers to take along. */
export function Papers({ plan }: { plan: StoredPlan }) {
  const { unit, paper } = usePreferences();
  const size = useHouse().data?.rules.paper ?? paper;
  const [parts, setParts] = useState<Part[]>(sheetParts.map((p) => p.value));
  const take = async (what: string, more: Record<string, string> = {}) => {
    await plan.save();
    const query = new URLSearchParams({ unit, paper: size, ...more });
    download(`/api/v1/plans/${plan.id}/${what}?${query.toString()}`);
  };
  return (
    <>
      <p className={panel.lead}>
        On {size === "a4" ? "A4" : "letter"} paper; house rules or your own settings choose it.
      </p>
      <div className={panel.picks}>
        <Button icon={<FilePdfOutlined />} disabled={!plan.isStored} onClick={() => void take("day.pdf")}>
          Day sheet
        </Button>
        <Button
          icon={<FilePdfOutlined />}
          disabled={!plan.isStored}
          onClick={() => void take("shopping.pdf")}
        >
          Shopping and preparation
        </Button>
        <Button icon={<CalendarOutlined />} onClick={() => download("/api/v1/calendar.ics")}>
          Studio calendar
        </Button>
      </div>
      <fieldset className={styles.sheet}>
        <legend>Plan sheet</legend>
        <Checkbox.Group
          className={styles.parts ?? ""}
          value={parts}
          options={[...sheetParts]}
          onChange={(chosen) => setParts(sheetParts.map((p) => p.value).filter((p) => chosen.includes(p)))}
        />
        <Button
          icon={<FilePdfOutlined />}
          disabled={!plan.isStored || parts.length === 0}
          onClick={() => void take("sheet.pdf", { parts: parts.join(",") })}
        >
          Plan sheet
        </Button>
        {parts.length === 0 && <p className={panel.lead}>Choose at least one part.</p>}
      </fieldset>
    </>
  );
}
