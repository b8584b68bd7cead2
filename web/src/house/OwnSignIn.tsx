import { Alert, App, Button, Form, Input } from "antd";
import { Refusal, server } from "../api/client";
import { useChange, useMe } from "../api/queries";
import { useLeaving } from "../ui/leaving";
import styles from "./HouseRulesPage.module.css";
import { NewPassword } from "./NewPassword";

/** Your own password, and signing out everywhere. */
export function OwnSignIn() {
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
