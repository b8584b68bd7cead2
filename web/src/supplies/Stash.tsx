import { SearchOutlined } from "@ant-design/icons";
import { Button, Empty, Skeleton, Switch } from "antd";
import Input from "antd/es/input/Input";
import { useDeferredValue, useState } from "react";
import { Link } from "react-router";
import { useCatalogue, useStash } from "../api/queries";
import type { Catalogue, Lot } from "../api/types";
import { usePreferences } from "../lib/preferences";
import { length } from "../lib/units";
import { MoreButton } from "../ui/MoreButton";
import { Trouble } from "../ui/Trouble";
import { LotMoves } from "./LotMoves";
import { Packs } from "./Packs";
import { Swatch } from "./Swatch";
import { counted, kindOf, worn } from "./words";
import styles from "./Stash.module.css";

/** The stash, drawn as packs: by item, every lot of it. */
export function Stash() {
  const [search, setSearch] = useState("");
  const [empty, setEmpty] = useState(false);
  const [open, setOpen] = useState<string>();
  const stash = useStash(useDeferredValue(search), empty);
  const catalogue = useCatalogue();
  const groups: { item: string; name: string; lots: Lot[] }[] = [];
  for (const lot of stash.items ?? []) {
    const last = groups[groups.length - 1];
    if (last?.item === lot.item) last.lots.push(lot);
    else groups.push({ item: lot.item, name: lot.name, lots: [lot] });
  }
  const chosen = stash.items?.find((l) => l.id === open);
  return (
    <>
      <div className={styles.tools}>
        <Input
          size="large"
          prefix={<SearchOutlined />}
          placeholder="Find by name or colour"
          aria-label="Find in the stash by name or colour"
          allowClear
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <label className={styles.empty}>
          <Switch checked={empty} onChange={setEmpty} /> <span>Used up ones too</span>
        </label>
      </div>
      {(stash.isPending || catalogue.isPending) && <Skeleton active />}
      {stash.error && <Trouble error={stash.error} retry={() => void stash.refetch()} />}
      {stash.items?.length === 0 && (
        <Empty
          image={Empty.PRESENTED_IMAGE_SIMPLE}
          description={
            search
              ? `Nothing like “${search}” lies here.`
              : "The stash is empty. Put in what you have: open packs count too, and pieces saved from a head."
          }
        />
      )}
      {catalogue.data && (
        <div className={styles.groups}>
          {groups.map((g) => (
            <section key={g.item} className={styles.group}>
              <h2>
                <Link to={`/supplies/items/${g.item}`}>{g.name}</Link>
              </h2>
              <ul>
                {g.lots.map((lot) => (
                  <LotCard key={lot.id} lot={lot} catalogue={catalogue.data} onOpen={() => setOpen(lot.id)} />
                ))}
              </ul>
            </section>
          ))}
        </div>
      )}
      <MoreButton more={stash.more} busy={stash.fetchingMore} />
      {chosen && catalogue.data && (
        <LotMoves lot={chosen} catalogue={catalogue.data} onClose={() => setOpen(undefined)} />
      )}
    </>
  );
}

interface CardProps {
  lot: Lot;
  catalogue: Catalogue;
  onOpen: () => void;
}

function LotCard({ lot, catalogue, onOpen }: CardProps) {
  const unit = usePreferences((p) => p.unit);
  const kind = kindOf(catalogue, lot.kind);
  const promised = lot.promises.reduce((n, p) => n + p.pieces, 0);
  return (
    <li className={styles.lot} aria-label={`${lot.name}, ${lot.lot.colour || "no colour"}`}>
      <div className={styles.colour}>
        <Swatch colour={lot.swatch} tip={lot.tip} />
        <strong>{lot.lot.colour || "One colour"}</strong>
        {lot.lot.round > 0 && (
          <span className={styles.round}>
            {worn(lot.lot)}
            {lot.wornBy && `, for ${lot.wornBy} alone`}
            {lot.ends && ", no plan takes them any more"}
          </span>
        )}
        {lot.lot.lengthMm > 0 && (
          <span className={styles.round}>cut to {length(lot.lot.lengthMm, unit)}</span>
        )}
      </div>
      <Packs
        packs={lot.stock.packs}
        loose={lot.stock.loose}
        pack={lot.lot.pack}
        swatch={lot.swatch}
        tip={lot.tip}
        hair={kind.hair}
        promised={promised}
      />
      <div className={styles.figures}>
        <strong>{counted(lot.pieces, kind)}</strong>
        <span>{stockText(lot)}</span>
        {lot.promises.map((p) => (
          <Link key={p.planId} to={`/plans/${p.planId}/hair`} className={styles.promise}>
            {p.pieces} promised to {p.plan}
          </Link>
        ))}
        {promised > lot.pieces && <em>{promised - lot.pieces} more promised than there are</em>}
      </div>
      <Button onClick={onOpen} aria-label={`What happened to ${lot.name}, ${lot.lot.colour}`}>
        What happened
      </Button>
    </li>
  );
}

/** Shut packs and open ones, as one would say it. */
function stockText({ stock: { packs, loose }, lot: { pack } }: Lot): string {
  const parts: string[] = [];
  if (packs > 0) parts.push(`${packs} shut ${packs === 1 ? "pack" : "packs"} of ${pack}`);
  if (loose > 0) parts.push(packs > 0 || pack > 1 ? `${loose} loose` : `${loose}`);
  if (loose < 0) parts.push(`${-loose} short of the labels`);
  return parts.length === 0 ? "used up" : parts.join(", ");
}
