import { SettingOutlined } from "@ant-design/icons";
import { Button, Popover, Segmented, Select, Switch } from "antd";
import type { ReactNode } from "react";
import { Link } from "react-router";
import styles from "./Header.module.css";
import { PlaitedLine } from "./PlaitedLine";
import { hairTones, skinTones, usePreferences, type HairTone, type SkinTone } from "./preferences";

/** The line along the top: the name, what the page puts there, and how the person likes to read. */
export function Header({ children }: { children?: ReactNode }) {
  const { unit, set } = usePreferences();
  return (
    <header className={styles.header}>
      <div className={styles.line}>
        <Link to="/plans" className={styles.brand} aria-label="Kladotex, all plans">
          <img src="/favicon.svg" alt="" width={32} height={32} />
          <span>Kladotex</span>
        </Link>
        <div className={styles.page}>{children}</div>
        <Segmented<"in" | "cm">
          aria-label="Unit of length"
          value={unit}
          options={["in", "cm"]}
          onChange={(value) => set({ unit: value })}
        />
        <Popover trigger="click" placement="bottomRight" content={<Reading />}>
          <Button icon={<SettingOutlined />} aria-label="How it looks" />
        </Popover>
      </div>
      <PlaitedLine />
    </header>
  );
}

function options<K extends string>(tones: Readonly<Record<K, { name: string }>>) {
  return (Object.keys(tones) as K[]).map((value) => ({ value, label: tones[value].name }));
}

/** How the application looks to this person. */
function Reading() {
  const { currency, dim, hair, skin, set } = usePreferences();
  return (
    <div className={styles.reading}>
      <label>
        <span>Dim, for the evening chair</span>
        <Switch checked={dim} onChange={(value) => set({ dim: value })} />
      </label>
      <label>
        <span>Hair drawn</span>
        <Select<HairTone>
          value={hair}
          options={options(hairTones)}
          onChange={(value) => set({ hair: value })}
        />
      </label>
      <label>
        <span>Skin drawn</span>
        <Select<SkinTone>
          value={skin}
          options={options(skinTones)}
          onChange={(value) => set({ skin: value })}
        />
      </label>
      <label>
        <span>Money</span>
        <Segmented<"$" | "€" | "£">
          value={currency}
          options={["$", "€", "£"]}
          onChange={(value) => set({ currency: value })}
        />
      </label>
    </div>
  );
}
