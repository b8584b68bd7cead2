import { useEffect, useState, useSyncExternalStore } from "react";
import { Refusal } from "../api/client";
import { signedOutElsewhere } from "../api/queries";
import { shelf } from "./shelf";

export type SaveState =
  | { kind: "new" }
  | { kind: "saved"; at: Date }
  | { kind: "changed" }
  | { kind: "saving" }
  /** The server can not take it as it is; the next change is tried again. */
  | { kind: "refused"; message: string; fields: Readonly<Record<string, string>> }
  | { kind: "offline" }
  /** Someone else saved it since it was opened. */
  | { kind: "stale" }
  /** Someone deleted it. */
  | { kind: "gone" };

/** Where something is kept, and which save of it. */
export interface Stored {
  id: string;
  version: number;
  updated: string;
}

/** How drafts of one kind are kept on the server. */
export interface Keeper<D> {
  /** The kind, in one word, for the shelf. */
  kind: string;
  create: (draft: D) => Promise<Stored>;
  save: (id: string, version: number, draft: D) => Promise<Stored>;
  read: (id: string) => Promise<Stored & { draft: D }>;
}

const settleTime = 600; // ms without a change before saving
const retryTime = 3000;

type OnSaved = (stored: Stored, created: boolean) => void;

/** The name under which a draft lies on the shelf. */
export const shelfName = (kind: string, id: string | undefined) => `${kind}.${id ?? "new"}`;

/**
 * Saves a draft as it changes, one save at a time. It is made on the first change,
 * so that looking at a new one leaves none behind.
 */
export class Autosave<D> {
  /** What the draft was made from: as it was opened, or last saved. */
  base: D;
  private draft: D;
  private stored: { id: string; version: number } | undefined;
  private busy: Promise<void> | undefined;
  private blocked = false;
  private timer = 0;
  private state: SaveState;
  /** The state when nothing waits to be saved. */
  private rest: SaveState;
  private readonly keeper: Keeper<D>;
  private readonly watchers = new Set<() => void>();
  private onSaved: OnSaved | undefined;

  constructor(draft: D, base: D, opened: Stored | undefined, keeper: Keeper<D>) {
    this.draft = draft;
    this.base = base;
    this.stored = opened && { id: opened.id, version: opened.version };
    this.keeper = keeper;
    this.rest = this.state = opened ? { kind: "saved", at: new Date(opened.updated) } : { kind: "new" };
  }

  readonly watch = (watcher: () => void) => {
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  };

  readonly current = () => this.state;

  get id() {
    return this.stored?.id;
  }

  get isSaved() {
    return JSON.stringify(this.draft) === JSON.stringify(this.base);
  }

  /** Takes a change and saves it once changes pause; onSaved is told of every save. */
  take(draft: D, onSaved: OnSaved) {
    this.draft = draft;
    this.onSaved = onSaved;
    if (this.isSaved) {
      // Undone before it was saved: nothing is left to keep.
      shelf.clear(this.place);
      if (this.state.kind === "changed" || this.state.kind === "refused") this.tell(this.rest);
      return;
    }
    this.layOnShelf();
    if (this.blocked) return;
    if (!this.busy) this.tell({ kind: "changed" });
    this.saveIn(settleTime);
  }

  /** Saves what is unsaved, now. */
  async save() {
    window.clearTimeout(this.timer);
    // Whoever waited longest goes next; the others wait for her, too.
    while (this.busy) await this.busy;
    if (this.blocked || this.isSaved) return;
    this.busy = this.send().finally(() => (this.busy = undefined));
    await this.busy;
  }

  private async send() {
    this.tell({ kind: "saving" });
    const sent = this.draft;
    try {
      const created = !this.stored;
      const stored = this.stored
        ? await this.keeper.save(this.stored.id, this.stored.version, sent)
        : await this.keeper.create(sent);
      shelf.clear(this.place);
      this.stored = { id: stored.id, version: stored.version };
      this.base = sent;
      if (!this.isSaved) this.layOnShelf(); // typed while the save was under way
      this.tell({ kind: "saved", at: new Date(stored.updated) });
      this.onSaved?.(stored, created);
      if (!this.isSaved) this.saveIn(0);
    } catch (error) {
      this.fail(error);
    }
  }

  /** After a stale save: saves this draft over the version the other person left. */
  async keepMine() {
    if (!this.stored) return;
    this.stored = await this.keeper.read(this.stored.id);
    this.blocked = false;
    await this.save();
  }

  /** After a stale save: gives up this draft for the version the other person left. */
  async takeTheirs(): Promise<D | undefined> {
    if (!this.stored) return undefined;
    const theirs = await this.keeper.read(this.stored.id);
    shelf.clear(this.place);
    this.stored = { id: theirs.id, version: theirs.version };
    this.draft = this.base = theirs.draft;
    this.blocked = false;
    this.tell({ kind: "saved", at: new Date(theirs.updated) });
    return theirs.draft;
  }

  private get place() {
    return shelfName(this.keeper.kind, this.stored?.id);
  }

  private layOnShelf() {
    shelf.put(this.place, { draft: this.draft, base: this.base, version: this.stored?.version });
  }

  private saveIn(ms: number) {
    window.clearTimeout(this.timer);
    this.timer = window.setTimeout(() => void this.save(), ms);
  }

  private fail(error: unknown) {
    if (!(error instanceof Refusal) || error.status >= 500 || error.status === 429) {
      this.tell({ kind: "offline" });
      this.saveIn(retryTime);
      return;
    }
    switch (error.status) {
      case 401:
        signedOutElsewhere(error);
        return;
      case 404:
        this.blocked = true;
        this.tell({ kind: "gone" });
        return;
      case 412:
        this.blocked = true;
        this.tell({ kind: "stale" });
        return;
      default:
        // What was never taken is not worth bringing back to the next new one.
        if (!this.stored) shelf.clear(this.place);
        this.tell({ kind: "refused", message: error.message, fields: error.fields });
    }
  }

  private tell(state: SaveState) {
    if (state.kind === "saved") this.rest = state;
    this.state = state;
    this.watchers.forEach((watcher) => watcher());
  }
}

/** Autosave for the draft on the screen. */
export function useAutosave<D>(
  draft: D,
  base: D,
  opened: Stored | undefined,
  keeper: Keeper<D>,
  onSaved: OnSaved,
): Autosave<D> {
  const [autosave] = useState(() => new Autosave(draft, base, opened, keeper));
  useEffect(() => autosave.take(draft, onSaved), [autosave, onSaved, draft]);
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => {
      if (!autosave.isSaved) event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => {
      window.removeEventListener("beforeunload", warn);
      // Leaving the page within the application must not lose the last change.
      void autosave.save();
    };
  }, [autosave]);
  return autosave;
}

export const useSaveState = <D>(autosave: Autosave<D>) =>
  useSyncExternalStore(autosave.watch, autosave.current);
