import type { ReactNode } from "react";
import { Refusal } from "../api/client";
import styles from "./Wear.module.css";

/** What was refused, in the server's words for the field. */
export const refusalOf = (error: Error) =>
  (error instanceof Refusal && Object.values(error.fields)[0]) || error.message;

/** Says what was refused, with what leads on from there. */
export const Refused = ({ error, children }: { error: Error | null; children?: ReactNode }) =>
  error && (
    <p className={styles.refused} role="alert">
      {refusalOf(error)} {children}
    </p>
  );
