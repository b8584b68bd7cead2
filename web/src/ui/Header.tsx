import { LeftOutlined, MenuOutlined, SettingOutlined, UserOutlined } from "@ant-design/icons";
import { Button, Drawer, Dropdown, Popover, Segmented, Select, Switch } from "antd";
import { useState, type ReactNode } from "react";
import { Link, NavLink, useNavigate } from "react-router";
import { server } from "../api/client";
import { useMe } from "../api/queries";
import styles from "./Header.module.css";
import { useLeaving } from "./leaving";
import { useNarrow } from "../lib/narrow";
import { PlaitedLine } from "./PlaitedLine";
import { hairTones, skinTones, usePreferences, type HairTone, type SkinTone } from "../lib/preferences";

export const roleNames = { owner: "Owner", stylist: "Stylist", apprentice: "Apprentice" } as const;

/** Something a page offers in the one menu of a phone. */
export interface MenuItem {
  key: string;
  label: string;
  disabled?: boolean;
  onClick: () => void;
}

interface Props {
  back?: { to: string; label: string };
  /** What the page puts into the line, such as its name. */
  children?: ReactNode;
  /** What the page puts there besides where there is room; on a phone its items take their place. */
  extras?: ReactNode;
  items?: readonly MenuItem[];
}

/** The line along the top: the places, what the page puts there, and how the person likes to read. On a phone all of it is one menu. */
export function Header({ back, children, extras, items = [] }: Props) {
  const narrow = useNarrow();
  const { unit, set } = usePreferences();
  return (
    <header className={styles.header}>
      <div className={styles.line}>
        {!(narrow && back) && (
          <Link to="/" className={styles.brand} aria-label="Kladotex, today">
            <img src="/favicon.svg" alt="" width={32} height={32} />
            <span>Kladotex</span>
          </Link>
        )}
        {back ? (
          <div className={styles.page}>
            <Link to={back.to} className={styles.back}>
              <LeftOutlined aria-hidden /> <span>{back.label}</span>
            </Link>
            {children}
            {!narrow && extras}
          </div>
        ) : narrow ? (
          <div className={styles.page} />
        ) : (
          <Places />
        )}
        {narrow ? (
          <OneMenu items={items} />
        ) : (
          <>
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
          </>
        )}
      </div>
      <PlaitedLine />
    </header>
  );
}

/** Everything a phone has no room for, under one button. */
function OneMenu({ items }: { items: readonly MenuItem[] }) {
  const [open, setOpen] = useState(false);
  const me = useMe().data;
  const { leave } = useLeaving(server.signOut);
  const { unit, set } = usePreferences();
  const shut = () => setOpen(false);
  return (
    <>
      <Button
        size="large"
        icon={<MenuOutlined />}
        aria-label="Menu"
        aria-expanded={open}
        onClick={() => setOpen(true)}
      />
      <Drawer open={open} placement="right" size={310} title="Kladotex" onClose={shut}>
        <div className={styles.menu}>
          {items.length > 0 && (
            <div role="group" aria-label="This page">
              {items.map(({ key, label, disabled, onClick }) => (
                <button
                  key={key}
                  type="button"
                  disabled={disabled}
                  onClick={() => {
                    shut();
                    onClick();
                  }}
                >
                  {label}
                </button>
              ))}
            </div>
          )}
          <div onClickCapture={shut} role="presentation">
            <Places />
          </div>
          <label className={styles.unit}>
            <span>Unit of length</span>
            <Segmented<"in" | "cm">
              size="large"
              value={unit}
              options={["in", "cm"]}
              onChange={(value) => set({ unit: value })}
            />
          </label>
          <Reading />
          {me && (
            <div>
              <p>
                {me.name}, {roleNames[me.role].toLowerCase()}
              </p>
              <button type="button" onClick={leave}>
                Sign out
              </button>
            </div>
          )}
        </div>
      </Drawer>
    </>
  );
}

const Places = () => (
  <nav className={styles.places} aria-label="Places">
    <NavLink to="/" end>
      Today
    </NavLink>
    <NavLink to="/clients">Clients</NavLink>
    <NavLink to="/plans">Plans</NavLink>
    <NavLink to="/wear">Wear</NavLink>
    <NavLink to="/calendar">Calendar</NavLink>
    <NavLink to="/supplies">Supplies</NavLink>
    <NavLink to="/log">Log</NavLink>
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
  const { dim, hair, skin, paper, letterKeys, set } = usePreferences();
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
        <span>Keys of one letter</span>
        <Switch checked={letterKeys} onChange={(value) => set({ letterKeys: value })} />
      </label>
      <label>
        <span>Paper, where the studio has none</span>
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
