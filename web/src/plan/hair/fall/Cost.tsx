import { DeleteOutlined, FileDoneOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Select, Skeleton } from "antd";
import Input from "antd/es/input/Input";
import { Link } from "react-router";
import { v4 } from "uuid";
import { server } from "../../../api/client";
import {
  useChange,
  useCurrency,
  useHouse,
  useMay,
  useMoney,
  usePeople,
  usePrice,
  useQuotes,
} from "../../../api/queries";
import type { Basis, PlanInput } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { day, minorUnits } from "../../../lib/units";
import { FieldErrorsUnder, NumberField, Toggle } from "../../../ui/fields";
import { BeforeGoingOn } from "../../../ui/BeforeGoingOn";
import panel from "../../../ui/panel.module.css";
import { PriceTable } from "../../../ui/PriceTable";
import { QuoteState } from "../../../ui/QuoteState";
import { toldOf, Trouble } from "../../../ui/Trouble";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";
import type { StoredPlan } from "../../draft/stored";
import styles from "./Cost.module.css";

interface Props {
  plan: StoredPlan;
  input: PlanInput;
}

/** What the install costs, and the quotes given for it. */
export function Cost({ plan, input }: Props) {
  const { data, error, refetch } = usePrice(input);
  const currency = useCurrency();
  if (error) return <Trouble error={error} retry={() => void refetch()} />;
  if (!data) return <Skeleton active />;
  return (
    <>
      <PriceTable price={data} currency={currency} />
      <Basics input={input} />
      <Quotes plan={plan} />
    </>
  );
}

const usualRate = "usual";

/** Whose hour it is, whether hair is brought along, and what comes besides. */
function Basics({ input }: { input: PlanInput }) {
  const act = useAct();
  const money = useMoney();
  const currency = useCurrency();
  const asks = useHouse().data?.asks;
  const people = usePeople().data ?? [];
  const basis: Basis = input.price ?? {};
  const extras = basis.extras ?? [];
  const whole = minorUnits(currency);
  const put = (i: number, group: string, part: Partial<(typeof extras)[number]>) =>
    act(
      actions.setPrice(`extras.${i}.${group}`, {
        extras: extras.map((x, k) => (k === i ? { ...x, ...part } : x)),
      }),
    );
  return (
    <section className={styles.basis} aria-label="What it is priced by">
      <label className={panel.stack}>
        <span>Hourly rate of</span>
        <Select<string>
          value={basis.person ?? usualRate}
          options={[
            { value: usualRate, label: `The studio's hour, ${money(asks?.rateMinor ?? 0)}` },
            ...people.map((p) => ({
              value: p.id,
              label: `${p.name}, ${money(asks?.ratesMinor?.[p.id] ?? asks?.rateMinor ?? 0)} an hour`,
            })),
          ]}
          onChange={(person) => act(actions.setPrice(null, { person: person === usualRate ? "" : person }))}
        />
      </label>
      <Toggle
        label="The client brings the hair"
        note="Hair and small things are not charged then"
        checked={basis.bringsHair ?? false}
        onChange={(bringsHair) => act(actions.setPrice(null, { bringsHair }))}
      />
      {extras.map((x, i) => (
        <div key={i} className={styles.extra}>
          <Input
            aria-label={`What extra ${i + 1} is for`}
            placeholder="Wash and dry, first visit …"
            maxLength={80}
            value={x.name}
            onChange={(event) => put(i, "name", { name: event.target.value })}
          />
          <NumberField
            label={`Amount of extra ${i + 1}, below zero to take off`}
            path={`price.extras[${i}].amountMinor`}
            unit={currency}
            value={x.amountMinor / whole}
            onChange={(amount) => put(i, "amount", { amountMinor: Math.round(amount * whole) })}
          />
          <Button
            icon={<DeleteOutlined />}
            aria-label={`Take extra ${i + 1} away`}
            onClick={() => act(actions.setPrice(null, { extras: extras.filter((_, k) => k !== i) }))}
          />
        </div>
      ))}
      <FieldErrorsUnder path="price." />
      <Button
        icon={<PlusOutlined />}
        onClick={() =>
          act(
            actions.setPrice(null, {
              extras: [...extras, { name: "Wash and dry", amountMinor: 15 * whole }],
            }),
          )
        }
      >
        Add an extra
      </Button>
    </section>
  );
}

/** Quotes given for the plan, and a new one. */
function Quotes({ plan }: { plan: StoredPlan }) {
  const quotes = useQuotes(plan.isStored ? plan.id : "");
  const { unit, paper } = usePreferences();
  const mayGive = useMay("giveQuote");
  const give = useChange(async () => {
    await plan.save();
    const version = plan.savedVersion();
    if (version === undefined)
      throw new Error("The plan could not be saved; a quote is given of what is saved.");
    return server.giveQuote({ plan: plan.id, version, id: v4(), unit, paper });
  }, "quotes");
  return (
    <section className={styles.basis} aria-label="Quotes">
      <h3>Quotes</h3>
      <p className={panel.lead}>
        A quote is frozen when it is given: what is in it, the price, the pictures. Later changes of the plan
        or of prices do not touch it.
      </p>
      {mayGive ? (
        <BeforeGoingOn plan={plan.isStored ? plan.id : ""} readers={false}>
          <Button
            type="primary"
            size="large"
            icon={<FileDoneOutlined />}
            loading={give.isPending}
            onClick={() => give.mutate()}
          >
            Give a quote
          </Button>
        </BeforeGoingOn>
      ) : (
        <p className={panel.lead}>An owner or a stylist gives quotes.</p>
      )}
      {give.error && <Trouble error={new Error(toldOf(give.error))} />}
      <ul className={styles.quotes}>
        {quotes.data?.map((q) => (
          <li key={q.id}>
            <Link to={`/quotes/${q.id}`}>Quote {q.number}</Link>
            <span>{day(q.given.on)}</span>
            <QuoteState quote={q} />
          </li>
        ))}
      </ul>
    </section>
  );
}
