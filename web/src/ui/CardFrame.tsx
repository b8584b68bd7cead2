import { Input } from "antd";
import type { ReactNode } from "react";
import type { Document } from "../document/useDocument";
import { Header } from "./Header";
import { SaveNote } from "./SaveNote";
import { UndoRedo } from "./UndoRedo";
import styles from "./CardFrame.module.css";

interface Props<D> {
  document: Document<D>;
  back: { to: string; label: string };
  /** What it is called, where that is written, and what the place for it is called. */
  name: { label: string; value: string; maxLength: number; onChange: (name: string) => void };
  mayChange: boolean;
  isNew: boolean;
  children: ReactNode;
}

/** A card that is edited: its name, the way back, whether it is saved, undo and redo, and what is on it. */
export function CardFrame<D>({ document, back, name, mayChange, isNew, children }: Props<D>) {
  return (
    <div className={styles.card}>
      <Header back={back}>
        <Input
          className={styles.name ?? ""}
          variant="borderless"
          placeholder={name.label}
          aria-label={name.label}
          autoFocus={isNew}
          value={name.value}
          maxLength={name.maxLength}
          readOnly={!mayChange}
          onChange={(event) => name.onChange(event.target.value)}
        />
        {mayChange && <SaveNote autosave={document.autosave} />}
        <UndoRedo {...document} />
      </Header>
      {children}
    </div>
  );
}
