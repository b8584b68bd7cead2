import type { StateStorage } from "zustand/middleware";

/**
 * The browser's own store, which may be full, switched off or broken: then what is put
 * here stays in the memory of this tab, and nothing on the page fails.
 */
const memory = new Map<string, string>();

function attempt<T>(work: (store: Storage) => T): T | undefined {
  try {
    return work(window.localStorage);
  } catch {
    return undefined;
  }
}

export const storage = {
  getItem: (name: string): string | null => memory.get(name) ?? attempt((s) => s.getItem(name)) ?? null,
  setItem(name: string, text: string) {
    const kept = attempt((s) => {
      s.setItem(name, text);
      return true;
    });
    if (kept) memory.delete(name);
    else memory.set(name, text);
  },
  removeItem(name: string) {
    memory.delete(name);
    attempt((s) => s.removeItem(name));
  },
  /** The names of all that is kept. */
  names: (): string[] => [...new Set([...memory.keys(), ...(attempt((s) => Object.keys(s)) ?? [])])],
} satisfies StateStorage & { names: () => string[] };

/** What a text of the store says; nothing where it is not one of ours any more. */
export function parsed(text: string | null): unknown {
  try {
    return text === null ? undefined : JSON.parse(text);
  } catch {
    return undefined;
  }
}
