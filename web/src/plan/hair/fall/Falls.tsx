import { PlusOutlined } from "@ant-design/icons";
import { Button, Skeleton } from "antd";
import { useDrape, useDrapes } from "../../../api/queries";
import type { Drape, PlanInput, Showing } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { area, length } from "../../../lib/units";
import panel from "../../../ui/panel.module.css";
import { Trouble } from "../../../ui/Trouble";
import { useAct } from "../../draft/act";
import { actions, type Variant } from "../../draft/actions";
import styles from "./Falls.module.css";
import { FullnessPicture } from "./FullnessPicture";
import { useAsked } from "../../draft/useAsked";
import { drapeKey, styleNames, useWorn } from "../../draft/worn";
import { countOf } from "../../../lib/countOf";

interface Props {
  input: PlanInput;
  variants: readonly Variant[];
}

/** How the hair falls: what will show and how to fill it, and how full it hangs. */
export function Falls({ input, variants }: Props) {
  useAsked(drapeKey);
  const style = useWorn((w) => w.style);
  const { data: drape, error, refetch } = useDrape(input, style);
  return (
    <>
      {error ? (
        <Trouble error={error} retry={() => void refetch()} />
      ) : !drape ? (
        <Skeleton active />
      ) : (
        <>
          <Shows drape={drape} input={input} />
          <Fullness drape={drape} variants={variants} />
        </>
      )}
    </>
  );
}

/** What shows of cornrows and scalp, each with what fills it. */
function Shows({ drape, input }: { drape: Drape; input: PlanInput }) {
  const act = useAct();
  const unit = usePreferences((p) => p.unit);
  const { pointed, set } = useWorn();
  const { shows, bare } = drape.cover;
  const filled = input.fill.at ?? [];
  const point = (s: Showing | undefined) => set({ pointed: s });
  return (
    <section className={styles.shows} aria-label="What shows">
      <h3>{shows.length === 0 ? "Nothing shows that should not" : "Will show"}</h3>
      <p className={panel.lead}>
        {Math.round(100 * bare)} % of the scalp is bare with the hair {styleNames[drape.style].toLowerCase()},
        the parts among it.
      </p>
      <ul>
        {shows.map((s, i) => (
          <li key={`${s.name}${i}`} data-pointed={s === pointed} onPointerEnter={() => point(s)}>
            <button
              type="button"
              onClick={() => point(s === pointed ? undefined : s)}
              onFocus={() => point(s)}
            >
              {s.name}
              <small>{s.kind === "track" ? length(s.lengthMm, unit) : area(s.areaMm2, unit)}</small>
            </button>
            {s.fill.length > 0 ? (
              <Button type="primary" icon={<PlusOutlined />} onClick={() => act(actions.fillAt(s.fill))}>
                Fill here: {countOf(s.fill.length, "piece")}
              </Button>
            ) : (
              <p>{s.remedy}</p>
            )}
          </li>
        ))}
      </ul>
      {filled.length > 0 && (
        <p className={styles.filled}>
          {countOf(filled.length, "piece fills", "pieces fill")} thin spots; they are counted, bought and
          weighed.
          <Button onClick={() => act(actions.setFill(null, { at: [] }))}>Take them out</Button>
        </p>
      )}
    </section>
  );
}

const layers = (n: number) => n.toFixed(1);

/** What a number of layers looks like. */
const fullWord = (n: number) =>
  n < 0.9 ? "gaps between the pieces" : n < 1.4 ? "a thin curtain" : n < 2.2 ? "full" : "very full";

/** How full it hangs, beside the states that are pinned. */
function Fullness({ drape, variants }: { drape: Drape; variants: readonly Variant[] }) {
  const readable = variants.flatMap((v) => (v.input ? [{ name: v.name, input: v.input }] : []));
  const others = useDrapes(readable.map((v) => v.input));
  const compared = readable.flatMap((v, i) => {
    const data = others[i]?.data;
    return data ? [{ name: v.name, drape: data }] : [];
  });
  return (
    <section className={styles.fullness} aria-label="Fullness">
      <h3>Fullness</h3>
      <FullnessPicture drape={drape} others={compared.map((c) => c.drape)} />
      <table className={panel.table}>
        <thead>
          <tr>
            <th>Pieces over one another</th>
            <th>at the chin</th>
            <th>at the shoulder</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th>This plan</th>
            <td>{layers(drape.chin.layers)}</td>
            <td>{layers(drape.shoulder.layers)}</td>
          </tr>
          {compared.map((c) => (
            <tr key={c.name}>
              <th>{c.name}</th>
              <td>{layers(c.drape.chin.layers)}</td>
              <td>{layers(c.drape.shoulder.layers)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={panel.lead}>
        At the chin: {fullWord(drape.chin.layers)}.{" "}
        {readable.length === 0
          ? "Pin a state under Parting, Compare, and its outline stands here beside this one."
          : "Dashed: the states that are pinned."}
      </p>
    </section>
  );
}
