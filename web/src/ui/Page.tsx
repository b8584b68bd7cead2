import type { ReactNode } from "react";
import { Header } from "./Header";
import styles from "./Page.module.css";

interface Props {
  title: string;
  lead: ReactNode;
  actions?: ReactNode;
  children: ReactNode;
}

/** One of the places: its name, what it is for, what can be begun here. */
export const Page = ({ title, lead, actions, children }: Props) => (
  <div className={styles.page}>
    <Header />
    <main className={styles.main}>
      <div className={styles.top}>
        <div>
          <h1>{title}</h1>
          <p>{lead}</p>
        </div>
        <div className={styles.actions}>{actions}</div>
      </div>
      {children}
    </main>
  </div>
);
