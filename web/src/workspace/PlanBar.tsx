import { RollbackOutlined } from "@ant-design/icons";
import { Alert, Button, Input } from "antd";
import { memo } from "react";
import { Header } from "../app/Header";
import { useSaveState, type Autosave } from "./autosave";
import type { Draft } from "./draft";
import styles from "./PlanBar.module.css";
import { SaveNote } from "./SaveNote";

interface Props {
  title: string;
  autosave: Autosave;
  canUndo: boolean;
  canRedo: boolean;
  rename: (title: string) => void;
  undo: () => void;
  redo: () => void;
}

/** The plan's name, whether it is safe, and the way back. */
export const PlanBar = memo(function PlanBar(props: Props) {
  return (
    <Header>
      <Input
        className={styles.title ?? ""}
        variant="borderless"
        aria-label="Name of the plan"
        value={props.title}
        maxLength={120}
        status={props.title.trim() === "" ? "error" : ""}
        onChange={(event) => props.rename(event.target.value)}
      />
      <SaveNote autosave={props.autosave} />
      <Button
        icon={<RollbackOutlined />}
        aria-label="Undo"
        title="Undo (Ctrl+Z)"
        disabled={!props.canUndo}
        onClick={props.undo}
      />
      <Button
        icon={<RollbackOutlined className={styles.onward ?? ""} />}
        aria-label="Redo"
        title="Redo (Ctrl+Shift+Z)"
        disabled={!props.canRedo}
        onClick={props.redo}
      />
    </Header>
  );
});

/** Someone else saved this plan: she chooses which of the two goes on. */
export function SavedElsewhere({
  autosave,
  replace,
}: {
  autosave: Autosave;
  replace: (draft: Draft) => void;
}) {
  const state = useSaveState(autosave);
  if (state.kind !== "stale") return null;
  return (
    <Alert
      type="warning"
      showIcon
      title="This plan was saved elsewhere since you opened it."
      action={
        <>
          <Button onClick={() => void autosave.takeTheirs().then((theirs) => theirs && replace(theirs))}>
            Show that one
          </Button>
          <Button onClick={() => void autosave.keepMine()}>Keep this one</Button>
        </>
      }
    />
  );
}
