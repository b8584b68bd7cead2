import {
  keepPreviousData,
  notifyManager,
  QueryClient,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { useState } from "react";
import { Refusal, server } from "./client";
import type { PlanInput } from "./types";

// Results show at once: a timer between answer and repaint is felt under a slider.
notifyManager.setScheduler(queueMicrotask);

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      // A refusal will not change by asking again; a lost connection may come back.
      retry: (failures, error) => !(error instanceof Refusal) && failures < 3,
      refetchOnWindowFocus: false,
    },
  },
});

export const useCatalogue = () =>
  useQuery({ queryKey: ["catalogue"], queryFn: server.catalogue, staleTime: Infinity });

export const usePlans = () => useQuery({ queryKey: ["plans"], queryFn: server.plans });

export const usePlan = (id: string | undefined) =>
  useQuery({
    queryKey: ["plan", id],
    queryFn: () => server.plan(id ?? ""),
    enabled: id !== undefined,
    // The workspace is the newer copy from here on; a second fetch would be stale.
    staleTime: Infinity,
    gcTime: 0,
  });

/** The result of a plan's input; the last good one stays until the next is there. */
export function usePreview(input: PlanInput) {
  const { data, error } = useQuery({
    queryKey: ["preview", input],
    queryFn: ({ signal }) => server.preview(input, signal),
    placeholderData: keepPreviousData,
    structuralSharing: false, // results are large and never partly the same
    staleTime: Infinity,
    gcTime: 20_000,
  });
  // A refused input has no result of its own; the head on the screen must not go.
  const [last, setLast] = useState(data);
  if (data && data !== last) setLast(data);
  return { result: data ?? last, error };
}

export function useRemovePlan() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: server.remove,
    onSuccess: () => client.invalidateQueries({ queryKey: ["plans"] }),
  });
}
