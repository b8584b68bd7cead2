import { App, Button, Input } from "antd";
import { useState } from "react";
import { v4 as uuid } from "uuid";
import { Refusal, server } from "../api/client";
import { useMay, useWear } from "../api/queries";
import type { WornHead } from "../api/types";
import { Photo, smallPicture } from "../chair";
import { Fold } from "../ui/Fold";
import { localDay } from "../lib/localDay";
import { Refused } from "./Refused";
import styles from "./Wear.module.css";
import { Link } from "react-router";

/** A look at the head: what to look for, each with an answer; what is kept tells what to do. */
export function LookPart({ head }: { head: WornHead }) {
  const { message } = App.useApp();
  const [signs, setSigns] = useState<Readonly<Record<string, number>>>({});
  const [text, setText] = useState("");
  const may = useMay("putWear");
  const keep = useWear(head.id, () =>
    server.putWear(head.id, {
      id: uuid(),
      on: localDay(),
      day: 0,
      kind: "checked",
      signs: { ...signs },
      ...(text.trim() && { text: text.trim() }),
    }),
  );
  const answered = head.signs.filter((s) => signs[s.key] !== undefined).length;
  if (!head.keepsHealth)
    return (
      <>
        <p>
          Looks are notes on scalp and hair: they are kept only with consent. Look all the same, and tell what
          you find; to keep it, ask and note the consent on the card.{" "}
          {head.clientId !== undefined && <Link to={`/clients/${head.clientId}`}>Open the card</Link>}
        </p>
        <Fold title="A picture">
          <TakePicture head={head} />
        </Fold>
      </>
    );
  const expected = head.signs.filter((s) => s.sinceDay <= head.clock.day).length;
  return (
    <>
      <p>
        In good light, seated. {expected < head.signs.length && "What is to be expected by now comes first. "}
        Touch an answer for each.
      </p>
      <Button
        size="large"
        onClick={() => setSigns(Object.fromEntries(head.signs.map((s) => [s.key, signs[s.key] ?? 0])))}
      >
        {answered === 0 ? "All is well" : "Others are well"}
      </Button>
      <ul className={styles.signs}>
        {head.signs.map((s) => (
          <li key={s.key} data-later={s.sinceDay > head.clock.day}>
            <fieldset>
              <legend>{s.ask}</legend>
              <p>{s.where}</p>
              <div className={styles.grades}>
                {s.grades.map((g, grade) => (
                  <button
                    key={g}
                    type="button"
                    aria-pressed={signs[s.key] === grade}
                    data-grade={grade}
                    onClick={() => setSigns({ ...signs, [s.key]: grade })}
                  >
                    {g}
                  </button>
                ))}
              </div>
            </fieldset>
          </li>
        ))}
      </ul>
      <Input.TextArea
        aria-label="Note"
        placeholder="What else was seen, in your words"
        value={text}
        rows={2}
        maxLength={2000}
        onChange={(e) => setText(e.target.value)}
      />
      <Refused error={keep.error}>
        {head.clientId !== undefined && keep.error instanceof Refusal && keep.error.fields.consent && (
          <Link to={`/clients/${head.clientId}`}>Open the card</Link>
        )}
      </Refused>
      <div className={styles.buttons}>
        <Button
          type="primary"
          size="large"
          disabled={answered === 0 || !may}
          loading={keep.isPending}
          onClick={() =>
            keep.mutate(undefined, {
              onSuccess: () => {
                setSigns({});
                setText("");
                void message.success("Kept. What to do stands above.");
              },
            })
          }
        >
          Keep {answered > 0 ? `${answered} of ${head.signs.length} answers` : "the answers"}
        </Button>
      </div>
      <Fold title="A picture">
        <TakePicture head={head} />
      </Fold>
    </>
  );
}

/** A picture of the head as it is, kept with what was seen. */
export function TakePicture({ head }: { head: WornHead }) {
  const { message } = App.useApp();
  const take = useWear(head.id, async (file: File) => {
    const photo = uuid();
    await server.keepPhoto(head.id, photo, await smallPicture(file));
    return server.putWear(head.id, { id: uuid(), on: localDay(), day: 0, kind: "noted", photo });
  });
  return (
    <Photo
      asks={
        head.ownHead && head.clientId === undefined
          ? "May a picture of you be kept?"
          : "May a picture of the client be kept?"
      }
      onPicture={async (file) => {
        await take.mutateAsync(file);
        void message.success("Kept with this head.");
      }}
    />
  );
}
