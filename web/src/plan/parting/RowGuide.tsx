import { LeftOutlined, RightOutlined } from "@ant-design/icons";
import { Button, Modal, Segmented, Select, Skeleton, Switch } from "antd";
import { useState } from "react";
import { useGuide } from "../../api/queries";
import type { GuideRow, Layout, PlanInput } from "../../api/types";
import { useNarrow } from "../../lib/narrow";
import { usePreferences } from "../../lib/preferences";
import { Trouble } from "../../ui/Trouble";
import { comb, length, offset, type LengthUnit } from "../../lib/units";
import { central, ring, rowStart, zoneName } from "../../head";
import styles from "./RowGuide.module.css";
import { countOf } from "../../lib/countOf";

const high = 300;
/** How wide the drawing is: as many units on a phone that its figures are read at arm's length. */
const widths = { narrow: 430, usual: 920 } as const;

/** Rows that begin on the viewer's left when one looks at that side of the head. */
function startsOnTheLeft(zone: string): boolean {
  const behind = zone.startsWith("B") || zone.startsWith("N");
  if (zone.length === 2) return (zone.endsWith("L") && !behind) || (zone.endsWith("R") && behind);
  return !behind;
}

interface Props {
  input: PlanInput;
  layout: Layout;
  onClose: () => void;
}

/** For the row at hand: where each part goes, as it is seen directly or in a mirror. */
export function RowGuide({ input, layout, onClose }: Props) {
  const guide = useGuide(input);
  return (
    <Modal
      open
      centered
      title="Row guide"
      width={1000}
      footer={null}
      onCancel={onClose}
      className={styles.modal ?? ""}
    >
      {guide.error && <Trouble error={guide.error} retry={() => void guide.refetch()} />}
      {guide.data ? (
        <GuideRows rows={guide.data} zones={layout.zones.map((z) => z.zone)} />
      ) : (
        !guide.error && <Skeleton active />
      )}
    </Modal>
  );
}

/** The rows of a head, one at a time. */
export function GuideRows({ rows: all, zones }: { rows: readonly GuideRow[]; zones: readonly string[] }) {
  const unit = usePreferences((p) => p.unit);
  const narrow = useNarrow();
  const [zone, setZone] = useState(zones[0] ?? "BL");
  const [number, setNumber] = useState(1);
  const [mirror, setMirror] = useState(false);
  const rows = all.filter((r) => r.zone === zone);
  const row = rows.find((r) => r.row === number) ?? rows[0];
  if (!row) return null;
  const options = zones.map((z) => ({ value: z, label: zoneName(z) }));
  const go = (z: string) => {
    setZone(z);
    setNumber(1);
  };
  // Below the forehead the rows of a front without a part start on the temple.
  const start = central(zone) && row.middle === "border" ? "the hairline" : rowStart(zone);
  const middle =
    row.middle === "part"
      ? " A part lies on the middle."
      : row.middle === "section"
        ? " A section lies across the middle."
        : "";
  return (
    <>
      <div className={styles.tools}>
        {narrow ? (
          <Select<string>
            aria-label="Zone"
            className={styles.zone ?? ""}
            value={zone}
            options={options}
            onChange={go}
          />
        ) : (
          <Segmented<string> size="large" aria-label="Zone" value={zone} options={options} onChange={go} />
        )}
        <label className={styles.mirror}>
          <Switch checked={mirror} onChange={setMirror} />
          <span>As seen in a mirror</span>
        </label>
      </div>
      <div className={styles.turn}>
        <Button
          size="large"
          icon={<LeftOutlined />}
          aria-label="Row below"
          disabled={row.row === 1}
          onClick={() => setNumber(row.row - 1)}
        />
        <h3>
          Row {row.row} of {rows.length}
          <small>
            {countOf(row.sections, "section")}, {length(row.size.widthMm, unit)} ×{" "}
            {length(row.size.heightMm, unit)} wished ·{" "}
            {row.seen ? "parts show: neat" : "covered: may be quick"}
          </small>
        </h3>
        <Button
          size="large"
          icon={<RightOutlined />}
          aria-label="Row above"
          disabled={row.row === rows.length}
          onClick={() => setNumber(row.row + 1)}
        />
      </div>
      <Strip row={row} flip={startsOnTheLeft(zone) === mirror} start={start} unit={unit} />
      <p className={styles.spoken} role="status">
        {row.lower.partsMm.length === 0
          ? `No part inside this row, ${length(row.lower.lengthMm, unit)} long.${middle}`
          : `From ${start}, along the scalp: ${row.lower.partsMm.map((mm) => comb(mm, unit)).join(" · ")} ${unit}; the row is ${length(row.lower.lengthMm, unit)} long below.${middle}`}
      </p>
      {offs(row).some((mm) => mm !== undefined) && (
        <p className={styles.off}>
          From the nearest part of the row below:{" "}
          {offs(row)
            .map((mm) => (mm === undefined ? "none" : offset(mm, unit)))
            .join(" · ")}{" "}
          {unit}; + is further on, − is back towards {start}.
        </p>
      )}
      <p className={styles.note}>
        Measured on the lower line of the row, to the nearest {unit === "in" ? "⅛ in" : "2 mm"}. Dashed: the
        parts of the row below.
        {central(zone) &&
          (ring(zone)
            ? " The client’s left is drawn; the right is its mirror image."
            : " Half the row is drawn; the other half is its mirror image.")}
        {row.edited && " Sections of this row were joined, split or left out by hand: see the head."}
      </p>
    </>
  );
}

/** How far each part of the lower line stands from the nearest of the row below; none beyond a section. */
const offs = ({ lower, belowMm, size }: GuideRow): (number | undefined)[] =>
  lower.partsMm.map((at) => {
    const off = belowMm.reduce((least, b) => (Math.abs(at - b) < Math.abs(least) ? at - b : least), Infinity);
    return Math.abs(off) <= size.widthMm ? off : undefined;
  });

interface StripProps {
  row: GuideRow;
  /** Draws the row's start on the right. */
  flip: boolean;
  start: string;
  unit: LengthUnit;
}

/** The row drawn flat and to scale, its start where the viewer sees it. */
function Strip({ row, flip, start, unit }: StripProps) {
  const { lower, upper } = row;
  const longest = Math.max(lower.startMm + lower.lengthMm, upper.startMm + upper.lengthMm);
  const wide = useNarrow() ? widths.narrow : widths.usual;
  const [left, right] = [34, wide - 34];
  const scale = (right - left) / longest;
  const place = (mm: number) => (flip ? right - mm * scale : left + mm * scale);
  const x = (mm: number) => place(lower.startMm + mm);
  const above = (mm: number) => place(upper.startMm + mm);
  const [top, line, foot] = [70, 190, 250];
  return (
    <svg viewBox={`0 0 ${wide} ${high}`} className={styles.strip} role="img" aria-label="The row, drawn flat">
      <path
        className={styles.hair}
        d={`M${x(0)} ${line}L${x(lower.lengthMm)} ${line}L${above(upper.lengthMm)} ${top}L${above(0)} ${top}Z`}
      />
      {row.belowMm.map((mm, i) => (
        <line key={i} className={styles.neighbour} x1={x(mm)} x2={x(mm)} y1={line} y2={foot + 12} />
      ))}
      {offs(row).map((off, i) => {
        const at = lower.partsMm[i] ?? 0;
        if (off === undefined || comb(Math.abs(off), unit) === comb(0, unit)) return null;
        return (
          <g key={i}>
            <path
              className={styles.apart}
              d={`M${x(at)} ${line + 40}V${foot + 6}M${x(at)} ${foot}H${x(at - off)}`}
            />
            <text x={(x(at) + x(at - off)) / 2} y={foot + 32} className={styles.small}>
              {comb(Math.abs(off), unit)}
            </text>
          </g>
        );
      })}
      {upper.partsMm.map((mm, i) => {
        const under = lower.partsMm[i + upper.firstPart - lower.firstPart];
        return (
          // A part that ends on the hairline is drawn as far as that.
          <line
            key={i}
            className={styles.part}
            x1={under === undefined ? above(mm) : x(under)}
            y1={under === undefined ? (top + line) / 2 : line}
            x2={above(mm)}
            y2={top}
          />
        );
      })}
      {lower.partsMm.map((mm, i) => (
        <g key={i}>
          {upper.partsMm[i + lower.firstPart - upper.firstPart] === undefined && (
            <line className={styles.part} x1={x(mm)} y1={line} x2={x(mm)} y2={(top + line) / 2} />
          )}
          <text x={x(mm)} y={line + 28} className={styles.figure}>
            {comb(mm, unit)}
          </text>
        </g>
      ))}
      <line className={styles.line} x1={x(0)} x2={x(lower.lengthMm)} y1={line} y2={line} />
      <line className={styles.line} x1={above(0)} x2={above(upper.lengthMm)} y1={top} y2={top} />
      <circle cx={x(0)} cy={line} r={7} className={styles.start} />
      <text x={x(0)} y={40} className={styles.from} textAnchor={flip ? "end" : "start"}>
        from {start}
      </text>
    </svg>
  );
}
