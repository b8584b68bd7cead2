import { Button } from "antd";
import type { FallbackProps } from "react-error-boundary";
import styles from "./Broken.module.css";
import { PlaitedLine } from "./PlaitedLine";

/** True for a part of the program that is not there any more, because a newer one is served. */
const isOutdated = (error: unknown) =>
  error instanceof Error && /dynamically imported module|module script|Loading chunk/i.test(error.message);

/** The page failed: what happened, and the way on. What was typed lies on the shelf. */
export function Broken({ error, resetErrorBoundary }: FallbackProps) {
  const outdated = isOutdated(error);
  return (
    <main className={styles.broken}>
      <PlaitedLine />
      <h1>{outdated ? "Kladotex was renewed or cannot be reached" : "This page stopped working"}</h1>
      <p>
        {outdated
          ? "The page is of an earlier program. Load it again; what you typed is kept."
          : "What you typed is kept. Reload, or go back to Today."}
      </p>
      <div>
        <Button type="primary" size="large" onClick={() => window.location.reload()}>
          Reload
        </Button>
        <Button
          size="large"
          onClick={() => {
            window.history.pushState(null, "", "/");
            resetErrorBoundary();
          }}
        >
          Go to Today
        </Button>
      </div>
    </main>
  );
}
