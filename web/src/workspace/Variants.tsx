import { DeleteOutlined, PushpinOutlined, SwapOutlined } from "@ant-design/icons";
import { Button, Input } from "antd";
import { useState } from "react";
import type { ChangeDraft } from "../app/undoable";
import { CompareVariants } from "./CompareVariants";
import type { Draft } from "./draft";
import { patternNames } from "./patterns";
import styles from "./Variants.module.css";

const mostVariants = 6;

/** A name for a state, from what tells it best: "Brick, 98 sections". */
function nameOf(draft: Draft, sections: number): string {
  const { front, back } = draft.input.parting;
  const pattern =
    front.pattern === back.pattern
      ? patternNames[front.pattern]
      : `${patternNames[front.pattern]} and ${patternNames[back.pattern].toLowerCase()}`;
  return `${pattern}, ${sections} sections`;
}

interface Props {
  draft: Draft;
  sections: number;
  change: ChangeDraft<Draft>;
}

/** States pinned beside the plan, to be compared and chosen from. */
export function Variants({ draft, sections, change }: Props) {
  const [comparing, setComparing] = useState(false);
  const variants = draft.variants ?? [];
  const put = (control: string | null, next: NonNullable<Draft["variants"]>) =>
    change(control, (d) => ({ ...d, variants: next }));
  return (
    <section>
      <h2>Variants</h2>
      {variants.length === 0 && (
        <p className={styles.lead}>
          Pin the plan as it is, change it, and compare: brick at 1¼ in against grid at 1 in.
        </p>
      )}
      <ul className={styles.variants}>
        {variants.map((v, i) => (
          <li key={i}>
            <Input
              aria-label={`Name of variant ${i + 1}`}
              value={v.name}
              maxLength={80}
              onChange={(event) =>
                put(
                  `variants.${i}`,
                  variants.map((w, k) => (k === i ? { ...w, name: event.target.value } : w)),
                )
              }
            />
            <Button onClick={() => change(null, (d) => ({ ...d, input: v.input }))}>Use</Button>
            <Button
              icon={<DeleteOutlined />}
              aria-label={`Unpin ${v.name}`}
              onClick={() =>
                put(
                  null,
                  variants.filter((_, k) => k !== i),
                )
              }
            />
          </li>
        ))}
      </ul>
      <div className={styles.tools}>
        <Button
          icon={<PushpinOutlined />}
          disabled={variants.length >= mostVariants}
          onClick={() => put(null, [...variants, { name: nameOf(draft, sections), input: draft.input }])}
        >
          Pin this state
        </Button>
        {variants.length > 0 && (
          <Button type="primary" icon={<SwapOutlined />} onClick={() => setComparing(true)}>
            Compare
          </Button>
        )}
      </div>
      {comparing && (
        <CompareVariants
          draft={draft}
          onChoose={(input) => {
            change(null, (d) => ({ ...d, input }));
            setComparing(false);
          }}
          onClose={() => setComparing(false)}
        />
      )}
    </section>
  );
}
