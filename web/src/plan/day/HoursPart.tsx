import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { Button, Select } from "antd";
import Input from "antd/es/input/Input";
import { useLoggedPaces, usePeople, useKnownCatalogue } from "../../api/queries";
import type { DayPlan, Hand, PlanInput } from "../../api/types";
import { hours } from "../../lib/units";
import { ChoiceField, FieldErrorsUnder, NumberField, Toggle } from "../../ui/fields";
import { handNames } from "../../ui/hands";
import panel from "../../ui/panel.module.css";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import styles from "./day.module.css";

/** The times people name, each with what is in it, and the stages. */
export function HoursPart({ day }: { day: DayPlan }) {
  const most = Math.max(...day.figures.map((f) => f.minutes.high));
  return (
    <>
      <ul className={styles.figures}>
        {day.figures.map((f) => (
          <li key={f.key} data-figure={f.key}>
            <div>
              <span>{f.name}</span>
              <strong>
                {hours(f.minutes.low)} – {hours(f.minutes.high)}
              </strong>
            </div>
            <i aria-hidden style={{ width: `${(100 * f.minutes.likely) / most}%` }} />
            <small>{f.holds}</small>
          </li>
        ))}
      </ul>
      <table className={`${panel.table} ${panel.hours}`}>
        <thead>
          <tr>
            <th>Stage</th>
            <th>Likely</th>
            <th>Between</th>
          </tr>
        </thead>
        <tbody>
          {day.hours.stages.map((s) => (
            <tr key={s.kind}>
              <th>{s.name}</th>
              <td>{hours(s.minutes.likely)}</td>
              <td>
                {hours(s.minutes.low)} – {hours(s.minutes.high)}
              </td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <th>All of it</th>
            <td>{hours(day.hours.total.likely)}</td>
            <td>
              {hours(day.hours.total.low)} – {hours(day.hours.total.high)}
            </td>
          </tr>
        </tfoot>
      </table>
      <p className={panel.lead}>
        To check and finish:{" "}
        {day.finish.map((f) => `${f.name.toLowerCase()} ${hours(f.minutes)}`).join(" · ")}.
      </p>
      <p className={panel.lead}>
        {day.hands.length > 1
          ? `Work of ${day.hands[0]?.name ?? "one"} alone, without breaks; the sittings show what two of you make of it.`
          : "Work alone, without breaks; the sittings put them in."}
      </p>
      {day.says.map((s) => (
        <p key={s} className={styles.told}>
          {s}
        </p>
      ))}
    </>
  );
}

const roles: readonly { key: Hand["does"]; name: string; help: string }[] = [
  { key: "both", name: "Attaches, and plaits meanwhile", help: "Plaits where nothing can be attached yet" },
  {
    key: "plaits-first",
    name: "Parts and plaits, then helps",
    help: "Goes ahead; attaches once all is plaited",
  },
  { key: "plaits", name: "Only parts and plaits", help: "Leaves once the last row is plaited" },
  { key: "attaches", name: "Only attaches", help: "Waits for the first row" },
  { key: "design", name: "Only the design in front", help: "Its cornrows, and the braids they go on as" },
];

/** Who works, how practised they are, and who does what. */
export function HandsPart({ input, day }: { input: PlanInput; day: DayPlan }) {
  const act = useAct();
  const hands = day.hands;
  const known = input.day?.hands ?? [];
  const put = (i: number, group: string | null, part: Partial<Hand>) =>
    act(
      actions.setHands(
        group && `${i}.${group}`,
        hands.map((h, k) => ({ ...h, ...(h.name === "" && { name: "First" }), ...(k === i && part) })),
      ),
    );
  return (
    <>
      {hands.map((h, i) => (
        <OneHand
          key={h.key}
          input={input}
          timeable={day.timeable}
          hand={h}
          first={i === 0}
          two={hands.length > 1}
          onChange={(group, part) => put(i, group, part)}
          onRemove={() =>
            act(
              actions.setHands(
                null,
                known.filter((_, k) => k !== i),
              ),
            )
          }
        />
      ))}
      <FieldErrorsUnder path="day.hands" />
      {hands.length === 1 && (
        <Button
          icon={<PlusOutlined />}
          onClick={() =>
            act(
              actions.setHands(null, [
                ...hands.map((h) => ({ ...h, ...(h.name === "" && { name: "First" }) })),
                { key: "helper", name: "Helper", hand: "used", does: "plaits-first" },
              ]),
            )
          }
        >
          Add a helper
        </Button>
      )}
      {hands.length > 1 && (
        <p className={panel.lead}>
          Together {hours(daySum(day))} at the head; {hands[0]?.name} alone {hours(day.aloneMin)}, with
          breaks.
        </p>
      )}
    </>
  );
}

/** How long all sittings last, minutes. */
export const daySum = (day: DayPlan) =>
  day.sittings.filter((s) => !s.evening).reduce((sum, s) => sum + s.minutes, 0);

interface OneProps {
  input: PlanInput;
  timeable: DayPlan["timeable"];
  hand: Hand;
  first: boolean;
  two: boolean;
  onChange: (group: string | null, part: Partial<Hand>) => void;
  onRemove: () => void;
}

const other = "other";

function OneHand({ input, timeable, hand, first, two, onChange, onRemove }: OneProps) {
  const catalogue = useKnownCatalogue();
  const people = usePeople().data ?? [];
  const logged = useLoggedPaces().data;
  const own = input.ownHead && first;
  const methods = catalogue.methods.filter((m) => timeable.some((t) => t.skill === m.id));
  return (
    <section className={styles.hand} aria-label={first ? "Who works" : "The second pair of hands"}>
      <div className={styles.handHead}>
        <label className={panel.stack}>
          <span>{first ? (own ? "Whose own head it is" : "Who is responsible") : "Who helps"}</span>
          <Select<string>
            value={hand.person ?? other}
            options={[
              ...people.map((p) => ({ value: p.id, label: p.name })),
              // Someone who has left the studio, or of another one.
              ...(hand.person && !people.some((p) => p.id === hand.person)
                ? [{ value: hand.person, label: hand.name }]
                : []),
              { value: other, label: own ? "Someone else, at home" : "Someone else" },
            ]}
            onChange={(id) => {
              const p = people.find((x) => x.id === id);
              // What their installs before taught comes along.
              if (p)
                onChange(null, {
                  person: p.id,
                  name: p.name,
                  hand: p.hand,
                  ownHead: p.ownHead,
                  logged: logged?.[p.id] ?? [],
                });
              else onChange(null, { person: "", name: own ? "You" : first ? "First" : "Helper", logged: [] });
            }}
          />
        </label>
        {!first && <Button icon={<DeleteOutlined />} aria-label="Without a helper" onClick={onRemove} />}
      </div>
      {!hand.person && (
        <label className={panel.stack}>
          <span>Name</span>
          <Input
            maxLength={120}
            value={hand.name}
            placeholder={own ? "You" : "First"}
            onChange={(event) => onChange("name", { name: event.target.value })}
          />
        </label>
      )}
      <ChoiceField
        label="Hand"
        path={`day.hands[${first ? 0 : 1}].hand`}
        value={hand.hand}
        options={handNames}
        onChange={(to) => onChange(null, { hand: to })}
      />
      {own && (
        <NumberField
          label="Own head takes this many times as long"
          path="day.hands[0].ownHead"
          help="A quarter more is usual: 1.25"
          step={0.05}
          value={hand.ownHead ?? 1.25}
          onChange={(ownHead) => onChange("own", { ownHead })}
        />
      )}
      {methods.map((m) => (
        <Toggle
          key={m.id}
          label={`New to ${m.name.toLowerCase()}`}
          note="The first pieces take twice as long; after about ten there is a rhythm"
          checked={hand.new?.includes(m.id) ?? false}
          onChange={(on) =>
            onChange(null, { new: [...(hand.new ?? []).filter((x) => x !== m.id), ...(on ? [m.id] : [])] })
          }
        />
      ))}
      {two && (
        <ChoiceField
          label="Does"
          path={`day.hands[${first ? 0 : 1}].does`}
          value={hand.does}
          options={roles}
          onChange={(does) =>
            onChange(null, { does, ...(does !== "plaits" && does !== "plaits-first" && { evening: false }) })
          }
        />
      )}
      {two && !first && (hand.does === "plaits" || hand.does === "plaits-first") && (
        <Toggle
          label="Plaits at home the evening before"
          note="The day itself is for attaching alone"
          checked={hand.evening ?? false}
          onChange={(evening) => onChange(null, { evening })}
        />
      )}
    </section>
  );
}
