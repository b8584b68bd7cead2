import { Alert, Button, Segmented, Skeleton } from "antd";
import Input from "antd/es/input/Input";
import TextArea from "antd/es/input/TextArea";
import { useState } from "react";
import { server } from "../api/client";
import { useCatalogue, useChange, useHouse, useMay } from "../api/queries";
import type { Catalogue, HouseDocument, MessageKind } from "../api/types";
import { omit } from "../lib/omit";
import { toldOf } from "../ui/Trouble";
import styles from "./HouseRulesPage.module.css";

/** How the studio words what it tells clients. */
export function Letters() {
  const house = useHouse().data;
  const catalogue = useCatalogue().data;
  const [kind, setKind] = useState<MessageKind>("prepare");
  return (
    <section className={`${styles.sheet} ${styles.wide}`} aria-label="Messages to clients">
      <h2>Messages to clients</h2>
      <p className={styles.note}>
        Words in braces are filled for each plan, and every message is looked at before it is sent.
      </p>
      {house && catalogue ? (
        <>
          <Segmented<MessageKind>
            block
            className={styles.kinds ?? ""}
            aria-label="Which message"
            value={kind}
            options={catalogue.messages.map((m) => ({ value: m.kind, label: m.short }))}
            onChange={setKind}
          />
          <Fields key={`${kind}/${house.version}`} kind={kind} house={house} catalogue={catalogue} />
        </>
      ) : (
        <Skeleton active />
      )}
    </section>
  );
}

interface FieldsProps {
  kind: MessageKind;
  house: HouseDocument;
  catalogue: Catalogue;
}

function Fields({ kind, house, catalogue }: FieldsProps) {
  const may = useMay("saveHouse");
  const usual = catalogue.messages.find((m) => m.kind === kind)?.usual ?? { subject: "", body: "" };
  const own = house.rules.letters?.[kind];
  const [words, setWords] = useState(own ?? usual);
  const save = useChange(server.saveHouse, "house", "letter");
  const put = (letters: HouseDocument["rules"]["letters"]) =>
    save.mutate({ ...house, rules: { ...house.rules, ...(letters && { letters }) } });
  const before = own ?? usual;
  const changed = words.subject !== before.subject || words.body !== before.body;
  return (
    <fieldset className={styles.terms} disabled={!may}>
      <label className={styles.rule}>
        <span>Subject</span>
        <Input
          value={words.subject}
          maxLength={160}
          onChange={(event) => setWords({ ...words, subject: event.target.value })}
        />
      </label>
      <label className={styles.rule}>
        <span>Message</span>
        <TextArea
          rows={10}
          value={words.body}
          maxLength={3000}
          onChange={(event) => setWords({ ...words, body: event.target.value })}
        />
      </label>
      <p className={styles.note}>
        {Object.entries(catalogue.messageNames)
          .map(([name, what]) => `{${name}} ${what}`)
          .join(" · ")}
      </p>
      {save.error && <Alert type="error" showIcon title={toldOf(save.error)} />}
      <div className={styles.saves}>
        <Button
          type="primary"
          disabled={!changed}
          loading={save.isPending}
          onClick={() => put({ ...house.rules.letters, [kind]: words })}
        >
          Save the words
        </Button>
        {own && <Button onClick={() => put(omit(house.rules.letters ?? {}, kind))}>Usual words again</Button>}
      </div>
    </fieldset>
  );
}
