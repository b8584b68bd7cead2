import { useCallback, type RefObject } from "react";
import type { Stance } from "../../head";
import type { Autosave } from "../../document/autosave";
import { usePreferences } from "../../lib/preferences";
import type { Draft } from "../draft/draft";
import { takeAlong, type TakeAlong } from "./takeAlong";

/** Takes papers and files of the plan along, once what was typed last is stored. */
export function useTakingAlong(autosave: Autosave<Draft>, stance: RefObject<Stance>) {
  const { unit, paper } = usePreferences();
  return useCallback(
    (what: TakeAlong) => {
      void autosave.save().then(() => {
        if (autosave.isStored && autosave.isSaved)
          takeAlong(what, autosave.id, stance.current, { unit, paper });
      });
    },
    [autosave, stance, unit, paper],
  );
}
