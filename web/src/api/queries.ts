import {
  keepPreviousData,
  MutationCache,
  notifyManager,
  QueryCache,
  QueryClient,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { useState } from "react";
import { Refusal, server } from "./client";
import type { Person, PlanInput } from "./types";

// Results show at once: a timer between answer and repaint is felt under a slider.
notifyManager.setScheduler(queueMicrotask);

/** The sign-in ended somewhere: the door is shown, and what was typed is on the shelf. */
export function signedOutElsewhere(error: unknown) {
  if (error instanceof Refusal && error.status === 401) queryClient.setQueryData(["me"], null);
}

export const queryClient = new QueryClient({
  queryCache: new QueryCache({ onError: signedOutElsewhere }),
  mutationCache: new MutationCache({ onError: signedOutElsewhere }),
  defaultOptions: {
    queries: {
      // A refusal will not change by asking again; a lost connection may come back.
      retry: (failures, error) => !(error instanceof Refusal) && failures < 3,
      refetchOnWindowFocus: false,
    },
  },
});

export const useStudio = () => useQuery({ queryKey: ["studio"], queryFn: server.studio });

/** Who is signed in; null at the door. */
export const useMe = () =>
  useQuery({
    queryKey: ["me"],
    queryFn: () =>
      server.me().catch((error: unknown) => {
        if (error instanceof Refusal && error.status === 401) return null;
        throw error;
      }),
    staleTime: Infinity,
  });

/** Someone comes in or, with null, leaves: what was fetched for the last person is forgotten. */
export function comeIn(me: Person | null) {
  queryClient.setQueryData(["me"], me);
  queryClient.removeQueries({ predicate: (query) => query.queryKey[0] !== "me" });
}

export const useMayDelete = () => useMe().data?.role !== "apprentice";

export const usePeople = () => useQuery({ queryKey: ["people"], queryFn: server.people });

export const useClients = (search = "", archived = false) =>
  useQuery({
    queryKey: ["clients", search, archived],
    queryFn: () => server.clients(search, archived),
    placeholderData: keepPreviousData,
  });

export const useClient = (id: string | undefined) =>
  useQuery({ queryKey: ["client", id], queryFn: () => server.client(id ?? ""), enabled: id !== undefined });

export const useCatalogue = () =>
  useQuery({ queryKey: ["catalogue"], queryFn: server.catalogue, staleTime: Infinity });

export const usePlans = (client = "") =>
  useQuery({ queryKey: ["plans", client], queryFn: () => server.plans(client) });

/** A document opened to be worked on: the page is the newer copy from here on. */
const opened = { staleTime: Infinity, gcTime: 0 };

export const usePlan = (id: string | undefined) =>
  useQuery({
    queryKey: ["plan", id],
    queryFn: () => server.plan(id ?? ""),
    enabled: id !== undefined,
    ...opened,
  });

export const useOpenedClient = (id: string | undefined) =>
  useQuery({
    queryKey: ["openedClient", id],
    queryFn: () => server.client(id ?? ""),
    enabled: id !== undefined,
    ...opened,
  });

/** What a new plan starts from. */
export const useBegin = (query: Record<string, string>, enabled: boolean) =>
  useQuery({ queryKey: ["begin", query], queryFn: () => server.begin(query), enabled, ...opened });

export const useVersions = (id: string) =>
  useQuery({ queryKey: ["versions", id], queryFn: () => server.versions(id), gcTime: 0 });

/** The result of a plan's input; the last good one stays until the next is there. */
export function usePreview(input: PlanInput | undefined) {
  const { data, error } = useQuery({
    queryKey: ["preview", input],
    queryFn: ({ signal }) => {
      if (!input) throw new Error("nothing to preview");
      return server.preview(input, signal);
    },
    enabled: input !== undefined,
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

/** What a plan comes to at other sizes. */
export const useTradeOff = (input: PlanInput) =>
  useQuery({
    queryKey: ["tradeOff", input],
    queryFn: ({ signal }) => server.tradeOff(input, signal),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 20_000,
  });

/** Carries out a change and fetches again what it touched. */
export function useChange<A, R>(change: (argument: A) => Promise<R>, ...touches: string[]) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => Promise.all(touches.map((key) => client.invalidateQueries({ queryKey: [key] }))),
  });
}
