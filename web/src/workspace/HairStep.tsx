import { DeleteOutlined, PlusOutlined, ScissorOutlined } from "@ant-design/icons";
import { Button, Collapse, Select } from "antd";
import type { Catalogue, Order, Piece, PlanInput, PlanResult } from "../api/types";
import { usePreferences } from "../app/preferences";
import { length, money, weight } from "../app/units";
import type { Change } from "./draft";
import { LengthField, NumberField } from "../app/fields";
import { formNames } from "./forms";
import styles from "./steps.module.css";

interface Props {
  input: PlanInput;
  result: PlanResult;
  catalogue: Catalogue;
  change: Change;
}

/** Which piece, how many of it, and what to buy. */
export function HairStep({ input, result, catalogue, change }: Props) {
  const { unit, currency } = usePreferences();
  const { piece, spares, wrap } = input;
  const { hair } = result;
  const setPiece = (control: string | null, part: Partial<Piece>) =>
    change(control && `piece.${control}`, (i) => ({ ...i, piece: { ...i.piece, ...part } }));
  const bulk = piece.form === "bulk";
  return (
    <div className={styles.step}>
      <section>
        <h2>Piece</h2>
        <Select
          aria-label="Piece from the supplier's list"
          className={styles.wide ?? ""}
          value={piece.line}
          options={(["looped-loc", "looped-twist", "bulk"] as const).map((form) => ({
            label: formNames[form],
            options: catalogue.pieces
              .filter((p) => p.form === form)
              .map((p) => ({ value: p.line, label: p.line })),
          }))}
          onChange={(line) => {
            const chosen = catalogue.pieces.find((p) => p.line === line);
            if (chosen) setPiece(null, { ...chosen, perSection: piece.perSection });
          }}
        />
        <p className={styles.lead}>
          {formNames[piece.form]}, {length(piece.lengthMm, unit)} long, {piece.diameterMm} mm thick,{" "}
          {piece.massG} g each; {piece.pack.units * piece.pack.cuts * piece.pack.splits}{" "}
          {bulk ? "units" : "pieces"} from a pack
        </p>
        <NumberField
          label="On each front section"
          path="piece.perSection.front"
          unit={piece.perSection.front === 1 ? "piece" : "pieces"}
          value={piece.perSection.front}
          onChange={(front) => setPiece("front", { perSection: { ...piece.perSection, front } })}
        />
        <NumberField
          label="On each back section"
          path="piece.perSection.back"
          unit={piece.perSection.back === 1 ? "piece" : "pieces"}
          value={piece.perSection.back}
          onChange={(back) => setPiece("back", { perSection: { ...piece.perSection, back } })}
        />
        <NumberField
          label="Spares"
          path="spares.percent"
          unit="%"
          value={spares.percent}
          onChange={(percent) =>
            change("spares.percent", (i) => ({ ...i, spares: { ...i.spares, percent } }))
          }
        />
        <NumberField
          label="Spares, at least"
          path="spares.least"
          unit="pieces"
          value={spares.least}
          onChange={(least) => change("spares.least", (i) => ({ ...i, spares: { ...i.spares, least } }))}
        />
      </section>

      <section>
        <h2>To buy</h2>
        <OrderCard
          what={piece.line}
          need={`${hair.pieces} on the head${hair.hooked > 0 ? `, ${hair.hooked} of them hooked on the base,` : ""} + ${hair.spares} spare = ${hair.order.need}`}
          left={`${hair.order.leftover} left over of ${hair.order.units}`}
          order={hair.order}
        />
        {hair.wrap && (
          <OrderCard
            what="Wrapping hair"
            need={`${hair.wrapStrandsPerPiece} ${hair.wrapStrandsPerPiece === 1 ? "strand" : "strands"} for each plait, ${hair.wrap.need} in all with spares`}
            left={`${hair.wrap.leftover} left over of ${hair.wrap.units} strands`}
            order={hair.wrap}
          />
        )}
        <p className={styles.sum}>
          <span>All together</span>
          <strong>{money(result.tally.costMinor, currency)}</strong>
        </p>
        <p className={styles.lead}>
          {weight(result.tally.weightG, unit)} of dry hair on the head. Soaked, it weighs far more: support it
          and dry it fully.
        </p>
      </section>

      <Collapse
        ghost
        items={[
          {
            key: "piece",
            label: "Piece, pack and prices by hand",
            children: (
              <div className={styles.fold}>
                <LengthField
                  label="Hanging length"
                  path="piece.lengthMm"
                  mm={piece.lengthMm}
                  onChange={(lengthMm) => setPiece("length", { lengthMm })}
                />
                <NumberField
                  label="Thickness"
                  path="piece.diameterMm"
                  unit="mm"
                  value={piece.diameterMm}
                  step={0.5}
                  onChange={(diameterMm) => setPiece("diameter", { diameterMm })}
                />
                <NumberField
                  label="Weight of one"
                  path="piece.massG"
                  unit="g"
                  value={piece.massG}
                  step={0.1}
                  onChange={(massG) => setPiece("mass", { massG })}
                />
                <NumberField
                  label={bulk ? "Strands in a pack" : "Pieces in a pack"}
                  path="piece.pack.units"
                  value={piece.pack.units}
                  onChange={(units) => setPiece("units", { pack: { ...piece.pack, units } })}
                />
                {bulk && (
                  <>
                    <NumberField
                      label="Cut each strand into"
                      path="piece.pack.cuts"
                      unit="lengths"
                      value={piece.pack.cuts}
                      onChange={(cuts) => setPiece("cuts", { pack: { ...piece.pack, cuts } })}
                    />
                    <NumberField
                      label="Split each length into"
                      path="piece.pack.splits"
                      unit="units"
                      value={piece.pack.splits}
                      onChange={(splits) => setPiece("splits", { pack: { ...piece.pack, splits } })}
                    />
                  </>
                )}
                <Offers piece={piece} onChange={(offers) => setPiece("offers", { offers })} />
              </div>
            ),
          },
          ...(hair.wrap
            ? [
                {
                  key: "wrap",
                  label: "Wrapping hair by hand",
                  children: (
                    <div className={styles.fold}>
                      <LengthField
                        label="Length of a strand"
                        path="wrap.strandLengthMm"
                        help="One strand as you wind it"
                        mm={wrap.strandLengthMm}
                        onChange={(strandLengthMm) =>
                          change("wrap.length", (i) => ({ ...i, wrap: { ...i.wrap, strandLengthMm } }))
                        }
                      />
                      <NumberField
                        label="Width of one turn"
                        path="wrap.ribbonMm"
                        unit="mm"
                        value={wrap.ribbonMm}
                        step={0.5}
                        onChange={(ribbonMm) =>
                          change("wrap.ribbon", (i) => ({ ...i, wrap: { ...i.wrap, ribbonMm } }))
                        }
                      />
                      <NumberField
                        label="Strands in a pack"
                        path="wrap.strandsPerPack"
                        value={wrap.strandsPerPack}
                        onChange={(strandsPerPack) =>
                          change("wrap.strands", (i) => ({ ...i, wrap: { ...i.wrap, strandsPerPack } }))
                        }
                      />
                      <Button icon={<ScissorOutlined />} onClick={() => change(null, cutInHalf)}>
                        Cut the strands in half
                      </Button>
                      <p className={styles.lead}>
                        Twice as many, half as long: shorter ones wind faster, and the hair stays the same.
                      </p>
                      <NumberField
                        label="Price of a pack"
                        path="wrap.priceMinor"
                        unit={currency}
                        value={wrap.priceMinor / 100}
                        step={0.5}
                        onChange={(price) =>
                          change("wrap.price", (i) => ({
                            ...i,
                            wrap: { ...i.wrap, priceMinor: Math.round(price * 100) },
                          }))
                        }
                      />
                    </div>
                  ),
                },
              ]
            : []),
        ]}
      />
    </div>
  );
}

/** The wrapping hair cut in half: no more hair than before. */
const cutInHalf = (input: PlanInput): PlanInput => ({
  ...input,
  wrap: {
    ...input.wrap,
    strandLengthMm: input.wrap.strandLengthMm / 2,
    strandsPerPack: input.wrap.strandsPerPack * 2,
  },
});

interface OrderCardProps {
  what: string;
  need: string;
  left: string;
  order: Order;
}

/** One line of shopping: what, how many packs in which offers, what is left. */
function OrderCard({ what, need, left, order }: OrderCardProps) {
  const currency = usePreferences((p) => p.currency);
  return (
    <div className={styles.order}>
      <div>
        <strong>
          {order.packs} {order.packs === 1 ? "pack" : "packs"}
        </strong>
        <strong>{money(order.costMinor, currency)}</strong>
      </div>
      <p>{what}</p>
      <p>{need}</p>
      <p>
        {order.lines
          .map(
            (l) =>
              `${l.count} × ${l.offer.packs === 1 ? "single pack" : `set of ${l.offer.packs}`} at ${money(l.offer.priceMinor, currency)}`,
          )
          .join(", ")}
      </p>
      <p>{left}</p>
    </div>
  );
}

/** The ways the piece is sold. */
function Offers({ piece, onChange }: { piece: Piece; onChange: (offers: Piece["offers"]) => void }) {
  const currency = usePreferences((p) => p.currency);
  const put = (at: number, part: Partial<Piece["offers"][number]>) =>
    onChange(piece.offers.map((o, i) => (i === at ? { ...o, ...part } : o)));
  return (
    <div className={styles.fold}>
      {piece.offers.map((offer, i) => (
        <div key={i} className={styles.offer}>
          <NumberField
            label="Sold as"
            path={`piece.offers[${i}].packs`}
            unit={offer.packs === 1 ? "pack" : "packs"}
            value={offer.packs}
            onChange={(packs) => put(i, { packs })}
          />
          <NumberField
            label="for"
            path={`piece.offers[${i}].priceMinor`}
            unit={currency}
            value={offer.priceMinor / 100}
            step={0.5}
            onChange={(price) => put(i, { priceMinor: Math.round(price * 100) })}
          />
          {piece.offers.length > 1 && (
            <Button
              type="text"
              icon={<DeleteOutlined />}
              aria-label={`Remove the offer of ${offer.packs} packs`}
              onClick={() => onChange(piece.offers.filter((_, k) => k !== i))}
            />
          )}
        </div>
      ))}
      {piece.offers.length < 8 && (
        <Button
          icon={<PlusOutlined />}
          onClick={() =>
            onChange([...piece.offers, { packs: 3, priceMinor: 3 * (piece.offers[0]?.priceMinor ?? 1000) }])
          }
        >
          Add an offer
        </Button>
      )}
    </div>
  );
}
