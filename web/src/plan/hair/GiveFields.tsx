import { Select } from "antd";
import type { PlanInput, Use, Way } from "../../api/types";
import { Count } from "../../ui/Numeric";
import type { Wanted } from "../draft/actions";
import styles from "./GiveFields.module.css";
import { MixFields } from "./MixFields";
import { pieceName, usePieceChoice } from "./pieceChoice";
import { methodOf, onBase, onPlaits, wayName } from "./ways";
import { useKnownCatalogue } from "../../api/queries";

interface Props {
  input: PlanInput;
  /** What is given now. */
  use: Omit<Use, "where">;
  /** Whose places these are, for those who listen. */
  whose: string;
  /** Everything must get a piece, a way and a number; elsewhere each may be left as it is. */
  all?: boolean;
  /** True for the base, where only hooking goes. */
  base?: boolean;
  /** True where pieces may be hooked on a base, so that it can be said how far apart. */
  hooked?: boolean;
  onChange: (group: string | null, change: Omit<Wanted, "where">) => void;
}

const asItIs = "";

/** How far apart pieces are hooked, in shares of the usual distance. */
const spreads: readonly (readonly [number, string])[] = [
  [0.6, "packed, 0.6 × the distance"],
  [0.75, "close, ¾ of the distance"],
  [1, "the usual distance"],
  [1.5, "airy, 1½ × the distance"],
  [2, "very airy, twice the distance"],
];
const mixed = "a mix";

/** Which piece, in which way, how many: of the plan, of the supplier's list, or any method there is. */
export function GiveFields({
  input,
  use,
  whose,
  all = false,
  base = false,
  hooked = false,
  onChange,
}: Props) {
  const catalogue = useKnownCatalogue();
  const { pieces, ways } = input;
  const asBefore = { value: asItIs, label: "as it is" };
  const choice = usePieceChoice(catalogue);
  const listed = choice.filter((p) => !pieces.some((own) => own.name === p.name));
  // What everything gets hides plaits, what the base gets is hooked; elsewhere either may be meant.
  const suits = (id: Way["method"]) => {
    const method = methodOf(catalogue, id);
    return (!all || onPlaits(method)) && (!base || onBase(method));
  };
  const unused = catalogue.methods.filter((m) => suits(m.id) && !ways.some((w) => w.method === m.id));
  const known = ways.filter((w) => suits(w.method));
  // Twists and braids take all that hangs at a spot as strands of one.
  const way = ways.find((w) => w.key === use.way);
  const strands =
    (use.count ?? 0) > 1 && way !== undefined && methodOf(catalogue, way.method)?.asOne === true;
  const givePiece = (value: string) => {
    const kept: Omit<Wanted, "where"> = { ...use };
    delete kept.piece;
    // Of the whole price list: a list that is still closing may give the choice just made once more.
    const fresh = choice.find((p) => `new ${p.key}` === value);
    delete kept.mix;
    if (value === mixed) {
      const [first, second] = [
        use.piece ?? pieces[0]?.key ?? "",
        pieces.find((p) => p.key !== use.piece)?.key ?? "",
      ];
      delete kept.piece;
      onChange(null, {
        ...kept,
        mix: [
          { piece: first, parts: 2 },
          { piece: second, parts: 1 },
        ],
      });
      return;
    }
    onChange(null, { ...kept, ...(fresh ? { newPiece: fresh } : value !== asItIs && { piece: value }) });
  };
  const giveWay = (value: string) => {
    const kept: Omit<Wanted, "where"> = { ...use };
    delete kept.way;
    const fresh = catalogue.ways.find((w) => `new ${w.method}` === value);
    onChange(null, { ...kept, ...(fresh ? { newWay: fresh } : value !== asItIs && { way: value }) });
  };
  return (
    <div className={styles.fields}>
      <Select<string>
        aria-label={`Piece ${whose}`}
        prefix={<span className={styles.what}>Piece</span>}
        value={use.mix ? mixed : (use.piece ?? asItIs)}
        options={[
          ...(all ? [] : [asBefore]),
          {
            label: "Of this plan",
            options: [
              ...pieces.map((p) => ({ value: p.key, label: pieceName(pieces, p) })),
              ...(pieces.length > 1 ? [{ value: mixed, label: "Several, mixed evenly" }] : []),
            ],
          },
          ...(pieces.length < catalogue.bounds.pieces && listed.length > 0
            ? [
                {
                  label: "From the supplies",
                  options: listed.map((p) => ({ value: `new ${p.key}`, label: p.name })),
                },
              ]
            : []),
        ]}
        onChange={givePiece}
      />
      {use.mix && (
        <MixFields
          mix={use.mix}
          pieces={pieces}
          whose={whose}
          onChange={(mix) => onChange("mix", { ...use, mix })}
        />
      )}
      <Select<string>
        aria-label={`Method ${whose}`}
        prefix={<span className={styles.what}>Method</span>}
        value={use.way ?? asItIs}
        options={[
          ...(all || base ? [] : [asBefore]),
          {
            label: "Of this plan",
            options: known.map((w) => ({ value: w.key, label: wayName(catalogue, input, w.key) })),
          },
          ...(ways.length < catalogue.bounds.ways && unused.length > 0
            ? [
                {
                  label: "Other methods",
                  options: unused.map((m) => ({ value: `new ${m.id}`, label: m.name })),
                },
              ]
            : []),
        ]}
        onChange={giveWay}
      />
      {hooked && (
        <Select<number>
          aria-label={`How far apart on the base ${whose}`}
          prefix={<span className={styles.what}>On the base</span>}
          value={use.apart ?? 0}
          options={[
            { value: 0, label: base ? "as its count or distance says" : "as elsewhere" },
            ...spreads.map(([value, label]) => ({ value, label })),
          ]}
          onChange={(apart) => {
            const kept = { ...use };
            delete kept.apart;
            onChange(null, apart ? { ...kept, apart } : kept);
          }}
        />
      )}
      <Count
        label={`Pieces at each spot ${whose}`}
        placeholder="as is"
        value={use.count || null}
        min={1}
        max={catalogue.bounds.count}
        unit={use.count ? (strands ? "strands as one" : "each") : undefined}
        onChange={(n) => {
          const kept = { ...use };
          delete kept.count;
          onChange("count", n ? { ...kept, count: n } : all ? { ...kept, count: 1 } : kept);
        }}
      />
    </div>
  );
}
