import { Alert, Select } from "antd";
import { lazy, memo, Suspense, useDeferredValue, useState } from "react";
import { Link } from "react-router";
import { server } from "../../api/client";
import { useChange, useClient, useClients, useKnownCatalogue } from "../../api/queries";
import { usePreferences } from "../../lib/preferences";
import { length } from "../../lib/units";
import { Toggle } from "../../ui/fields";
import { HairFields } from "../../ui/HairFields";
import { areas } from "../../ui/hairNames";
import styles from "../../ui/panel.module.css";
import { Parts, type Part } from "../../ui/Parts";
import { TapeFields } from "../../ui/TapeFields";
import { Trouble } from "../../ui/Trouble";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import type { Draft } from "../draft/draft";
import { useBench } from "../draft/onBench";

const WishPart = lazy(async () => ({ default: (await import("../wish")).WishPart }));
const looks: Record<string, string> = { locs: "Locs", twists: "Twists", braids: "Braids", curls: "Curls" };
const WhatWorked = lazy(async () => ({ default: (await import("./WhatWorked")).WhatWorked }));

/** Whose head it is, as the tape found it, and the hair on it. */
export const HeadStep = memo(function HeadStep() {
  const { draft } = useBench();
  const catalogue = useKnownCatalogue();
  const unit = usePreferences((p) => p.unit);
  const client = useClient(draft.clientId).data;
  const act = useAct();
  const { head, hair, ownHead, child, wanted } = draft.input;
  const lengths = areas.map(([key]) => hair[key]);
  const [least, most] = [Math.min(...lengths), Math.max(...lengths)];
  // A newcomer begins with what is wished, who has a client with whose head it is.
  const [wishFirst] = useState(() => !draft.clientId && !wanted);
  const wish: Part = {
    key: "wish",
    title: "The wish, and proposals",
    says: wanted?.look ? looks[wanted.look] : "open",
    paths: ["wanted"],
    content: (
      <Suspense>
        <WishPart />
      </Suspense>
    ),
  };
  return (
    <Parts
      step="head"
      parts={[
        ...(wishFirst ? [wish] : []),
        {
          key: "whose",
          title: "Whose head",
          says: `${client?.name ?? "open"}${ownHead ? ", own hands" : ""}`,
          paths: ["clientId"],
          content: (
            <>
              <WhoseHead draft={draft} />
              <Toggle
                label="You do your own head"
                note="own-head work takes about a quarter longer"
                checked={ownHead}
                onChange={(v) => act(actions.setHead({ ownHead: v }))}
              />
              <Toggle
                label="A child"
                note="lighter, fewer, looser: a child’s head bears about two thirds"
                checked={child}
                onChange={(v) => act(actions.setHead({ child: v }))}
              />
            </>
          ),
        },
        ...(wishFirst ? [] : [wish]),
        {
          key: "tapes",
          title: "Three tapes",
          says: `${[head.circumferenceMm, head.frontToNapeMm, head.earToEarMm].map((mm) => length(mm, unit).replace(/ \w+$/, "")).join(" · ")} ${unit}`,
          paths: ["head."],
          content: (
            <TapeFields
              tapes={head}
              path="head"
              heads={catalogue.heads}
              onChange={(group, tapes) => act(actions.setTapes(group, tapes))}
            />
          ),
        },
        {
          key: "hair",
          title: "The client’s hair",
          says: `${least === most ? length(most, unit) : `${length(least, unit)} to ${length(most, unit)}`}${hair.tenderScalp ? ", tender scalp" : ""}`,
          paths: ["hair."],
          content: (
            <>
              <p className={styles.lead}>
                Its length when stretched. Each plait is as long as the hair it is made of.
              </p>
              <HairFields hair={hair} onChange={(group, part) => act(actions.setHair(group, part))} />
            </>
          ),
        },
      ]}
    />
  );
});

/** The client, chosen from those on file; tapes, hairline and hair come along, as far as they were measured. */
function WhoseHead({ draft }: { draft: Draft }) {
  const [search, setSearch] = useState("");
  const act = useAct();
  const clients = useClients(useDeferredValue(search));
  const client = useClient(draft.clientId).data;
  // What the card tells, put into this plan by the server.
  const choose = useChange(async (id: string) => {
    const [chosen, input] = await Promise.all([server.client(id), server.putOnHead(id, draft.input)]);
    act(actions.chooseClient(id, chosen.name, input));
  });
  const found = (clients.items ?? []).map((c) => ({ value: c.id, label: c.name }));
  // The one chosen stays by name, whatever page of the list is here.
  const options =
    client && !search && !found.some((o) => o.value === client.id)
      ? [{ value: client.id, label: client.name }, ...found]
      : found;
  return (
    <>
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
        onClear={() => act(actions.forgetClient())}
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
      {client && (
        <Suspense>
          <WhatWorked client={client.id} />
        </Suspense>
      )}
    </>
  );
}
