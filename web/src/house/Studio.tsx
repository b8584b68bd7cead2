import { Alert, Select, Skeleton } from "antd";
import { useCatalogue, useMoney } from "../api/queries";
import { omit } from "../lib/omit";
import { toldOf, Trouble } from "../ui/Trouble";
import styles from "./HouseRulesPage.module.css";
import { useHouseRules } from "./useHouseRules";

const currencyNames = new Intl.DisplayNames(undefined, { type: "currency" });

/** What is kept for a time only, then deleted by itself. */
const keeps = [
  { key: "photoMonths", label: "Pictures of heads are kept" },
  { key: "healthMonths", label: "Notes on scalp and hair are kept" },
] as const;

/** What holds for all plans of the studio. */
export function Studio() {
  const catalogue = useCatalogue();
  const money = useMoney();
  const { house, data, maySet, save, set } = useHouseRules();
  return (
    <section className={styles.sheet}>
      <h2>The studio</h2>
      {house.error && <Trouble error={house.error} retry={() => void house.refetch()} />}
      {!data ? (
        <Skeleton active paragraph={{ rows: 1 }} />
      ) : (
        <>
          <label className={styles.rule}>
            <span>Currency of every price</span>
            <Select<string>
              showSearch={{ optionFilterProp: "label" }}
              disabled={!maySet}
              loading={save.isPending}
              value={data.rules.currency}
              options={(catalogue.data?.currencies ?? [data.rules.currency]).map((code) => ({
                value: code,
                label: `${code} · ${currencyNames.of(code) ?? code}`,
              }))}
              onChange={(currency) => set((rules) => ({ ...rules, currency }))}
            />
          </label>
          <label className={styles.rule}>
            <span>Chairs that can be sat on at once</span>
            <Select<number>
              disabled={!maySet}
              value={data.rules.chairs ?? 1}
              options={Array.from({ length: 12 }, (_, i) => ({
                value: i + 1,
                label: i === 0 ? "1 chair" : `${i + 1} chairs`,
              }))}
              onChange={(chairs) => set((rules) => ({ ...rules, chairs }))}
            />
          </label>
          <label className={styles.rule}>
            <span>The studio’s clock</span>
            <Select<string>
              showSearch={{ optionFilterProp: "label" }}
              disabled={!maySet}
              value={data.rules.zone ?? ""}
              options={[
                { value: "", label: "This machine’s" },
                ...Intl.supportedValuesOf("timeZone").map((zone) => ({
                  value: zone,
                  label: zone.replaceAll("_", " "),
                })),
              ]}
              onChange={(zone) => set((rules) => ({ ...omit(rules, "zone"), ...(zone !== "" && { zone }) }))}
            />
          </label>
          <label className={styles.rule}>
            <span>Paper</span>
            <Select<string>
              disabled={!maySet}
              value={data.rules.paper ?? ""}
              options={[
                { value: "", label: "As each reader prefers" },
                { value: "letter", label: "Letter" },
                { value: "a4", label: "A4" },
              ]}
              onChange={(paper) =>
                set((rules) => ({
                  ...omit(rules, "paper"),
                  ...((paper === "letter" || paper === "a4") && { paper }),
                }))
              }
            />
          </label>
          {keeps.map(({ key, label }) => (
            <label key={key} className={styles.rule}>
              <span>{label}</span>
              <Select<number>
                disabled={!maySet}
                value={data.rules.keeps?.[key] ?? 0}
                options={[0, 3, 6, 12, 24, 60].map((months) => ({
                  value: months,
                  label: months === 0 ? "Until they are deleted" : `${months} months after the install`,
                }))}
                onChange={(months) =>
                  set((rules) => ({
                    ...rules,
                    keeps: { photoMonths: 0, healthMonths: 0, ...rules.keeps, [key]: months },
                  }))
                }
              />
            </label>
          ))}
          <p className={styles.note}>
            A pack of {money(1250)} is what it is now; changing the currency changes no number.
            {!maySet && " Only an owner sets the house rules."}
          </p>
        </>
      )}
      {save.error && <Alert type="error" showIcon title={toldOf(save.error)} />}
    </section>
  );
}
