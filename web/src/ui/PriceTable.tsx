import type { Price } from "../api/types";
import { moneyIn } from "../lib/units";
import panel from "./panel.module.css";
import styles from "./PriceTable.module.css";

/** The price, line by line. */
export function PriceTable({ price, currency }: { price: Price; currency: string }) {
  const money = moneyIn(currency);
  return (
    <table className={`${panel.table} ${styles.price}`}>
      <tbody>
        {price.lines.map((l, i) => (
          <tr key={i}>
            <th>
              {l.name}
              {l.detail && <small>{l.detail}</small>}
            </th>
            <td>{money(l.amountMinor)}</td>
          </tr>
        ))}
        {price.taxPercent > 0 && !price.taxIncluded && (
          <tr>
            <th>
              {price.taxName} {price.taxPercent} %
            </th>
            <td>{money(price.taxMinor)}</td>
          </tr>
        )}
      </tbody>
      <tfoot>
        <tr>
          <th>
            All
            {price.taxPercent > 0 && price.taxIncluded && (
              <small>
                {price.taxName} {price.taxPercent} % in it: {money(price.taxMinor)}
              </small>
            )}
          </th>
          <td>{money(price.totalMinor)}</td>
        </tr>
        {price.depositMinor > 0 && (
          <>
            <tr>
              <th>Deposit, to book the day</th>
              <td>{money(price.depositMinor)}</td>
            </tr>
            <tr>
              <th>Left to pay on the day</th>
              <td>{money(price.restMinor)}</td>
            </tr>
          </>
        )}
      </tfoot>
    </table>
  );
}
