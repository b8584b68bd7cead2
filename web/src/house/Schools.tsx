import { Alert, Skeleton } from "antd";
import { useCatalogue } from "../api/queries";
import { ChoiceField } from "../ui/fields";
import { toldOf } from "../ui/Trouble";
import styles from "./HouseRulesPage.module.css";
import { useHouseRules } from "./useHouseRules";

/** The questions on which practitioners disagree, with the side the studio takes. */
export function Schools() {
  const catalogue = useCatalogue();
  const { data, maySet, save, set } = useHouseRules();
  return (
    <section className={`${styles.sheet} ${styles.wide}`} aria-label="How this house works">
      <h2>How this house works</h2>
      <p className={styles.note}>
        Good practitioners disagree on these. New plans start as the house does it; a plan may differ, and
        says so.
      </p>
      {!data || !catalogue.data ? (
        <Skeleton active paragraph={{ rows: 4 }} />
      ) : (
        <div className={styles.schools}>
          {catalogue.data.schools.map((s) => (
            <ChoiceField
              key={s.key}
              label={s.ask}
              path={`sides.${s.key}`}
              disabled={!maySet || save.isPending}
              value={data.rules.sides?.[s.key] ?? s.usual}
              options={s.sides.map(({ key, name, reason }) => ({
                key,
                name,
                help: `${reason}. Changes ${s.touches.join(", ")}.`,
              }))}
              onChange={(side) => set((rules) => ({ ...rules, sides: { ...rules.sides, [s.key]: side } }))}
            />
          ))}
        </div>
      )}
      {save.error && <Alert type="error" showIcon title={toldOf(save.error)} />}
    </section>
  );
}
