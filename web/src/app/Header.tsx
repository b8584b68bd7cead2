import { LeftOutlined, SettingOutlined, UserOutlined } from "@ant-design/icons";
import { Button, Dropdown, Popover, Segmented, Select, Switch } from "antd";
import type { ReactNode } from "react";
import { Link, NavLink, useNavigate } from "react-router";
import { server } from "../api/client";
import { useMe } from "../api/queries";
import styles from "./Header.module.css";
import { useLeaving } from "./leaving";
import { PlaitedLine } from "./PlaitedLine";
import { hairTones, skinTones, usePreferences, type HairTone, type SkinTone } from "./preferences";

export const roleNames = { owner: "Owner", stylist: "Stylist", apprentice: "Apprentice" } as const;

/** The line along the top: the places, what the page puts there, and how the person likes to read. */
export function Header({ back, children }: { back?: { to: string; label: string }; children?: ReactNode }) {
  const { unit, set } = usePreferences();
  return (
    <header className={styles.header}>
      <div className={styles.line}>
        <Link to="/" className={styles.brand} aria-label="Kladotex, today">
          <img src="/favicon.svg" alt="" width={32} height={32} />
          <span>Kladotex</span>
        </Link>
        {back ? (
          <div className={styles.page}>
            <Link to={back.to} className={styles.back}>
              <LeftOutlined aria-hidden /> <span>{back.label}</span>
            </Link>
            {children}
          </div>
        ) : (
          <Places />
        )}
        <Segmented<"in" | "cm">
          aria-label="Unit of length"
          value={unit}
          options={["in", "cm"]}
          onChange={(value) => set({ unit: value })}
        />
        <Popover trigger="click" placement="bottomRight" content={<Reading />}>
          <Button icon={<SettingOutlined />} aria-label="How it looks" />
        </Popover>
        <SignedIn />
      </div>
      <PlaitedLine />
    </header>
  );
}

const Places = () => (
  <nav className={styles.places} aria-label="Places">
    <NavLink to="/" end>
      Today
    </NavLink>
    <NavLink to="/clients">Clients</NavLink>
    <NavLink to="/plans">Plans</NavLink>
    <NavLink to="/house">House rules</NavLink>
  </nav>
);

/** Who is signed in, and the way out. */
function SignedIn() {
  const me = useMe().data;
  const navigate = useNavigate();
  const { leave } = useLeaving(server.signOut);
  if (!me) return null;
  return (
    <Dropdown
      trigger={["click"]}
      menu={{
        items: [
          { key: "who", label: `${me.name}, ${roleNames[me.role].toLowerCase()}`, disabled: true },
          { type: "divider" },
          { key: "house", label: "House rules", onClick: () => void navigate("/house") },
          { key: "out", label: "Sign out", onClick: leave },
        ],
      }}
    >
      <Button icon={<UserOutlined />} aria-label={`Signed in as ${me.name}`} />
    </Dropdown>
  );
}

function options<K extends string>(tones: Readonly<Record<K, { name: string }>>) {
  return (Object.keys(tones) as K[]).map((value) => ({ value, label: tones[value].name }));
}

/** How the application looks to this person. */
function Reading() {
  const { currency, dim, hair, skin, paper, letterKeys, set } = usePreferences();
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
      <label>
        <span>Keys of one letter</span>
        <Switch checked={letterKeys} onChange={(value) => set({ letterKeys: value })} />
      </label>
      <label>
        <span>Paper of the plan sheet</span>
        <Segmented<"letter" | "a4">
          value={paper}
          options={[
            { value: "letter", label: "Letter" },
            { value: "a4", label: "A4" },
          ]}
          onChange={(value) => set({ paper: value })}
        />
      </label>
    </div>
  );
}
