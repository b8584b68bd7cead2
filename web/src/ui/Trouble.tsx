import { Alert, Button } from "antd";

/** An error as a person reads it: what the server says, or that it was not reached. */
export const toldOf = (error: unknown) =>
  error instanceof Error && !(error instanceof TypeError)
    ? error.message
    : "Kladotex cannot be reached. Is it still running?";

/** Something could not be fetched: what, and what to do. */
export const Trouble = ({ error, retry }: { error: unknown; retry?: () => void }) => (
  <Alert
    type="error"
    showIcon
    title={toldOf(error)}
    action={retry && <Button onClick={retry}>Try again</Button>}
  />
);
