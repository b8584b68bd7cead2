import { Button, Drawer, Segmented } from "antd";
import { useState } from "react";
import { server } from "../api/client";
import { useChange } from "../api/queries";
import type { Came, StockOrder } from "../api/types";
import { localDay } from "../lib/localDay";
import { CountField, FieldErrors } from "../ui/fields";
import { refusedFields } from "../ui/refused";
import { Trouble } from "../ui/Trouble";
import styles from "./Arrival.module.css";

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
                      { value: "label", label: "By the label" },
                      { value: "counted", label: "Counted" },
                      { value: "weighed", label: "Weighed" },
                    ]}
                    onChange={(checked) =>
                      put(i, { checked, ...(checked === "label" && { pieces: c.packs * l.pack }) })
                    }
                  />
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
            {short} {short === 1 ? "piece is" : "pieces are"} missing. It is kept beside the supplier’s name.
          </p>
        )}
        {arrive.error && <Trouble error={arrive.error} />}
        <Button
          type="primary"
          size="large"
          loading={arrive.isPending}
          onClick={() => arrive.mutate({ id: order.id, on: localDay(), lines }, { onSuccess: onClose })}
        >
          Put it into the stash
        </Button>
      </div>
    </Drawer>
  );
}
