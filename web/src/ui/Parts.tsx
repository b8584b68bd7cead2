import { DownOutlined } from "@ant-design/icons";
import { useContext, useId, type ReactNode } from "react";
import { create } from "zustand";
import { FieldErrors } from "./fields";
import styles from "./Parts.module.css";

/** One part of a step, told in a line while it is shut. */
export interface Part {
  key: string;
  title: string;
  says: ReactNode;
  /** The beginnings of the fields' paths it holds: a refusal of one is told at its title. */
  paths?: readonly string[];
  content: ReactNode;
}

interface Open {
  /** The part that is open, by the name of the step. */
  open: Readonly<Record<string, string>>;
  set: (step: string, part: string) => void;
}

const shut = "";

/** Which part of each step is open, kept while one goes to and fro. */
const useOpen = create<Open>()((set) => ({
  open: {},
  set: (step, part) => set(({ open }) => ({ open: { ...open, [step]: part } })),
}));

/** The parts of a step, one open at a time. */
export function Parts({ step, parts }: { step: string; parts: readonly Part[] }) {
  const { open, set } = useOpen();
  const errors = useContext(FieldErrors);
  const id = useId();
  const wanted = open[step];
  const shown = wanted === shut || parts.some((p) => p.key === wanted) ? wanted : parts[0]?.key;
  return (
    <div className={styles.parts}>
      {parts.map((p) => {
        const isOpen = p.key === shown;
        const refused = Object.keys(errors).some((path) => p.paths?.some((start) => path.startsWith(start)));
        return (
          <section key={p.key} className={styles.part} aria-label={p.title}>
            <h2>
              <button
                type="button"
                aria-expanded={isOpen}
                aria-controls={`${id}${p.key}`}
                onClick={() => set(step, isOpen ? shut : p.key)}
              >
                <span className={styles.title}>{p.title}</span>
                {!isOpen && (
                  <span className={styles.says}>
                    {refused ? <strong className={styles.refused}>Something here can not be</strong> : p.says}
                  </span>
                )}
                <DownOutlined aria-hidden className={styles.arrow ?? ""} />
              </button>
            </h2>
            {isOpen && (
              <div id={`${id}${p.key}`} className={styles.content}>
                {p.content}
              </div>
            )}
          </section>
        );
      })}
    </div>
  );
}
