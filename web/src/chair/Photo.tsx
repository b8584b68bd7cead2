import { useRef, useState } from "react";
import styles from "./Chair.module.css";

/** A picture, after who it shows said yes. */
export function Photo({ asks, onPicture }: { asks: string; onPicture: (file: File) => Promise<void> }) {
  const [asked, setAsked] = useState(false);
  const [trouble, setTrouble] = useState("");
  const input = useRef<HTMLInputElement>(null);
  return (
    <div className={styles.photo}>
      <p>
        <strong>{asks}</strong> It is kept small, without where it was taken, with this install, and can be
        deleted.
      </p>
      <div className={styles.answers}>
        <button type="button" aria-pressed={asked} onClick={() => setAsked(!asked)}>
          {asked ? "Yes was said" : "Yes"}
        </button>
        <button type="button" disabled={!asked} onClick={() => input.current?.click()}>
          Take it
        </button>
      </div>
      <input
        ref={input}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        aria-label="Picture"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (!file) return;
          setTrouble("");
          onPicture(file).catch((error: unknown) =>
            setTrouble(error instanceof Error ? error.message : "This picture cannot be read."),
          );
        }}
      />
      {trouble && <p role="alert">{trouble}</p>}
    </div>
  );
}
