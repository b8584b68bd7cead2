import { memo } from "react";
import type { Cornrow, Hook, Layout } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { length } from "../../../lib/units";
import { zoneName } from "../../../head";
import styles from "../../../ui/panel.module.css";
import { countOf } from "../../../lib/countOf";

/** How many hooks lie on a side of the head, 1 left and -1 right; 0 on its middle. */
const sideOf = (hooks: readonly Hook[], side: -1 | 0 | 1) =>
  hooks.filter((h) => (Math.abs(h.at[1]) <= 1 ? 0 : Math.sign(h.at[1])) === side).length;

/** Every cornrow with its length and pieces, and the tails that are left. */
export const CornrowTable = memo(function CornrowTable({ layout }: { layout: Layout }) {
  const unit = usePreferences((p) => p.unit);
  if (layout.tracks.length + layout.nets.length === 0) return null;
  const zones = [...new Set([...layout.tracks, ...layout.nets].map((t) => t.zone))];
  const tails = layout.tracks.filter((t) => !t.into && !t.fed).length;
  const whole = layout.tracks.reduce((sum, t) => sum + t.lengthMm, 0);
  const written = (t: Cornrow) => `${length(t.lengthMm, unit)}${t.merged && t.into ? ` into ${t.into}` : ""}`;
  return (
    <>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">{layout.nets.length > 0 ? "Under the net" : "Cornrows"}</th>
            <th scope="col">Pieces on each, from the left</th>
            <th scope="col">In all</th>
          </tr>
        </thead>
        <tbody>
          {zones.map((zone) => {
            const own = layout.tracks.filter((t) => t.zone === zone);
            const net = layout.nets.find((n) => n.zone === zone);
            return (
              <tr key={zone}>
                <th scope="row">{zoneName(zone)}</th>
                <td className={styles.rows}>
                  {net
                    ? `left ${sideOf(net.hooks, 1)}, right ${sideOf(net.hooks, -1)}, middle ${sideOf(net.hooks, 0)}`
                    : own.map((t) => t.hooks.length).join(" · ")}
                  <small>
                    {net && net.plaits.length > 0
                      ? `${countOf(net.plaits.length, "small plait")} under it`
                      : own.map(written).join(" · ")}
                  </small>
                </td>
                <td>{net ? net.hooks.length : own.reduce((sum, t) => sum + t.hooks.length, 0)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {layout.tracks.length > 0 && (
        <p className={styles.lead}>
          {countOf(layout.tracks.length, "cornrow")}, {length(whole, unit)} to plait.{" "}
          {tails > 0 &&
            countOf(tails, "tail is left to tuck or stitch.", "tails are left to tuck or stitch.")}
        </p>
      )}
    </>
  );
});
