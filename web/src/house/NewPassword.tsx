import { Form, Input } from "antd";

/** A password to be chosen, with what makes a good one. */
export const NewPassword = ({ label }: { label: string }) => (
  <Form.Item
    name="password"
    label={label}
    extra="At least 10 letters; a few words are best."
    rules={[{ required: true, min: 10, message: "At least 10 letters." }]}
  >
    <Input.Password autoComplete="new-password" maxLength={200} />
  </Form.Item>
);
