import { Button, Drawer, Segmented } from "antd";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { server } from "../api/client";
import { useChange, useItemChoice } from "../api/queries";
import type { Came, StockOrder } from "../api/types";
import { localDay } from "../lib/localDay";
import { CountField, FieldErrors, NumberField } from "../ui/fields";
import { refusedFields } from "../ui/refused";
import { Trouble } from "../ui/Trouble";
import styles from "./Arrival.module.css";
import { countOf } from "../lib/countOf";

/** What came is held against the label, line by line, before it goes into the stash. */
export function Arrival({ order, onClose }: { order: StockOrder; onClose: () => void }) {
  const [lines, setLines] = useState<Came[]>(() =>
    order.lines.map((l) => {
      const packs = l.count * l.offer.packs;
      return { packs, pieces: packs * l.pack, checked: "label" };
    }),
  );
  const arrive = useChange(server.arriveOrder, "orders", "stash", "items", "suppliers", "shopping");
  const put = (at: number, part: Partial<Came>) =>
    setLines((all) => all.map((l, i) => (i === at ? { ...l, ...part } : l)));
  const short = lines.reduce(
    (n, l, i) => n + Math.max(0, l.packs * (order.lines[i]?.pack ?? 0) - l.pieces),
    0,
  );
  return (
    <Drawer open size={460} onClose={onClose} title="What came">
      <div className={styles.arrival}>
        <p>Look into every pack before it is put away: one in twenty is a piece short.</p>
        <FieldErrors value={refusedFields(arrive.error)}>
          {order.lines.map((l, i) => {
            const c = lines[i];
            if (!c) return null;
            return (
              <section key={i} aria-label={l.name}>
                <h3>
                  {l.name}
                  {l.colour && `, ${l.colour.toLowerCase()}`}
                </h3>
                <CountField
                  label={`Packs, of ${l.count * l.offer.packs}`}
                  path={`lines[${i}].packs`}
                  value={c.packs}
                  min={0}
                  max={500}
                  unsaid="0"
                  onChange={(packs) => put(i, { packs, pieces: packs * l.pack })}
                />
                {l.pack > 1 && (
                  <Segmented<Came["checked"]>
                    block
                    size="large"
                    aria-label={`How ${l.name} was checked`}
                    value={c.checked}
                    options={[
                      { value: "label", label: "By label" },
                      { value: "counted", label: "Counted" },
                      { value: "weighed", label: "Weighed" },
                    ]}
                    onChange={(checked) =>
                      put(i, { checked, ...(checked === "label" && { pieces: c.packs * l.pack }) })
                    }
                  />
                )}
                {c.checked === "weighed" && (
                  <Weighed line={l} packs={c.packs} onPieces={(pieces) => put(i, { pieces })} />
                )}
                {c.checked !== "label" && (
                  <CountField
                    label="Pieces in all of them"
                    path={`lines[${i}].pieces`}
                    help={`The labels say ${c.packs * l.pack}`}
                    value={c.pieces}
                    min={0}
                    max={20000}
                    unsaid="0"
                    onChange={(pieces) => put(i, { pieces })}
                  />
                )}
              </section>
            );
          })}
        </FieldErrors>
        {short > 0 && (
          <p className={styles.short} role="status">
            {countOf(short, "piece is", "pieces are")} missing. It is kept beside the supplier’s name.
          </p>
        )}
        {arrive.error && <Trouble error={arrive.error} />}
        <Button
          type="primary"
          size="large"
          loading={arrive.isPending}
          onClick={() => arrive.mutate({ id: order.id, on: localDay(), lines }, { onSuccess: onClose })}
        >
          Into the stash
        </Button>
      </div>
    </Drawer>
  );
}

interface WeighedProps {
  line: StockOrder["lines"][number];
  packs: number;
  onPieces: (pieces: number) => void;
}

/** How many pieces the packs hold by their weight. */
function Weighed({ line, packs, onPieces }: WeighedProps) {
  const item = useItemChoice().data?.find((i) => i.id === line.item)?.item;
  const [grams, setGrams] = useState(0);
  const [bagG, setBagG] = useState(0);
  const take = (g: number, bag: number) => {
    setGrams(g);
    setBagG(bag);
    if (item && item.massG > 0) onPieces(Math.max(0, Math.round((g - packs * bag) / item.massG)));
  };
  const weigh = useMutation({
    mutationFn: async () => (item ? server.weigh(item, packs) : undefined),
    onSuccess: (said) => said && take(said.readingsG.at(-1) ?? 0, said.bagG),
  });
  if (!item) return <p>It is not on file, so what one weighs is not known: count it.</p>;
  return (
    <>
      <NumberField
        label="On the scale, bags and all"
        path="grams"
        unit="g"
        step={0.5}
        value={grams}
        help={`A piece weighs ${item.massG} g by what is on file; weigh a full pack on its card first to be sure`}
        onChange={(g) => take(g, bagG)}
      />
      <NumberField
        label="An empty bag"
        path="bag"
        unit="g"
        step={0.5}
        value={bagG}
        onChange={(bag) => take(grams, bag)}
      />
      <Button loading={weigh.isPending} disabled={packs < 1} onClick={() => weigh.mutate()}>
        Weigh it
      </Button>
      {weigh.error && <Trouble error={weigh.error} />}
    </>
  );
}
