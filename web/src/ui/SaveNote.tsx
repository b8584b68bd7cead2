import {
  CheckCircleOutlined,
  DisconnectOutlined,
  EditOutlined,
  ExclamationCircleOutlined,
  SyncOutlined,
} from "@ant-design/icons";
import type { ReactNode } from "react";
import { useSaveState, type Autosave } from "../document/autosave";
import { clockOf } from "../lib/units";
import styles from "./SaveNote.module.css";

/** Whether what is on the screen is safe, in words and a sign. */
export function SaveNote<D>({ autosave }: { autosave: Autosave<D> }) {
  const state = useSaveState(autosave);
  const [icon, text]: [ReactNode, string] = (() => {
    switch (state.kind) {
      case "new":
        return [<EditOutlined key="i" />, "New: kept from the first change on"];
      case "saved":
        return [<CheckCircleOutlined key="i" />, `Saved ${clockOf(state.at)}`];
      case "changed":
      case "saving":
        return [<SyncOutlined key="i" />, "Saving…"];
      case "refused":
        return [<ExclamationCircleOutlined key="i" />, "Not saved until it is put right"];
      case "offline":
        return [<DisconnectOutlined key="i" />, "No connection: kept here, trying again"];
      case "stale":
        return [<ExclamationCircleOutlined key="i" />, "Saved elsewhere meanwhile"];
      case "gone":
        return [<ExclamationCircleOutlined key="i" />, "Deleted elsewhere: kept in this browser only"];
    }
  })();
  return (
    <span className={styles.note} data-save={state.kind} role="status">
      {icon} <span>{text}</span>
    </span>
  );
}
