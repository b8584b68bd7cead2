import { Button, Select } from "antd";
import { useState } from "react";
import { server } from "../../api/client";
import { useChange, useKnownCatalogue } from "../../api/queries";
import type { AskedWay, Proposal, Wished } from "../../api/types";
import { usePreferences } from "../../lib/preferences";
import { hours, length } from "../../lib/units";
import { said, type Unsaid } from "../../lib/said";
import { countOf } from "../../lib/countOf";
import { Trouble } from "../../ui/Trouble";
import { structures } from "../parting";
import { GivesAndTakes } from "./GivesAndTakes";
import styles from "./Proposals.module.css";

/** Why something else was not proposed: it is worked out when it is asked for. */
export function WhyNot({ wished, instead }: { wished: Wished; instead: Proposal }) {
  const catalogue = useKnownCatalogue();
  const unit = usePreferences((p) => p.unit);
  const [asked, setAsked] = useState<AskedWay>({});
  const why = useChange((way: AskedWay) =>
    server.whyNot({ wished, asked: way, instead: instead.facts }, AbortSignal.timeout(15_000)),
  );
  const named = Object.keys(asked).length > 0;
  const put = (part: Unsaid<AskedWay>) => setAsked((before) => said<AskedWay>({ ...before, ...part }));
  const methods = catalogue.methods.filter((m) => m.grounds.includes("plait"));
  const answer = why.data;
  return (
    <section className={styles.why} aria-label="Why not something else">
      <h4>Why not …?</h4>
      <Select
        aria-label="Why not this structure"
        allowClear
        placeholder="Structure"
        value={asked.base ?? null}
        options={Object.entries(structures).map(([value, s]) => ({ value, label: s.name }))}
        onChange={(base?: string) => put({ base: base as AskedWay["base"] })}
      />
      <Select
        aria-label="Why not this size"
        allowClear
        placeholder="Size"
        value={asked.sizeMm ?? null}
        options={catalogue.sizes.presets.map((s) => ({
          value: s.sizeMm,
          label: length(s.sizeMm, unit),
        }))}
        onChange={(sizeMm?: number) => put({ sizeMm })}
      />
      <Select
        aria-label="Why not this method"
        allowClear
        placeholder="Method"
        value={asked.method ?? null}
        options={methods.map((m) => ({ value: m.id, label: m.name }))}
        onChange={(method?: string) => put({ method: method as AskedWay["method"] })}
      />
      <Button size="large" disabled={!named} loading={why.isPending} onClick={() => why.mutate(asked)}>
        Ask
      </Button>
      {why.error && <Trouble error={why.error} />}
      {answer && (
        <div className={styles.whySays} role="status">
          <p>{answer.says}</p>
          {answer.facts && (
            <span>
              {structures[answer.facts.structure].name}: {hours(answer.facts.minutes)},{" "}
              {countOf(answer.facts.pieces, "piece")}, {countOf(answer.facts.packs, "pack")}
            </span>
          )}
          <GivesAndTakes breaks={answer.breaks} gains={answer.gains} loses={answer.loses} />
        </div>
      )}
    </section>
  );
}
