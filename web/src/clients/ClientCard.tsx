import { DeleteOutlined, DownloadOutlined, InboxOutlined, PlusOutlined } from "@ant-design/icons";
import { Alert, App, Button, Input, Select, Skeleton } from "antd";
import { useQuery } from "@tanstack/react-query";
import { useCallback } from "react";
import { Link, Navigate, useNavigate } from "react-router";
import { Refusal, server } from "../api/client";
import {
  queryClient,
  useCatalogue,
  useChange,
  useClient,
  useMay,
  useOpenedClient,
  usePlans,
  usePreview,
} from "../api/queries";
import type { Catalogue, ClientDocument, ClientDraft, Facts } from "../api/types";
import {
  useAutosave,
  useSaveState,
  useSaving,
  type Autosave,
  type Keeper,
  type Stored,
} from "../lib/autosave";
import { download } from "../lib/download";
import { FieldErrors, LengthField, Toggle } from "../ui/fields";
import { Header } from "../ui/Header";
import { usePreferences } from "../lib/preferences";
import { SaveNote } from "../ui/SaveNote";
import { localDay } from "../lib/localDay";
import { newAddress } from "../lib/madeHere";
import { MoreButton } from "../ui/MoreButton";
import type { ShelfPlace } from "../lib/shelf";
import { useTakeTheirs } from "../lib/takeTheirs";
import { remainsText } from "../ui/remains";
import { toldOf, Trouble } from "../ui/Trouble";
import { useUndoable, type ChangeDraft } from "../lib/undoable";
import { area, length, when } from "../lib/units";
import { UndoRedo } from "../ui/UndoRedo";
import { useCard } from "../ui/useCard";
import { HeadMap } from "../head";
import { PlanList } from "../plans";
import steps from "../ui/panel.module.css";
import styles from "./ClientCard.module.css";
import { EarlierInstalls } from "./EarlierInstalls";
import { OverTime } from "./OverTime";
import { HairFields } from "../ui/HairFields";
import { choices } from "../ui/hairNames";
import { HairlineFields, usualHairline } from "../ui/HairlineFields";
import { TapeFields } from "../ui/TapeFields";

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
};

/** Opens a client's card, or a new one. */
function ClientCard() {
  const catalogue = useCatalogue();
  const { id, shelf, onMade, opened, isThere, error } = useCard<ClientDraft, ClientDocument>(
    clientKind,
    "clients",
    useOpenedClient,
  );
  const trouble = catalogue.error ?? error;
  if (id === "new") return <Navigate to={newAddress("clients")} replace />;
  if (!catalogue.data || !isThere)
    return (
      <>
        <Header />
        <main className={styles.waiting}>{trouble ? <Trouble error={trouble} /> : <Skeleton active />}</main>
      </>
    );
  return <Card key={id} id={id} catalogue={catalogue.data} opened={opened} shelf={shelf} onMade={onMade} />;
}

interface CardProps {
  id: string;
  catalogue: Catalogue;
  opened: ClientDocument | undefined;
  shelf: ShelfPlace<ClientDraft>;
  onMade: (client: Stored) => void;
}

const noNote = () => undefined;

/** The card: the head on one side, what is known of the client on the other. */
function Card({ id, catalogue, opened, shelf, onMade }: CardProps) {
  const autosave = useAutosave<ClientDraft>(
    { id, opened: opened && { ...opened, draft: draftOf(opened) }, start: newClient, shelf },
    clientKeeper,
  );
  const { draft, change, undo, redo, replace, canUndo, canRedo } = useUndoable(autosave.first, noNote);
  const onSaved = useCallback(
    (stored: Stored, created: boolean) => {
      void queryClient.invalidateQueries({ queryKey: ["clients"] });
      void queryClient.invalidateQueries({ queryKey: ["client", stored.id] });
      if (created) onMade(stored);
    },
    [onMade],
  );
  useSaving(autosave, draft, onSaved);
  const state = useSaveState(autosave);
  const errors = state.kind === "refused" ? state.fields : {};
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
    <div className={styles.card}>
      <Header back={{ to: "/clients", label: "Clients" }}>
        <Input
          className={styles.name ?? ""}
          variant="borderless"
          placeholder="Name of the client"
          aria-label="Name of the client"
          autoFocus={!opened}
          value={draft.name}
          maxLength={120}
          readOnly={!mayChange}
          onChange={(event) => change("name", (d) => ({ ...d, name: event.target.value }))}
        />
        {mayChange && <SaveNote autosave={autosave} />}
        <UndoRedo canUndo={canUndo} canRedo={canRedo} undo={undo} redo={redo} />
      </Header>
      <main className={styles.main}>
        <div className={styles.head}>
          {state.kind === "stale" && (
            <CardSavedElsewhere key={state.times} autosave={autosave} replace={replace} />
          )}
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
        <FieldErrors value={{ ...errors, ...renamed(tapesRefused) }}>
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
    </div>
  );
}

/** Someone else saved the card: the one to keep is held against the one that was read here. */
function CardSavedElsewhere({
  autosave,
  replace,
}: {
  autosave: Autosave<ClientDraft>;
  replace: (draft: ClientDraft) => void;
}) {
  const found = useQuery({
    queryKey: ["savedElsewhere", autosave.id],
    queryFn: () => server.client(autosave.id),
    staleTime: Infinity,
    gcTime: 0,
  });
  const theirs = useTakeTheirs(autosave, replace);
  const error = theirs.error ?? found.error;
  const stored = found.data;
  return (
    <>
      <Alert
        type="warning"
        showIcon
        title={
          stored
            ? `This card was saved elsewhere ${when(stored.updated)}, since you opened it.`
            : "This card was saved elsewhere since you opened it."
        }
        action={
          <div className={styles.choice}>
            <Button loading={theirs.isPending} onClick={() => theirs.mutate()}>
              Go on with that one
            </Button>
            <Button
              type="primary"
              disabled={!stored}
              onClick={() => stored && void autosave.keepMine(stored.version)}
            >
              Keep mine
            </Button>
          </div>
        }
      />
      {error && <Trouble error={error} retry={() => void found.refetch()} />}
    </>
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
        Write down the tapes
      </Button>
    )}
  </div>
);

interface FactsProps {
  facts: Facts;
  set: (control: string | null, part: Partial<Facts>) => void;
}

function HairFacts({ facts, set }: FactsProps) {
  const { hair } = facts;
  return (
    <section>
      <h2>The client’s hair, stretched</h2>
      <HairFields
        hair={hair}
        mayBeOpen
        onChange={(control, part) => set(control, { hair: { ...hair, ...part } })}
      />
    </section>
  );
}

const events: Record<Facts["history"][number], string> = {
  "sore-scalp": "Sore, broken or infected scalp",
  "hair-loss": "Hair loss",
  chemical: "Recent chemical service",
  "product-allergy": "Product allergy",
  "fibre-itch": "Itched from fibre coating",
  "pain-before": "An earlier install hurt",
  "heat-damage": "Heat damage",
};

function CautionFacts({ facts, set }: FactsProps) {
  return (
    <section>
      <h2>What calls for caution</h2>
      <p className={steps.lead}>
        Every plan for the client shows what these mean. They are usual practice, not medical advice: with
        sore scalp or hair loss, refer to a clinician.
      </p>
      <Select
        mode="multiple"
        aria-label="What calls for caution"
        placeholder="Nothing known"
        value={facts.history}
        options={choices(events)}
        onChange={(history: Facts["history"]) => set(null, { history })}
      />
    </section>
  );
}

/** What is kept of a client only with consent. */
const keepings = [
  { key: "health", label: "Notes on scalp and hair", note: "what is seen while a head is worn" },
  { key: "photos", label: "Pictures", note: "each is asked for once more when it is taken" },
] as const;

function PersonFacts({ facts, set }: FactsProps) {
  const { consent } = facts;
  const agree = (control: string | null, part: Partial<Facts["consent"]>) =>
    set(control, { consent: { ...consent, ...part } });
  return (
    <section>
      <h2>The person</h2>
      <LengthField
        label="Height, standing"
        path="statureMm"
        empty
        mm={facts.statureMm}
        onChange={(statureMm) => set("stature", { statureMm })}
      />
      <label className={steps.stack}>
        <span>How to reach the client</span>
        <Input
          value={facts.contact}
          maxLength={200}
          onChange={(event) => set("contact", { contact: event.target.value })}
        />
      </label>
      <label className={steps.stack}>
        <span>
          Guardian <small>for a child: who decides</small>
        </span>
        <Input
          value={facts.guardian}
          maxLength={120}
          onChange={(event) => set("guardian", { guardian: event.target.value })}
        />
      </label>
      <label className={steps.stack}>
        <span>Notes</span>
        <Input.TextArea
          value={facts.notes}
          maxLength={4000}
          rows={4}
          onChange={(event) => set("notes", { notes: event.target.value })}
        />
      </label>
      <Toggle
        label="Consent given"
        note="to the work and to keeping these notes; rules differ by place"
        checked={consent.given}
        onChange={(given) => agree(null, { given, on: given ? localDay() : "" })}
      />
      {consent.given && (
        <>
          <label className={steps.stack}>
            <span>On</span>
            <Input
              type="date"
              value={consent.on}
              onChange={(event) => agree("consent.on", { on: event.target.value })}
            />
          </label>
          <label className={steps.stack}>
            <span>To what</span>
            <Input
              value={consent.covers}
              maxLength={500}
              onChange={(event) => agree("consent.covers", { covers: event.target.value })}
            />
          </label>
          {keepings.map(({ key, label, note }) => (
            <Toggle
              key={key}
              label={label}
              note={note}
              checked={!consent.withheld?.includes(key)}
              onChange={(agreed) => {
                const others = (consent.withheld ?? []).filter((k) => k !== key);
                agree(null, { withheld: agreed ? others : [...others, key] });
              }}
            />
          ))}
        </>
      )}
    </section>
  );
}

function TheirPlans({ id }: { id: string }) {
  const plans = usePlans(id);
  const navigate = useNavigate();
  return (
    <div>
      <div className={styles.plansTop}>
        <h2>Plans</h2>
        <Button
          type="primary"
          size="large"
          icon={<PlusOutlined />}
          onClick={() => void navigate(newAddress("plans", { client: id }))}
        >
          New plan for this client
        </Button>
      </div>
      {plans.items?.length === 0 && (
        <p className={steps.lead}>None yet. A new one begins with the tapes and the hair on this card.</p>
      )}
      <PlanList plans={plans.items ?? []} />
      <MoreButton more={plans.more} busy={plans.fetchingMore} />
    </div>
  );
}

interface KeepingProps {
  id: string;
  draft: ClientDraft;
  change: ChangeDraft<ClientDraft>;
  save: () => Promise<void>;
}

/** Archive, hand out, delete. */
function Keeping({ id, draft, change, save }: KeepingProps) {
  const { modal, message } = App.useApp();
  const navigate = useNavigate();
  const owner = useMay("deleteClient");
  const remove = useChange(server.removeClient, "clients", "plans");
  const ask = () =>
    modal.confirm({
      title: `Delete ${draft.name} and all their plans?`,
      content:
        "The card, the plans and their history are gone for good. To keep them out of the way, archive the card instead.",
      okText: "Delete for good",
      okButtonProps: { danger: true },
      onOk: () =>
        remove
          .mutateAsync(id)
          .then((remains) => {
            void navigate("/clients");
            const says = remainsText(remains);
            if (says.length > 0)
              modal.info({ title: "Deleted. What remains:", content: says.map((x) => <p key={x}>{x}</p>) });
          })
          .catch((e: unknown) => void message.error(toldOf(e))),
    });
  const hand = async () => {
    await save();
    download(`/api/v1/clients/${id}/export`);
  };
  return (
    <div className={styles.keeping}>
      <Button icon={<DownloadOutlined />} onClick={() => void hand()}>
        All that is held about the client, as a file
      </Button>
      <Button icon={<InboxOutlined />} onClick={() => change(null, (d) => ({ ...d, archived: !d.archived }))}>
        {draft.archived ? "Bring back from the archive" : "Archive the card"}
      </Button>
      {owner && (
        <Button danger icon={<DeleteOutlined />} onClick={() => void ask()}>
          Delete for good
        </Button>
      )}
      <Link to="/clients">All clients</Link>
    </div>
  );
}

export default ClientCard;
