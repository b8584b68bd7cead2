import { Button } from "antd";
import { memo } from "react";
import { usePreferences } from "../../../lib/preferences";
import { length } from "../../../lib/units";
import { Slide } from "../../../ui/Slide";
import { BothSides, ToolCard, ToolChoice } from "../../../ui/ToolBar";
import styles from "./HandBar.module.css";
import { countOf } from "../../../lib/countOf";

/** What a finger on the head can do to the parting. */
export const handTools = {
  turn: "Turn",
  sections: "Sections",
  leave: "Leave out",
  hairline: "Hairline",
} as const;
export type HandTool = keyof typeof handTools;

/** What can be done with the sections picked. */
export type Does = "join" | "beside" | "above" | "leave" | "lock" | "unlock" | "row" | "zone" | "none";

interface Props {
  tool: HandTool;
  onTool: (tool: HandTool) => void;
  both: boolean;
  onBoth: (both: boolean) => void;
  brush: number;
  onBrush: (mm: number) => void;
  /** How many sections are picked, whether they can be joined, and whether they are locked. */
  picked: { count: number; joinable: boolean; locked: boolean };
  onDoes: (what: Does) => void;
  /** How many sections are left out so far. */
  leftOut: number;
  /** True when no more spots can be painted. */
  full: boolean;
}

const hints: Record<HandTool, string> = {
  turn: "",
  sections:
    "Tap sections to pick them, draw round several. Drag a dot to move a part line or a part in a row.",
  leave: "Paint what stays loose: edges, a sore or thin spot. A section half covered is left out.",
  hairline: "Drag a dot to where the hairline runs.",
};

/** What can be done by hand to the parting. */
export const HandBar = memo(function HandBar(props: Props) {
  const { tool, onTool, both, onBoth, brush, onBrush, picked, onDoes, leftOut, full } = props;
  const unit = usePreferences((p) => p.unit);
  const one = picked.count === 1;
  const any = picked.count > 0;
  return (
    <>
      <ToolChoice tools={handTools} tool={tool} onTool={onTool} />
      {tool !== "turn" && (
        <ToolCard name={handTools[tool]} picked={any} hint={hints[tool]}>
          {tool !== "hairline" && <BothSides both={both} onBoth={onBoth} />}
          {tool === "leave" && (
            <div className={styles.brush}>
              <span>Brush {length(2 * brush, unit)} across</span>
              <Slide
                label="Width of the brush"
                says={length(2 * brush, unit)}
                min={5}
                max={40}
                value={brush}
                onChange={onBrush}
              />
            </div>
          )}
          {tool === "leave" && (
            <p className={styles.hint} role="status">
              {countOf(leftOut, "section is left out.", "sections are left out.")}
              {full &&
                " No more spots can be painted: a wider brush takes fewer. Take some back under By hand."}
            </p>
          )}
          {tool === "sections" && (
            <>
              <div className={styles.count}>
                <strong>{any ? `${picked.count} picked` : "None picked"}</strong>
                <Button type="text" disabled={!any} onClick={() => onDoes("none")}>
                  Clear selection
                </Button>
              </div>
              <div className={styles.acts}>
                <Button disabled={!any} onClick={() => onDoes("row")}>
                  Whole row
                </Button>
                <Button disabled={!any} onClick={() => onDoes("zone")}>
                  Whole zone
                </Button>
                <Button disabled={!picked.joinable} onClick={() => onDoes("join")}>
                  Join
                </Button>
                <Button disabled={!any} onClick={() => onDoes("leave")}>
                  Leave out
                </Button>
                <Button disabled={!one} onClick={() => onDoes("beside")}>
                  Split beside
                </Button>
                <Button disabled={!one} onClick={() => onDoes("above")}>
                  Split above
                </Button>
                <Button disabled={!any} onClick={() => onDoes(picked.locked ? "unlock" : "lock")}>
                  {picked.locked ? "Unlock" : "Lock"}
                </Button>
              </div>
            </>
          )}
        </ToolCard>
      )}
    </>
  );
});
