import { Button, Select } from "antd";
import { useState } from "react";
import type { Accent, Layout, PlanInput } from "../../../api/types";
import { cornrowName } from "../../../head";
import type { Wanted } from "../../draft/actions";
import { useAccentChoice } from "../accents";
import { GiveFields } from "../GiveFields";
import { BothSides, ToolCard, ToolChoice } from "../../../ui/ToolBar";
import styles from "./AssignBar.module.css";
import { useKnownCatalogue } from "../../../api/queries";

/** What a finger on the head can do about pieces and ways. */
export const assignTools = { turn: "Turn", assign: "Assign" } as const;
export type AssignTool = keyof typeof assignTools;

interface Props {
  tool: AssignTool;
  onTool: (tool: AssignTool) => void;
  input: PlanInput;
  layout: Layout;
  count: number;
  both: boolean;
  onBoth: (both: boolean) => void;
  onNone: () => void;
  onRow: () => void;
  onCornrow: (id: string) => void;
  onGive: (wanted: Omit<Wanted, "where">) => void;
  onAdorn: (accent: Pick<Accent, "piece" | "thing">) => void;
}

/** Gives a piece, a way or a number to what is picked on the head. */
export function AssignBar(props: Props) {
  const { tool, onTool, input, layout, count, both, onBoth, onNone, onRow, onCornrow, onGive, onAdorn } =
    props;
  const catalogue = useKnownCatalogue();
  const accents = useAccentChoice(input, catalogue);
  const [use, setUse] = useState<Omit<Wanted, "where">>({});
  const any = count > 0;
  const empty = !use.piece && !use.way && !use.count && !use.newPiece && !use.newWay;
  // A piece or way that is new to the plan is shown by the name it will have.
  const shown = {
    ...input,
    pieces: use.newPiece ? [...input.pieces, use.newPiece] : input.pieces,
    ways: use.newWay ? [...input.ways, use.newWay] : input.ways,
  };
  return (
    <>
      <ToolChoice tools={assignTools} tool={tool} onTool={onTool} />
      {tool === "assign" && (
        <ToolCard
          name="Assign"
          picked={any}
          hint="Tap sections or spots to pick them, draw round several. Then choose what they get."
        >
          <BothSides both={both} onBoth={onBoth} />
          <div className={styles.count} role="status">
            <strong>{any ? `${count} picked` : "None picked"}</strong>
            <Button type="text" disabled={!any} onClick={onNone}>
              Clear selection
            </Button>
          </div>
          <div className={styles.more}>
            <Button disabled={!any} onClick={onRow}>
              Whole row
            </Button>
            {layout.tracks.length > 0 && (
              <Select<string | null>
                aria-label="Pick a whole cornrow"
                placeholder="A cornrow …"
                value={null}
                options={layout.tracks.map((t) => ({ value: t.id, label: cornrowName(t) }))}
                onChange={(id) => id !== null && onCornrow(id)}
              />
            )}
          </div>
          <div className={styles.give}>
            <GiveFields
              input={shown}
              use={{
                ...(use.piece !== undefined && { piece: use.piece }),
                ...(use.newPiece && { piece: use.newPiece.key }),
                ...(use.way !== undefined && { way: use.way }),
                ...(use.newWay && { way: use.newWay.key }),
                ...(use.count && { count: use.count }),
              }}
              whose="of what is picked"
              onChange={(_, change) => setUse(settled(change, use))}
            />
            <Button
              type="primary"
              size="large"
              disabled={!any || empty}
              onClick={() => {
                onGive(use);
                setUse({});
              }}
            >
              Apply
            </Button>
            <Select<string | null>
              aria-label="An accent for what is picked"
              placeholder="Or put an accent on each …"
              disabled={!any}
              value={null}
              options={accents.options}
              onChange={(value) => value !== null && onAdorn(accents.of(value))}
            />
          </div>
        </ToolCard>
      )}
    </>
  );
}

/** What is wanted after a choice: a piece or way that is new to the plan stays new. */
function settled(change: Omit<Wanted, "where">, before: Omit<Wanted, "where">): Omit<Wanted, "where"> {
  const { piece, way, ...rest } = change;
  return {
    ...rest,
    ...(piece !== undefined && (piece === before.newPiece?.key ? { newPiece: before.newPiece } : { piece })),
    ...(way !== undefined && (way === before.newWay?.key ? { newWay: before.newWay } : { way })),
  };
}
