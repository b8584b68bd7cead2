import { Alert, Button } from "antd";

/** Something could not be fetched: what, and what to do. */
export const Trouble = ({ error, retry }: { error: Error; retry?: () => void }) => (
  <Alert
    type="error"
    showIcon
    title={error instanceof TypeError ? "Kladotex can not be reached. Is it still running?" : error.message}
    action={retry && <Button onClick={retry}>Try again</Button>}
  />
);
