import { DownloadOutlined, HistoryOutlined, QuestionOutlined } from "@ant-design/icons";
import { Button, Dropdown } from "antd";
import Input from "antd/es/input/Input";
import { memo } from "react";
import type { Autosave } from "../../document/autosave";
import { useNarrow } from "../../lib/narrow";
import { Header } from "../../ui/Header";
import { SaveNote } from "../../ui/SaveNote";
import { UndoRedo } from "../../ui/UndoRedo";
import type { Draft } from "../draft/draft";
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

const taken: readonly { key: TakeAlong; label: string }[] = [
  { key: "sheet", label: "Plan sheet with gauge card, PDF" },
  { key: "view", label: "The head as it is turned now, SVG" },
  { key: "file", label: "The plan as a file, to import elsewhere" },
];

/** The plan's name, whether it is safe, the way back, and what can be taken along. */
export const PlanBar = memo(function PlanBar(props: Props) {
  const { canUndo, canRedo, undo, redo, take, onHistory, onKeys } = props;
  const narrow = useNarrow();
  const back = { canUndo, canRedo, undo, redo };
  return (
    <Header
      back={{ to: "/plans", label: "Plans" }}
      items={[
        { key: "redo", label: "Redo", disabled: !canRedo, onClick: redo },
        { key: "history", label: "History", onClick: onHistory },
        ...taken.map(({ key, label }) => ({ key, label, onClick: () => take(key) })),
      ]}
      extras={
        <>
          <Button icon={<HistoryOutlined />} aria-label="History" title="History (H)" onClick={onHistory} />
          <Dropdown
            trigger={["click"]}
            menu={{ items: [...taken], onClick: ({ key }) => take(key as TakeAlong) }}
          >
            <Button icon={<DownloadOutlined />} aria-label="Take along" title="Take along" />
          </Dropdown>
          <Button
            className={styles.keys ?? ""}
            icon={<QuestionOutlined />}
            aria-label="Keys"
            title="Keys (?)"
            onClick={onKeys}
          />
        </>
      }
    >
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
      <UndoRedo {...back} undoAlone={narrow} />
    </Header>
  );
});
