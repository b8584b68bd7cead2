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
  "join" | "beside" | "above" | "leave" | "lock" | "unlock" | "row" | "zone" | "none" | { pieces: number };

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
  /** How many sections are left out so far. */
  leftOut: number;
  /** True when no more spots can be painted. */
  full: boolean;
}

const hints: Record<Tool, string> = {
  turn: "",
  sections: "Tap sections to pick them, draw round several. Drag a dot to move a row line or a part.",
  leave: "Paint what stays loose: edges, a sore or thin spot. A section half covered is left out.",
  hairline: "Drag a dot to where the hairline runs.",
};

/** What can be done by hand on the head. */
export const HandBar = memo(function HandBar(props: Props) {
  const { tool, onTool, both, onBoth, brush, onBrush, picked, onAct, leftOut, full } = props;
  const unit = usePreferences((p) => p.unit);
  const one = picked.count === 1;
  const any = picked.count > 0;
  return (
    <>
      <Segmented<Tool>
        size="large"
        className={styles.tools ?? ""}
        aria-label="What a finger on the head does"
        value={tool}
        options={(Object.keys(tools) as Tool[]).map((value) => ({ value, label: tools[value] }))}
        onChange={onTool}
      />
      {tool !== "turn" && (
        <div className={styles.card} data-picked={any} role="toolbar" aria-label={tools[tool]}>
          <p className={`${styles.hint} ${styles.how}`}>{hints[tool]}</p>
          {tool !== "hairline" && (
            <label className={styles.both}>
              <Switch checked={both} onChange={onBoth} />
              <span>Other side too</span>
            </label>
          )}
          {tool === "leave" && (
            <label className={styles.brush}>
              <span>Brush {length(2 * brush, unit)} across</span>
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
          {tool === "leave" && (
            <p className={styles.hint} role="status">
              {leftOut === 1 ? "1 section is left out." : `${leftOut} sections are left out.`}
              {full &&
                " No more spots can be painted: a wider brush takes fewer. Take some back under By hand."}
            </p>
          )}
          {tool === "sections" && (
            <>
              <div className={styles.count}>
                <strong>{any ? `${picked.count} picked` : "None picked"}</strong>
                <Button type="text" disabled={!any} onClick={() => onAct("none")}>
                  Pick none
                </Button>
              </div>
              <div className={styles.acts}>
                <Button disabled={!any} onClick={() => onAct("row")}>
                  Whole row
                </Button>
                <Button disabled={!any} onClick={() => onAct("zone")}>
                  Whole zone
                </Button>
                <Button disabled={!picked.joinable} onClick={() => onAct("join")}>
                  Join
                </Button>
                <Button disabled={!any} onClick={() => onAct("leave")}>
                  Leave out
                </Button>
                <Button disabled={!one} onClick={() => onAct("beside")}>
                  Split beside
                </Button>
                <Button disabled={!one} onClick={() => onAct("above")}>
                  Split above
                </Button>
                <Button disabled={!any} onClick={() => onAct(picked.locked ? "unlock" : "lock")}>
                  {picked.locked ? "Unlock" : "Lock"}
                </Button>
                <InputNumber<number>
                  aria-label="Pieces on each section picked"
                  disabled={!any}
                  value={picked.pieces || 1}
                  min={1}
                  max={6}
                  suffix={(picked.pieces || 1) === 1 ? "piece" : "pieces"}
                  onChange={(v) => v !== null && onAct({ pieces: v })}
                />
              </div>
            </>
          )}
        </div>
      )}
    </>
  );
});
