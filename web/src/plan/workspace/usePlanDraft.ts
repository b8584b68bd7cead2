import { App } from "antd";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Refusal, server } from "../../api/client";
import { askAhead, useChange, usePreview } from "../../api/queries";
import type { PlanDocument, PlanVersion, Tally } from "../../api/types";
import type { Stored } from "../../document/autosave";
import { useDocument } from "../../document/useDocument";
import type { ShelfPlace } from "../../lib/shelf";
import { actions, type Act } from "../draft/actions";
import { planKeeper, type Draft } from "../draft/draft";

interface Opening {
  id: string;
  opened: PlanDocument | undefined;
  base: Draft;
  shelf: ShelfPlace<Draft>;
  onMade: (plan: Stored) => void;
}

const noErrors = {};

/** A plan that is worked on: undone, saved by itself, computed with every change, an earlier version looked at. */
export function usePlanDraft({ id, opened, base, shelf, onMade }: Opening) {
  const latest = useRef<Tally>(undefined);
  const tally = useCallback(() => latest.current, []);
  const { change, ...document } = useDocument<Draft, Tally>(
    {
      begin: { id, opened: opened && { ...opened, draft: base }, start: base, shelf },
      keeper: planKeeper,
      onMade,
    },
    tally,
  );
  const { draft } = document;
  // A plan that is or was at the chair stays as it is: it is copied, and the copy is changed.
  const install = opened?.installId;
  const { message } = App.useApp();
  const act: Act = useCallback(
    ({ group, update }) => {
      if (install !== undefined) {
        void message.info({ key: "frozen", content: "This plan stays as it is. Copy it to change it." });
        return;
      }
      change(group, (before) => {
        const next = update(before);
        if (next.input !== before.input) askAhead(next.input);
        return next;
      });
    },
    [change, install, message],
  );
  const lookBack = useLookBack(id, act);
  const { looking } = lookBack;
  const shown = useMemo(
    () => (looking ? { ...looking.draft, ...(draft.clientId && { clientId: draft.clientId }) } : draft),
    [looking, draft],
  );
  const { answer, error } = usePreview(shown.input);
  const told = answer?.result.tally;
  useEffect(() => {
    latest.current = told;
  }, [told]);
  const refusal = error instanceof Refusal ? error : undefined;
  return {
    ...document,
    ...lookBack,
    act,
    install,
    shown,
    answer,
    error,
    refusal,
    errors: refusal?.fields ?? noErrors,
  };
}

export type PlanDraftState = ReturnType<typeof usePlanDraft>;

/** An earlier version on the screen in place of the draft, until it is brought back or left. */
function useLookBack(id: string, act: Act) {
  const [looking, setLooking] = useState<{ version: PlanVersion; draft: Draft }>();
  const { mutate } = useChange((version: PlanVersion) => server.version(id, version.version));
  const look = (version: PlanVersion) =>
    mutate(version, { onSuccess: (draft) => setLooking({ version, draft }) });
  const leave = () => setLooking(undefined);
  const bringBack = () => {
    if (looking) act(actions.bringBack(looking.draft.input, looking.draft.title));
    leave();
  };
  return { looking, look, bringBack, leave };
}
