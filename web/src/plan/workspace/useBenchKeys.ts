import { useCallback } from "react";
import { useLocation, useNavigate } from "react-router";
import type { Notice } from "../../api/types";
import { useKeys } from "../../lib/keys";
import { steps, type Step } from "../draft/steps";
import type { TakeAlong } from "./takeAlong";

interface Reached {
  id: string;
  step: Step;
  notices: readonly Notice[] | undefined;
  notice: Notice | undefined;
  setNotice: (notice: Notice | undefined) => void;
  openHistory: () => void;
  openKeys: () => void;
  take: (what: TakeAlong) => void;
}

/** What single keys do on the bench. */
export function useBenchKeys(of: Reached) {
  const { id, step, notices, notice, setNotice, openHistory, openKeys, take } = of;
  const navigate = useNavigate();
  const { search } = useLocation();
  const onKey = useCallback(
    (key: string) => {
      const go = (by: number) => {
        const next = steps[steps.indexOf(step) + by];
        if (next) void navigate(`/plans/${id}/${next}${search}`, { replace: true });
      };
      const nextNotice = () => {
        const all = notices?.filter((n) => n.about.length > 0) ?? [];
        setNotice(all[(all.findIndex((n) => n.reason === notice?.reason) + 1) % all.length]);
      };
      const acts: Record<string, () => void> = {
        "[": () => go(-1),
        "]": () => go(1),
        w: nextNotice,
        h: openHistory,
        p: () => take("sheet"),
        m: () => document.querySelector<SVGElement>("[data-head]")?.focus(),
        "?": openKeys,
      };
      acts[key.toLowerCase()]?.();
    },
    [id, step, search, navigate, notices, notice, setNotice, openHistory, openKeys, take],
  );
  useKeys(onKey);
}
