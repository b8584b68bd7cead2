import { Button, Drawer, Select, Skeleton } from "antd";
import Input from "antd/es/input/Input";
import { useState } from "react";
import { v4 as uuid } from "uuid";
import { server } from "../api/client";
import { useChange, useStashMoves } from "../api/queries";
import type { Catalogue, Lot } from "../api/types";
import { when } from "../lib/units";
import { CountField, FieldErrors } from "../ui/fields";
import { refusedFields } from "../ui/refused";
import { toldOf, Trouble } from "../ui/Trouble";
import { counted, kindOf } from "./words";
import styles from "./LotMoves.module.css";

interface Props {
  lot: Lot;
  catalogue: Catalogue;
  onClose: () => void;
}

type Move = Catalogue["moves"][number]["kind"];

/** What a person can say happened to a lot; what came is booked where it comes in. */
const offered: readonly Move[] = [
  "used",
  "opened",
  "spoilt",
  "counted",
  "saved",
  "given",
  "bought",
  "adjusted",
];

/** Moves that are told in shut packs, and those told in loose pieces. */
const inPacks: readonly Move[] = ["opened", "counted", "bought", "adjusted", "given"];
const inPieces: readonly Move[] = ["used", "spoilt", "counted", "saved", "given", "bought", "adjusted"];

/** What happened to a lot: one move to make, and the ledger below it. */
export function LotMoves({ lot, catalogue, onClose }: Props) {
  const [kind, setKind] = useState<Move>("used");
  const [packs, setPacks] = useState(0);
  const [loose, setLoose] = useState(0);
  const [reason, setReason] = useState("");
  const [id, setId] = useState(() => uuid());
  const [planId, setPlanId] = useState(lot.promises[0]?.planId ?? "");
  const forPlan = kind === "used" && lot.promises.length > 0;
  const facts = kindOf(catalogue, lot.kind);
  const moves = useStashMoves(lot.id);
  const book = useChange(server.moveStash, "stash", "stashMoves", "items", "shopping");
  const choose = (next: Move) => {
    setKind(next);
    setPacks(next === "counted" ? Math.max(0, lot.stock.packs) : next === "opened" ? 1 : 0);
    setLoose(next === "counted" ? Math.max(0, lot.stock.loose) : 0);
    book.reset();
  };
  const put = () =>
    book.mutate(
      {
        lot: lot.id,
        id,
        kind,
        packs: inPacks.includes(kind) ? packs : 0,
        loose: inPieces.includes(kind) ? loose : 0,
        ...(reason && { reason }),
        ...(forPlan && planId && { planId }),
      },
      {
        onSuccess: () => {
          setId(uuid());
          setPacks(0);
          setLoose(0);
          setReason("");
        },
      },
    );
  const move = catalogue.moves.find((m) => m.kind === kind);
  return (
    <Drawer
      open
      size={440}
      onClose={onClose}
      title={`${lot.name}${lot.lot.colour ? `, ${lot.lot.colour.toLowerCase()}` : ""}`}
    >
      <div className={styles.moves}>
        <p className={styles.there}>
          <strong>{counted(lot.pieces, facts)}</strong> in {lot.stock.packs} shut{" "}
          {lot.stock.packs === 1 ? "pack" : "packs"} of {lot.lot.pack} and {lot.stock.loose} loose
        </p>
        <div className={styles.kinds} role="group" aria-label="What happened">
          {offered.map((k) => (
            <button key={k} type="button" aria-pressed={k === kind} onClick={() => choose(k)}>
              {catalogue.moves.find((m) => m.kind === k)?.name}
            </button>
          ))}
        </div>
        <p className={styles.means}>{move?.means}</p>
        <FieldErrors value={refusedFields(book.error)}>
          {inPacks.includes(kind) && (
            <CountField
              label="Shut packs"
              path="packs"
              value={packs}
              min={kind === "adjusted" ? -1000 : 0}
              max={1000}
              unsaid="0"
              onChange={setPacks}
            />
          )}
          {inPieces.includes(kind) && (
            <CountField
              label={`Loose ${facts.units}`}
              path="loose"
              value={loose}
              min={kind === "adjusted" ? -100000 : 0}
              max={100000}
              unsaid="0"
              onChange={setLoose}
            />
          )}
          {forPlan && (
            <Select<string>
              size="large"
              aria-label="For which plan"
              value={planId}
              options={[
                ...lot.promises.map((p) => ({ value: p.planId, label: `For ${p.plan}` })),
                { value: "", label: "For no plan" },
              ]}
              onChange={setPlanId}
            />
          )}
          <label className={styles.reason}>
            <span>{move?.reasoned ? "Why" : "Why, if it is out of the usual"}</span>
            <Input
              size="large"
              value={reason}
              maxLength={200}
              onChange={(event) => setReason(event.target.value)}
              onPressEnter={put}
            />
          </label>
        </FieldErrors>
        {book.error && <Trouble error={new Error(toldOf(book.error))} />}
        <Button type="primary" size="large" loading={book.isPending} onClick={put}>
          Write it down
        </Button>
        <h3>The ledger</h3>
        {moves.isPending && <Skeleton active />}
        <ol className={styles.ledger}>
          {moves.data?.map((m, i) => (
            <li key={i}>
              <span>
                <strong>{catalogue.moves.find((k) => k.kind === m.kind)?.name}</strong> {amount(m)}
                {m.plan && ` · ${m.plan}`}
                {m.reason && ` · ${m.reason}`}
              </span>
              <small>
                {when(m.at)}, {m.person}
              </small>
            </li>
          ))}
        </ol>
      </div>
    </Drawer>
  );
}

const signed = (n: number) => (n > 0 ? `+${n}` : `−${-n}`);

function amount({ packs, pieces }: { packs: number; pieces: number }) {
  const parts = [
    packs !== 0 && `${signed(packs)} ${Math.abs(packs) === 1 ? "pack" : "packs"}`,
    pieces !== 0 && `${signed(pieces)} loose`,
  ].filter((part) => part !== false);
  return parts.length === 0 ? "as the ledger says" : parts.join(", ");
}
