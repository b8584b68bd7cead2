import { Button, Result } from "antd";
import type { FallbackProps } from "react-error-boundary";

/** True for a part of the program that is not there any more, because a newer one is served. */
const isOutdated = (error: unknown) =>
  error instanceof Error && /dynamically imported module|module script|Loading chunk/i.test(error.message);

/** The page failed: what happened, and the way on. What was typed lies on the shelf. */
export function Broken({ error, resetErrorBoundary }: FallbackProps) {
  const outdated = isOutdated(error);
  return (
    <Result
      status="warning"
      title={outdated ? "Kladotex was renewed or can not be reached" : "This page stopped working"}
      subTitle={
        outdated
          ? "The page is of an earlier program. Load it again; what you typed is kept."
          : "What you typed is kept. Load the page again, or go back to Today."
      }
      extra={[
        <Button key="load" type="primary" size="large" onClick={() => window.location.reload()}>
          Load the page again
        </Button>,
        <Button
          key="today"
          size="large"
          onClick={() => {
            window.history.pushState(null, "", "/");
            resetErrorBoundary();
          }}
        >
          Go to Today
        </Button>,
      ]}
    />
  );
}
