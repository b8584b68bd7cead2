import { useCallback, useReducer } from "react";
import type { PlanInput, Tally } from "../api/types";

/** What a person works on. */
export interface Draft {
  title: string;
  input: PlanInput;
}

interface State {
  draft: Draft;
  past: Draft[];
  future: Draft[];
  /** The tally before the last change, to tell what the change did. */
  before: Tally | undefined;
  /** Changes of one control in quick succession are one step to undo. */
  gesture: { control: string | null; at: number } | undefined;
}

type Action =
  | {
      kind: "change";
      control: string | null;
      at: number;
      tally: Tally | undefined;
      update: (draft: Draft) => Draft;
    }
  | { kind: "undo" | "redo"; tally: Tally | undefined }
  | { kind: "replace"; draft: Draft };

const gestureGap = 900; // ms
const longestPast = 200;

function reduce(state: State, action: Action): State {
  switch (action.kind) {
    case "change": {
      const draft = action.update(state.draft);
      const same =
        action.control !== null &&
        state.gesture?.control === action.control &&
        action.at - state.gesture.at < gestureGap;
      return {
        draft,
        past: same ? state.past : [...state.past.slice(-longestPast), state.draft],
        future: [],
        before: same ? state.before : action.tally,
        gesture: { control: action.control, at: action.at },
      };
    }
    case "undo": {
      const draft = state.past[state.past.length - 1];
      if (!draft) return state;
      return {
        draft,
        past: state.past.slice(0, -1),
        future: [state.draft, ...state.future],
        before: action.tally,
        gesture: undefined,
      };
    }
    case "redo": {
      const draft = state.future[0];
      if (!draft) return state;
      return {
        draft,
        past: [...state.past, state.draft],
        future: state.future.slice(1),
        before: action.tally,
        gesture: undefined,
      };
    }
    case "replace":
      return { draft: action.draft, past: [], future: [], before: undefined, gesture: undefined };
  }
}

/**
 * Changes a plan's input. control names what is being slid or typed in, so that the
 * movement is one step to undo; null is a choice, a step of its own.
 */
export type Change = (control: string | null, update: (input: PlanInput) => PlanInput) => void;

/** A draft with undo and redo. tally tells the newest tally when a change starts. */
export function useDraft(initial: Draft, tally: () => Tally | undefined) {
  const [state, dispatch] = useReducer(reduce, {
    draft: initial,
    past: [],
    future: [],
    before: undefined,
    gesture: undefined,
  });
  const changeDraft = useCallback(
    (control: string | null, update: (draft: Draft) => Draft) =>
      dispatch({ kind: "change", control, at: Date.now(), tally: tally(), update }),
    [tally],
  );
  const change: Change = useCallback(
    (control, update) => changeDraft(control, (draft) => ({ ...draft, input: update(draft.input) })),
    [changeDraft],
  );
  const rename = useCallback(
    (title: string) => changeDraft("title", (draft) => ({ ...draft, title })),
    [changeDraft],
  );
  const undo = useCallback(() => dispatch({ kind: "undo", tally: tally() }), [tally]);
  const redo = useCallback(() => dispatch({ kind: "redo", tally: tally() }), [tally]);
  const replace = useCallback((draft: Draft) => dispatch({ kind: "replace", draft }), []);
  return {
    draft: state.draft,
    before: state.before,
    canUndo: state.past.length > 0,
    canRedo: state.future.length > 0,
    change,
    rename,
    undo,
    redo,
    replace,
  };
}
