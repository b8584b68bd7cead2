import { useMutation } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { server } from "../../../api/client";
import { queryClient } from "../../../api/queries";
import type { Shopping } from "../../../api/types";
import { parsed, storage } from "../../../lib/storage";
import type { StoredPlan } from "../../draft/stored";

/** Ticks that the server has not confirmed yet, kept on the device until it has. */
type Waiting = Readonly<Record<string, number>>;

const place = (plan: string) => `kladotex.ticks.${plan}`;

function waitingOf(plan: string): Waiting {
  const kept = parsed(storage.getItem(place(plan)));
  return typeof kept === "object" && kept !== null
    ? Object.fromEntries(Object.entries(kept).filter((e): e is [string, number] => typeof e[1] === "number"))
    : {};
}

function keepWaiting(plan: string, waiting: Waiting) {
  if (Object.keys(waiting).length === 0) storage.removeItem(place(plan));
  else storage.setItem(place(plan), JSON.stringify(waiting));
}

/** What is done of a plan's preparation: what was ticked here counts at once and outlives the page. */
export function useTicks(plan: StoredPlan, shop: Shopping) {
  const [waiting, setWaiting] = useState<Waiting>(() => waitingOf(plan.id));
  const send = useMutation({
    mutationFn: server.prepare,
    retry: 3,
    onSuccess: async (_, { task, done }) => {
      await queryClient.invalidateQueries({ queryKey: ["shopping", plan.id] });
      setWaiting((now) =>
        now[task] === done ? Object.fromEntries(Object.entries(now).filter(([key]) => key !== task)) : now,
      );
    },
  });
  const { mutate } = send;
  useEffect(() => keepWaiting(plan.id, waiting), [plan.id, waiting]);
  // What an earlier visit could not send is sent now.
  useEffect(() => {
    for (const [task, done] of Object.entries(waitingOf(plan.id))) mutate({ id: plan.id, task, done });
  }, [plan.id, mutate]);
  return {
    done: (task: string) => waiting[task] ?? shop.prepared.find((p) => p.task === task)?.done ?? 0,
    tick: (task: string, done: number) => {
      setWaiting((now) => ({ ...now, [task]: done }));
      mutate({ id: plan.id, task, done });
    },
    error: send.error,
  };
}
