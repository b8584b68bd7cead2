import { DownOutlined } from "@ant-design/icons";
import { Segmented } from "antd";
import { useContext, useId, type ReactNode } from "react";
import { create } from "zustand";
import { FieldErrors } from "./fields";
import styles from "./Parts.module.css";

/** One part of a step, told in a line while it is shut. */
export interface Part {
  key: string;
  /** The chapter of the step it stands in, where the step has too many parts for one list. */
  chapter?: string;
  title: string;
  says: ReactNode;
  /** The beginnings of the fields' paths it holds: a refusal of one is told at its title. */
  paths?: readonly string[];
  content: ReactNode;
}

interface Open {
  /** The part that is open, by the name of the step and the chapter. */
  open: Readonly<Record<string, string>>;
  /** The chapter that is open, by the name of the step. */
  chapter: Readonly<Record<string, string>>;
  set: (step: string, part: string) => void;
  turnTo: (step: string, chapter: string) => void;
}

const shut = "";

/** Which chapter and part of each step is open, kept while one goes to and fro. */
const useOpen = create<Open>()((set) => ({
  open: {},
  chapter: {},
  set: (step, part) => set(({ open }) => ({ open: { ...open, [step]: part } })),
  turnTo: (step, name) => set(({ chapter }) => ({ chapter: { ...chapter, [step]: name } })),
}));

/** The parts of a step, one open at a time; of many, those of one chapter. */
export function Parts({ step, parts: all }: { step: string; parts: readonly Part[] }) {
  const { open, chapter, set, turnTo } = useOpen();
  const errors = useContext(FieldErrors);
  const id = useId();
  const isRefused = (p: Part) =>
    Object.keys(errors).some((path) => p.paths?.some((start) => path.startsWith(start)));
  const chapters = [...new Set(all.flatMap((p) => p.chapter ?? []))];
  const shownChapter = chapters.find((c) => c === chapter[step]) ?? chapters[0];
  const parts = all.filter((p) => p.chapter === shownChapter);
  const place = shownChapter === undefined ? step : `${step}/${shownChapter}`;
  const wanted = open[place];
  const shown = wanted === shut || parts.some((p) => p.key === wanted) ? wanted : parts[0]?.key;
  return (
    <div className={styles.parts}>
      {chapters.length > 0 && (
        <Segmented<string>
          block
          className={styles.chapters ?? ""}
          aria-label="Chapters of this step"
          value={shownChapter ?? ""}
          options={chapters.map((c) => ({
            value: c,
            label: all.some((p) => p.chapter === c && isRefused(p)) ? (
              <span className={styles.refused}>{c} !</span>
            ) : (
              c
            ),
          }))}
          onChange={(c) => turnTo(step, c)}
        />
      )}
      {parts.map((p) => {
        const isOpen = p.key === shown;
        return (
          <section key={p.key} className={styles.part} aria-label={p.title}>
            <h2>
              <button
                type="button"
                aria-expanded={isOpen}
                aria-controls={`${id}${p.key}`}
                onClick={() => set(place, isOpen ? shut : p.key)}
              >
                <span className={styles.title}>{p.title}</span>
                {!isOpen && (
                  <span className={styles.says}>
                    {isRefused(p) ? (
                      <strong className={styles.refused}>Something here cannot be</strong>
                    ) : (
                      p.says
                    )}
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
