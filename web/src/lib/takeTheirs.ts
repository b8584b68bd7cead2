import { useMutation } from "@tanstack/react-query";
import type { Autosave } from "./autosave";

/** Goes on with what the other person left, once it could be read. */
export const useTakeTheirs = <D>(autosave: Autosave<D>, replace: (draft: D) => void) =>
  useMutation({ mutationFn: () => autosave.takeTheirs(), onSuccess: replace });
