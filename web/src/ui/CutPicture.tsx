import { usePreferences } from "../lib/preferences";
import { length } from "../lib/units";
import type { Cut } from "../api/types";
import styles from "./CutPicture.module.css";

interface Props {
  cut: Cut;
  colour?: string | undefined;
}

const wide = 320; // of a strand opened out
const left = 14;

/** How a strand becomes units, drawn to one scale: opened out, cut, split, folded, hanging. */
export function CutPicture({ cut, colour = "#4a3021" }: Props) {
  const unit = usePreferences((p) => p.unit);
  const each = wide / cut.cuts;
  const hanging = cut.fold ? each / 2 : each;
  const at = (row: number) => 26 + row * 52;
  const rows = 2 + (cut.splits > 1 ? 1 : 0) + (cut.fold ? 1 : 0);
  let row = 0;
  const openMm = cut.openMm;
  const lengthMm = openMm / cut.cuts;
  const hangs = length(cut.fold ? lengthMm / 2 : lengthMm, unit);
  const parts: { y: number; text: string; strands: { x: number; y: number; w: number; thin: boolean }[] }[] =
    [];
  parts.push({
    y: at(row++),
    text: `One strand, opened out: ${length(openMm, unit)}`,
    strands: [{ x: left, y: 0, w: wide, thin: false }],
  });
  if (cut.cuts > 1)
    parts.push({
      y: at(row++),
      text: `Cut into ${cut.cuts}: ${length(lengthMm, unit)} each`,
      strands: Array.from({ length: cut.cuts }, (_, i) => ({
        x: left + i * each,
        y: 0,
        w: each - 5,
        thin: false,
      })),
    });
  if (cut.splits > 1)
    parts.push({
      y: at(row++),
      text: `Then each split into ${cut.splits}: ${cut.cuts * cut.splits} pieces`,
      strands: Array.from({ length: cut.cuts * cut.splits }, (_, i) => ({
        x: left + Math.floor(i / cut.splits) * each,
        y: ((i % cut.splits) - (cut.splits - 1) / 2) * 7,
        w: each - 5,
        thin: true,
      })),
    });
  const last = at(row);
  return (
    <figure className={styles.cut}>
      <svg
        viewBox={`0 0 ${wide + 2 * left} ${last + (cut.fold ? 24 + hanging : 8)}`}
        role="img"
        aria-label={`A strand ${length(openMm, unit)} long is cut into ${cut.cuts}, each split into ${cut.splits}${cut.fold ? ", folded over the hook" : ""}: it hangs ${hangs}`}
        data-rows={rows}
      >
        {parts.map(({ y, text, strands }) => (
          <g key={y}>
            <text x={left} y={y - 12}>
              {text}
            </text>
            {strands.map((s, i) => (
              <path
                key={i}
                d={wave(s.x, y + 6 + s.y, s.w)}
                fill="none"
                stroke={colour}
                strokeWidth={s.thin ? 4 : 9}
                strokeLinecap="round"
              />
            ))}
          </g>
        ))}
        {cut.fold && (
          <g>
            <text x={left} y={last - 12}>
              Folded over the hook it hangs {hangs}
            </text>
            <circle cx={left + 22} cy={last + 6} r="7" className={styles.hook} />
            <path
              d={`M${left + 15} ${last + 8 + hanging} V${last + 8} a7 7 0 0 1 14 0 V${last + 8 + hanging}`}
              fill="none"
              stroke={colour}
              strokeWidth={cut.splits > 1 ? 4 : 7}
              strokeLinecap="round"
            />
          </g>
        )}
      </svg>
    </figure>
  );
}

/** A strand lying across, with a little of its wave. */
function wave(x: number, y: number, w: number): string {
  const n = Math.max(2, Math.round(w / 40));
  const step = w / n;
  let d = `M${x} ${y}`;
  for (let i = 0; i < n; i++) d += ` q${step / 2} ${i % 2 === 0 ? -5 : 5} ${step} 0`;
  return d;
}
