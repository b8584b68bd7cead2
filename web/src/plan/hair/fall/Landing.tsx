import { Button, Segmented, Select, Skeleton } from "antd";
import { useState } from "react";
import { useDrape, useItemChoice, useLanding } from "../../../api/queries";
import type { Landings, PlanInput, Trim } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { length } from "../../../lib/units";
import { LengthField } from "../../../ui/fields";
import panel from "../../../ui/panel.module.css";
import { Trouble } from "../../../ui/Trouble";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";
import { inColour } from "../pieceChoice";
import { BodyPicture } from "./BodyPicture";
import styles from "./Landing.module.css";
import { landingKey } from "../../draft/worn";
import { useAsked } from "../../draft/useAsked";

/** Where the ends land on the body, what length reaches a line, and what is cut by row. */
export function Landing({ input }: { input: PlanInput }) {
  useAsked(landingKey);
  const act = useAct();
  const unit = usePreferences((p) => p.unit);
  const { data, error, refetch } = useLanding(input);
  const { data: drape } = useDrape(input, "down");
  const [row, setRow] = useState<string>();
  if (error) return <Trouble error={error} retry={() => void refetch()} />;
  if (!data) return <Skeleton active />;
  const pointed = data.rows.find((r) => r.name === row);
  return (
    <>
      <LengthField
        label="Height standing"
        path="statureMm"
        help={
          data.asked
            ? "The same length falls lower on a small person"
            : `Not given: a usual ${length(data.statureMm, unit)} is taken`
        }
        mm={input.statureMm ?? 0}
        empty
        onChange={(mm) => act(actions.setStature(mm))}
      />
      {drape && <BodyPicture drape={drape} lines={data.lines} drawn={pointed?.drawn} />}
      <p className={panel.lead}>
        Half of the ends reach the <b>{data.all.line}</b>, the longest row ({data.longest.name.toLowerCase()})
        the <b>{data.longest.lands.line}</b>. Curl, wave and what twisting takes up are counted.
      </p>
      <Lines input={input} lines={data.lines} rows={data.rows} />
      <Cut input={input} lines={data.lines} />
      <Rows landings={data} cut={input.trim} pointed={row} onPoint={setRow} />
    </>
  );
}

/** How far the length of a piece may be from the one for a line and still be for it, mm: an inch and a half. */
const reachable = 38;
const inch = 25.4;

/** For each line of the body, the length of piece whose ends reach it. */
function Lines({ input, lines, rows }: { input: PlanInput } & Pick<Landings, "lines" | "rows">) {
  const unit = usePreferences((p) => p.unit);
  const act = useAct();
  const main = input.uses[0]?.piece ?? input.uses[0]?.mix?.[0]?.piece ?? "";
  const piece = input.pieces.find((p) => p.key === main);
  const [wish, setWish] = useState<string>();
  const line = lines.find((l) => l.key === wish);
  const items = useItemChoice().data ?? [];
  const nearest = line
    ? items
        .flatMap((i) => (i.piece && i.piece.form === piece?.form ? [{ ...i, piece: i.piece }] : []))
        .filter((i) => i.id !== piece?.item && Math.abs(i.piece.lengthMm - line.halfMm) < reachable)
        .sort((a, b) => Math.abs(a.piece.lengthMm - line.halfMm) - Math.abs(b.piece.lengthMm - line.halfMm))
        .slice(0, 2)
    : [];
  return (
    <section className={styles.lines} aria-label="Length for a line">
      <label className={panel.stack}>
        <span>Reach to</span>
        <Select<string | null>
          aria-label="Body line to reach"
          placeholder="Choose a line of the body …"
          value={wish ?? null}
          options={lines.map((l) => ({ value: l.key, label: `${l.name}: about ${length(l.halfMm, unit)}` }))}
          onChange={(key) => setWish(key ?? undefined)}
        />
      </label>
      {line && piece?.made && (
        <table className={panel.table}>
          <caption>To make, one guide piece a row</caption>
          <thead>
            <tr>
              <th scope="col">Row</th>
              <th scope="col">Length</th>
              <th scope="col">Pieces</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.name}>
                <th scope="row">{r.name}</th>
                <td>{length(r.reachMm[lines.indexOf(line)] ?? 0, unit)}</td>
                <td>{r.pieces}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {line && piece && (
        <>
          <p>
            Pieces of <b>{length(line.halfMm, unit)}</b> bring half of the ends there; the first touches it at{" "}
            {length(line.firstMm, unit)}, all do at {length(line.allMm, unit)}.
          </p>
          {nearest.map((i) => (
            <Button
              key={i.id}
              className={styles.take ?? ""}
              onClick={() =>
                act(
                  actions.replacePiece(
                    piece.key,
                    inColour(
                      i.piece,
                      i.item.colours.find((c) => c.name === piece.colour) ?? i.item.colours[0],
                    ),
                  ),
                )
              }
            >
              Take {i.item.name}
              {i.pieces > 0 && `: ${i.pieces} in the stash`}
            </Button>
          ))}
          {nearest.length === 0 && Math.abs(line.halfMm - piece.lengthMm) > reachable && (
            <Button
              className={styles.take ?? ""}
              onClick={() => act(actions.lengthen(main, Math.ceil(line.halfMm / inch) * inch))}
            >
              {piece.name} in {length(Math.ceil(line.halfMm / inch) * inch, unit)}
            </Button>
          )}
        </>
      )}
    </section>
  );
}

const shapes: Readonly<Record<Trim["shape"], { name: string; says: string }>> = {
  blunt: { name: "Blunt", says: "All rows end at one line." },
  layers: { name: "Layers", says: "The lowest row ends at the line, each row above it higher." },
  bob: {
    name: "Bob",
    says: "Rounded: the outer rows end at the line, those beneath a little above, longer to the face.",
  },
};

/** How the ends are cut. */
function Cut({ input, lines }: { input: PlanInput; lines: Landings["lines"] }) {
  const act = useAct();
  const { trim } = input;
  const set = (change: Partial<Trim>) =>
    act(actions.setTrim({ shape: "blunt", line: "mid-back", ...trim, ...change }));
  return (
    <section className={styles.lines} aria-label="Cut">
      <span className={styles.label}>Cut the ends</span>
      <Segmented<Trim["shape"] | "">
        block
        aria-label="Shape of the cut"
        value={trim?.shape ?? ""}
        options={[
          { value: "", label: "Not" },
          ...(Object.keys(shapes) as Trim["shape"][]).map((value) => ({ value, label: shapes[value].name })),
        ]}
        onChange={(shape) =>
          shape === ""
            ? act(actions.setTrim(undefined))
            : set({ shape, ...(shape === "bob" && { line: "chin" }) })
        }
      />
      {trim && (
        <>
          <p className={panel.lead}>{shapes[trim.shape].says}</p>
          <label className={panel.stack}>
            <span>To the</span>
            <Select<Trim["line"]>
              value={trim.line}
              options={lines.map((l) => ({ value: l.key, label: l.name }))}
              onChange={(line) => set({ line })}
            />
          </label>
        </>
      )}
    </section>
  );
}

interface RowsProps {
  landings: Landings;
  cut: Trim | undefined;
  pointed: string | undefined;
  onPoint: (row: string | undefined) => void;
}

/** Row by row: where the ends land, or how long the guide piece is and what comes off. */
function Rows({ landings, cut, pointed, onPoint }: RowsProps) {
  const unit = usePreferences((p) => p.unit);
  return (
    <table className={`${panel.table} ${styles.rows}`}>
      <caption>{cut ? "Cut list: the first piece of each row is its guide" : "Where each row ends"}</caption>
      <thead>
        <tr>
          <th>Row, lowest first</th>
          <th>{cut ? "Guide piece" : "Ends reach"}</th>
          <th>{cut ? "Cut off" : "Pieces"}</th>
        </tr>
      </thead>
      <tbody>
        {landings.rows.map((r) => (
          <tr key={r.name} data-pointed={r.name === pointed}>
            <th>
              <button
                type="button"
                aria-pressed={r.name === pointed}
                onClick={() => onPoint(r.name === pointed ? undefined : r.name)}
              >
                {r.name}
              </button>
            </th>
            <td>{cut ? length(r.guideMm, unit) : r.lands.line}</td>
            <td>
              {!cut ? (
                r.pieces
              ) : r.offMm < -3 ? (
                <span className={styles.short}>{length(-r.offMm, unit)} short</span>
              ) : (
                length(Math.max(0, r.offMm), unit)
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
