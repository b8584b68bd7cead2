import { App, Button, Input, Segmented } from "antd";
import { useState } from "react";
import { v4 as uuid } from "uuid";
import { server } from "../api/client";
import { useWear } from "../api/queries";
import type { Saved, WearEntry, WornHead } from "../api/types";
import { localDay } from "../lib/localDay";
import { useNarrow } from "../lib/narrow";
import { LengthField } from "../ui/fields";
import { Count } from "../ui/Numeric";
import { Refused } from "./Refused";
import { SavedCounts } from "./SavedCounts";
import styles from "./Wear.module.css";

const feels = [
  { value: "comfortable", label: "Comfortable" },
  { value: "tight", label: "Tight" },
  { value: "painful", label: "It hurt" },
] as const;
const edgesNow = [
  { value: "better", label: "Better" },
  { value: "same", label: "As before" },
  { value: "worse", label: "Thinner" },
] as const;

/** What is told once it is down: pieces saved, time, how it felt, edges, length. */
export function ItIsDown({ head }: { head: WornHead }) {
  const { message } = App.useApp();
  const narrow = useNarrow();
  const usual = (key: string) =>
    head.takedown.parts.filter((p) => p.piece === key).reduce((n, p) => n + p.usuallyBack, 0);
  const [saved, setSaved] = useState<Saved[]>(() =>
    head.pieces.map((p) => ({ piece: p.key, good: Math.min(usual(p.key), p.hung), worn: 0 })),
  );
  const [things, setThings] = useState(() => head.things.map((t) => t.count));
  const [how, setHow] = useState<NonNullable<WearEntry["felt"]>>("comfortable");
  const [edge, setEdge] = useState<NonNullable<WearEntry["edges"]>>("same");
  const [minutes, setMinutes] = useState(() => Math.max(5, 5 * Math.round(head.takedown.totalMin / 5)));
  const [mm, setMm] = useState(0);
  const [text, setText] = useState("");
  const keep = useWear(head.id, () =>
    server.putWear(head.id, {
      id: uuid(),
      on: localDay(),
      day: 0,
      kind: "taken-down",
      saved: saved.filter((s) => s.good + s.worn > 0),
      ...(things.length > 0 && { things }),
      minutes,
      ...(head.keepsHealth && {
        felt: how,
        edges: edge,
        ...(mm > 0 && { lengthMm: mm }),
        ...(text.trim() && { text: text.trim() }),
      }),
    }),
  );
  const expected = head.pieces.some((p) => usual(p.key) > 0);
  return (
    <section className={styles.isDown} aria-label="It is down">
      <h3>It is down: count what is saved</h3>
      <p>
        {expected
          ? "What usually comes back is filled in; put it right. Good ones can show again, worn ones fill or lie underneath."
          : "Cut pieces do not come back. Count those that came off whole."}
      </p>
      <SavedCounts head={head} saved={saved} onChange={setSaved} />
      {head.things.map((t, i) => (
        <label key={t.name} className={styles.thing}>
          {t.name}, of {t.count}
          <Count
            label={`${t.name} saved`}
            value={things[i] ?? 0}
            min={0}
            max={t.count}
            onChange={(n) => setThings(things.map((x, k) => (k === i ? (n ?? 0) : x)))}
          />
        </label>
      ))}
      <div className={styles.asked}>
        {head.keepsHealth && (
          <>
            <span>How was it to wear?</span>
            <Segmented
              size="large"
              block
              vertical={narrow}
              aria-label="How was it to wear?"
              value={how}
              options={[...feels]}
              onChange={setHow}
            />
            <span>The edges now</span>
            <Segmented
              size="large"
              block
              vertical={narrow}
              aria-label="The edges now"
              value={edge}
              options={[...edgesNow]}
              onChange={setEdge}
            />
          </>
        )}
        <label className={styles.thing}>
          Minutes it took
          <Count
            label="Minutes it took"
            value={minutes}
            min={0}
            max={3000}
            onChange={(n) => setMinutes(n ?? 0)}
          />
        </label>
        {head.keepsHealth && (
          <LengthField
            label="Longest own hair now, stretched"
            path="lengthMm"
            help="Leave it empty where nobody measures."
            mm={mm}
            empty
            onChange={setMm}
          />
        )}
      </div>
      {head.keepsHealth ? (
        <Input.TextArea
          aria-label="Note on the taking down"
          placeholder="What to remember next time"
          value={text}
          rows={2}
          maxLength={2000}
          onChange={(e) => setText(e.target.value)}
        />
      ) : (
        <p className={styles.note}>
          How it felt, the edges and notes are kept only with consent, which the card does not have.
        </p>
      )}
      <Refused error={keep.error} />
      <div className={styles.buttons}>
        <Button
          type="primary"
          size="large"
          loading={keep.isPending}
          onClick={() =>
            keep.mutate(undefined, {
              onSuccess: () => void message.success("Down. What was saved lies in the stash."),
            })
          }
        >
          It is down
        </Button>
      </div>
    </section>
  );
}
