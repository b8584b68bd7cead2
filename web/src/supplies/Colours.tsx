import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Input } from "antd";
import type { Item } from "../api/types";
import { FieldErrorsUnder } from "../ui/fields";
import fields from "../ui/panel.module.css";
import styles from "./ItemCard.module.css";

interface ColoursProps {
  item: Item;
  /** Step of each colour from dark to light, as saved. */
  depths: readonly number[];
  set: (control: string | null, part: Partial<Item>) => void;
}

const depthWords = [
  "",
  "darkest",
  "very dark",
  "dark",
  "medium dark",
  "medium",
  "medium light",
  "light",
  "very light",
  "lightest",
];

/** The colours it comes in. */
export function Colours({ item, depths, set }: ColoursProps) {
  const { colours } = item;
  const put = (at: number, part: Partial<Item["colours"][number]>) =>
    set(`colour${at}`, { colours: colours.map((c, i) => (i === at ? { ...c, ...part } : c)) });
  return (
    <>
      <h2>Colours</h2>
      {colours.length === 0 && <p className={fields.lead}>None named: it comes in one.</p>}
      {colours.map((c, i) => (
        <div key={i} className={styles.colour}>
          <input
            type="color"
            aria-label={`Swatch of ${c.name || "the colour"}`}
            value={c.swatch}
            onChange={(event) => put(i, { swatch: event.target.value.toLowerCase() })}
          />
          <Input
            aria-label={`Name of colour ${i + 1}`}
            value={c.name}
            maxLength={40}
            onChange={(event) => put(i, { name: event.target.value })}
          />
          {c.tip === undefined ? (
            <Button onClick={() => put(i, { tip: c.swatch })}>Other ends</Button>
          ) : (
            <input
              type="color"
              aria-label={`Ends of ${c.name}`}
              value={c.tip}
              onChange={(event) => put(i, { tip: event.target.value.toLowerCase() })}
            />
          )}
          <Button
            type="text"
            icon={<DeleteOutlined />}
            aria-label={`Take away ${c.name || "the colour"}`}
            onClick={() => set(null, { colours: colours.filter((_, k) => k !== i) })}
          />
          <small>{depths[i] !== undefined && `${depthWords[depths[i]]}, ${depths[i]} of 9`}</small>
        </div>
      ))}
      <FieldErrorsUnder path="colours" />
      <Button
        icon={<PlusOutlined />}
        onClick={() => set(null, { colours: [...colours, { name: "", swatch: "#4a3021" }] })}
      >
        Add a colour
      </Button>
    </>
  );
}
