import { DeleteOutlined, ScissorOutlined } from "@ant-design/icons";
import { Button, Select } from "antd";
import { useCurrency, useItemChoice, useKnownCatalogue } from "../../api/queries";
import type { Attachment, Method, PlanInput, Way } from "../../api/types";
import { kindOf } from "../../head";
import { minorUnits } from "../../lib/units";
import { ChoiceField, CountField, LengthField, NumberField } from "../../ui/fields";
import { Fold } from "../../ui/Fold";
import styles from "../../ui/panel.module.css";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import own from "../../ui/ownPiece.module.css";
import { methodOf, onBase, onPlaits, shownWays, wayName } from "../hair";
import { countOf } from "../../lib/countOf";

interface Props {
  input: PlanInput;
  /** What is done on this head, for the places of each way. */
  done: readonly Attachment[];
}

/** The ways pieces go on in this plan: a method each, with what may be set of it. */
export function WayList({ input, done }: Props) {
  const catalogue = useKnownCatalogue();
  const act = useAct();
  const { ways, uses } = input;
  const shown = shownWays(input);
  return (
    <>
      {shown.map((way, place) => (
        <WayCard
          key={way.key}
          way={way}
          index={ways.indexOf(way)}
          place={place}
          input={input}
          places={done.filter((d) => d.way === way.key).reduce((sum, d) => sum + d.places, 0)}
          // What everything and what the base gets must be there.
          removable={uses[0]?.way !== way.key && uses[1]?.way !== way.key}
        />
      ))}
      {ways.length < catalogue.bounds.ways && (
        <Select<string | null>
          aria-label="Another method for this head"
          className={own.add ?? ""}
          placeholder="+ Another method …"
          value={null}
          options={catalogue.methods.map((m) => ({ value: m.id, label: m.name }))}
          onChange={(id) => {
            const usual = catalogue.ways.find((w) => w.method === id);
            if (usual) act(actions.addWay(usual));
          }}
        />
      )}
    </>
  );
}

const families = {
  loop: "looped and woven",
  wrap: "wrapped",
  twist: "twisted",
  hook: "hooked",
  braid: "hand-braided",
} as const;

interface CardProps {
  way: Way;
  index: number;
  /** Its place among those shown, which gives its letter. */
  place: number;
  input: PlanInput;
  places: number;
  removable: boolean;
}

/** One way: its method and its parameters. */
function WayCard({ way, index, place, input, places, removable }: CardProps) {
  const catalogue = useKnownCatalogue();
  const act = useAct();
  const method = methodOf(catalogue, way.method);
  const name = wayName(catalogue, input, way.key);
  const of = kindOf(place, name);
  // What the base gets is hooked; every other way may hide plaits.
  const hooked = input.uses[1]?.way === way.key || !onPlaits(method);
  const forms = new Set(input.pieces.map((p) => p.form));
  // What everything gets may bring the one piece of a plan along.
  const alone = input.pieces.length === 1 && input.uses[0]?.way === way.key;
  const choose = (id: Method["id"]) => {
    const usual = catalogue.ways.find((w) => w.method === id);
    const next = methodOf(catalogue, id);
    if (!usual || !next) return;
    const other =
      alone && !next.takes.some((f) => forms.has(f))
        ? catalogue.pieces.find((p) => next.takes.includes(p.form))
        : undefined;
    act(actions.chooseMethod(way.key, usual, other));
  };
  const path = (field: string) => `ways[${index}].${field}`;
  const decided = (c: Method["choices"][number]) =>
    way.choices?.[c.key] ?? (input.child ? c.child : undefined) ?? c.usual;
  const cover = method?.choices.find((c) => c.key === "cover");
  const goes = (of: string | undefined) => !of || (cover && decided(cover) === of);
  const take = (choice: string, option: string) =>
    act(
      choice === cover?.key
        ? actions.chooseCover(
            way.key,
            option,
            option === method?.wrapsAs ? catalogue.ways.find((w) => w.wrapping)?.wrapping : undefined,
          )
        : actions.choose(way.key, choice, option),
    );
  const asked = (c: Method["choices"][number]) => (
    <ChoiceField
      key={c.key}
      label={c.name}
      path={path(`choices.${c.key}`)}
      value={decided(c)}
      options={c.options}
      onChange={(option) => take(c.key, option)}
    />
  );
  return (
    <div className={own.card}>
      <div className={own.head}>
        <span className={own.mark} style={{ background: of.fill, color: of.ink }} aria-hidden>
          {of.mark}
        </span>
        <Select<Method["id"]>
          aria-label={`Method ${of.mark}`}
          className={own.name ?? ""}
          value={way.method}
          options={catalogue.methods
            .filter(hooked ? onBase : onPlaits)
            .map((m) => ({ value: m.id, label: m.name }))}
          onChange={choose}
        />
        {removable && (
          <Button
            type="text"
            icon={<DeleteOutlined />}
            aria-label={`Take away method ${of.mark}, ${name}`}
            onClick={() => act(actions.removeWay(way.key))}
          />
        )}
      </div>
      <p className={own.says}>
        <span className={styles.family}>{method && families[method.family]}</span> {countOf(places, "spot")}.{" "}
        {method?.summary}
      </p>
      {method && !method.takes.some((f) => forms.has(f)) && (
        <p className={own.says}>
          It takes {method.takes.map((t) => catalogue.forms.find((f) => f.form === t)?.many).join(" or ")}:
          this plan has none yet.
        </p>
      )}
      {cover && asked(cover)}
      {method?.parameters
        .filter((p) => goes(p.of))
        .map((p) => {
          const of = { label: p.name, path: path(`settings.${p.key}`), help: p.help };
          const value = way.settings[p.key] ?? p.usual;
          const set = (v: number) => act(actions.setParameter(way.key, p.key, v));
          switch (p.unit) {
            case "length":
              return <LengthField key={p.key} {...of} mm={value} onChange={set} />;
            case "count":
              return (
                <CountField key={p.key} {...of} value={value} min={p.least} max={p.most} onChange={set} />
              );
            default:
              return <NumberField key={p.key} {...of} unit="mm" step={0.5} value={value} onChange={set} />;
          }
        })}
      {method?.choices.filter((c) => c !== cover && goes(c.of)).map(asked)}
      {way.wrapping && <WrappingHair way={way} path={path("wrapping")} />}
    </div>
  );
}

/** The wrapping hair of a way, by hand. */
function WrappingHair({ way, path }: { way: Way; path: string }) {
  const act = useAct();
  const currency = useCurrency();
  const minor = minorUnits(currency);
  const items = useItemChoice().data ?? [];
  const { wrapping } = way;
  if (!wrapping) return null;
  const set = (group: string | null, part: Partial<typeof wrapping>) =>
    act(actions.setWrapping(way.key, group, part));
  const wound = items.filter((i) => i.wrapping);
  const chosen = wound.find((i) => i.id === wrapping.item);
  return (
    <>
      {wound.length > 0 && (
        <Select<string | null>
          aria-label="Wrapping hair"
          placeholder="Wrapping hair of the supplies"
          value={wrapping.item !== undefined && chosen ? `${wrapping.item} ${wrapping.colour ?? ""}` : null}
          options={wound.flatMap(({ id, item }) =>
            (item.colours.length > 0 ? item.colours : [undefined]).map((c) => ({
              value: `${id} ${c?.name ?? ""}`,
              label: c ? `${item.name}, ${c.name.toLowerCase()}` : item.name,
            })),
          )}
          onChange={(value) => {
            const item = wound.find((i) => value?.startsWith(`${i.id} `));
            const colour = item?.item.colours.find((c) => value === `${item.id} ${c.name}`);
            if (item?.wrapping)
              act(
                actions.replaceWrapping(way.key, {
                  ...item.wrapping,
                  ...(colour && { colour: colour.name, swatch: colour.swatch }),
                }),
              );
          }}
        />
      )}
      <Fold title="Wrapping hair by hand">
        <LengthField
          label="Length of a strand"
          path={`${path}.strandLengthMm`}
          help="One strand as you wind it"
          mm={wrapping.strandLengthMm}
          onChange={(strandLengthMm) => set("strand", { strandLengthMm })}
        />
        <NumberField
          label="Strands in a pack"
          path={`${path}.strandsPerPack`}
          value={wrapping.strandsPerPack}
          onChange={(strandsPerPack) => set("strands", { strandsPerPack })}
        />
        <Button
          icon={<ScissorOutlined />}
          onClick={() =>
            set(null, {
              strandLengthMm: wrapping.strandLengthMm / 2,
              strandsPerPack: wrapping.strandsPerPack * 2,
              cuts: 2 * Math.max(1, wrapping.cuts ?? 1),
            })
          }
        >
          Halve the strands
        </Button>
        <p className={styles.lead}>
          Twice as many, half as long: shorter ones wind faster, and the hair stays the same.
        </p>
        <NumberField
          label="Weight of a pack"
          path={`${path}.packMassG`}
          unit="g"
          value={wrapping.packMassG}
          onChange={(packMassG) => set("mass", { packMassG })}
        />
        <NumberField
          label="Price of a pack"
          path={`${path}.priceMinor`}
          unit={currency}
          value={wrapping.priceMinor / minor}
          step={0.5}
          onChange={(price) => set("price", { priceMinor: Math.round(price * minor) })}
        />
      </Fold>
    </>
  );
}
