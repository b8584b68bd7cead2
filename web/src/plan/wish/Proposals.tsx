import { Alert, Button, Checkbox, Modal, Progress, Skeleton } from "antd";
import { useMemo, useState } from "react";
import { useDrape, useKnownCatalogue, useMoney, usePreview, useProposals } from "../../api/queries";
import type {
  PlanInput,
  PlanResult,
  Proposal,
  ProposalAnswer,
  SearchProgress,
  Wished,
} from "../../api/types";
import { countOf } from "../../lib/countOf";
import { usePreferences } from "../../lib/preferences";
import { hours, length, weight } from "../../lib/units";
import { Trouble } from "../../ui/Trouble";
import {
  cameraAt,
  DrapePicture,
  HeadPicture,
  pictured,
  startStance,
  views,
  type Box,
  type Stance,
} from "../../head";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import { useBench } from "../draft/onBench";
import { structures } from "../parting";
import { drapeBox } from "../hair";
import { GivesAndTakes } from "./GivesAndTakes";
import { WhyNot } from "./WhyNot";
import { isMeasured } from "./measured";
import styles from "./Proposals.module.css";

const names: Record<Proposal["key"], string> = { quick: "Quick", balanced: "Balanced", full: "Full" };

type History = Wished["history"][number];

/** Plans that meet the wish, side by side; the one that is chosen becomes the plan. */
export function Proposals({ onClose }: { onClose: () => void }) {
  const { draft } = useBench();
  const act = useAct();
  const catalogue = useKnownCatalogue();
  const [health, setHealth] = useState<{ asked: boolean; history: History[]; read: string[] }>({
    asked: false,
    history: [],
    read: [],
  });
  const [input, setInput] = useState(draft.input);
  const wished = useMemo(
    (): Wished => ({
      input,
      ...(draft.clientId && { clientId: draft.clientId }),
      measured: draft.clientId !== undefined || isMeasured(input, catalogue),
      ...health,
    }),
    [input, draft.clientId, catalogue, health],
  );
  const { answer, progress, error } = useProposals(wished);
  const take = (next: PlanInput) => {
    act(actions.bringBack(next));
    onClose();
  };
  return (
    <Modal
      open
      centered
      title="Proposals"
      width={1160}
      footer={null}
      onCancel={onClose}
      className={styles.modal ?? ""}
    >
      {error && <Trouble error={error} />}
      {!answer && !error && <Searching progress={progress} />}
      {answer && (
        <Answered
          answer={answer}
          wished={wished}
          onTake={take}
          onHealth={(asked) => setHealth((h) => ({ ...h, asked: true, history: asked }))}
          onRead={(key) => setHealth((h) => ({ ...h, read: [...h.read, key] }))}
          onWish={(wanted) => {
            const next = { ...input, wanted };
            act(actions.setWanted(null, wanted));
            setInput(next);
          }}
        />
      )}
    </Modal>
  );
}

function Searching({ progress }: { progress: SearchProgress | undefined }) {
  const all = progress ? progress.toLay + 2 * progress.toHang : 0;
  const done = progress ? progress.laid + 2 * progress.draped : 0;
  return (
    <div role="status">
      <p>
        {progress
          ? `${countOf(progress.laid, "head")} laid out, ${countOf(progress.rated, "plan")} rated, ${progress.draped} hung`
          : "Looking for plans that meet the wish"}
      </p>
      <Progress percent={all > 0 ? Math.min(99, Math.round((100 * done) / all)) : 0} showInfo={false} />
      <Skeleton active />
    </div>
  );
}

interface AnsweredProps {
  answer: ProposalAnswer;
  wished: Wished;
  onTake: (input: PlanInput) => void;
  onHealth: (history: History[]) => void;
  onRead: (key: string) => void;
  onWish: (wanted: NonNullable<PlanInput["wanted"]>) => void;
}

/** What came of a wish: questions, stops, proposals, or what would have to give. */
function Answered({ answer, wished, onTake, onHealth, onRead, onWish }: AnsweredProps) {
  const [named, setNamed] = useState<History[]>([]);
  if (answer.asks === "health")
    return (
      <section aria-label="Health first">
        <p>Before anything is proposed: is any of this so on this head?</p>
        {answer.questions.map((q) => (
          <p key={q.key}>
            <Checkbox
              checked={named.includes(q.key)}
              onChange={(e) =>
                setNamed((n) => (e.target.checked ? [...n, q.key] : n.filter((key) => key !== q.key)))
              }
            >
              {q.text}
            </Checkbox>
          </p>
        ))}
        <Button type="primary" size="large" onClick={() => onHealth(named)}>
          {named.length === 0 ? "None of these" : "Go on"}
        </Button>
      </section>
    );
  if (answer.asks === "look") return <p>Choose a look first.</p>;
  if (answer.stops.length > 0)
    return (
      <section aria-label="Settle this first">
        {answer.stops.map((s) => (
          <Alert
            key={s.key}
            type="warning"
            showIcon
            title={s.says}
            action={
              <Button onClick={() => onRead(s.key)} aria-label={`Read: ${s.says}`}>
                It is settled
              </Button>
            }
          />
        ))}
        <p>Nothing is proposed before this is settled. Ask again once it is.</p>
      </section>
    );
  const first = answer.proposals[0];
  return (
    <>
      {answer.proposals.length > 0 && (
        <div
          className={styles.cards}
          data-count={answer.proposals.length}
          tabIndex={0}
          role="group"
          aria-label="Proposals"
        >
          {answer.proposals.map((p) => (
            <Card key={p.key} proposal={p} onTake={() => onTake(p.input)} />
          ))}
        </div>
      )}
      {answer.proposals.length === 2 && <p>Only two of the plans that meet the wish differ.</p>}
      {answer.proposals.length === 1 && <p>Only one plan meets the wish.</p>}
      {answer.proposals.length === 0 && <Gives answer={answer} onWish={onWish} onTake={onTake} />}
      <Sizes answer={answer} />
      {answer.says.length > 0 && (
        <ul className={styles.notes}>
          {answer.says.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ul>
      )}
      {first && <WhyNot wished={wished} instead={first} />}
    </>
  );
}

const headBox: Box = [-128, -122, 256, 250];

function Card({ proposal, onTake }: { proposal: Proposal; onTake: () => void }) {
  const { facts: f } = proposal;
  const money = useMoney();
  const unit = usePreferences((p) => p.unit);
  const figures: [string, string][] = [
    ["Time", hours(f.minutes)],
    ["Sittings", String(f.sittings)],
    ["Pieces", `${f.pieces} + ${f.spares} spare`],
    ["Packs", String(f.packs)],
    ["Cost", money(f.costMinor)],
    ["Weight", weight(f.weightG, unit)],
    ["Worn", countOf(f.weeks, "week")],
    ["Off in", hours(f.offMin)],
    ["Comes to", f.lands.replace("-", " ")],
    ["Hands", String(f.hands)],
  ];
  return (
    <section className={styles.card} aria-label={names[proposal.key]} data-proposal={proposal.key}>
      <h3>{names[proposal.key]}</h3>
      <p className={styles.title}>
        {structures[f.structure].name}
        {f.sections > 0 && `, ${f.sections} sections of ${length(f.sizeMm, unit)}`}
        {f.hooked > 0 && `, ${f.hooked} hooked on`} · {f.piece}
        {f.method && `, ${f.method.toLowerCase()}`}
      </p>
      <Pictures input={proposal.input} />
      <dl className={styles.figures}>
        {figures.map(([name, text]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{text}</dd>
          </div>
        ))}
      </dl>
      <Button type="primary" size="large" block onClick={onTake}>
        Choose this one
      </Button>
      {proposal.against.map((a) => (
        <div key={a.key}>
          <strong>Against {names[a.key].toLowerCase()}</strong>
          <GivesAndTakes gains={a.gains} loses={a.loses} />
        </div>
      ))}
      <ul className={styles.says}>
        {[...proposal.more, ...proposal.says].map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ul>
    </section>
  );
}

/** The parted head of a plan, and its hair as it hangs, from behind. */
function Pictures({ input }: { input: PlanInput }) {
  const result = usePreview(input).answer?.result;
  return (
    <div className={styles.pictures}>
      {result ? <Heads input={input} result={result} /> : <Skeleton.Node active />}
    </div>
  );
}

const behind: Stance = { ...startStance, lon: views.back.lon, lat: views.back.lat };

function Heads({ input, result: { head, layout } }: { input: PlanInput; result: PlanResult }) {
  const style = input.wanted?.style || "down";
  const { data: drape } = useDrape(input, style);
  const picture = useMemo(() => pictured(head, layout), [head, layout]);
  const camera = useMemo(() => cameraAt(head.axesMm, startStance), [head]);
  const back = useMemo(() => cameraAt(head.axesMm, behind), [head]);
  const pieces = useMemo(() => input.pieces.map(({ form, swatch }) => ({ form, swatch })), [input.pieces]);
  return (
    <>
      <div role="img" aria-label="Its parted head">
        <HeadPicture pictured={picture} camera={camera} box={headBox} detail="small" />
      </div>
      <div role="img" aria-label="How its hair hangs, from behind">
        {drape && (
          <DrapePicture
            drape={drape}
            pieces={pieces}
            pictured={picture}
            stance={behind}
            camera={back}
            box={drapeBox(drape)}
            moving={false}
            small
          />
        )}
      </div>
    </>
  );
}

/** Nothing meets the wish: the smallest changes that would. */
function Gives({
  answer,
  onWish,
  onTake,
}: {
  answer: ProposalAnswer;
  onWish: AnsweredProps["onWish"];
  onTake: AnsweredProps["onTake"];
}) {
  if (answer.gives.length === 0)
    return (
      <p>
        Nothing on offer meets this, nor nearly: another look, another length, or more hair to choose from.
      </p>
    );
  return (
    <>
      <p>Nothing meets all of the wish. Each of these changes alone would do:</p>
      <ul className={styles.gives}>
        {answer.gives.map((g) => (
          <li key={`${g.says} ${g.title}`}>
            <div>
              <strong>{g.says}</strong>
              <span>
                {structures[g.facts.structure].name}, {g.facts.piece}: {hours(g.facts.minutes)},{" "}
                {countOf(g.facts.pieces, "piece")}, {countOf(g.facts.packs, "pack")}
              </span>
            </div>
            <span>
              <Button type="primary" onClick={() => onWish(g.wish)}>
                Change the wish
              </Button>{" "}
              <Button onClick={() => onTake(g.input)}>Take this plan</Button>
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What a word for a size comes to on heads nobody measured. */
function Sizes({ answer }: { answer: ProposalAnswer }) {
  const unit = usePreferences((p) => p.unit);
  if (answer.sizes.length === 0) return null;
  return (
    <Alert
      type="info"
      showIcon
      title="No tapes yet: these figures are rough. Buy nothing before the three tapes."
      description={
        <ul className={styles.says}>
          {answer.sizes.map((s) => (
            <li key={s.sizeMm}>
              {s.says}, {length(s.sizeMm, unit)}:{" "}
              {s.on
                .map((h) => `${h.head.toLowerCase()} ${h.sections} (${countOf(h.packs, "pack")})`)
                .join(", ")}
              . {s.tape}
            </li>
          ))}
        </ul>
      }
    />
  );
}
