import { DeleteOutlined, InboxOutlined, PlusOutlined } from "@ant-design/icons";
import { Alert, App, Button, Input, Segmented, Select, Skeleton } from "antd";
import { useCallback, useMemo } from "react";
import { Link, Navigate, useNavigate } from "react-router";
import { server } from "../api/client";
import {
  queryClient,
  useCatalogue,
  useChange,
  useCurrency,
  useMay,
  useOpenedItem,
  useSuppliers,
} from "../api/queries";
import type { Catalogue, Item, ItemDocument, ItemDraft, Kind } from "../api/types";
import { useAutosave, useSaveState, useSaving, type Keeper, type Stored } from "../lib/autosave";
import { newAddress } from "../lib/madeHere";
import type { ShelfPlace } from "../lib/shelf";
import { useTakeTheirs } from "../lib/takeTheirs";
import { useUndoable } from "../lib/undoable";
import { minorUnits } from "../lib/units";
import { FieldErrors, FieldErrorsUnder, LengthField, NumberField, Toggle } from "../ui/fields";
import { Header } from "../ui/Header";
import { SaveNote } from "../ui/SaveNote";
import { toldOf, Trouble } from "../ui/Trouble";
import { UndoRedo } from "../ui/UndoRedo";
import { useCard } from "../ui/useCard";
import fields from "../ui/panel.module.css";
import { CutPicture } from "../ui/CutPicture";
import { Scale } from "./Scale";
import { kindOf } from "./words";
import styles from "./ItemCard.module.css";

const newItem = (currency: string): ItemDraft => ({
  archived: false,
  item: {
    schema: 1,
    kind: "soft-loc",
    name: "",
    line: "",
    colours: [],
    lengthMm: 457.2,
    folded: false,
    thicknessMm: 9,
    massG: 4,
    loopMm: 0,
    stiffness: "",
    fibre: "synthetic",
    coated: true,
    pack: { units: 20, cuts: 1, splits: 1 },
    offers: [],
    currency,
    articles: [],
    note: "",
  },
});

const draftOf = ({ item, archived }: ItemDocument): ItemDraft => ({ item, archived });

const itemKind = "item";

const itemKeeper: Keeper<ItemDraft> = {
  kind: itemKind,
  create: server.createItem,
  save: server.saveItem,
  read: async (id) => {
    const item = await server.item(id);
    return { ...item, draft: draftOf(item) };
  },
};

/** Opens an item of the supplies, or a new one. */
function ItemCard() {
  const catalogue = useCatalogue();
  const { id, shelf, onMade, opened, isThere, error } = useCard<ItemDraft, ItemDocument>(
    itemKind,
    "supplies/items",
    useOpenedItem,
  );
  const trouble = catalogue.error ?? error;
  if (id === "new") return <Navigate to={newAddress("supplies/items")} replace />;
  if (!catalogue.data || !isThere)
    return (
      <>
        <Header />
        <main className={styles.waiting}>{trouble ? <Trouble error={trouble} /> : <Skeleton active />}</main>
      </>
    );
  return <Card key={id} id={id} catalogue={catalogue.data} opened={opened} shelf={shelf} onMade={onMade} />;
}

interface CardProps {
  id: string;
  catalogue: Catalogue;
  opened: ItemDocument | undefined;
  shelf: ShelfPlace<ItemDraft>;
  onMade: (item: Stored) => void;
}

const noNote = () => undefined;

function Card({ id, catalogue, opened, shelf, onMade }: CardProps) {
  const currency = useCurrency();
  const start = useMemo(() => newItem(currency), [currency]);
  const autosave = useAutosave<ItemDraft>(
    { id, opened: opened && { ...opened, draft: draftOf(opened) }, start, shelf },
    itemKeeper,
  );
  const { draft, change, undo, redo, replace, canUndo, canRedo } = useUndoable(autosave.first, noNote);
  const onSaved = useCallback(
    (stored: Stored, created: boolean) => {
      for (const key of ["items", "stash", "shopping"])
        void queryClient.invalidateQueries({ queryKey: [key] });
      if (created) onMade(stored);
    },
    [onMade],
  );
  useSaving(autosave, draft, onSaved);
  const state = useSaveState(autosave);
  const theirs = useTakeTheirs(autosave, replace);
  const mayChange = useMay("saveItem");
  const { item } = draft;
  const kind = kindOf(catalogue, item.kind);
  const set = useCallback(
    (control: string | null, part: Partial<Item>) =>
      change(control, (d) => ({ ...d, item: { ...d.item, ...part } })),
    [change],
  );
  return (
    <div className={styles.card}>
      <Header back={{ to: "/supplies/items", label: "Pieces" }}>
        <Input
          className={styles.name ?? ""}
          variant="borderless"
          placeholder="What it is called"
          aria-label="What it is called"
          autoFocus={!opened}
          value={item.name}
          maxLength={80}
          readOnly={!mayChange}
          onChange={(event) => set("name", { name: event.target.value })}
        />
        {mayChange && <SaveNote autosave={autosave} />}
        <UndoRedo canUndo={canUndo} canRedo={canRedo} undo={undo} redo={redo} />
      </Header>
      <main className={styles.main}>
        {state.kind === "stale" && (
          <Alert
            type="warning"
            showIcon
            title="This was saved elsewhere since you opened it."
            action={<Button onClick={() => theirs.mutate()}>Go on with that one</Button>}
          />
        )}
        {draft.archived && <Alert type="info" showIcon title="Archived: not offered for new plans." />}
        {state.kind === "refused" && <Alert type="error" showIcon title={state.message} />}
        <FieldErrors value={state.kind === "refused" ? state.fields : {}}>
          <div className={`${fields.step} ${styles.columns}`} inert={!mayChange}>
            <section className={styles.sheet}>
              <h2>What it is</h2>
              <label className={fields.stack}>
                <span>Kind</span>
                <Select<Kind>
                  aria-label="Kind"
                  value={item.kind}
                  options={catalogue.kinds.map((k) => ({ value: k.kind, label: k.name }))}
                  onChange={(value) => set(null, { kind: value })}
                />
              </label>
              <label className={fields.stack}>
                <span>
                  Line <small>other lengths of it can stand in</small>
                </span>
                <Input
                  value={item.line}
                  maxLength={60}
                  onChange={(event) => set("line", { line: event.target.value })}
                />
              </label>
              {kind.hair && (
                <HairFacts
                  item={item}
                  unit={kind.unit}
                  set={set}
                  loose={kind.loose}
                  fibres={catalogue.fibres}
                />
              )}
              <label className={fields.stack}>
                <span>Note</span>
                <Input.TextArea
                  value={item.note}
                  maxLength={400}
                  rows={2}
                  onChange={(event) => set("note", { note: event.target.value })}
                />
              </label>
            </section>
            <section className={styles.sheet}>
              <Colours item={item} depths={opened?.depths ?? []} set={set} />
            </section>
            <section className={styles.sheet}>
              <h2>The pack</h2>
              <NumberField
                label={`In a pack, ${kind.units}`}
                path="pack.units"
                value={item.pack.units}
                onChange={(units) => set("units", { pack: { ...item.pack, units } })}
              />
              {kind.hair && (
                <Scale item={item} unit={kind.unit} onWeighed={(massG) => set(null, { massG })} />
              )}
              {kind.loose && item.kind !== "wrapping-hair" && (
                <>
                  <NumberField
                    label="Usually cut into"
                    path="pack.cuts"
                    unit="lengths"
                    value={item.pack.cuts}
                    onChange={(cuts) => set("cuts", { pack: { ...item.pack, cuts } })}
                  />
                  <NumberField
                    label="Each split into"
                    path="pack.splits"
                    unit="units"
                    value={item.pack.splits}
                    onChange={(splits) => set("splits", { pack: { ...item.pack, splits } })}
                  />
                  {item.kind !== "braiding-hair" && (
                    <CutPicture
                      cut={{
                        openMm: item.folded ? 2 * item.lengthMm : item.lengthMm,
                        cuts: item.pack.cuts,
                        splits: item.pack.splits,
                        fold: true,
                      }}
                      colour={item.colours[0]?.swatch}
                    />
                  )}
                </>
              )}
              <Offers item={item} set={set} />
            </section>
          </div>
        </FieldErrors>
        {autosave.isStored && mayChange && (
          <Keeping
            id={id}
            draft={draft}
            archive={() => change(null, (d) => ({ ...d, archived: !d.archived }))}
          />
        )}
      </main>
    </div>
  );
}

interface FactsProps {
  item: Item;
  unit: string;
  loose: boolean;
  fibres: Catalogue["fibres"];
  set: (control: string | null, part: Partial<Item>) => void;
}

function HairFacts({ item, unit, loose, fibres, set }: FactsProps) {
  return (
    <>
      <LengthField
        label={loose ? "Length in the pack" : "Hanging length"}
        path="lengthMm"
        mm={item.lengthMm}
        onChange={(lengthMm) => set("length", { lengthMm })}
      />
      {loose && (
        <Toggle
          label="Lies folded in the pack"
          note="opened out a strand is twice as long"
          checked={item.folded}
          onChange={(folded) => set(null, { folded })}
        />
      )}
      {item.kind !== "wrapping-hair" && (
        <NumberField
          label="Thickness as it hangs"
          path="thicknessMm"
          unit="mm"
          step={0.5}
          value={item.thicknessMm}
          onChange={(thicknessMm) => set("thickness", { thicknessMm })}
        />
      )}
      <NumberField
        label={`Weight of one ${unit}`}
        path="massG"
        unit="g"
        step={0.1}
        value={item.massG}
        onChange={(massG) => set("mass", { massG })}
      />
      {!loose && (
        <NumberField
          label="Its loop opens"
          path="loopMm"
          help="When stretched; 0 if you have not measured it"
          unit="mm"
          step={0.5}
          value={item.loopMm}
          onChange={(loopMm) => set("loop", { loopMm })}
        />
      )}
      <label className={fields.stack}>
        <span>How it bends</span>
        <Segmented<Item["stiffness"]>
          block
          value={item.stiffness}
          options={[
            { value: "", label: "Not felt" },
            { value: "supple", label: "Supple" },
            { value: "firm", label: "Firm" },
            { value: "stiff", label: "Stiff" },
          ]}
          onChange={(stiffness) => set(null, { stiffness })}
        />
      </label>
      <label className={fields.stack}>
        <span>Fibre</span>
        <Segmented<Item["fibre"]>
          block
          value={item.fibre}
          options={fibres.map((f) => ({ value: f.fibre, label: f.name }))}
          onChange={(fibre) => set(null, { fibre })}
        />
      </label>
      <p className={fields.lead}>{fibres.find((f) => f.fibre === item.fibre)?.care}</p>
      <Toggle
        label="Coated"
        note="its coating irritates some scalps: rinse and dry it before use"
        checked={item.coated}
        onChange={(coated) => set(null, { coated })}
      />
    </>
  );
}

interface ColoursProps {
  item: Item;
  /** Step of each colour from dark to light, as saved. */
  depths: readonly number[];
  set: (control: string | null, part: Partial<Item>) => void;
}

const depthWords = [
  "",
  "darkest",
  "very dark",
  "dark",
  "medium dark",
  "medium",
  "medium light",
  "light",
  "very light",
  "lightest",
];

function Colours({ item, depths, set }: ColoursProps) {
  const { colours } = item;
  const put = (at: number, part: Partial<Item["colours"][number]>) =>
    set(`colour${at}`, { colours: colours.map((c, i) => (i === at ? { ...c, ...part } : c)) });
  return (
    <>
      <h2>Colours</h2>
      {colours.length === 0 && <p className={fields.lead}>None named: it comes in one.</p>}
      {colours.map((c, i) => (
        <div key={i} className={styles.colour}>
          <input
            type="color"
            aria-label={`Swatch of ${c.name || "the colour"}`}
            value={c.swatch}
            onChange={(event) => put(i, { swatch: event.target.value.toLowerCase() })}
          />
          <Input
            aria-label={`Name of colour ${i + 1}`}
            value={c.name}
            maxLength={40}
            onChange={(event) => put(i, { name: event.target.value })}
          />
          {c.tip === undefined ? (
            <Button onClick={() => put(i, { tip: c.swatch })}>Other ends</Button>
          ) : (
            <input
              type="color"
              aria-label={`Ends of ${c.name}`}
              value={c.tip}
              onChange={(event) => put(i, { tip: event.target.value.toLowerCase() })}
            />
          )}
          <Button
            type="text"
            icon={<DeleteOutlined />}
            aria-label={`Take away ${c.name || "the colour"}`}
            onClick={() => set(null, { colours: colours.filter((_, k) => k !== i) })}
          />
          <small>{depths[i] !== undefined && `${depthWords[depths[i]]}, ${depths[i]} of 9`}</small>
        </div>
      ))}
      <FieldErrorsUnder path="colours" />
      <Button
        icon={<PlusOutlined />}
        onClick={() => set(null, { colours: [...colours, { name: "", swatch: "#4a3021" }] })}
      >
        Add a colour
      </Button>
    </>
  );
}

function Offers({ item, set }: Pick<ColoursProps, "item" | "set">) {
  const suppliers = useSuppliers().data ?? [];
  const currency = useCurrency();
  const minor = minorUnits(currency);
  const { offers } = item;
  const put = (at: number, part: Partial<Item["offers"][number]>) =>
    set(`offer${at}`, { currency, offers: offers.map((o, i) => (i === at ? { ...o, ...part } : o)) });
  return (
    <>
      <h2>What it costs</h2>
      {offers.length === 0 && (
        <p className={fields.lead}>No price yet: plans count it as bought for nothing.</p>
      )}
      {offers.map((o, i) => (
        <div key={i} className={styles.offer}>
          <Select<string>
            aria-label={`Supplier of offer ${i + 1}`}
            value={o.supplier ?? ""}
            options={[
              { value: "", label: "Any shop" },
              ...suppliers
                .filter((s) => !s.archived || s.key === o.supplier)
                .map((s) => ({ value: s.key, label: s.name })),
            ]}
            onChange={(supplier) => {
              const rest = { packs: o.packs, priceMinor: o.priceMinor };
              set(null, {
                offers: offers.map((x, k) => (k === i ? { ...rest, ...(supplier && { supplier }) } : x)),
              });
            }}
          />
          <NumberField
            label="Packs"
            path={`offers[${i}].packs`}
            value={o.packs}
            onChange={(packs) => put(i, { packs })}
          />
          <NumberField
            label="for"
            path={`offers[${i}].priceMinor`}
            unit={currency}
            step={0.5}
            value={o.priceMinor / minor}
            onChange={(price) => put(i, { priceMinor: Math.round(price * minor) })}
          />
          <Button
            type="text"
            icon={<DeleteOutlined />}
            aria-label={`Take away offer ${i + 1}`}
            onClick={() => set(null, { offers: offers.filter((_, k) => k !== i) })}
          />
        </div>
      ))}
      <FieldErrorsUnder path="currency" />
      <Button
        icon={<PlusOutlined />}
        onClick={() => set(null, { currency, offers: [...offers, { packs: 1, priceMinor: 10 * minor }] })}
      >
        Add a price
      </Button>
    </>
  );
}

interface KeepingProps {
  id: string;
  draft: ItemDraft;
  archive: () => void;
}

/** Archive, delete. */
function Keeping({ id, draft, archive }: KeepingProps) {
  const { modal, message } = App.useApp();
  const navigate = useNavigate();
  const remove = useChange(server.removeItem, "items", "stash");
  const ask = () =>
    modal.confirm({
      title: `Delete ${draft.item.name}?`,
      content: "If lots, plans or orders name it, it is archived instead, and nothing of theirs changes.",
      okText: "Delete",
      okButtonProps: { danger: true },
      onOk: () =>
        remove
          .mutateAsync(id)
          .then(({ archived }) => {
            void message.info(
              archived ? "Lots, plans or orders name it: it is archived instead." : "It is deleted.",
            );
            void navigate("/supplies/items");
          })
          .catch((e: unknown) => void message.error(toldOf(e))),
    });
  return (
    <div className={styles.keeping}>
      <Button icon={<InboxOutlined />} onClick={archive}>
        {draft.archived ? "Bring back from the archive" : "Archive it"}
      </Button>
      <Button danger icon={<DeleteOutlined />} onClick={() => void ask()}>
        Delete it
      </Button>
      <Link to="/supplies/items">All pieces</Link>
    </div>
  );
}

export default ItemCard;
