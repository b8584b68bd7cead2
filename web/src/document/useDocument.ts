import { useMutation } from "@tanstack/react-query";
import { useCallback } from "react";
import { queryClient } from "../api/queries";
import { useUndoable } from "../lib/undoable";
import {
  useAutosave,
  useSaveState,
  useSaving,
  type Autosave,
  type Begin,
  type Keeper,
  type Stored,
} from "./autosave";

interface Opened<D> {
  begin: Begin<D>;
  keeper: Keeper<D>;
  /** What is told once a new one is made. */
  onMade: (stored: Stored) => void;
}

const nothing = () => undefined;
const noFields: Readonly<Record<string, string>> = {};

/**
 * Something that is edited: undone and redone, saved by itself as it changes, kept on the device until it is
 * saved. fields are what the server refused of it, by their paths. note tells what to remember when a change
 * starts.
 */
export function useDocument<D, N = undefined>(
  { begin, keeper, onMade }: Opened<D>,
  note: () => N | undefined = nothing,
) {
  const autosave = useAutosave(begin, keeper);
  const undoable = useUndoable<D, N>(autosave.first, note);
  const onSaved = useCallback(
    (stored: Stored, created: boolean) => {
      for (const key of keeper.touches) void queryClient.invalidateQueries({ queryKey: [key] });
      if (created) onMade(stored);
    },
    [keeper, onMade],
  );
  useSaving(autosave, undoable.draft, onSaved);
  const state = useSaveState(autosave);
  return { ...undoable, autosave, state, fields: state.kind === "refused" ? state.fields : noFields };
}

/** What is edited, as [useDocument] gives it. */
export type Document<D, N = undefined> = ReturnType<typeof useDocument<D, N>>;

/** Goes on with what the other person left, once it could be read. */
export const useTakeTheirs = <D>(autosave: Autosave<D>, replace: (draft: D) => void) =>
  useMutation({ mutationFn: () => autosave.takeTheirs(), onSuccess: replace });
