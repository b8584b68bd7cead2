import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Segmented, Select } from "antd";
import Input from "antd/es/input/Input";
import { useCurrency, useItemChoice, useKnownCatalogue, useMoney } from "../../api/queries";
import type { Catalogue, Form, Piece, PlanInput } from "../../api/types";
import { kindOf } from "../../head";
import { omit } from "../../lib/omit";
import { pieceEnds } from "../../ui/pieceEnds";
import { usePreferences } from "../../lib/preferences";
import { length, minorUnits } from "../../lib/units";
import { LengthField, NumberField, Toggle } from "../../ui/fields";
import { Fold } from "../../ui/Fold";
import styles from "../../ui/panel.module.css";
import own from "../../ui/ownPiece.module.css";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import { useColours, useNewerFacts, usePieceChoice } from "./pieceChoice";

interface Props {
  input: PlanInput;
}

/** The pieces of the plan. */
export function PieceList({ input }: Props) {
  const catalogue = useKnownCatalogue();
  const act = useAct();
  const { pieces } = input;
  const listed = usePieceChoice(catalogue);
  return (
    <>
      {pieces.map((piece, i) => (
        <PieceCard key={piece.key} piece={piece} index={i} removable={pieces.length > 1} />
      ))}
      {pieces.length < catalogue.bounds.pieces && (
        <Select<string | null>
          aria-label="Another piece for this head"
          className={own.add ?? ""}
          placeholder="+ Another piece …"
          value={null}
          options={[
            { label: "From the supplies", options: listed.map((p) => ({ value: p.key, label: p.name })) },
            { label: "By hand", options: [{ value: "copy", label: "One like the last, to be changed" }] },
          ]}
          onChange={(key) => {
            const last = pieces[pieces.length - 1];
            const chosen =
              key === "copy"
                ? last && { ...last, name: `${last.name}, other` }
                : listed.find((p) => p.key === key);
            if (chosen) act(actions.addPiece(chosen));
          }}
        />
      )}
      {pieces.length > 1 && (
        <p className={styles.lead}>
          Say under What goes where where each hangs, or pick places on the head with Assign.
        </p>
      )}
    </>
  );
}

const formOf = (catalogue: Catalogue, form: Form) => catalogue.forms.find((f) => f.form === form);

/** Wrapping hair a loc is begun with where nothing is said. */
const usualWinding: NonNullable<Piece["made"]>["wrapping"] = {
  strandLengthMm: 610,
  strandsPerPack: 50,
  packMassG: 90,
  priceMinor: 700,
};

/** Whether a piece is made by hand, and over what: then no packs of it are bought. */
function MadeByHand({ piece, set }: { piece: Piece; set: (group: null, part: Partial<Piece>) => void }) {
  const act = useAct();
  const items = (useItemChoice().data ?? []).filter((i) => i.wrapping);
  const { made } = piece;
  return (
    <>
      <Toggle
        label="Made by hand"
        note="no packs: its base and the hair wound over it are bought"
        checked={made !== undefined}
        onChange={(on) =>
          on
            ? set(null, { made: { base: "cord", wrapping: items[0]?.wrapping ?? usualWinding } })
            : act(actions.replacePiece(piece.key, omit(piece, "made")))
        }
      />
      {made && (
        <>
          <Segmented<typeof made.base>
            block
            aria-label="Made over"
            value={made.base}
            options={[
              { value: "cord", label: "Over cord" },
              { value: "old-hair", label: "Old hair" },
              { value: "loc", label: "A finished loc" },
            ]}
            onChange={(base) => set(null, { made: { ...made, base } })}
          />
          {items.length > 0 && (
            <Select<string>
              aria-label="Hair wound over it"
              value={made.wrapping.item ?? ""}
              options={[
                ...(made.wrapping.item ? [] : [{ value: "", label: "Wrapping hair" }]),
                ...items.map((i) => ({ value: i.id, label: i.item.name })),
              ]}
              onChange={(id) => {
                const wrapping = items.find((i) => i.id === id)?.wrapping;
                if (wrapping) set(null, { made: { ...made, wrapping } });
              }}
            />
          )}
        </>
      )}
    </>
  );
}

interface CardProps {
  piece: Piece;
  index: number;
  removable: boolean;
}

/** One piece: what it is, how it is sold, and all of it by hand. */
function PieceCard({ piece, index, removable }: CardProps) {
  const catalogue = useKnownCatalogue();
  const act = useAct();
  const unit = usePreferences((p) => p.unit);
  const of = kindOf(index, piece.name);
  const set = (group: string | null, part: Partial<Piece>) => act(actions.setPiece(piece.key, group, part));
  const listed = usePieceChoice(catalogue);
  const colours = useColours(piece);
  const newer = useNewerFacts(piece);
  const form = formOf(catalogue, piece.form);
  const folded = form?.folded ?? false;
  const path = (field: string) => `pieces[${index}].${field}`;
  const { pack } = piece;
  return (
    <div className={own.card}>
      <div className={own.head}>
        <span className={own.mark} style={{ background: of.fill, color: of.ink }} aria-hidden>
          {of.mark}
        </span>
        <Select
          aria-label={`Piece ${of.mark}, from the supplies`}
          className={own.name ?? ""}
          value={piece.name}
          options={catalogue.forms
            .map((f) => ({
              label: f.name,
              options: listed.filter((p) => p.form === f.form).map((p) => ({ value: p.name, label: p.name })),
            }))
            .filter((group) => group.options.length > 0)}
          onChange={(name) => {
            const chosen = listed.find((p) => p.name === name);
            if (chosen) act(actions.replacePiece(piece.key, chosen));
          }}
        />
        {removable && (
          <Button
            type="text"
            icon={<DeleteOutlined />}
            aria-label={`Take away piece ${of.mark}, ${piece.name}`}
            onClick={() => act(actions.removePiece(piece.key))}
          />
        )}
      </div>
      <p className={own.says}>
        {form?.name}, {length(piece.lengthMm, unit)} long, {piece.thicknessMm} mm thick, {piece.massG} g each;{" "}
        {pack.units * pack.cuts * pack.splits} pieces from a pack
        {piece.colour && `; ${piece.colour}`}
      </p>
      {colours.length > 0 && (
        <div className={own.colours} role="group" aria-label={`Colour of piece ${of.mark}`}>
          {colours.map((c) => (
            <button
              key={c.name}
              type="button"
              aria-pressed={c.name === piece.colour}
              onClick={() => set(null, { colour: c.name, swatch: c.swatch })}
            >
              <span
                style={{ background: c.tip ? `linear-gradient(${c.swatch} 45%, ${c.tip} 70%)` : c.swatch }}
              />
              {c.name}
            </button>
          ))}
        </div>
      )}
      {newer && (
        <div className={own.newer} role="status">
          <span>The supplies have other facts or prices of it now.</span>
          <Button onClick={() => act(actions.replacePiece(piece.key, newer))}>Take them over</Button>
        </div>
      )}
      {!folded && <MadeByHand piece={piece} set={set} />}
      <Fold title="Piece, pack and prices by hand">
        <label className={styles.stack}>
          <span>What it is called</span>
          <Input
            value={piece.name}
            maxLength={80}
            onChange={(event) => set("name", { name: event.target.value })}
          />
        </label>
        <label className={styles.stack}>
          <span>Form</span>
          <Select<Form>
            value={piece.form}
            options={catalogue.forms.map((f) => ({ value: f.form, label: f.name }))}
            onChange={(f) => set(null, { form: f })}
          />
        </label>
        <label className={styles.stack}>
          <span>Colour</span>
          <Input
            value={piece.colour}
            maxLength={40}
            placeholder="in words, if it matters"
            onChange={(event) => set("colour", { colour: event.target.value })}
          />
        </label>
        <LengthField
          label="Hanging length"
          path={path("lengthMm")}
          mm={piece.lengthMm}
          onChange={(lengthMm) => set("length", { lengthMm })}
        />
        <NumberField
          label="Thickness"
          path={path("thicknessMm")}
          unit="mm"
          value={piece.thicknessMm}
          step={0.5}
          onChange={(thicknessMm) => set("thickness", { thicknessMm })}
        />
        <NumberField
          label="Weight of one"
          path={path("massG")}
          unit="g"
          value={piece.massG}
          step={0.1}
          onChange={(massG) => set("mass", { massG })}
        />
        <label className={styles.stack}>
          <span>Its ends</span>
          <Segmented<NonNullable<Piece["ends"]>>
            block
            value={piece.ends ?? ""}
            options={pieceEnds}
            onChange={(ends) => set(null, { ends })}
          />
        </label>
        <label className={styles.stack}>
          <span>Fibre</span>
          <Segmented<NonNullable<Piece["fibre"]>>
            block
            value={piece.fibre || "synthetic"}
            options={catalogue.fibres.map((f) => ({ value: f.fibre, label: f.name }))}
            onChange={(fibre) => set(null, { fibre })}
          />
        </label>
        {!folded && (
          <NumberField
            label="Its loop opens"
            path={path("loopMm")}
            help="When stretched; 0 if you have not measured it"
            unit="mm"
            value={piece.loopMm}
            step={0.5}
            onChange={(loopMm) => set("loop", { loopMm })}
          />
        )}
        <NumberField
          label={folded ? "Strands in a pack" : "Pieces in a pack"}
          path={path("pack.units")}
          value={pack.units}
          onChange={(units) => set("units", { pack: { ...pack, units } })}
        />
        {folded && (
          <>
            <NumberField
              label="Cut each strand into"
              path={path("pack.cuts")}
              unit="lengths"
              value={pack.cuts}
              onChange={(cuts) => set("cuts", { pack: { ...pack, cuts } })}
            />
            <NumberField
              label="Split each length into"
              path={path("pack.splits")}
              unit="pieces"
              value={pack.splits}
              onChange={(splits) => set("splits", { pack: { ...pack, splits } })}
            />
          </>
        )}
        <Offers piece={piece} path={path("offers")} onChange={(offers) => set("offers", { offers })} />
      </Fold>
    </div>
  );
}

interface OffersProps {
  piece: Piece;
  path: string;
  onChange: (offers: Piece["offers"]) => void;
}

/** The ways the piece is sold. */
function Offers({ piece, path, onChange }: OffersProps) {
  const currency = useCurrency();
  const money = useMoney();
  const minor = minorUnits(currency);
  const put = (at: number, part: Partial<Piece["offers"][number]>) =>
    onChange(piece.offers.map((o, i) => (i === at ? { ...o, ...part } : o)));
  return (
    <div className={styles.fold}>
      {piece.offers.map((offer, i) => (
        <div key={i} className={styles.offer}>
          <NumberField
            label="Sold as"
            path={`${path}[${i}].packs`}
            unit={offer.packs === 1 ? "pack" : "packs"}
            value={offer.packs}
            onChange={(packs) => put(i, { packs })}
          />
          <NumberField
            label="for"
            path={`${path}[${i}].priceMinor`}
            unit={currency}
            value={offer.priceMinor / minor}
            step={0.5}
            onChange={(price) => put(i, { priceMinor: Math.round(price * minor) })}
          />
          {piece.offers.length > 1 && (
            <Button
              type="text"
              icon={<DeleteOutlined />}
              aria-label={`Remove the offer of ${offer.packs} packs for ${money(offer.priceMinor)}`}
              onClick={() => onChange(piece.offers.filter((_, k) => k !== i))}
            />
          )}
        </div>
      ))}
      {piece.offers.length < 8 && (
        <Button
          icon={<PlusOutlined />}
          onClick={() =>
            onChange([
              ...piece.offers,
              { packs: 3, priceMinor: 3 * (piece.offers[0]?.priceMinor ?? 10 * minor) },
            ])
          }
        >
          Add an offer
        </Button>
      )}
    </div>
  );
}
