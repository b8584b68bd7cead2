import { DownOutlined } from "@ant-design/icons";
import type { ReactNode } from "react";
import styles from "./Fold.module.css";

/** What most people never need, folded away under a line that says what it is. */
export const Fold = ({ title, children }: { title: string; children: ReactNode }) => (
  <details className={styles.fold}>
    <summary>
      <DownOutlined aria-hidden /> {title}
    </summary>
    <div className={styles.content}>{children}</div>
  </details>
);
