import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Input, Segmented } from "antd";
import type { Facts } from "../api/types";
import { NumberField } from "../ui/fields";
import { localDay } from "../lib/localDay";
import steps from "../ui/panel.module.css";
import styles from "./ClientCard.module.css";

type Install = Facts["installs"][number];

interface Props {
  installs: Install[];
  onChange: (control: string | null, installs: Install[]) => void;
}

/** What was worn before, and how it felt. */
export function EarlierInstalls({ installs, onChange }: Props) {
  const put = (at: number, control: string, part: Partial<Install>) =>
    onChange(
      `installs.${at}.${control}`,
      installs.map((install, i) => (i === at ? { ...install, ...part } : install)),
    );
  return (
    <section>
      <h2>Earlier installs</h2>
      {installs.length === 0 && (
        <p className={steps.lead}>
          What was worn before, for how long, and how it felt: the best guide to the next.
        </p>
      )}
      {installs.map((install, i) => (
        <fieldset key={i} className={styles.install}>
          <legend>{install.what || "An earlier install"}</legend>
          <label className={steps.stack}>
            <span>What</span>
            <Input
              value={install.what}
              maxLength={200}
              onChange={(event) => put(i, "what", { what: event.target.value })}
            />
          </label>
          <label className={steps.stack}>
            <span>Done on</span>
            <Input
              type="date"
              value={install.on}
              onChange={(event) => put(i, "on", { on: event.target.value })}
            />
          </label>
          <NumberField
            label="Worn for"
            unit="weeks"
            path={`installs[${i}].weeksWorn`}
            value={install.weeksWorn}
            onChange={(weeksWorn) => put(i, "weeks", { weeksWorn })}
          />
          <NumberField
            label="All that hung weighed"
            help="To compare the next one with; 0 where nobody knows"
            unit="g"
            path={`installs[${i}].massG`}
            value={install.massG ?? 0}
            onChange={(massG) => put(i, "mass", { massG })}
          />
          <Segmented<Install["comfort"]>
            block
            value={install.comfort}
            options={[
              { value: "comfortable", label: "Comfortable" },
              { value: "tight", label: "Tight" },
              { value: "painful", label: "Painful" },
            ]}
            onChange={(comfort) => put(i, "comfort", { comfort })}
          />
          <Input.TextArea
            aria-label="Note on this install"
            placeholder="What to do differently"
            value={install.note}
            maxLength={1000}
            rows={2}
            onChange={(event) => put(i, "note", { note: event.target.value })}
          />
          <Button
            icon={<DeleteOutlined />}
            onClick={() =>
              onChange(
                null,
                installs.filter((_, k) => k !== i),
              )
            }
          >
            Remove this install
          </Button>
        </fieldset>
      ))}
      <Button
        icon={<PlusOutlined />}
        onClick={() =>
          onChange(null, [
            {
              on: localDay(),
              what: "",
              weeksWorn: 6,
              comfort: "comfortable",
              note: "",
            },
            ...installs,
          ])
        }
      >
        Add earlier install
      </Button>
    </section>
  );
}
