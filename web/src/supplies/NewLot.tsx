import { Button, Drawer, Segmented, Select } from "antd";
import { useState } from "react";
import { Link } from "react-router";
import { v4 as uuid } from "uuid";
import { server } from "../api/client";
import { useCatalogue, useChange, useItemChoice } from "../api/queries";
import type { Lot } from "../api/types";
import { CountField, FieldErrors, LengthField } from "../ui/fields";
import { refusedFields } from "../ui/refused";
import { Trouble } from "../ui/Trouble";
import { Swatch } from "./Swatch";
import { kindOf } from "./words";
import styles from "./LotMoves.module.css";

/** Something goes into the stash: which item, what colour, how much of it, new or worn. */
export function NewLot({ onClose }: { onClose: () => void }) {
  const items = useItemChoice();
  const catalogue = useCatalogue();
  const [id] = useState(() => uuid());
  const [item, setItem] = useState<string>();
  const [lot, setLot] = useState<Lot["lot"]>({
    colour: "",
    lengthMm: 0,
    pack: 1,
    round: 0,
    condition: "new",
    counted: false,
  });
  const [packs, setPacks] = useState(0);
  const [loose, setLoose] = useState(0);
  const add = useChange(server.addLot, "stash", "items", "shopping");
  const chosen = items.data?.find((i) => i.id === item);
  const facts = chosen && catalogue.data && kindOf(catalogue.data, chosen.item.kind);
  const set = (part: Partial<Lot["lot"]>) => setLot((l) => ({ ...l, ...part }));
  return (
    <Drawer open size={440} onClose={onClose} title="Put into the stash">
      <div className={styles.moves}>
        {items.error && <Trouble error={items.error} />}
        <Select
          showSearch={{ optionFilterProp: "label" }}
          size="large"
          aria-label="Which piece or thing"
          placeholder="Which piece or thing"
          value={item ?? null}
          options={(items.data ?? []).map((i) => ({ value: i.id, label: i.item.name }))}
          onChange={(value: string | null) => {
            const next = items.data?.find((i) => i.id === value);
            setItem(value ?? undefined);
            if (next) set({ pack: next.item.pack.units, colour: next.item.colours[0]?.name ?? "" });
          }}
        />
        <p className={styles.means}>
          Not on the list? <Link to="/supplies/items">Put it on file first.</Link>
        </p>
        {chosen && facts && (
          <FieldErrors value={refusedFields(add.error)}>
            {chosen.item.colours.length > 0 && (
              <div className={styles.kinds} role="group" aria-label="Colour">
                {chosen.item.colours.map((c) => (
                  <button
                    key={c.name}
                    type="button"
                    aria-pressed={c.name === lot.colour}
                    onClick={() => set({ colour: c.name })}
                  >
                    <Swatch colour={c.swatch} tip={c.tip} /> {c.name}
                  </button>
                ))}
              </div>
            )}
            <Segmented<number>
              block
              size="large"
              aria-label="New or worn"
              value={Math.min(lot.round, 1)}
              options={[
                { value: 0, label: "New" },
                { value: 1, label: "Saved from a head" },
              ]}
              onChange={(round) => set({ round, condition: round === 0 ? "new" : "good" })}
            />
            {lot.round === 0 && (
              <CountField
                label={`Shut packs of ${lot.pack}`}
                path="packs"
                value={packs}
                min={0}
                max={1000}
                unsaid="0"
                onChange={setPacks}
              />
            )}
            <CountField
              label={lot.round === 0 ? `Loose ${facts.units}, out of open packs` : facts.units}
              path="loose"
              value={loose}
              min={0}
              max={100000}
              unsaid="0"
              onChange={setLoose}
            />
            {lot.round > 0 && (
              <>
                <CountField
                  label="Worn how often"
                  path="lot.round"
                  value={lot.round}
                  min={1}
                  max={20}
                  onChange={(round) => set({ round })}
                />
                <Segmented<Lot["lot"]["condition"]>
                  block
                  size="large"
                  aria-label="Condition"
                  value={lot.condition}
                  options={[
                    { value: "good", label: "Good" },
                    { value: "worn", label: "Frizzy or thinned" },
                  ]}
                  onChange={(condition) => set({ condition })}
                />
                {facts.hair && (
                  <LengthField
                    label="Length they were cut to"
                    path="lot.lengthMm"
                    empty
                    help="Left empty they are as long as new ones"
                    mm={lot.lengthMm}
                    onChange={(lengthMm) => set({ lengthMm })}
                  />
                )}
              </>
            )}
          </FieldErrors>
        )}
        {add.error && <Trouble error={add.error} />}
        <Button
          type="primary"
          size="large"
          disabled={!item}
          loading={add.isPending}
          onClick={() =>
            item &&
            add.mutate({ id, item, lot, packs: lot.round === 0 ? packs : 0, loose }, { onSuccess: onClose })
          }
        >
          Put it in
        </Button>
      </div>
    </Drawer>
  );
}
