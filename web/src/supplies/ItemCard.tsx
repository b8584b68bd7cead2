import { Alert, Input, Select } from "antd";
import { useCallback, useMemo } from "react";
import { server } from "../api/client";
import { useCurrency, useKnownCatalogue, useMay, useOpenedItem } from "../api/queries";
import type { Item, ItemDocument, ItemDraft, Kind } from "../api/types";
import type { Keeper, Stored } from "../document/autosave";
import { useDocument } from "../document/useDocument";
import type { ShelfPlace } from "../lib/shelf";
import { CardDoor } from "../ui/CardDoor";
import { CardFrame } from "../ui/CardFrame";
import { CardSavedElsewhere } from "../ui/CardSavedElsewhere";
import { CutPicture } from "../ui/CutPicture";
import { FieldErrors, NumberField } from "../ui/fields";
import fields from "../ui/panel.module.css";
import styles from "./ItemCard.module.css";
import { Colours } from "./Colours";
import { HairFacts } from "./HairFacts";
import { ItemKeeping } from "./ItemKeeping";
import { Offers } from "./Offers";
import { Scale } from "./Scale";
import { kindOf } from "./words";

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
  touches: ["items", "stash", "shopping"],
};

/** Opens an item of the supplies, or a new one. */
const ItemCard = () => (
  <CardDoor<ItemDraft, ItemDocument> kind={itemKind} place="supplies/items" useFound={useOpenedItem}>
    {(card) => <Card key={card.id} {...card} />}
  </CardDoor>
);

interface CardProps {
  id: string;
  opened: ItemDocument | undefined;
  shelf: ShelfPlace<ItemDraft>;
  onMade: (item: Stored) => void;
}

/** The card: what it is, its colours, what a pack holds and costs. */
function Card({ id, opened, shelf, onMade }: CardProps) {
  const catalogue = useKnownCatalogue();
  const currency = useCurrency();
  const start = useMemo(() => newItem(currency), [currency]);
  const document = useDocument<ItemDraft>({
    begin: { id, opened: opened && { ...opened, draft: draftOf(opened) }, start, shelf },
    keeper: itemKeeper,
    onMade,
  });
  const { autosave, draft, change, state } = document;
  const mayChange = useMay("saveItem");
  const { item } = draft;
  const kind = kindOf(catalogue, item.kind);
  const set = useCallback(
    (control: string | null, part: Partial<Item>) =>
      change(control, (d) => ({ ...d, item: { ...d.item, ...part } })),
    [change],
  );
  return (
    <CardFrame
      document={document}
      back={{ to: "/supplies/items", label: "Pieces" }}
      name={{
        label: "What it is called",
        value: item.name,
        maxLength: 80,
        onChange: (name) => set("name", { name }),
      }}
      mayChange={mayChange}
      isNew={!opened}
    >
      <main className={styles.main}>
        <CardSavedElsewhere document={document} />
        {draft.archived && <Alert type="info" showIcon title="Archived: not offered for new plans." />}
        {state.kind === "refused" && <Alert type="error" showIcon title={state.message} />}
        <FieldErrors value={document.fields}>
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
                  Product <small>other lengths of it can stand in</small>
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
              {kind.hair && <Scale item={item} onWeighed={(massG) => set(null, { massG })} />}
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
                    unit="pieces"
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
          <ItemKeeping
            id={id}
            draft={draft}
            archive={() => change(null, (d) => ({ ...d, archived: !d.archived }))}
          />
        )}
      </main>
    </CardFrame>
  );
}

export default ItemCard;
