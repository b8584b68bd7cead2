import { Alert, Select } from "antd";
import { useDeferredValue, useState } from "react";
import { Link } from "react-router";
import { server } from "../api/client";
import { useChange, useClient, useClients } from "../api/queries";
import type { Catalogue, PlanInput } from "../api/types";
import { LengthField, Toggle } from "../app/fields";
import { Trouble } from "../app/Trouble";
import { HairChoices } from "../clients/HairChoices";
import { TapeFields } from "../clients/TapeFields";
import type { Change, Draft } from "./draft";
import styles from "./steps.module.css";

interface Props {
  draft: Draft;
  catalogue: Catalogue;
  change: Change;
  changeDraft: (control: string | null, update: (draft: Draft) => Draft) => void;
}

/** Whose head it is, as the tape found it, and the hair on it. */
export function LookStep({ draft, catalogue, change, changeDraft }: Props) {
  const { head, hair, ownHead } = draft.input;
  const own = <K extends keyof PlanInput["hair"]>(name: K, value: PlanInput["hair"][K]) =>
    change(name === "lengthMm" ? "hair.lengthMm" : null, (i) => ({
      ...i,
      hair: { ...i.hair, [name]: value },
    }));
  return (
    <div className={styles.step}>
      <WhoseHead draft={draft} changeDraft={changeDraft} />
      <section>
        <h2>Three tapes</h2>
        <TapeFields
          tapes={head}
          path="head"
          heads={catalogue.heads}
          onChange={(control, tapes) => change(control, (i) => ({ ...i, head: tapes }))}
        />
      </section>

      <section>
        <h2>The client’s hair</h2>
        <LengthField
          label="Length, stretched"
          path="hair.lengthMm"
          mm={hair.lengthMm}
          onChange={(mm) => own("lengthMm", mm)}
        />
        <HairChoices
          density={hair.densityPerCm2}
          strand={hair.strandUm}
          onDensity={(v) => own("densityPerCm2", v)}
          onStrand={(v) => own("strandUm", v)}
        />
        <Toggle label="Tender scalp" checked={hair.tenderScalp} onChange={(v) => own("tenderScalp", v)} />
        <Toggle
          label="You do your own head"
          note="own-head work takes about a quarter longer"
          checked={ownHead}
          onChange={(v) => change(null, (i) => ({ ...i, ownHead: v }))}
        />
      </section>
    </div>
  );
}

/** The client, chosen from those on file; tapes and hair come along, as far as they were measured. */
function WhoseHead({ draft, changeDraft }: Pick<Props, "draft" | "changeDraft">) {
  const [search, setSearch] = useState("");
  const clients = useClients(useDeferredValue(search));
  const client = useClient(draft.clientId).data;
  // What the card tells, put into this plan by the server.
  const choose = useChange(async (id: string) => {
    const [chosen, input] = await Promise.all([server.client(id), server.putOnHead(id, draft.input)]);
    changeDraft(null, ({ title, ...rest }) => ({
      ...rest,
      title: title === "New plan" ? chosen.name : title,
      clientId: id,
      input: { ...rest.input, head: input.head, hair: input.hair },
    }));
  });
  const found = (clients.items ?? []).map((c) => ({ value: c.id, label: c.name }));
  // The one chosen stays by name, whatever page of the list is here.
  const options =
    client && !search && !found.some((o) => o.value === client.id)
      ? [{ value: client.id, label: client.name }, ...found]
      : found;
  return (
    <section>
      <h2>Whose head</h2>
      <Select<string>
        aria-label="Client"
        placeholder="No client yet"
        showSearch={{ filterOption: false, onSearch: setSearch }}
        allowClear
        value={draft.clientId ?? null}
        options={options}
        notFoundContent={clients.isPending ? "Looking…" : "No such client on file"}
        onSelect={(id: string) => {
          setSearch("");
          choose.mutate(id);
        }}
        onClear={() =>
          changeDraft(null, (d) => {
            const open = { ...d };
            delete open.clientId;
            return open;
          })
        }
      />
      {choose.error && <Trouble error={choose.error} />}
      {client && (
        <p className={styles.lead}>
          <Link to={`/clients/${client.id}`}>{client.name}’s card</Link>
          {client.facts.guardian && ` · with ${client.facts.guardian}`}
          {!client.facts.consent.given && " · no consent on file"}
        </p>
      )}
      {client?.cautions.map((c) => (
        <Alert key={c} type="warning" showIcon title={c} />
      ))}
    </section>
  );
}
