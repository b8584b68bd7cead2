import { DownloadOutlined, UploadOutlined } from "@ant-design/icons";
import { Alert, Button, Progress, Segmented } from "antd";
import { useRef, useState } from "react";
import { readTable } from "../api/client";
import { queryClient, useMay } from "../api/queries";
import type { Imported } from "../api/types";
import { download } from "../lib/download";
import { Trouble } from "../ui/Trouble";
import styles from "./Files.module.css";
import { countOf } from "../lib/countOf";

const tables = {
  pieces: {
    title: "Pieces",
    says: "Every product on file, with measures, colours and prices. Further prices of a piece stand in further lines.",
  },
  stash: {
    title: "Stash",
    says: "What lies here, lot by lot. A line with an id counts that lot anew; one without is a new lot.",
  },
  orders: {
    title: "Orders",
    says: "What is listed, under way and arrived. Lines that are not under way yet go on the order list.",
  },
} as const;

type Table = keyof typeof tables;

/** Tables in and out: CSV with a preview of what would change, before anything does. */
export function Files() {
  const may = useMay("importTable");
  return (
    <div className={styles.files}>
      <section className={styles.sheet}>
        <h2>Carry out</h2>
        <p>CSV, to be opened in any spreadsheet or read in again here or in another studio.</p>
        {(Object.keys(tables) as Table[]).map((t) => (
          <div key={t} className={styles.out}>
            <div>
              <strong>{tables[t].title}</strong>
              <span>{tables[t].says}</span>
            </div>
            <Button
              icon={<DownloadOutlined />}
              aria-label={`${tables[t].title}, as CSV`}
              onClick={() => download(`/api/v1/tables/${t}`)}
            >
              CSV
            </Button>
          </div>
        ))}
      </section>
      {may && <ReadIn />}
    </div>
  );
}

interface Work {
  done: number;
  of: number;
  stop: () => void;
}

/** A file is looked at, then read in as a whole or not at all. */
function ReadIn() {
  const [table, setTable] = useState<Table>("pieces");
  const [file, setFile] = useState<File>();
  const [work, setWork] = useState<Work>();
  const [says, setSays] = useState<Imported>();
  const [trouble, setTrouble] = useState<Error>();
  const input = useRef<HTMLInputElement>(null);
  const run = async (chosen: File, of: Table, save: boolean) => {
    const stop = new AbortController();
    setTrouble(undefined);
    setWork({ done: 0, of: 0, stop: () => stop.abort() });
    try {
      const said = await readTable(
        of,
        chosen,
        save,
        (done, lines) => setWork((w) => w && { ...w, done, of: lines }),
        stop.signal,
      );
      setSays(said);
      if (said.saved)
        for (const key of ["items", "stash", "orders", "shopping"])
          await queryClient.invalidateQueries({ queryKey: [key] });
    } catch (error) {
      setSays(undefined);
      setTrouble(
        stop.signal.aborted
          ? new Error("Stopped; nothing was changed.")
          : error instanceof Error
            ? error
            : new Error("The file could not be read."),
      );
    } finally {
      setWork(undefined);
    }
  };
  const look = (chosen: File, of: Table) => {
    setFile(chosen);
    setSays(undefined);
    void run(chosen, of, false);
  };
  const changes = says ? says.new + says.changed : 0;
  return (
    <section className={styles.sheet}>
      <h2>Read in</h2>
      <p>
        Commas, semicolons or tabs; 4.2 or 4,2; lengths in mm, cm or in, as the column’s name says. You see
        what would change before anything does.
      </p>
      <Segmented<Table>
        size="large"
        aria-label="Which table"
        value={table}
        options={(Object.keys(tables) as Table[]).map((t) => ({ value: t, label: tables[t].title }))}
        onChange={(t) => {
          setTable(t);
          setSays(undefined);
          if (file) look(file, t);
        }}
      />
      <input
        ref={input}
        type="file"
        accept=".csv,.txt,text/csv"
        aria-label="Table to read in"
        className={styles.hidden}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) look(chosen, table);
          event.target.value = "";
        }}
      />
      <Button
        size="large"
        icon={<UploadOutlined />}
        disabled={work !== undefined}
        onClick={() => input.current?.click()}
      >
        {file ? "Another file" : "Choose a file"}
      </Button>
      {file && <p className={styles.name}>{file.name}</p>}
      {work && (
        <div className={styles.work} role="status">
          <Progress percent={work.of > 0 ? Math.round((100 * work.done) / work.of) : 0} />
          <span>{work.done > 0 ? `${work.done} of about ${work.of} lines` : "Reading …"}</span>
          <Button onClick={work.stop}>Stop</Button>
        </div>
      )}
      {trouble && <Trouble error={trouble} />}
      {says && (
        <>
          <Alert type={says.wrong > 0 ? "error" : "success"} showIcon role="status" title={headline(says)} />
          {says.errors.length > 0 && (
            <table className={styles.table}>
              <thead>
                <tr>
                  <th>Line</th>
                  <th>Column</th>
                  <th>What is wrong</th>
                </tr>
              </thead>
              <tbody>
                {says.errors.map((e, i) => (
                  <tr key={i}>
                    <td>{e.line}</td>
                    <td>{e.column}</td>
                    <td>{e.message}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {says.wrong === 0 && !says.saved && says.rows.length > 0 && (
            <table className={styles.table}>
              <thead>
                <tr>
                  <th>Line</th>
                  <th>What</th>
                  <th>Which</th>
                </tr>
              </thead>
              <tbody>
                {says.rows.map((r) => (
                  <tr key={r.line}>
                    <td>{r.line}</td>
                    <td>{r.what}</td>
                    <td>
                      <strong>{r.name}</strong> {r.says}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {says.wrong === 0 && !says.saved && changes > 0 && file && (
            <Button
              type="primary"
              size="large"
              disabled={work !== undefined}
              onClick={() => void run(file, table, true)}
            >
              Read {countOf(changes, "line")} in
            </Button>
          )}
        </>
      )}
    </section>
  );
}

function headline(i: Imported): string {
  if (i.wrong > 0)
    return `${countOf(i.wrong, "thing is", "things are")} wrong; nothing was changed. Mend the file and choose it again.`;
  const parts = [
    `${i.new} new`,
    `${i.changed} changed`,
    `${i.same} as they are`,
    ...(i.repeated > 0 ? [`${i.repeated} of them read in before with this very file`] : []),
  ].join(", ");
  return i.saved ? `Done: ${parts}.` : `This would be ${parts}.`;
}
