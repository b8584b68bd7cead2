import { App, Button, Drawer, Input } from "antd";
import { useState } from "react";
import { v4 as uuid } from "uuid";
import { server } from "../api/client";
import { useChange, useCurrency } from "../api/queries";
import type { Supplier } from "../api/types";
import { minorUnits } from "../lib/units";
import { CountField, FieldErrors, FieldErrorsUnder, NumberField } from "../ui/fields";
import fields from "../ui/panel.module.css";
import { refusedFields } from "../ui/refused";
import { Trouble, toldOf } from "../ui/Trouble";
import styles from "./LotMoves.module.css";

/** A supplier: its name, how long an order is on its way, what delivery costs; a new one, or one to change. */
export function SupplierForm({ of, onClose }: { of?: Supplier; onClose: () => void }) {
  const { message } = App.useApp();
  const [id] = useState(() => uuid());
  const [draft, setDraft] = useState({
    name: of?.name ?? "",
    note: of?.note ?? "",
    days: of?.days ?? 3,
    feeMinor: of?.feeMinor ?? 0,
  });
  const currency = useCurrency();
  const minor = minorUnits(currency);
  const add = useChange(server.addSupplier, "suppliers", "shopping");
  const save = useChange(server.saveSupplier, "suppliers", "shopping");
  const remove = useChange(server.removeSupplier, "suppliers", "shopping");
  const error = add.error ?? save.error ?? remove.error;
  const set = (part: Partial<typeof draft>) => setDraft((d) => ({ ...d, ...part }));
  const put = (archived: boolean) =>
    of
      ? save.mutate({ id: of.key, version: of.version, ...draft, archived }, { onSuccess: onClose })
      : add.mutate({ id, ...draft, archived }, { onSuccess: onClose });
  return (
    <Drawer open size={440} onClose={onClose} title={of ? of.name : "New supplier"}>
      <form
        className={styles.moves}
        onSubmit={(event) => {
          event.preventDefault();
          put(of?.archived ?? false);
        }}
      >
        <FieldErrors value={refusedFields(error)}>
          <label className={fields.stack}>
            <span>Name</span>
            <Input
              size="large"
              autoFocus={!of}
              value={draft.name}
              maxLength={60}
              onChange={(event) => set({ name: event.target.value })}
            />
          </label>
          <FieldErrorsUnder path="name" />
          <CountField
            label="Days until an order comes"
            path="days"
            help="0 where you fetch it yourself"
            value={draft.days}
            min={0}
            max={120}
            unsaid="0"
            onChange={(days) => set({ days })}
          />
          <NumberField
            label="Delivery of an order"
            path="feeMinor"
            unit={currency}
            step={0.5}
            value={draft.feeMinor / minor}
            onChange={(fee) => set({ feeMinor: Math.round(fee * minor) })}
          />
          <label className={fields.stack}>
            <span>
              Note <small>how to order, whom to ask</small>
            </span>
            <Input.TextArea
              value={draft.note}
              maxLength={400}
              rows={3}
              onChange={(event) => set({ note: event.target.value })}
            />
          </label>
        </FieldErrors>
        {error && <Trouble error={error} />}
        <Button
          type="primary"
          size="large"
          htmlType="submit"
          disabled={draft.name.trim() === ""}
          loading={add.isPending || save.isPending}
        >
          {of ? "Save" : "Enter it"}
        </Button>
        {!of && (
          <p className={styles.means}>
            What it sells is priced under Pieces, by hand, or read in as a table under In and out.
          </p>
        )}
        {of?.archived && (
          <Button size="large" onClick={() => put(false)}>
            Restore
          </Button>
        )}
        {of && !of.archived && (
          <Button
            size="large"
            danger
            loading={remove.isPending}
            onClick={() =>
              remove.mutate(of.key, {
                onSuccess: ({ archived }) => {
                  void message.info(
                    archived
                      ? `${of.name} is archived: prices, lots or orders name it.`
                      : `${of.name} is deleted.`,
                  );
                  onClose();
                },
                onError: (e) => void message.error(toldOf(e)),
              })
            }
          >
            Archive
          </Button>
        )}
      </form>
    </Drawer>
  );
}
