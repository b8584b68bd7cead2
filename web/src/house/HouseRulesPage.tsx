import { DeleteOutlined, KeyOutlined, PlusOutlined } from "@ant-design/icons";
import { Alert, App, Button, Form, Input, Modal, Select, Skeleton } from "antd";
import { useState } from "react";
import { Refusal, server } from "../api/client";
import { useCatalogue, useChange, useHouse, useMay, useMe, useMoney, usePeople } from "../api/queries";
import type { Person, Role } from "../api/types";
import { roleNames } from "../ui/Header";
import { useLeaving } from "../ui/leaving";
import { omit } from "../lib/omit";
import { ChoiceField } from "../ui/fields";
import { handNames } from "../ui/hands";
import { Page } from "../ui/Page";
import { toldOf, Trouble } from "../ui/Trouble";
import styles from "./HouseRulesPage.module.css";
import { Letters } from "./Letters";
import { Terms } from "./Terms";

const may: Record<Role, string> = {
  owner: "Everything, and manages people",
  stylist: "Clients and plans; deletes plans, no clients",
  apprentice: "Reads clients, works on plans; deletes nothing",
};

/** The people of the studio and one's own sign-in. */
function HouseRulesPage() {
  return (
    <Page title="House rules" lead="What holds for the whole studio, who works here, and your own sign-in.">
      <div className={styles.columns}>
        <div className={styles.column}>
          <People />
          <Studio />
        </div>
        <Terms />
        <Letters />
        <OwnSignIn />
        <Schools />
      </div>
    </Page>
  );
}

const currencyNames = new Intl.DisplayNames(undefined, { type: "currency" });

/** What holds for all plans of the studio. */
function Studio() {
  const house = useHouse();
  const catalogue = useCatalogue();
  const maySet = useMay("saveHouse");
  const money = useMoney();
  const save = useChange(server.saveHouse, "house");
  const { data } = house;
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
              onChange={(currency) => save.mutate({ ...data, rules: { ...data.rules, currency } })}
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
              onChange={(chairs) => save.mutate({ ...data, rules: { ...data.rules, chairs } })}
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
              onChange={(zone) =>
                save.mutate({ ...data, rules: { ...omit(data.rules, "zone"), ...(zone !== "" && { zone }) } })
              }
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
                save.mutate({
                  ...data,
                  rules: {
                    ...omit(data.rules, "paper"),
                    ...((paper === "letter" || paper === "a4") && { paper }),
                  },
                })
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
                  save.mutate({
                    ...data,
                    rules: {
                      ...data.rules,
                      keeps: { photoMonths: 0, healthMonths: 0, ...data.rules.keeps, [key]: months },
                    },
                  })
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

/** What is kept for a time only, then deleted by itself. */
const keeps = [
  { key: "photoMonths", label: "Pictures of heads are kept" },
  { key: "healthMonths", label: "Notes on scalp and hair are kept" },
] as const;

/** The questions on which practitioners disagree, with the side the studio takes. */
function Schools() {
  const house = useHouse();
  const catalogue = useCatalogue();
  const maySet = useMay("saveHouse");
  const save = useChange(server.saveHouse, "house");
  const { data } = house;
  return (
    <section className={`${styles.sheet} ${styles.wide}`} aria-label="How this house works">
      <h2>How this house works</h2>
      <p className={styles.note}>
        Good practitioners disagree on these. New plans start as the house does it; a plan may depart, and
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
              options={s.sides.map(({ key, name, reason }) => ({ key, name, help: reason }))}
              onChange={(side) =>
                save.mutate({
                  ...data,
                  rules: { ...data.rules, sides: { ...data.rules.sides, [s.key]: side } },
                })
              }
            />
          ))}
        </div>
      )}
      {save.error && <Alert type="error" showIcon title={toldOf(save.error)} />}
    </section>
  );
}

function People() {
  const people = usePeople();
  const me = useMe().data;
  const owner = useMay("changePerson");
  const { modal, message } = App.useApp();
  const [adding, setAdding] = useState(false);
  const [giving, setGiving] = useState<Person>();
  const tell = (e: Error) => void message.error(toldOf(e));
  const change = useChange(
    ({ id, ...body }: { id: string; name: string; role: Role; password?: string }) =>
      server.changePerson(id, body),
    "people",
    "me",
  );
  const remove = useChange(server.removePerson, "people");
  const ask = (p: Person) =>
    modal.confirm({
      title: `Take ${p.name} out of the studio?`,
      content: "No signing in any more. What was saved stays under the name.",
      okText: "Take out",
      okButtonProps: { danger: true },
      onOk: () => remove.mutateAsync(p.id).catch(tell),
    });
  return (
    <section className={styles.sheet}>
      <h2>People</h2>
      {people.error && <Trouble error={people.error} retry={() => void people.refetch()} />}
      {people.isPending && <Skeleton active />}
      <ul className={styles.people}>
        {people.data?.map((p) => (
          <li key={p.id}>
            <div>
              <strong>
                {p.name}
                {p.id === me?.id && <small> you</small>}
              </strong>
              <span>{may[p.role]}</span>
            </div>
            {owner ? (
              <Select<Role>
                aria-label={`Role of ${p.name}`}
                value={p.role}
                options={(Object.keys(roleNames) as Role[]).map((value) => ({
                  value,
                  label: roleNames[value],
                }))}
                onChange={(role) => change.mutate({ id: p.id, name: p.name, role }, { onError: tell })}
              />
            ) : (
              <span>{roleNames[p.role]}</span>
            )}
            {(owner || p.id === me?.id) && <HandOf person={p} onTrouble={tell} />}
            {owner && (
              <Button
                icon={<KeyOutlined />}
                aria-label={`New password for ${p.name}`}
                title="Give a new password"
                onClick={() => setGiving(p)}
              />
            )}
            {owner && (
              <Button
                icon={<DeleteOutlined />}
                aria-label={`Take ${p.name} out`}
                title="Take out of the studio"
                disabled={p.id === me?.id}
                onClick={() => void ask(p)}
              />
            )}
          </li>
        ))}
      </ul>
      {owner && (
        <Button icon={<PlusOutlined />} onClick={() => setAdding(true)}>
          Add a person
        </Button>
      )}
      {adding && <AddPerson onClose={() => setAdding(false)} />}
      {giving && (
        <Modal
          open
          title={`New password for ${giving.name}`}
          footer={null}
          onCancel={() => setGiving(undefined)}
        >
          <p>This signs the person out everywhere; the next sign-in is with this one.</p>
          <Form<{ password: string }>
            layout="vertical"
            requiredMark={false}
            onFinish={({ password }) =>
              change.mutate(
                { id: giving.id, name: giving.name, role: giving.role, password },
                { onError: tell, onSuccess: () => setGiving(undefined) },
              )
            }
          >
            <NewPassword label="New password" />
            <Button type="primary" htmlType="submit" loading={change.isPending}>
              Set the password
            </Button>
          </Form>
        </Modal>
      )}
    </section>
  );
}

/** How quick someone is: plans that they work are timed by it. */
function HandOf({ person, onTrouble }: { person: Person; onTrouble: (e: Error) => void }) {
  const set = useChange(server.setPace, "people");
  const { id, hand, ownHead } = person;
  return (
    <div className={styles.hand}>
      <Select<Person["hand"]>
        aria-label={`Hand of ${person.name}`}
        value={hand}
        loading={set.isPending}
        options={handNames.map((h) => ({ value: h.key, label: h.name }))}
        onChange={(to) => set.mutate({ id, hand: to, ownHead }, { onError: onTrouble })}
      />
      <label>
        own head takes
        <Select<number>
          aria-label={`How many times as long the own head of ${person.name} takes`}
          value={ownHead}
          options={[...new Set([1, 1.1, 1.2, 1.25, 1.3, 1.4, 1.5, 1.75, 2, ownHead])]
            .sort((a, b) => a - b)
            .map((value) => ({ value, label: `× ${value}` }))}
          onChange={(to) => set.mutate({ id, hand, ownHead: to }, { onError: onTrouble })}
        />
      </label>
    </div>
  );
}

const NewPassword = ({ label }: { label: string }) => (
  <Form.Item
    name="password"
    label={label}
    extra="At least 10 letters; a few words are best."
    rules={[{ required: true, min: 10, message: "At least 10 letters." }]}
  >
    <Input.Password autoComplete="new-password" maxLength={200} />
  </Form.Item>
);

function AddPerson({ onClose }: { onClose: () => void }) {
  const add = useChange(server.addPerson, "people");
  const refusal = add.error instanceof Refusal ? add.error : undefined;
  return (
    <Modal open title="Add a person" footer={null} onCancel={onClose}>
      <Form<{ name: string; password: string; role: Role }>
        layout="vertical"
        requiredMark={false}
        initialValues={{ role: "stylist" }}
        onFinish={(values) => add.mutate(values, { onSuccess: onClose })}
      >
        <Form.Item
          name="name"
          label="Name"
          rules={[{ required: true, whitespace: true, message: "Write a name." }]}
          {...(refusal?.fields.name && { validateStatus: "error" as const, help: refusal.fields.name })}
        >
          <Input autoFocus autoComplete="off" maxLength={80} />
        </Form.Item>
        <Form.Item name="role" label="Role">
          <Select
            options={(Object.keys(roleNames) as Role[]).map((value) => ({
              value,
              label: `${roleNames[value]}: ${may[value].toLowerCase()}`,
            }))}
          />
        </Form.Item>
        <NewPassword label="First password" />
        {add.error && !refusal?.fields.name && <Alert type="error" showIcon title={add.error.message} />}
        <Button type="primary" htmlType="submit" loading={add.isPending}>
          Add
        </Button>
      </Form>
    </Modal>
  );
}

function OwnSignIn() {
  const me = useMe().data;
  const { message } = App.useApp();
  const [form] = Form.useForm<{ old: string; password: string }>();
  const change = useChange(server.changePassword);
  const everywhere = useLeaving(server.signOutEverywhere);
  const refusal = change.error instanceof Refusal ? change.error : undefined;
  return (
    <section className={styles.sheet}>
      <h2>Your sign-in</h2>
      <p>
        You are <strong>{me?.name}</strong>. A new password signs you out everywhere but here.
      </p>
      <Form
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={(values) =>
          change.mutate(values, {
            onSuccess: () => {
              form.resetFields();
              void message.success("Your password is changed.");
            },
          })
        }
      >
        <Form.Item
          name="old"
          label="Present password"
          rules={[{ required: true, message: "Write your present password." }]}
          {...(refusal?.fields.old && { validateStatus: "error" as const, help: refusal.fields.old })}
        >
          <Input.Password autoComplete="current-password" maxLength={200} />
        </Form.Item>
        <NewPassword label="New password" />
        {change.error && !refusal?.fields.old && <Alert type="error" showIcon title={change.error.message} />}
        <Button htmlType="submit" loading={change.isPending}>
          Change the password
        </Button>
      </Form>
      <div className={styles.everywhere}>
        <p>A tablet lost, a laptop lent? Sign out on every machine, this one too.</p>
        <Button danger loading={everywhere.busy} onClick={everywhere.leave}>
          Sign out everywhere
        </Button>
      </div>
    </section>
  );
}

export default HouseRulesPage;
