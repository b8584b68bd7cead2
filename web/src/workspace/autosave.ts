import { useEffect, useState, useSyncExternalStore } from "react";
import { Refusal, server } from "../api/client";
import type { PlanDocument } from "../api/types";
import type { Draft } from "./draft";

export type SaveState =
  | { kind: "new" }
  | { kind: "saved"; at: Date }
  | { kind: "changed" }
  | { kind: "saving" }
  /** The server can not take it as it is; the next change is tried again. */
  | { kind: "refused"; message: string }
  | { kind: "offline" }
  /** Someone else saved this plan since it was opened. */
  | { kind: "stale" };

const settleTime = 600; // ms without a change before saving
const retryTime = 3000;

const asText = (draft: Draft) => JSON.stringify([draft.title, draft.input]);

type OnSaved = (plan: PlanDocument, created: boolean) => void;

/**
 * Saves a draft as it changes, one save at a time. The plan is made on the first
 * change, so that looking at a new plan leaves none behind.
 */
export class Autosave {
  private draft: Draft;
  private saved: string;
  private stored: { id: string; version: number } | undefined;
  private busy = false;
  private blocked = false;
  private timer = 0;
  private state: SaveState;
  private readonly watchers = new Set<() => void>();
  private onSaved: OnSaved | undefined;

  constructor(draft: Draft, opened: PlanDocument | undefined) {
    this.draft = draft;
    this.saved = asText(draft);
    this.stored = opened && { id: opened.id, version: opened.version };
    this.state = opened ? { kind: "saved", at: new Date(opened.updated) } : { kind: "new" };
  }

  readonly watch = (watcher: () => void) => {
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  };

  readonly current = () => this.state;

  get isSaved() {
    return asText(this.draft) === this.saved;
  }

  /** Takes a change and saves it once changes pause; onSaved is told of every save. */
  take(draft: Draft, onSaved: OnSaved) {
    this.draft = draft;
    this.onSaved = onSaved;
    if (this.blocked || this.isSaved) return;
    if (!this.busy) this.tell({ kind: "changed" });
    this.saveIn(settleTime);
  }

  /** Saves what is unsaved, now. */
  async save() {
    window.clearTimeout(this.timer);
    if (this.busy || this.blocked || this.isSaved) return;
    this.busy = true;
    this.tell({ kind: "saving" });
    const sent = this.draft;
    try {
      const created = !this.stored;
      const plan = this.stored
        ? await server.save(this.stored.id, this.stored.version, sent)
        : await server.create(sent);
      this.stored = { id: plan.id, version: plan.version };
      this.saved = asText(sent);
      this.tell({ kind: "saved", at: new Date(plan.updated) });
      this.onSaved?.(plan, created);
      if (!this.isSaved) this.saveIn(0);
    } catch (error) {
      this.fail(error);
    } finally {
      this.busy = false;
    }
  }

  /** After a stale save: saves this draft over the version the other person left. */
  async keepMine() {
    if (!this.stored) return;
    const theirs = await server.plan(this.stored.id);
    this.stored = { id: theirs.id, version: theirs.version };
    this.blocked = false;
    await this.save();
  }

  /** After a stale save: gives up this draft for the version the other person left. */
  async takeTheirs(): Promise<Draft | undefined> {
    if (!this.stored) return undefined;
    const theirs = await server.plan(this.stored.id);
    this.stored = { id: theirs.id, version: theirs.version };
    this.draft = { title: theirs.title, input: theirs.input };
    this.saved = asText(this.draft);
    this.blocked = false;
    this.tell({ kind: "saved", at: new Date(theirs.updated) });
    return this.draft;
  }

  private saveIn(ms: number) {
    window.clearTimeout(this.timer);
    this.timer = window.setTimeout(() => void this.save(), ms);
  }

  private fail(error: unknown) {
    if (!(error instanceof Refusal) || error.status >= 500) {
      this.tell({ kind: "offline" });
      this.saveIn(retryTime);
    } else if (error.status === 412) {
      this.blocked = true;
      this.tell({ kind: "stale" });
    } else {
      this.tell({ kind: "refused", message: error.message });
    }
  }

  private tell(state: SaveState) {
    this.state = state;
    this.watchers.forEach((watcher) => watcher());
  }
}

/** Autosave for the draft on the screen. */
export function useAutosave(draft: Draft, opened: PlanDocument | undefined, onSaved: OnSaved): Autosave {
  const [autosave] = useState(() => new Autosave(draft, opened));
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

export const useSaveState = (autosave: Autosave) => useSyncExternalStore(autosave.watch, autosave.current);
