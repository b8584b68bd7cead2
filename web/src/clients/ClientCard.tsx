import { Alert, Button } from "antd";
import { useCallback } from "react";
import { Refusal, server } from "../api/client";
import { useClient, useKnownCatalogue, useMay, useOpenedClient, usePreview } from "../api/queries";
import type { ClientDocument, ClientDraft, Facts } from "../api/types";
import type { Keeper, Stored } from "../document/autosave";
import { useDocument } from "../document/useDocument";
import { HeadMap } from "../head";
import { usePreferences } from "../lib/preferences";
import type { ShelfPlace } from "../lib/shelf";
import { area, length } from "../lib/units";
import { CardDoor } from "../ui/CardDoor";
import { CardFrame } from "../ui/CardFrame";
import { CardSavedElsewhere } from "../ui/CardSavedElsewhere";
import { FieldErrors } from "../ui/fields";
import { HairlineFields, usualHairline } from "../ui/HairlineFields";
import steps from "../ui/panel.module.css";
import { TapeFields } from "../ui/TapeFields";
import styles from "./ClientCard.module.css";
import { CautionFacts, HairFacts, PersonFacts } from "./ClientFacts";
import { Keeping, TheirPlans } from "./ClientKeeping";
import { EarlierInstalls } from "./EarlierInstalls";
import { OverTime } from "./OverTime";

const newClient: ClientDraft = {
  name: "",
  archived: false,
  facts: {
    schema: 2,
    contact: "",
    guardian: "",
    statureMm: 0,
    hairline: usualHairline,
    hair: {
      frontMm: 0,
      sidesMm: 0,
      crownMm: 0,
      napeMm: 0,
      densityPerCm2: 190,
      strandUm: 75,
      texture: "coily",
      tenderScalp: false,
      edges: "strong",
    },
    history: [],
    notes: "",
    consent: { given: false, on: "", covers: "" },
    installs: [],
  },
};

const draftOf = ({ name, archived, facts }: ClientDocument): ClientDraft => ({ name, archived, facts });

const clientKind = "client";

const clientKeeper: Keeper<ClientDraft> = {
  kind: clientKind,
  create: server.createClient,
  save: server.saveClient,
  read: async (id) => {
    const client = await server.client(id);
    return { ...client, draft: draftOf(client) };
  },
  touches: ["clients", "client"],
};

/** Opens a client's card, or a new one. */
const ClientCard = () => (
  <CardDoor<ClientDraft, ClientDocument> kind={clientKind} place="clients" useFound={useOpenedClient}>
    {(card) => <Card key={card.id} {...card} />}
  </CardDoor>
);

interface CardProps {
  id: string;
  opened: ClientDocument | undefined;
  shelf: ShelfPlace<ClientDraft>;
  onMade: (client: Stored) => void;
}

/** The card: the head on one side, what is known of the client on the other. */
function Card({ id, opened, shelf, onMade }: CardProps) {
  const catalogue = useKnownCatalogue();
  const document = useDocument<ClientDraft>({
    begin: { id, opened: opened && { ...opened, draft: draftOf(opened) }, start: newClient, shelf },
    keeper: clientKeeper,
    onMade,
  });
  const { autosave, draft, change, state, fields } = document;
  const mayChange = useMay("saveClient");
  const unit = usePreferences((p) => p.unit);
  const { facts } = draft;
  const set = useCallback(
    (control: string | null, part: Partial<Facts>) =>
      change(control, (d) => ({ ...d, facts: { ...d.facts, ...part } })),
    [change],
  );
  const { answer, error } = usePreview(
    facts.tapes && { ...catalogue.default, head: facts.tapes, hairline: facts.hairline },
  );
  const shown = answer?.result;
  const tapesRefused = error instanceof Refusal ? error : undefined;

  return (
    <CardFrame
      document={document}
      back={{ to: "/clients", label: "Clients" }}
      name={{
        label: "Name of the client",
        value: draft.name,
        maxLength: 120,
        onChange: (name) => change("name", (d) => ({ ...d, name })),
      }}
      mayChange={mayChange}
      isNew={!opened}
    >
      <main className={styles.main}>
        <div className={styles.head}>
          <CardSavedElsewhere document={document} />
          {draft.archived && <Alert type="info" showIcon title="Archived: not offered for new plans." />}
          {facts.tapes && shown ? (
            <>
              <HeadMap head={shown.head} layout={shown.layout} />
              <p className={styles.caption}>
                The head as the tapes give it: {area(shown.layout.areaMm2, unit)} of scalp under hair. The
                parts are an example, brick at {length(25.4, unit)}; the client’s own are made in a plan.
              </p>
            </>
          ) : (
            <NoTapes mayChange={mayChange} onBegin={() => set(null, { tapes: catalogue.default.head })} />
          )}
        </div>
        <FieldErrors value={{ ...fields, ...renamed(tapesRefused) }}>
          <div className={`${steps.step} ${styles.facts}`} inert={!mayChange}>
            {state.kind === "refused" && <Alert type="error" showIcon title={state.message} />}
            <Cautions id={autosave.isStored ? id : undefined} />
            {facts.tapes && (
              <section>
                <h2>Three tapes</h2>
                <TapeFields
                  tapes={facts.tapes}
                  path="tapes"
                  heads={catalogue.heads}
                  onChange={(control, tapes) => set(control, { tapes })}
                />
              </section>
            )}
            {facts.tapes && (
              <section>
                <h2>Hairline</h2>
                <HairlineFields
                  hairline={facts.hairline}
                  onChange={(control, hairline) => set(control, { hairline })}
                />
              </section>
            )}
            <HairFacts facts={facts} set={set} />
            <CautionFacts facts={facts} set={set} />
            <PersonFacts facts={facts} set={set} />
            <EarlierInstalls
              installs={facts.installs}
              onChange={(control, installs) => set(control, { installs })}
            />
          </div>
        </FieldErrors>
        {autosave.isStored && (
          <section className={styles.below}>
            <OverTime id={id} />
            <TheirPlans id={id} />
            {mayChange && <Keeping id={id} draft={draft} change={change} save={() => autosave.save()} />}
          </section>
        )}
      </main>
    </CardFrame>
  );
}

/** What to have before one's eyes, as the server draws it from the card as saved. */
function Cautions({ id }: { id: string | undefined }) {
  const cautions = useClient(id).data?.cautions ?? [];
  if (cautions.length === 0) return null;
  return (
    <section>
      <h2>Look out for</h2>
      {cautions.map((c) => (
        <Alert key={c} type="warning" showIcon title={c} />
      ))}
    </section>
  );
}

/** The refusals of a previewed head, under the names they have on the card. */
function renamed(refusal: Refusal | undefined): Record<string, string> {
  return Object.fromEntries(
    Object.entries(refusal?.fields ?? {}).map(([path, text]) => [path.replace(/^head\./, "tapes."), text]),
  );
}

const NoTapes = ({ mayChange, onBegin }: { mayChange: boolean; onBegin: () => void }) => (
  <div className={styles.noTapes}>
    <h2>The head is not measured yet</h2>
    <p>
      Three tapes are enough: around the head, front to nape, ear to ear. The head is drawn as you write them.
    </p>
    {mayChange && (
      <Button type="primary" size="large" onClick={onBegin}>
        Enter the tapes
      </Button>
    )}
  </div>
);

export default ClientCard;
