import { DeleteOutlined, PushpinOutlined, SwapOutlined } from "@ant-design/icons";
import { Alert, Button } from "antd";
import Input from "antd/es/input/Input";
import { lazy, memo, Suspense, useState } from "react";
import type { PlanInput } from "../../api/types";
import { useAct } from "../draft/act";
import { actions, mostVariants, type Variant } from "../draft/actions";
import { patternNames } from "./patterns";
import { structures } from "./structures";
import styles from "./Variants.module.css";

const CompareVariants = lazy(async () => ({ default: (await import("./CompareVariants")).CompareVariants }));

/** A name for a state, from what tells it best: "Brick, 98 sections", "Horseshoe, brick, 22 sections". */
function nameOf(input: PlanInput, sections: number, backless: boolean): string {
  const { front, back, structure, part } = input.parting;
  const pattern =
    front.pattern === back.pattern || backless
      ? patternNames[front.pattern]
      : `${patternNames[front.pattern]} and ${patternNames[back.pattern].toLowerCase()}`;
  const base =
    part.kind === "levels" ? "Levels" : structure === "all" ? undefined : structures[structure].name;
  return `${base ? `${base}, ${pattern.toLowerCase()}` : pattern}, ${sections} sections`;
}

interface Props {
  variants: Variant[];
  /** The plan as it is, once it has come to rest. */
  input: PlanInput;
  sections: number;
  /** True where no sections are sized by the back. */
  backless: boolean;
}

/** States pinned beside the plan, to be compared and chosen from. */
export const Variants = memo(function Variants({ variants, input, sections, backless }: Props) {
  const [comparing, setComparing] = useState(false);
  const act = useAct();
  const use = (chosen: PlanInput) => act(actions.bringBack(chosen));
  const readable = variants.flatMap((v) => (v.input ? [{ name: v.name, input: v.input }] : []));
  return (
    <section>
      <h3>Variants</h3>
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
              onChange={(event) => act(actions.renameVariant(i, event.target.value))}
            />
            <Button disabled={!v.input} onClick={() => v.input && use(v.input)}>
              Use
            </Button>
            <Button
              icon={<DeleteOutlined />}
              aria-label={`Unpin ${v.name}`}
              onClick={() => act(actions.unpin(i))}
            />
            {v.trouble && (
              <Alert
                className={styles.trouble ?? ""}
                type="warning"
                showIcon
                title={`This state cannot be ${v.input ? "computed" : "read"} any more: ${v.trouble}`}
              />
            )}
          </li>
        ))}
      </ul>
      <div className={styles.tools}>
        <Button
          icon={<PushpinOutlined />}
          disabled={variants.length >= mostVariants}
          onClick={() => act(actions.pin(nameOf(input, sections, backless)))}
        >
          Pin this state
        </Button>
        {variants.length > 0 && (
          <Button
            type="primary"
            icon={<SwapOutlined />}
            disabled={readable.length === 0}
            onClick={() => setComparing(true)}
          >
            Side by side
          </Button>
        )}
      </div>
      {comparing && (
        <Suspense>
          <CompareVariants
            variants={readable}
            input={input}
            onChoose={(chosen) => {
              use(chosen);
              setComparing(false);
            }}
            onClose={() => setComparing(false)}
          />
        </Suspense>
      )}
    </section>
  );
});
