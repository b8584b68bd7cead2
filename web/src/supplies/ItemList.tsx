import { RightOutlined, SearchOutlined } from "@ant-design/icons";
import { Empty, Segmented, Select, Skeleton } from "antd";
import Input from "antd/es/input/Input";
import { useDeferredValue, useState } from "react";
import { Link } from "react-router";
import { useCatalogue, useItems, useMoney } from "../api/queries";
import type { Catalogue, ItemDocument, ItemDraft, Kind } from "../api/types";
import { usePreferences } from "../lib/preferences";
import { length } from "../lib/units";
import { MoreButton } from "../ui/MoreButton";
import { NeverSaved } from "../ui/NeverSaved";
import { Trouble } from "../ui/Trouble";
import { Swatch } from "./Swatch";
import { counted, kindOf } from "./words";
import styles from "./ItemList.module.css";

/** Every line on file. */
export function ItemList() {
  const [search, setSearch] = useState("");
  const [kind, setKind] = useState<Kind | "">("");
  const [archived, setArchived] = useState(false);
  const items = useItems(useDeferredValue(search), kind, archived);
  const catalogue = useCatalogue();
  return (
    <>
      <NeverSaved<ItemDraft>
        kind="item"
        place="supplies/items"
        nameOf={(draft) => draft.item.name || "Something without a name"}
      />
      <div className={styles.tools}>
        <Input
          size="large"
          prefix={<SearchOutlined />}
          placeholder="Find by name or colour"
          aria-label="Find a piece by name or colour"
          allowClear
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <Select
          size="large"
          aria-label="Kind"
          value={kind}
          options={[
            { value: "", label: "Every kind" },
            ...(catalogue.data?.kinds.map((k) => ({ value: k.kind, label: k.name })) ?? []),
          ]}
          onChange={setKind}
        />
        <Segmented<boolean>
          size="large"
          value={archived}
          options={[
            { value: false, label: "In use" },
            { value: true, label: "Archived" },
          ]}
          onChange={setArchived}
        />
      </div>
      {items.isPending && <Skeleton active />}
      {items.error && <Trouble error={items.error} retry={() => void items.refetch()} />}
      {items.items?.length === 0 && (
        <Empty
          image={Empty.PRESENTED_IMAGE_SIMPLE}
          description={
            search || kind || archived
              ? "Nothing here is like that."
              : "Nothing on file yet. Take products over from a supplier’s list, or write down what you have in hand."
          }
        />
      )}
      <ul className={styles.list}>
        {catalogue.data && items.items?.map((i) => <ItemRow key={i.id} of={i} catalogue={catalogue.data} />)}
      </ul>
      <MoreButton more={items.more} busy={items.fetchingMore} />
    </>
  );
}

function ItemRow({ of, catalogue }: { of: ItemDocument; catalogue: Catalogue }) {
  const { item } = of;
  const unit = usePreferences((p) => p.unit);
  const money = useMoney();
  const kind = kindOf(catalogue, item.kind);
  const cheapest = item.offers.reduce<number | undefined>(
    (least, o) => Math.min(least ?? Infinity, o.priceMinor / o.packs),
    undefined,
  );
  return (
    <li>
      <Link to={`/supplies/items/${of.id}`}>
        <span className={styles.name}>
          <strong>{item.name}</strong>
          <small>
            {kind.name}
            {kind.hair &&
              `, ${length(item.lengthMm, unit)}${item.folded ? " folded" : ""}${item.thicknessMm > 0 ? `, ${item.thicknessMm} mm thick` : ""}, ${item.massG} g a ${kind.unit}`}
          </small>
        </span>
        <span className={styles.colours}>
          {item.colours.map((c) => (
            <Swatch key={c.name} colour={c.swatch} tip={c.tip} />
          ))}
        </span>
        <span className={styles.pack}>
          {counted(item.pack.units, kind)} a pack
          {cheapest !== undefined && <small>from {money(Math.round(cheapest))}</small>}
        </span>
        <span className={styles.there}>
          {of.pieces > 0 ? <strong>{counted(of.pieces, kind)} here</strong> : "none here"}
          {of.promised > 0 && <small>{of.promised} promised</small>}
        </span>
        <RightOutlined aria-hidden />
      </Link>
    </li>
  );
}
