import { Button, InputNumber, Segmented, Slider, Switch } from "antd";
import { memo } from "react";
import { usePreferences } from "../app/preferences";
import { length } from "../app/units";
import styles from "./HandBar.module.css";

/** What a finger on the head does. */
export const tools = {
  turn: "Turn",
  sections: "Sections",
  leave: "Leave out",
  hairline: "Hairline",
} as const;
export type Tool = keyof typeof tools;

export type Act =
  | "join"
  | "beside"
  | "above"
  | "leave"
  | "back"
  | "lock"
  | "unlock"
  | "row"
  | "zone"
  | "none"
  | { pieces: number };

interface Props {
  tool: Tool;
  onTool: (tool: Tool) => void;
  both: boolean;
  onBoth: (both: boolean) => void;
  brush: number;
  onBrush: (mm: number) => void;
  /** How many sections are picked, whether they can be joined, and whether they are locked. */
  picked: { count: number; joinable: boolean; locked: boolean; pieces: number };
  onAct: (act: Act) => void;
}

const hints: Record<Tool, string> = {
  turn: "",
  sections: "Tap sections to pick them, draw round several. Drag a dot to move a row line or a part.",
  leave: "Paint what stays loose: edges, a sore or thin spot. A section half covered is left out.",
  hairline: "Drag a dot to where her hairline runs.",
};

/** What can be done by hand on the head. */
export const HandBar = memo(function HandBar(props: Props) {
  const { tool, onTool, both, onBoth, brush, onBrush, picked, onAct } = props;
  const unit = usePreferences((p) => p.unit);
  const one = picked.count === 1;
  const some = picked.count > 0;
  return (
    <div className={styles.bar} role="toolbar" aria-label="By hand">
      <div className={styles.row}>
        <Segmented<Tool>
          size="large"
          aria-label="What a finger on the head does"
          value={tool}
          options={(Object.keys(tools) as Tool[]).map((value) => ({ value, label: tools[value] }))}
          onChange={onTool}
        />
        {(tool === "sections" || tool === "leave") && (
          <label className={styles.both}>
            <Switch checked={both} onChange={onBoth} />
            <span>Other side too</span>
          </label>
        )}
        {tool === "leave" && (
          <label className={styles.brush}>
            <span>Brush {length(2 * brush, unit)}</span>
            <Slider
              ariaLabelForHandle="Width of the brush"
              ariaValueTextFormatterForHandle={(v) => length(2 * (v ?? 0), unit)}
              min={5}
              max={40}
              value={brush}
              tooltip={{ open: false }}
              onChange={onBrush}
            />
          </label>
        )}
      </div>
      {tool === "sections" && some ? (
        <div className={styles.row}>
          <strong className={styles.count}>{picked.count} picked</strong>
          <Button onClick={() => onAct("row")}>Whole row</Button>
          <Button onClick={() => onAct("zone")}>Whole zone</Button>
          <Button disabled={!picked.joinable} onClick={() => onAct("join")}>
            Join
          </Button>
          <Button disabled={!one} onClick={() => onAct("beside")}>
            Split side by side
          </Button>
          <Button disabled={!one} onClick={() => onAct("above")}>
            Split above
          </Button>
          <Button onClick={() => onAct("leave")}>Leave out</Button>
          <Button onClick={() => onAct(picked.locked ? "unlock" : "lock")}>
            {picked.locked ? "Unlock" : "Lock"}
          </Button>
          <label className={styles.pieces}>
            <InputNumber<number>
              aria-label="Pieces on each section picked"
              value={picked.pieces || 1}
              min={1}
              max={6}
              suffix={(picked.pieces || 1) === 1 ? "piece" : "pieces"}
              onChange={(v) => v !== null && onAct({ pieces: v })}
            />
          </label>
          <Button type="text" onClick={() => onAct("none")}>
            Pick none
          </Button>
        </div>
      ) : (
        hints[tool] && <p className={styles.hint}>{hints[tool]}</p>
      )}
    </div>
  );
});
