import { memo } from "react";
import type { Layout } from "../../api/types";
import { usePreferences } from "../../lib/preferences";
import { area } from "../../lib/units";
import styles from "../../ui/panel.module.css";

/** Left against right, in front and behind. */
export const Balance = memo(function Balance({ balance }: { balance: Layout["balance"] }) {
  const unit = usePreferences((p) => p.unit);
  const half = ({ sections, areaMm2 }: { sections: number; areaMm2: number }) =>
    sections === 0 ? (
      "–"
    ) : (
      <>
        {sections} <small>{area(areaMm2, unit)}</small>
      </>
    );
  const crosses = balance.some((b) => b.middle.sections > 0);
  return (
    <table className={`${styles.table} ${styles.figures}`}>
      <thead>
        <tr>
          <th scope="col">Balance</th>
          <th scope="col">Client’s left</th>
          {crosses && <th scope="col">Middle</th>}
          <th scope="col">Client’s right</th>
        </tr>
      </thead>
      <tbody>
        {balance.map((b) => (
          <tr key={b.place}>
            <th scope="row">{b.place === "front" ? "Front" : "Back"}</th>
            <td>{half(b.left)}</td>
            {crosses && <td>{half(b.middle)}</td>}
            <td>{half(b.right)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
});
