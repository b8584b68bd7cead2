import { memo } from "react";
import type { Layout, Cornrow } from "../../api/types";
import { usePreferences } from "../../lib/preferences";
import { length } from "../../lib/units";
import { zoneName } from "../../head";
import styles from "../../ui/panel.module.css";
import { countOf } from "../../lib/countOf";

/** Every cornrow with its length and pieces, and the tails that are left. */
export const CornrowTable = memo(function CornrowTable({ layout }: { layout: Layout }) {
  const unit = usePreferences((p) => p.unit);
  if (layout.tracks.length === 0) return null;
  const zones = [...new Set(layout.tracks.map((t) => t.zone))];
  const tails = layout.tracks.filter((t) => !t.into).length;
  const whole = layout.tracks.reduce((sum, t) => sum + t.lengthMm, 0);
  const written = (t: Cornrow) => `${length(t.lengthMm, unit)}${t.merged && t.into ? ` into ${t.into}` : ""}`;
  return (
    <>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">{layout.nets.length > 0 ? "Cornrows under the net" : "Cornrows"}</th>
            <th scope="col">Length of each</th>
            <th scope="col">Pieces</th>
          </tr>
        </thead>
        <tbody>
          {zones.map((zone) => {
            const own = layout.tracks.filter((t) => t.zone === zone);
            const net = layout.nets.find((n) => n.zone === zone);
            return (
              <tr key={zone}>
                <th scope="row">{zoneName(zone)}</th>
                <td className={styles.rows}>{own.map(written).join(" · ")}</td>
                <td>{net ? net.hooks.length : own.reduce((sum, t) => sum + t.hooks.length, 0)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className={styles.lead}>
        {layout.tracks.length} cornrows, {length(whole, unit)} to plait.{" "}
        {countOf(tails, "tail is left to tuck or stitch.", "tails are left to tuck or stitch.")}
      </p>
    </>
  );
});
