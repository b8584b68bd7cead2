import { createContext, useContext, useEffect, useRef, useState } from "react";

/** Says words aloud. */
export interface Voice {
  say: (words: string) => void;
  hush: () => void;
}

/** For a browser that says nothing, and for tests. */
export const silent: Voice = { say: () => undefined, hush: () => undefined };

const aloud: Voice = {
  say(words) {
    window.speechSynthesis.cancel();
    window.speechSynthesis.speak(new SpeechSynthesisUtterance(words));
  },
  hush: () => window.speechSynthesis.cancel(),
};

export const canSpeak = () => "speechSynthesis" in window;

/** What says things aloud here. */
export const VoiceHere = createContext<Voice>(canSpeak() ? aloud : silent);

/** Says each new text while it is wished. */
export function useSaid(words: string, wished: boolean) {
  const voice = useContext(VoiceHere);
  useEffect(() => {
    if (wished && words !== "") voice.say(words);
    return () => voice.hush();
  }, [words, wished, voice]);
}

/** Keeps the screen on while a page is open. */
export function useAwake(wished: boolean): boolean {
  const [held, setHeld] = useState(false);
  useEffect(() => {
    if (!wished || !("wakeLock" in navigator)) return undefined;
    let lock: WakeLockSentinel | undefined;
    let over = false;
    const ask = () => {
      if (document.visibilityState !== "visible") return;
      navigator.wakeLock.request("screen").then(
        (got) => {
          if (over) void got.release();
          lock = got;
          setHeld(true);
          got.addEventListener("release", () => setHeld(false));
        },
        () => setHeld(false),
      );
    };
    ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, [wished]);
  return held;
}

/** What this page needs of a browser's way of hearing words; some have none. */
interface Hearing {
  continuous: boolean;
  lang: string;
  onresult: ((event: { results: ArrayLike<ArrayLike<{ transcript: string }>> }) => void) | null;
  onstart: (() => void) | null;
  onend: (() => void) | null;
  onerror: (() => void) | null;
  start: () => void;
  abort: () => void;
}

type HearingMaker = new () => Hearing;

const hearingOf = (): HearingMaker | undefined => {
  const all = window as unknown as Record<string, HearingMaker | undefined>;
  return all.SpeechRecognition ?? all.webkitSpeechRecognition;
};

export const canHear = () => hearingOf() !== undefined;

/** Hears words while it is wished, and does what stands for one; tells whether it listens. */
export function useHeard(commands: Readonly<Record<string, () => void>>, wished: boolean): boolean {
  const latest = useRef(commands);
  useEffect(() => {
    latest.current = commands;
  });
  const [listens, setListens] = useState(false);
  useEffect(() => {
    const Maker = wished ? hearingOf() : undefined;
    if (!Maker) return undefined;
    let over = false;
    const ear = new Maker();
    ear.continuous = true;
    ear.lang = navigator.language;
    ear.onresult = ({ results }) => {
      const words = results[results.length - 1]?.[0]?.transcript.toLowerCase().split(/\W+/) ?? [];
      const word = words.reverse().find((w) => w in latest.current);
      if (word !== undefined) latest.current[word]?.();
    };
    // It stops by itself after a silence.
    ear.onend = () => {
      if (over) setListens(false);
      else setTimeout(() => !over && ear.start(), 400);
    };
    ear.onerror = () => undefined;
    ear.onstart = () => setListens(true);
    ear.start();
    return () => {
      over = true;
      ear.abort();
      setListens(false);
    };
  }, [wished]);
  return listens;
}
