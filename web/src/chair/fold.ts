import type { ChairBrief, ChairEvent, ChairView } from "../api/types";
import program from "./fold/chair.wasm?url";

/** Who is shown what. */
export interface Wish {
  hand: string;
  byRow: boolean;
  from?: string;
  stays?: boolean;
  now: number;
}

/** An install that is followed: the same fold that the server does, in this browser. */
export interface Fold {
  tell: (events: readonly ChairEvent[]) => void;
  view: (wish: Wish) => ChairView;
}

/** What the program offers once it runs. */
interface Followed {
  tell: (events: string) => null | Error;
  view: (wish: string) => string | Error;
}

interface Runner {
  importObject: WebAssembly.Imports;
  run: (instance: WebAssembly.Instance) => Promise<void>;
}

declare global {
  var Go: new () => Runner;
  var kladotexChair: ((brief: string) => Followed | Error) | undefined;
}

let started: Promise<void> | undefined;

async function start(): Promise<void> {
  await import("./fold/wasm_exec.js");
  const go = new globalThis.Go();
  const { instance } = await WebAssembly.instantiateStreaming(fetch(program), go.importObject);
  void go.run(instance); // it answers for as long as the page is open
}

function answered<T>(answer: T | Error): T {
  if (answer instanceof Error) throw answer;
  return answer;
}

/** Follows an install. */
export async function follow(brief: ChairBrief): Promise<Fold> {
  started ??= start();
  try {
    await started;
  } catch (error) {
    started = undefined; // a lost connection may come back
    throw error;
  }
  if (!globalThis.kladotexChair) throw new Error("The chair's program did not start.");
  const followed = answered(globalThis.kladotexChair(JSON.stringify(brief)));
  return {
    tell: (events) => void answered(followed.tell(JSON.stringify(events))),
    view: (wish) => JSON.parse(answered(followed.view(JSON.stringify(wish)))) as ChairView,
  };
}
