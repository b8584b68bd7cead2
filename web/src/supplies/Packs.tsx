import styles from "./Packs.module.css";

interface Props {
  packs: number;
  loose: number;
  /** What a pack holds by its label. */
  pack: number;
  swatch: string | undefined;
  tip: string | undefined;
  /** Whether hair hangs in it. */
  hair: boolean;
  /** Pieces a plan was promised, as a band on the packs. */
  promised: number;
}

const most = 10; // packs drawn; more are told

/** The lot as it lies on the shelf: shut packs, and opened ones as full as they are. */
export function Packs({ packs, loose, pack, swatch = "#8d8a84", tip, hair, promised }: Props) {
  const shut = Math.max(0, packs);
  const drawn = Math.min(shut, most);
  const full = Math.floor(Math.max(0, loose) / pack);
  const rest = Math.max(0, loose) - full * pack;
  const open = [...Array<number>(Math.min(full, 2)).fill(1), ...(rest > 0 ? [rest / pack] : [])];
  const held = promised / pack;
  return (
    <div className={styles.packs} aria-hidden>
      {open.map((share, i) => (
        <Pack key={`open${i}`} share={share} open swatch={swatch} tip={tip} hair={hair} held={held > i} />
      ))}
      {Array.from({ length: drawn }, (_, i) => (
        <Pack
          key={i}
          share={1}
          open={false}
          swatch={swatch}
          tip={tip}
          hair={hair}
          held={held > i + open.length}
        />
      ))}
      {shut > most && <span className={styles.more}>+ {shut - most}</span>}
    </div>
  );
}

interface PackProps {
  share: number;
  open: boolean;
  swatch: string;
  tip: string | undefined;
  hair: boolean;
  held: boolean;
}

const strands = 6;

function Pack({ share, open, swatch, tip, hair, held }: PackProps) {
  const left = Math.max(1, Math.ceil(share * strands));
  return (
    <svg viewBox="0 0 40 58" width="40" height="58" className={held ? styles.held : undefined}>
      <path
        className={styles.bag}
        d={
          open
            ? "M4 13 l4 -3 4 3 4 -3 4 3 4 -3 4 3 4 -3 4 3 V54 a3 3 0 0 1 -3 3 H7 a3 3 0 0 1 -3 -3 Z"
            : "M4 12 H36 V54 a3 3 0 0 1 -3 3 H7 a3 3 0 0 1 -3 -3 Z"
        }
      />
      {!open && <path className={styles.card} d="M3 2 H37 V14 H3 Z M20 6.2 a1.8 1.8 0 1 0 0.01 0 Z" />}
      {hair
        ? Array.from({ length: left }, (_, i) => {
            const x = 9 + i * 4.4;
            return (
              <g key={i} fill="none" strokeWidth="3.4" strokeLinecap="round">
                <path stroke={swatch} d={`M${x} 20 q2 5 0 10 t0 10 t0 10`} />
                {tip && <path stroke={tip} d={`M${x} 40 q-2 5 0 10`} />}
              </g>
            );
          })
        : Array.from({ length: left * 2 }, (_, i) => (
            <circle
              key={i}
              cx={10 + (i % 3) * 10}
              cy={48 - Math.floor(i / 3) * 8}
              r="3.1"
              fill="none"
              stroke={swatch}
              strokeWidth="2"
            />
          ))}
      {held && <path className={styles.band} d="M2 33 H38" />}
    </svg>
  );
}
