import { RollbackOutlined } from "@ant-design/icons";
import { Button } from "antd";
import styles from "./UndoRedo.module.css";

interface Props {
  canUndo: boolean;
  canRedo: boolean;
  undo: () => void;
  redo: () => void;
  /** True where there is no room for the way forth. */
  undoAlone?: boolean;
}

/** The way back, and forth again. */
export const UndoRedo = ({ canUndo, canRedo, undo, redo, undoAlone = false }: Props) => (
  <>
    <Button
      icon={<RollbackOutlined />}
      aria-label="Undo"
      title="Undo (Ctrl+Z)"
      disabled={!canUndo}
      onClick={undo}
    />
    {!undoAlone && (
      <Button
        icon={<RollbackOutlined className={styles.onward ?? ""} />}
        aria-label="Redo"
        title="Redo (Ctrl+Shift+Z)"
        disabled={!canRedo}
        onClick={redo}
      />
    )}
  </>
);
