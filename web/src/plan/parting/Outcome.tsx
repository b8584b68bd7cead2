import { memo } from "react";
import type { Layout } from "../../api/types";
import { zoneName } from "../../head";
import { usePreferences } from "../../lib/preferences";
import { area, length } from "../../lib/units";
import styles from "../../ui/panel.module.css";
import { Balance } from "./Balance";
import { CornrowTable } from "./base/CornrowTable";
import { countOf } from "../../lib/countOf";

/** The counts and what there is to know about the parts. */
export const Outcome = memo(function Outcome({ layout }: { layout: Layout }) {
  const unit = usePreferences((p) => p.unit);
  const edited = new Set(layout.sections.filter((s) => s.edited).map((s) => `${s.zone}${s.row}`));
  return (
    <>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Zone</th>
            <th scope="col">Sections by row, lowest first</th>
            <th scope="col">All</th>
          </tr>
        </thead>
        <tbody>
          {layout.zones.map((z) => (
            <tr key={z.zone}>
              <th scope="row">{zoneName(z.zone)}</th>
              <td className={styles.rows}>
                {layout.rows
                  .filter((r) => r.zone === z.zone)
                  .map((r) => `${r.sections}${edited.has(`${r.zone}${r.row}`) ? "*" : ""}`)
                  .join(" · ")}
              </td>
              <td>{z.sections}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {edited.size > 0 && <p className={styles.lead}>* joined, split or left out by hand</p>}
      <Balance balance={layout.balance} />
      <CornrowTable layout={layout} />
      <dl className={styles.facts}>
        <dt>Scalp in sections</dt>
        <dd>{area(layout.areaMm2, unit)}</dd>
        {layout.baseAreaMm2 > 0 && (
          <>
            <dt>Scalp on the base</dt>
            <dd>{area(layout.baseAreaMm2, unit)}</dd>
          </>
        )}
        {layout.leftOut.length > 0 && (
          <>
            <dt>Left out</dt>
            <dd>
              {countOf(layout.leftOut.length, "section")}, {area(layout.outAreaMm2, unit)}
            </dd>
          </>
        )}
        <dt>A typical section</dt>
        <dd>{area(layout.areaMm2 / Math.max(1, layout.sections.length), unit)}</dd>
      </dl>
      <dl className={styles.facts}>
        {layout.seams.length > 0 && (
          <>
            <dt>Column seams, both sides</dt>
            <dd>
              {layout.seams
                .filter((s) => !s.zone.endsWith("R") || s.zone === "R")
                .map((s) => `${sideless(s.zone)} above row ${s.belowRow}: ${s.below} to ${s.above}`)
                .join("; ")}
            </dd>
          </>
        )}
        {layout.channels.length > 0 && (
          <>
            <dt>Straight channels</dt>
            <dd>
              {layout.channels.length}, the longest{" "}
              {length(Math.max(...layout.channels.map((c) => c.lengthMm)), unit)}
            </dd>
          </>
        )}
      </dl>
    </>
  );
});

const sideless = (zone: string) => zoneName(zone).split(" ")[0];
