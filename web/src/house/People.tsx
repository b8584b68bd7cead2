import { DeleteOutlined, KeyOutlined, PlusOutlined } from "@ant-design/icons";
import { Alert, App, Button, Form, Input, Modal, Select, Skeleton } from "antd";
import { useState } from "react";
import { Refusal, server } from "../api/client";
import { useChange, useMay, useMe, usePeople } from "../api/queries";
import type { Person, Role } from "../api/types";
import { handNames } from "../ui/hands";
import { roleNames } from "../ui/Header";
import { toldOf, Trouble } from "../ui/Trouble";
import styles from "./HouseRulesPage.module.css";
import { NewPassword } from "./NewPassword";

const may: Record<Role, string> = {
  owner: "Everything, and manages people",
  stylist: "Clients and plans; deletes plans, no clients",
  apprentice: "Reads clients, works on plans; deletes nothing",
};

/** Who works here, in which role, and how quick they are. */
export function People() {
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
          aria-label={`How many times as long own head of ${person.name} takes`}
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
