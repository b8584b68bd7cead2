import { useCallback, useEffect, useReducer } from "react";
import { elsewhere } from "./keys";

interface State<D, N> {
  draft: D;
  past: D[];
  future: D[];
  /** What was noted before the last change, to tell what the change did. */
  before: N | undefined;
  /** Changes of one control in quick succession are one step to undo. */
  gesture: { control: string | null; at: number } | undefined;
}

type Action<D, N> =
  | {
      kind: "change";
      control: string | null;
      at: number;
      note: N | undefined;
      update: (draft: D) => D;
    }
  | { kind: "undo" | "redo"; note: N | undefined }
  | { kind: "replace"; draft: D };

const gestureGap = 900; // ms
const longestPast = 200;

function reduce<D, N>(state: State<D, N>, action: Action<D, N>): State<D, N> {
  switch (action.kind) {
    case "change": {
      const same =
        action.control !== null &&
        state.gesture?.control === action.control &&
        action.at - state.gesture.at < gestureGap;
      return {
        draft: action.update(state.draft),
        past: same ? state.past : [...state.past.slice(-longestPast), state.draft],
        future: [],
        before: same ? state.before : action.note,
        gesture: { control: action.control, at: action.at },
      };
    }
    case "undo": {
      const draft = state.past[state.past.length - 1];
      if (draft === undefined) return state;
      return {
        draft,
        past: state.past.slice(0, -1),
        future: [state.draft, ...state.future],
        before: action.note,
        gesture: undefined,
      };
    }
    case "redo": {
      const draft = state.future[0];
      if (draft === undefined) return state;
      return {
        draft,
        past: [...state.past, state.draft],
        future: state.future.slice(1),
        before: action.note,
        gesture: undefined,
      };
    }
    case "replace":
      return { draft: action.draft, past: [], future: [], before: undefined, gesture: undefined };
  }
}

/**
 * Changes a draft. control names what is being slid or typed in, so that the
 * movement is one step to undo; null is a choice, a step of its own.
 */
export type ChangeDraft<D> = (control: string | null, update: (draft: D) => D) => void;

/** A draft with undo and redo, by Ctrl+Z too. note tells what to remember when a change starts. */
export function useUndoable<D, N = undefined>(initial: D, note: () => N | undefined) {
  const [state, dispatch] = useReducer(reduce<D, N>, {
    draft: initial,
    past: [],
    future: [],
    before: undefined,
    gesture: undefined,
  });
  const change: ChangeDraft<D> = useCallback(
    (control, update) => dispatch({ kind: "change", control, at: Date.now(), note: note(), update }),
    [note],
  );
  const undo = useCallback(() => dispatch({ kind: "undo", note: note() }), [note]);
  const redo = useCallback(() => dispatch({ kind: "redo", note: note() }), [note]);
  const replace = useCallback((draft: D) => dispatch({ kind: "replace", draft }), []);

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

  return {
    draft: state.draft,
    before: state.before,
    canUndo: state.past.length > 0,
    canRedo: state.future.length > 0,
    change,
    undo,
    redo,
    replace,
  };
}
