import { useQuery } from "@tanstack/react-query";
import { Button, Modal, Select, Skeleton } from "antd";
import { useMemo, useState } from "react";
import { server } from "../../api/client";
import { useMoney, usePreview } from "../../api/queries";
import type { PlanInput, PlanResult, Tally } from "../../api/types";
import { Trouble } from "../../ui/Trouble";
import { hours } from "../../lib/units";
import { cameraAt, HeadPicture, pictured, startStance, type Box } from "../../head";
import { ChangeList } from "../draft/ChangeList";
import styles from "./CompareVariants.module.css";

interface Props {
  variants: { name: string; input: PlanInput }[];
  /** The plan as it is. */
  input: PlanInput;
  onChoose: (input: PlanInput) => void;
  onClose: () => void;
}

/** The plan as it is beside one or two pinned states: heads, figures, warnings, what differs. */
export function CompareVariants({ variants, input, onChoose, onClose }: Props) {
  const [shown, setShown] = useState<number[]>(() => variants.map((_, i) => i).slice(-2));
  const own = usePreview(input);
  return (
    <Modal
      open
      centered
      title="Side by side"
      width={1120}
      footer={null}
      onCancel={onClose}
      className={styles.modal ?? ""}
    >
      {variants.length > 2 && (
        <Select<number[]>
          mode="multiple"
          maxCount={2}
          className={styles.pick ?? ""}
          aria-label="Variants to compare, two at most"
          value={shown}
          options={variants.map((v, i) => ({ value: i, label: v.name }))}
          onChange={setShown}
        />
      )}
      <div className={styles.columns}>
        <Column name="As it is now" input={input} />
        {shown.map((i) => {
          const variant = variants[i];
          return (
            variant && (
              <Column
                key={i}
                name={variant.name}
                input={variant.input}
                against={{ input, tally: own.answer?.result.tally }}
                onChoose={() => onChoose(variant.input)}
              />
            )
          );
        })}
      </div>
    </Modal>
  );
}

interface ColumnProps {
  name: string;
  input: PlanInput;
  /** The plan as it is now, for all columns but its own. */
  against?: { input: PlanInput; tally: Tally | undefined };
  onChoose?: () => void;
}

function Column({ name, input, against, onChoose }: ColumnProps) {
  const { answer, error } = usePreview(input);
  const result = answer?.result;
  const base = against?.input;
  const changes = useQuery({
    queryKey: ["changes", base, input],
    queryFn: () => server.changes({ from: base ?? input, to: input }),
    enabled: base !== undefined,
    staleTime: Infinity,
    gcTime: 0,
  });
  return (
    <section className={styles.column}>
      <h3>{name}</h3>
      {error && <Trouble error={error} />}
      {!result && !error && <Skeleton active />}
      {result && (
        <>
          <Head result={result} />
          <Figures tally={result.tally} against={against?.tally} />
          {onChoose && (
            <Button type="primary" size="large" block onClick={onChoose}>
              Choose this one
            </Button>
          )}
          <h4>{result.notices.length === 0 ? "Nothing to look out for" : "To look at"}</h4>
          <ul className={styles.warnings}>
            {result.notices.map((n) => (
              <li key={n.reason}>
                {n.reason} {n.remedy}
              </li>
            ))}
          </ul>
        </>
      )}
      {changes.data && (
        <>
          <h4>What differs</h4>
          <ChangeList changes={changes.data} none="Nothing: it is the plan as it is now." />
        </>
      )}
    </section>
  );
}

const headBox: Box = [-128, -122, 256, 250];

function Head({ result }: { result: PlanResult }) {
  const { head, layout } = result;
  const picture = useMemo(() => pictured(head, layout), [head, layout]);
  const camera = useMemo(() => cameraAt(head.axesMm, startStance), [head]);
  return (
    <div className={styles.head} role="img" aria-label="Its parted head">
      <HeadPicture pictured={picture} camera={camera} box={headBox} detail="small" />
    </div>
  );
}

function Figures({ tally, against }: { tally: Tally; against: Tally | undefined }) {
  const money = useMoney();
  const figures: { name: string; of: (t: Tally) => number; write: (v: number) => string }[] = [
    { name: "Sections", of: (t) => t.sections, write: String },
    { name: "Pieces", of: (t) => t.pieces, write: String },
    { name: "Packs", of: (t) => t.packs, write: String },
    { name: "Cost", of: (t) => t.costMinor, write: (v) => money(v) },
    { name: "Hours", of: (t) => t.minutes, write: hours },
  ];
  return (
    <dl className={styles.figures}>
      {figures.map(({ name, of, write }) => {
        const by = against ? of(tally) - of(against) : 0;
        const text = write(Math.abs(by));
        return (
          <div key={name}>
            <dt>{name}</dt>
            <dd>
              {write(of(tally))}
              {text !== write(0) && (
                <small>
                  {by > 0 ? "+" : "−"}
                  {text}
                </small>
              )}
            </dd>
          </div>
        );
      })}
    </dl>
  );
}
