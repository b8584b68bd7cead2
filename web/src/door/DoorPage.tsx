import { Alert, Button, Form, Input } from "antd";
import { Refusal, server } from "../api/client";
import { comeIn, useChange, useStudio } from "../api/queries";
import type { Me, Person } from "../api/types";
import { roleNames } from "../ui/Header";
import { PlaitedLine } from "../ui/PlaitedLine";
import { Trouble } from "../ui/Trouble";
import styles from "./DoorPage.module.css";

interface SignIn {
  name: string;
  password: string;
}

/** The door: name the owner of a new studio, sign in, or look around the demo studio. */
export function DoorPage() {
  const studio = useStudio();
  return (
    <main className={styles.door}>
      <div className={styles.sheet}>
        <header>
          <img src="/favicon.svg" alt="" width={52} height={52} />
          <h1>Kladotex</h1>
        </header>
        <PlaitedLine />
        {studio.error && <Trouble error={studio.error} retry={() => void studio.refetch()} />}
        {studio.data && (studio.data.empty ? <FirstStart /> : <Return />)}
        {studio.data && studio.data.demo.length > 0 && <Demo people={studio.data.demo} />}
      </div>
    </main>
  );
}

const FirstStart = () => (
  <>
    <h2>Welcome. Whose studio is this?</h2>
    <p>
      You are the first here. Name yourself as the owner; you can add stylists and apprentices later.
      Everything stays in one file on this machine.
    </p>
    <Credentials
      act={server.claim}
      label="Open the studio"
      passwordHelp="At least 10 letters; a few words are best. Nobody can look it up for you later."
      isNew
    />
  </>
);

const Return = () => (
  <>
    <h2>Sign in</h2>
    <Credentials act={server.signIn} label="Sign in" />
  </>
);

interface CredentialsProps {
  act: (signIn: SignIn) => Promise<Me>;
  label: string;
  passwordHelp?: string;
  isNew?: boolean;
}

function Credentials({ act, label, passwordHelp, isNew = false }: CredentialsProps) {
  const sign = useChange(act);
  const fields = sign.error instanceof Refusal ? sign.error.fields : {};
  const item = (name: keyof SignIn) => ({
    name,
    ...(fields[name] && { validateStatus: "error" as const, help: fields[name] }),
  });
  return (
    <Form<SignIn>
      layout="vertical"
      requiredMark={false}
      onFinish={(values) => sign.mutate(values, { onSuccess: comeIn })}
    >
      <Form.Item
        {...item("name")}
        label="Your name"
        rules={[{ required: true, whitespace: true, message: "Write your name." }]}
      >
        <Input autoComplete="username" autoFocus size="large" maxLength={80} />
      </Form.Item>
      <Form.Item
        label="Password"
        extra={passwordHelp}
        {...item("password")}
        rules={[
          { required: true, message: "Write your password." },
          ...(isNew ? [{ min: 10, message: "At least 10 letters." }] : []),
        ]}
      >
        <Input.Password
          autoComplete={isNew ? "new-password" : "current-password"}
          size="large"
          maxLength={200}
        />
      </Form.Item>
      {sign.error && Object.keys(fields).length === 0 && (
        <Alert
          type="error"
          showIcon
          title={
            sign.error instanceof Refusal
              ? sign.error.message
              : "Kladotex cannot be reached. Is it still running?"
          }
        />
      )}
      <Button type="primary" size="large" htmlType="submit" block loading={sign.isPending}>
        {label}
      </Button>
    </Form>
  );
}

/** The made-up studio, open to all. */
function Demo({ people }: { people: Person[] }) {
  const sign = useChange(server.signInDemo);
  const come = (p: Person) => sign.mutate(p.id, { onSuccess: comeIn });
  const owner = people.find((p) => p.role === "owner");
  return (
    <section className={styles.demo}>
      <h2>Tidewheel Loft, the demo studio</h2>
      <p>Made-up people, clients and plans to try everything on. No password needed.</p>
      {sign.error && <Trouble error={sign.error} />}
      {owner && (
        <Button type="primary" size="large" block onClick={() => come(owner)}>
          Open demo studio
        </Button>
      )}
      <div className={styles.others}>
        {people
          .filter((p) => p !== owner)
          .map((p) => (
            <Button key={p.id} onClick={() => come(p)}>
              {p.name} <small>{roleNames[p.role].toLowerCase()}</small>
            </Button>
          ))}
      </div>
    </section>
  );
}

export default DoorPage;
