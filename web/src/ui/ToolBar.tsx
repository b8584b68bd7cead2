import { Segmented, Switch } from "antd";
import type { ReactNode } from "react";
import styles from "./ToolBar.module.css";

interface ChoiceProps<T extends string> {
  tools: Readonly<Record<T, string>>;
  tool: T;
  onTool: (tool: T) => void;
}

/** What a finger on the head does, over the head. */
export const ToolChoice = <T extends string>({ tools, tool, onTool }: ChoiceProps<T>) => (
  <Segmented<T>
    size="large"
    className={styles.tools ?? ""}
    aria-label="What a finger on the head does"
    value={tool}
    options={(Object.keys(tools) as T[]).map((value) => ({ value, label: tools[value] }))}
    onChange={onTool}
  />
);

interface CardProps {
  name: string;
  /** Whether anything is picked. */
  picked: boolean;
  hint: string;
  children: ReactNode;
}

/** What a tool can do, beside the head or, on a narrow stage, below it. */
export const ToolCard = ({ name, picked, hint, children }: CardProps) => (
  <div className={styles.card} data-picked={picked} role="toolbar" aria-label={name}>
    <p className={styles.hint}>{hint}</p>
    {children}
  </div>
);

export const BothSides = ({ both, onBoth }: { both: boolean; onBoth: (both: boolean) => void }) => (
  <label className={styles.both}>
    <Switch checked={both} onChange={onBoth} />
    <span>Other side too</span>
  </label>
);
