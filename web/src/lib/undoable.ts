import { useEffect, useState } from "react";
import { createStore, useStore, type StoreApi } from "zustand";
import { elsewhere } from "./keys";

/** A draft with its past and future, and the ways to change it. */
export interface Undoable<D, N> {
  draft: D;
  /** What was noted before the last change, to tell what the change did. */
  before: N | undefined;
  canUndo: boolean;
  canRedo: boolean;
  change: ChangeDraft<D>;
  undo: () => void;
  redo: () => void;
  /** Another draft in place of this one, with no way back. */
  replace: (draft: D) => void;
}

/**
 * Changes a draft. group names what is being slid or typed in, so that the
 * movement is one step to undo; null is a choice, a step of its own.
 */
export type ChangeDraft<D> = (group: string | null, update: (draft: D) => D) => void;

const gestureGap = 900; // ms
/** Within one box a pause is longer: a fraction may want another keyboard on a phone. */
const typingGap = 5000; // ms
const longestPast = 200;

/** The box that is being typed in. */
const typedIn = () =>
  document.activeElement instanceof HTMLInputElement && document.activeElement.type === "text"
    ? document.activeElement
    : undefined;

/** A store of one draft with undo and redo. note tells what to remember when a change starts. */
export function undoableStore<D, N = undefined>(
  first: D,
  note: () => N | undefined,
): StoreApi<Undoable<D, N>> {
  let past: D[] = [];
  let future: D[] = [];
  let gesture: { group: string | null; at: number; box: Element | undefined } | undefined;
  return createStore<Undoable<D, N>>()((set, get) => {
    const show = (draft: D, before: N | undefined) =>
      set({ draft, before, canUndo: past.length > 0, canRedo: future.length > 0 });
    return {
      draft: first,
      before: undefined,
      canUndo: false,
      canRedo: false,
      change: (group, update) => {
        const { draft, before } = get();
        const now = Date.now();
        const box = typedIn();
        const gap = box !== undefined && gesture?.box === box ? typingGap : gestureGap;
        const same = group !== null && gesture?.group === group && now - gesture.at < gap;
        const next = update(draft);
        if (!same) past = [...past.slice(-longestPast), draft];
        future = [];
        gesture = { group, at: now, box };
        show(next, same ? before : note());
      },
      undo: () => {
        const last = past[past.length - 1];
        if (last === undefined) return;
        future = [get().draft, ...future];
        past = past.slice(0, -1);
        gesture = undefined;
        show(last, note());
      },
      redo: () => {
        const [next, ...rest] = future;
        if (next === undefined) return;
        past = [...past, get().draft];
        future = rest;
        gesture = undefined;
        show(next, note());
      },
      replace: (draft) => {
        [past, future, gesture] = [[], [], undefined];
        show(draft, undefined);
      },
    };
  });
}

/** A draft with undo and redo, by Ctrl+Z too. */
export function useUndoable<D, N = undefined>(first: D, note: () => N | undefined): Undoable<D, N> {
  const [store] = useState(() => undoableStore(first, note));
  const state = useStore(store);
  const { undo, redo } = state;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z") return;
      // In a field it undoes what is typed there, behind a dialog nothing.
      if (elsewhere(event.target)) return;
      event.preventDefault();
      if (event.shiftKey) redo();
      else undo();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [undo, redo]);
  return state;
}
