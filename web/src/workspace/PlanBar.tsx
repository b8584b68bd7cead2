import { DownloadOutlined, HistoryOutlined, QuestionOutlined } from "@ant-design/icons";
import { Button, Dropdown, Input } from "antd";
import { memo } from "react";
import type { Autosave } from "../app/autosave";
import { Header } from "../app/Header";
import { SaveNote } from "../app/SaveNote";
import { UndoRedo } from "../app/UndoRedo";
import type { Draft } from "./draft";
import styles from "./PlanBar.module.css";
import type { TakeAlong } from "./takeAlong";

interface Props {
  title: string;
  autosave: Autosave<Draft>;
  canUndo: boolean;
  canRedo: boolean;
  rename: (title: string) => void;
  undo: () => void;
  redo: () => void;
  take: (what: TakeAlong) => void;
  onHistory: () => void;
  onKeys: () => void;
}

/** The plan's name, whether it is safe, the way back, and what can be taken along. */
export const PlanBar = memo(function PlanBar(props: Props) {
  return (
    <Header back={{ to: "/plans", label: "Plans" }}>
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
      <UndoRedo canUndo={props.canUndo} canRedo={props.canRedo} undo={props.undo} redo={props.redo} />
      <Button icon={<HistoryOutlined />} aria-label="History" title="History (H)" onClick={props.onHistory} />
      <Dropdown
        trigger={["click"]}
        menu={{
          items: [
            { key: "sheet", label: "Plan sheet with gauge card, PDF" },
            { key: "view", label: "The head as it is turned now, SVG" },
            { key: "file", label: "The plan as a file, to import elsewhere" },
          ],
          onClick: ({ key }) => props.take(key as TakeAlong),
        }}
      >
        <Button icon={<DownloadOutlined />} aria-label="Take along" title="Take along" />
      </Dropdown>
      <Button
        className={styles.keys ?? ""}
        icon={<QuestionOutlined />}
        aria-label="Keys"
        title="Keys (?)"
        onClick={props.onKeys}
      />
    </Header>
  );
});
