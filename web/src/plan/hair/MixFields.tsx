import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Select } from "antd";
import type { Piece, Share } from "../../api/types";
import { Count } from "../../ui/Numeric";
import styles from "./MixFields.module.css";
import { pieceName } from "./pieceChoice";

interface Props {
  mix: readonly Share[];
  pieces: readonly Piece[];
  /** Whose places these are, for those who listen. */
  whose: string;
  onChange: (mix: Share[]) => void;
}

const most = 6;

/** Several pieces in parts, spread evenly over neighbours and alike on both sides. */
export function MixFields({ mix, pieces, whose, onChange }: Props) {
  const put = (at: number, part: Partial<Share>) =>
    onChange(mix.map((s, i) => (i === at ? { ...s, ...part } : s)));
  const spare = pieces.find((p) => !mix.some((s) => s.piece === p.key));
  const all = mix.reduce((n, s) => n + s.parts, 0);
  return (
    <div className={styles.mix} role="group" aria-label={`Mix ${whose}`}>
      {mix.map((s, i) => (
        <div key={i}>
          <Count
            label={`Parts of piece ${i + 1} ${whose}`}
            value={s.parts}
            min={1}
            max={20}
            unit={s.parts === 1 ? "part" : "parts"}
            onChange={(parts) => put(i, { parts: parts ?? 1 })}
          />
          <Select<string>
            aria-label={`Piece ${i + 1} of the mix ${whose}`}
            value={s.piece}
            options={pieces.map((p) => ({
              value: p.key,
              label: pieceName(pieces, p),
              disabled: p.key !== s.piece && mix.some((o) => o.piece === p.key),
            }))}
            onChange={(piece) => put(i, { piece })}
          />
          {mix.length > 2 && (
            <Button
              type="text"
              icon={<DeleteOutlined />}
              aria-label={`Take piece ${i + 1} out of the mix`}
              onClick={() => onChange(mix.filter((_, k) => k !== i))}
            />
          )}
        </div>
      ))}
      <p>
        {mix.map((s) => `${Math.round((100 * s.parts) / all)} %`).join(" · ")}, evenly, alike on both sides
      </p>
      {spare && mix.length < most && (
        <Button icon={<PlusOutlined />} onClick={() => onChange([...mix, { piece: spare.key, parts: 1 }])}>
          One more
        </Button>
      )}
    </div>
  );
}
