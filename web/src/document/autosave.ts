import { useEffect, useState, useSyncExternalStore } from "react";
import { Refusal } from "../api/client";
import { signedOutElsewhere } from "../api/queries";
import type { ShelfPlace, Shelved } from "../lib/shelf";

export type SaveState =
  | { kind: "new" }
  | { kind: "saved"; at: Date }
  | { kind: "changed" }
  | { kind: "saving" }
  /** The server cannot take it as it is; the next change is tried again. */
  | { kind: "refused"; message: string; fields: Readonly<Record<string, string>> }
  | { kind: "offline" }
  /** Someone else saved it since it was opened, and how many times by now. */
  | { kind: "stale"; times: number }
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
  /** Makes it under an id of ours: asked again with the same draft, it is made once. */
  create: (id: string, draft: D) => Promise<Stored>;
  save: (id: string, version: number, draft: D) => Promise<Stored>;
  read: (id: string) => Promise<Stored & { draft: D }>;
  /** The queries that a save leaves out of date, by their first key. */
  touches: readonly string[];
}

const settleTime = 600; // ms without a change before saving
const retryTime = 3000;

type OnSaved = (stored: Stored, created: boolean) => void;

/** What an autosave begins with. */
export interface Begin<D> {
  id: string;
  /** The plan as it is stored; none for a new one. */
  opened: { version: number; updated: string; draft: D } | undefined;
  /** What a new one starts from, where nothing is opened. */
  start: D;
  shelf: ShelfPlace<D>;
}

/** The autosave that works on something, by its place: a page that is opened again takes over. */
const working = new Map<string, Autosave<never>>();

/**
 * Saves a draft as it changes, one save at a time. It is made on the first change,
 * so that looking at a new one leaves none behind.
 *
 * An answer may be lost: what was sent is then sent again as it was, which the server
 * recognises, before anything newer goes out.
 */
export class Autosave<D> {
  readonly id: string;
  /** What the draft was made from: as it was opened, or last saved. */
  base: D;
  private draft: D;
  private version: number | undefined;
  private sent: D | undefined;
  private busy: Promise<void> | undefined;
  private blocked = false;
  /** Left by its page: it sends what it has once more and does not try again. */
  private left = false;
  /** Another autosave works on the same: this one sends nothing and keeps nothing. */
  private replaced = false;
  private timer = 0;
  private times = 0;
  private state: SaveState;
  /** The state when nothing waits to be saved. */
  private rest: SaveState;
  private readonly keeper: Keeper<D>;
  private readonly shelf: ShelfPlace<D>;
  private readonly watchers = new Set<() => void>();
  private onSaved: OnSaved | undefined;

  constructor({ id, opened, start, shelf }: Begin<D>, keeper: Keeper<D>) {
    // What was typed here and never reached the server goes on.
    const kept: Shelved<D> | undefined = shelf.look();
    this.id = id;
    this.draft = kept?.draft ?? opened?.draft ?? start;
    this.base = kept?.base ?? opened?.draft ?? start;
    this.version = kept ? kept.version : opened?.version;
    this.sent = kept?.sent;
    this.keeper = keeper;
    this.shelf = shelf;
    this.rest = this.state = opened ? { kind: "saved", at: new Date(opened.updated) } : { kind: "new" };
  }

  /** What the other person left, to be looked at. */
  readonly theirs = () => this.keeper.read(this.id);

  /** The draft it began with. */
  get first() {
    return this.draft;
  }

  readonly watch = (watcher: () => void) => {
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  };

  readonly current = () => this.state;

  /** True once the server has it. */
  get isStored() {
    return this.version !== undefined;
  }

  /** The version that holds what was typed last; none while something is not saved. */
  get savedVersion() {
    return this.isSaved ? this.version : undefined;
  }

  get isSaved() {
    return this.sent === undefined && JSON.stringify(this.draft) === JSON.stringify(this.base);
  }

  /** The page is there: what another one left half-done is waited for. */
  enter() {
    this.left = this.replaced = false;
    const place = `${this.keeper.kind}.${this.id}`;
    const before = working.get(place) as unknown as Autosave<D> | undefined;
    if (before && before !== this) {
      before.replaced = true;
      window.clearTimeout(before.timer);
      this.busy = before.busy?.finally(() => (this.busy = undefined));
    }
    working.set(place, this as unknown as Autosave<never>);
    if (this.sent !== undefined) this.saveIn(0);
  }

  /** The page is left: the last change goes out, once. */
  leave() {
    this.left = true;
    void this.save();
  }

  /** Takes a change and saves it once changes pause; onSaved is told of every save. */
  take(draft: D, onSaved: OnSaved) {
    this.draft = draft;
    this.onSaved = onSaved;
    if (this.isSaved) {
      // Undone before it was saved: nothing is left to keep.
      this.shelf.clear();
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
    // Whoever waited longest goes next; the others wait, too.
    while (this.busy) await this.busy;
    if (this.blocked || this.replaced || this.isSaved) return;
    this.busy = this.send().finally(() => (this.busy = undefined));
    await this.busy;
  }

  private async send() {
    this.tell({ kind: "saving" });
    const sent = this.sent ?? this.draft;
    this.sent = sent;
    this.layOnShelf();
    try {
      const created = this.version === undefined;
      const stored =
        this.version === undefined
          ? await this.keeper.create(this.id, sent)
          : await this.keeper.save(this.id, this.version, sent);
      if (this.replaced) return;
      this.sent = undefined;
      this.version = stored.version;
      this.base = sent;
      this.shelf.clear();
      this.tell({ kind: "saved", at: new Date(stored.updated) });
      if (!this.isSaved) {
        // Typed while the save was under way.
        this.layOnShelf();
        this.tell({ kind: "changed" });
        this.saveIn(0);
      }
      this.onSaved?.(stored, created && !this.left);
    } catch (error) {
      if (!this.replaced) this.fail(error);
    }
  }

  /** After a stale save: saves this draft over the version it was held against. */
  async keepMine(version: number) {
    this.version = version;
    this.sent = undefined;
    this.blocked = false;
    await this.save();
  }

  /** After a stale save: gives up this draft for the version the other person left. */
  async takeTheirs(): Promise<D> {
    const theirs = await this.theirs();
    this.shelf.clear();
    this.version = theirs.version;
    this.sent = undefined;
    this.draft = this.base = theirs.draft;
    this.blocked = false;
    this.tell({ kind: "saved", at: new Date(theirs.updated) });
    return theirs.draft;
  }

  private layOnShelf() {
    if (this.replaced) return;
    this.shelf.put({ draft: this.draft, base: this.base, version: this.version, sent: this.sent });
  }

  private saveIn(ms: number) {
    window.clearTimeout(this.timer);
    if (this.left) return;
    this.timer = window.setTimeout(() => void this.save(), ms);
  }

  private fail(error: unknown) {
    if (!(error instanceof Refusal) || error.status >= 500 || error.status === 429) {
      this.tell({ kind: "offline" });
      this.saveIn(retryTime);
      return;
    }
    // A refusal is an answer: what was sent is not stored.
    this.sent = undefined;
    this.layOnShelf();
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
        this.times++;
        this.tell({ kind: "stale", times: this.times });
        return;
      default:
        this.tell({ kind: "refused", message: error.message, fields: error.fields });
    }
  }

  private tell(state: SaveState) {
    if (state.kind === "saved") this.rest = state;
    this.state = state;
    this.watchers.forEach((watcher) => watcher());
  }
}

/** Autosave for the page's draft; made once, when the page is opened. */
export function useAutosave<D>(begin: Begin<D>, keeper: Keeper<D>): Autosave<D> {
  const [autosave] = useState(() => new Autosave(begin, keeper));
  useEffect(() => {
    autosave.enter();
    const warn = (event: BeforeUnloadEvent) => {
      if (!autosave.isSaved) event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => {
      window.removeEventListener("beforeunload", warn);
      // Leaving the page within the application must not lose the last change.
      autosave.leave();
    };
  }, [autosave]);
  return autosave;
}

/** Hands every state of a draft to its autosave. */
export function useSaving<D>(autosave: Autosave<D>, draft: D, onSaved: OnSaved) {
  useEffect(() => autosave.take(draft, onSaved), [autosave, onSaved, draft]);
}

export const useSaveState = <D>(autosave: Autosave<D>) =>
  useSyncExternalStore(autosave.watch, autosave.current);
