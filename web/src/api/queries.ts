import {
  keepPreviousData,
  MutationCache,
  notifyManager,
  QueryCache,
  QueryClient,
  queryOptions,
  useInfiniteQuery,
  useMutation,
  useQueries,
  useQuery,
  useQueryClient,
  type InfiniteData,
  type UseInfiniteQueryResult,
} from "@tanstack/react-query";
import { useState } from "react";
import { propose, Refusal, server } from "./client";
import { setZone } from "../lib/localDay";
import { parsed, storage } from "../lib/storage";
import { moneyIn, setExponent } from "../lib/units";
import type {
  ClientEntry,
  DrapeStyle,
  Instead,
  LoggedInstall,
  ItemDocument,
  Kind,
  Lot,
  Me,
  Operation,
  PlanEntry,
  PlanInput,
  PlanResult,
  SearchProgress,
  Wished,
  WornHead,
} from "./types";

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

/** Who was at work here last: the chair opens for them without a connection. */
const lastHere = "kladotex.me";

function remember(me: Me | null) {
  if (me) storage.setItem(lastHere, JSON.stringify(me));
  else storage.removeItem(lastHere);
}

/** Who is signed in; null at the door. Without a connection it is who was at work here last. */
export const useMe = () =>
  useQuery({
    queryKey: ["me"],
    queryFn: async () => {
      try {
        const me = (await server.me()) ?? null;
        remember(me);
        return me;
      } catch (error) {
        if (error instanceof Refusal && error.status === 401) {
          remember(null);
          return null;
        }
        const last = error instanceof Refusal ? undefined : parsed(storage.getItem(lastHere));
        if (last) return last as Me;
        throw error;
      }
    },
    staleTime: Infinity,
  });

/** Someone comes in or, with null, leaves: what was fetched for the last person is forgotten. */
export function comeIn(me: Me | null) {
  remember(me);
  queryClient.setQueryData(["me"], me);
  queryClient.removeQueries({ predicate: (query) => query.queryKey[0] !== "me" });
}

/** Who is at work; the door lets no one else past. */
export function usePerson(): Me {
  const me = useMe().data;
  if (!me) throw new Error("nobody is signed in");
  return me;
}

/** Whether who is signed in may carry out an operation; the server says so. */
export const useMay = (operation: Operation) => useMe().data?.may.includes(operation) ?? false;

export const usePeople = () => useQuery({ queryKey: ["people"], queryFn: server.people });

/** The items of all pages had so far, and how to have more. */
function pages<T>(found: UseInfiniteQueryResult<InfiniteData<PageOf<T>>>) {
  return {
    ...found,
    items: found.data?.pages.flatMap((page) => page.items),
    more: found.hasNextPage ? () => void found.fetchNextPage() : undefined,
    fetchingMore: found.isFetchingNextPage,
  };
}

interface PageOf<T> {
  items: T[];
  next?: string;
}

/** No page before it; a function, so that it is not taken for always undefined. */
const firstPage = (): string | undefined => undefined;
const nextPage = <T>(page: PageOf<T>) => page.next;

/** The clients whose names hold a text, page by page. */
export const useClients = (search = "", archived = false) =>
  pages<ClientEntry>(
    useInfiniteQuery({
      queryKey: ["clients", search, archived],
      queryFn: ({ pageParam }) =>
        server.clients({ search, archived, ...(pageParam !== undefined && { after: pageParam }) }),
      initialPageParam: firstPage(),
      getNextPageParam: nextPage,
      placeholderData: keepPreviousData,
    }),
  );

/** Whether any client is on file. */
export const useAnyClient = () =>
  useQuery({
    queryKey: ["clients", "any"],
    queryFn: async () => (await server.clients({ limit: 1 })).items.length > 0,
  });

export const useClient = (id: string | undefined) =>
  useQuery({ queryKey: ["client", id], queryFn: () => server.client(id ?? ""), enabled: id !== undefined });

/** What holds a stored plan back; looked at again and again until nothing does. */
export const useClearance = (plan: string) =>
  useQuery({
    queryKey: ["clearance", plan],
    queryFn: () => server.clearance(plan),
    enabled: plan !== "",
    refetchInterval: ({ state }) => (state.data?.clear ? false : 4000),
  });

export const useCatalogue = () =>
  useQuery({ queryKey: ["catalogue"], queryFn: server.catalogue, staleTime: Infinity });

/** The catalogue, where it was fetched before anything that reads it is drawn. */
export function useKnownCatalogue() {
  const { data } = useCatalogue();
  if (!data) throw new Error("The catalogue is fetched before this is drawn.");
  return data;
}

/** The plans, or those of one client, the one saved last first, page by page. */
export const usePlans = (client = "") =>
  pages<PlanEntry>(
    useInfiniteQuery({
      queryKey: ["plans", client],
      queryFn: ({ pageParam }) =>
        server.plans({ client, ...(pageParam !== undefined && { after: pageParam }) }),
      initialPageParam: firstPage(),
      getNextPageParam: nextPage,
    }),
  );

/** The few plans saved last. */
export const useLatestPlans = (limit: number) =>
  useQuery({
    queryKey: ["plans", "latest", limit],
    queryFn: async () => (await server.plans({ limit })).items,
  });

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

/** What a plan comes to, with the input it was asked for. */
export interface Answer {
  input: PlanInput;
  result: PlanResult;
}

const previewOf = (input: PlanInput | undefined) => ({
  queryKey: ["preview", input],
  queryFn: async ({ signal }: { signal: AbortSignal }): Promise<Answer> => {
    if (!input) throw new Error("nothing to preview");
    return { input, result: await server.preview(input, signal) };
  },
  structuralSharing: false, // results are large and never partly the same
  staleTime: Infinity,
});

/** Asks for a preview before the page has drawn what asks for it: under a slider that time counts. */
export const askAhead = (input: PlanInput) =>
  void queryClient.query({ ...previewOf(input), retry: false, gcTime: 2000 }).catch(() => undefined);

/** The answer to a plan's input; the last good one stays until the next is there. */
export function usePreview(input: PlanInput | undefined) {
  const { data, error } = useQuery<Answer>({
    ...previewOf(input),
    enabled: input !== undefined,
    placeholderData: keepPreviousData,
    gcTime: 0, // hundreds pass by under a slider: only the one on the screen is kept
  });
  // A refused input has no result of its own; the head on the screen must not go.
  const [last, setLast] = useState(data);
  if (data && data !== last) setLast(data);
  return { answer: data ?? last, error };
}

/** A part of what a plan comes to that one step alone shows; the last one stays until the next is there. */
const facet =
  <T>(name: string, ask: (input: PlanInput, signal: AbortSignal) => Promise<T>) =>
  (input: PlanInput, shown = true) =>
    useQuery({
      queryKey: [name, input],
      queryFn: ({ signal }) => ask(input, signal),
      placeholderData: keepPreviousData,
      enabled: shown,
      staleTime: Infinity,
      gcTime: 0,
    });

/** What a plan comes to at other sizes. */
export const useTradeOff = facet("tradeOff", server.tradeOff);
/** How the pieces go on, and the hours. */
export const useWork = facet("work", server.work);
/** The methods compared, with reasons. */
export const useAdvice = facet("advice", server.advice);
/** Where a plan departs from the house rules. */
export const useDepartures = facet("departures", server.departures);
/** Where the parts of every row go. */
export const useGuide = facet("guide", server.guide);

/** Where the ends land, and the cut list. */
export const useLanding = facet("landing", server.landing);
/** In which order, by whom, how long and in which sittings a plan is done. */
export const useDay = facet("day", server.day);
/** What the sittings of a plan want that is held by others. */
export const useClashes = (plan: string, input: PlanInput) =>
  useQuery({
    queryKey: ["clashes", plan, input],
    queryFn: ({ signal }) => server.clashes(plan, input, signal),
    placeholderData: keepPreviousData,
    gcTime: 0, // others book meanwhile
  });

/** How a plan stands on the calendar; null where it is not on it. */
export const useBooking = (plan: string) =>
  useQuery({
    queryKey: ["booking", plan],
    queryFn: async () => (await server.booking(plan))[0] ?? null,
    enabled: plan !== "",
  });

/** What is on the calendar from one day to another. */
export const useCalendar = (from: string, to: string) =>
  useQuery({
    queryKey: ["calendar", from, to],
    queryFn: () => server.calendar(from, to),
    placeholderData: keepPreviousData,
  });

export const useFeed = (shown: boolean) =>
  useQuery({ queryKey: ["feed"], queryFn: server.feed, enabled: shown });

/** The messages sent for a plan. */
export const useMessages = (plan: string) =>
  useQuery({ queryKey: ["messages", plan], queryFn: () => server.messages(plan), enabled: plan !== "" });

/** Other plans that keep to the time wished. */
export const useQuicker = facet("quicker", server.quicker);
/** Whether the plan as it is meets the wish it carries. */
export const useHeldAgainstWish = (input: PlanInput, clientId: string) =>
  useQuery({
    queryKey: ["held", input, clientId],
    queryFn: ({ signal }) =>
      server.heldAgainstWish(
        { input, ...(clientId && { clientId }), measured: true, asked: true, history: [], read: [] },
        signal,
      ),
    placeholderData: keepPreviousData,
    gcTime: 0,
  });

/** What comes of a wish, and how far the search has come until then. */
export function useProposals(wished: Wished) {
  const [progress, setProgress] = useState<SearchProgress>();
  const { data, error } = useQuery({
    queryKey: ["proposals", wished],
    queryFn: ({ signal }) => {
      setProgress(undefined);
      return propose(wished, setProgress, signal);
    },
    structuralSharing: false,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  });
  return { answer: data, progress, error };
}

/** What it costs on the studio's terms. */
export const usePrice = facet("price", server.price);

const drapeOf = (input: PlanInput, style: DrapeStyle) =>
  queryOptions({
    queryKey: ["drape", input, style],
    queryFn: ({ signal }) => server.drape(input, style, signal),
    structuralSharing: false, // large, and never partly the same
    staleTime: Infinity,
    gcTime: 10_000,
  });

/** How the hair hangs when it is worn in a style; asked for only while it is shown. */
export const useDrape = (input: PlanInput, style: DrapeStyle, shown = true) =>
  useQuery({ ...drapeOf(input, style), placeholderData: keepPreviousData, enabled: shown });

/** How several states of a plan hang, to be compared. */
export const useDrapes = (inputs: readonly PlanInput[]) =>
  useQueries({ queries: inputs.map((input) => drapeOf(input, "down")) });

/** Whether the pieces suit, and their weight, against what the client wore before. */
export const useFitting = (input: PlanInput, clientId: string, shown = true) =>
  useQuery({
    queryKey: ["fitting", input, clientId],
    queryFn: ({ signal }) => server.fitting(input, clientId, signal),
    placeholderData: keepPreviousData,
    enabled: shown,
    gcTime: 0, // the stash moves on meanwhile
  });

/** The quotes given for a plan. */
export const useQuotes = (plan: string) =>
  useQuery({ queryKey: ["quotes", plan], queryFn: () => server.quotes(plan), enabled: plan !== "" });

export const useQuote = (id: string) =>
  useQuery({ queryKey: ["quote", id], queryFn: () => server.quote(id) });

/** What a plan needs of hair, what the stash gives, what is bought and how it is prepared. */
export const useShopping = (plan: string, input: PlanInput) =>
  useQuery({
    queryKey: ["shopping", plan, input],
    queryFn: ({ signal }) => server.shopping(plan, input, signal),
    placeholderData: keepPreviousData,
    gcTime: 0, // the stash moves on meanwhile
  });

/** The plan beside itself with other pieces of the supplies. */
export const useAlternatives = (plan: string, input: PlanInput, others: readonly Instead[]) =>
  useQuery({
    queryKey: ["alternatives", plan, input, others],
    queryFn: ({ signal }) => server.alternatives({ plan, input, others: [...others] }, signal),
    placeholderData: keepPreviousData,
    gcTime: 0,
  });

/** The items of the supplies, page by page. */
export const useItems = (search: string, kind: Kind | "", archived: boolean) =>
  pages<ItemDocument>(
    useInfiniteQuery({
      queryKey: ["items", search, kind, archived],
      queryFn: ({ pageParam }) =>
        server.items({
          search,
          archived,
          ...(kind && { kind }),
          ...(pageParam !== undefined && { after: pageParam }),
        }),
      initialPageParam: firstPage(),
      getNextPageParam: nextPage,
      placeholderData: keepPreviousData,
    }),
  );

/** As many items as are offered to choose from. */
export const useItemChoice = () =>
  useQuery({
    queryKey: ["items", "choice"],
    queryFn: async () => (await server.items({ limit: 200 })).items,
  });

export const useOpenedItem = (id: string | undefined) =>
  useQuery({
    queryKey: ["openedItem", id],
    queryFn: () => server.item(id ?? ""),
    enabled: id !== undefined,
    ...opened,
  });

/** The lots of the stash, page by page; of one item where it is named. */
export const useStash = (search: string, empty = false, item = "") =>
  pages<Lot>(
    useInfiniteQuery({
      queryKey: ["stash", search, empty, item],
      queryFn: ({ pageParam }) =>
        server.stash({
          search,
          empty,
          item,
          limit: 100,
          ...(pageParam !== undefined && { after: pageParam }),
        }),
      initialPageParam: firstPage(),
      getNextPageParam: nextPage,
      placeholderData: keepPreviousData,
    }),
  );

/** What happened to a lot. */
export const useStashMoves = (lot: string) =>
  useQuery({ queryKey: ["stashMoves", lot], queryFn: () => server.stashMoves(lot), gcTime: 0 });

export const useSuppliers = () => useQuery({ queryKey: ["suppliers"], queryFn: server.suppliers });

export const useSupplierList = (key: string) =>
  useQuery({ queryKey: ["supplierList", key], queryFn: () => server.supplierList(key) });

export const useOrders = (plan = "") =>
  useQuery({ queryKey: ["orders", plan], queryFn: () => server.orders({ plan }) });

/** The installs that go on, and how they stand. */
export const useAtChair = () =>
  useQuery({ queryKey: ["installs"], queryFn: server.atChair, refetchInterval: 30_000 });

/** The finished installs, the latest first, page by page. */
export const useLog = () =>
  pages<LoggedInstall>(
    useInfiniteQuery({
      queryKey: ["log"],
      queryFn: ({ pageParam }) => server.log({ ...(pageParam !== undefined && { after: pageParam }) }),
      initialPageParam: firstPage(),
      getNextPageParam: nextPage,
    }),
  );

export const useLogOf = (id: string) => useQuery({ queryKey: ["log", id], queryFn: () => server.logOf(id) });

/** The installs being worn, the one to be taken down first leading. */
export const useWorn = () => useQuery({ queryKey: ["worn"], queryFn: server.worn });

/** An install being worn, or one that was. */
export const useWornOf = (id: string) =>
  useQuery({
    queryKey: ["worn", id],
    queryFn: () => server.wornOf(id),
    structuralSharing: false, // large, and drawn
  });

/** Changes an install being worn, and with it what hangs on it: the list, the client, the stash. */
export function useWear<A>(id: string, change: (argument: A) => Promise<WornHead>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: (head) => {
      client.setQueryData(["worn", id], head);
      void client.invalidateQueries({ queryKey: ["worn"], exact: true });
      for (const key of ["heads", "stash", "year", "items"])
        void client.invalidateQueries({ queryKey: [key] });
    },
  });
}

/** The installs of a client in a row. */
export const useHeads = (client: string | undefined) =>
  useQuery({
    queryKey: ["heads", client],
    queryFn: () => server.heads(client ?? ""),
    enabled: client !== undefined && client !== "",
  });

/** What came into the stash over a year, and what became of it. */
export const useYear = (year: number) =>
  useQuery({ queryKey: ["year", year], queryFn: () => server.year(year), placeholderData: keepPreviousData });

/** What finished installs say of the pace of people, with the evidence. */
export const usePaces = () => useQuery({ queryKey: ["paces"], queryFn: server.paces });

/** The same as it is put on a plan, by the id of the person. */
export const useLoggedPaces = () => useQuery({ queryKey: ["paces", "plans"], queryFn: server.loggedPaces });

/** A drawn move in words. */
export const useFigure = (figure: string) =>
  useQuery({ queryKey: ["figure", figure], queryFn: () => server.figure(figure), staleTime: Infinity });

/** A picture of a drawn move: which one, for which hand, and whether it comes off. */
export interface Picture {
  figure: string;
  still: number;
  left: boolean;
  back: boolean;
}

const motionOf = ({ figure, still, ...how }: Picture) =>
  queryOptions({
    queryKey: ["motion", figure, still, how],
    queryFn: ({ signal }) => server.motion(figure, still, how, signal),
    staleTime: Infinity,
    gcTime: 60_000, // a few hundred kilobytes each
  });

/** A picture of a drawn move with those on the way to it; the one before stays until it is there. */
export const useMotion = (picture: Picture) =>
  useQuery({ ...motionOf(picture), placeholderData: keepPreviousData });

/** Fetches a picture that comes next. */
export const fetchAhead = (picture: Picture) =>
  void queryClient.query(motionOf(picture)).catch(() => undefined);

/** The house rules. */
export const useHouse = () =>
  useQuery({
    queryKey: ["house"],
    queryFn: async () => {
      const house = await server.house();
      setZone(house.rules.zone);
      setExponent(house.rules.currency, house.currencyDigits);
      return house;
    },
    staleTime: Infinity,
  });

/** The studio's currency; until it is known, the one a studio starts with. */
export const useCurrency = () => useHouse().data?.rules.currency ?? "USD";

/** Writes an amount in the studio's currency as the reader is used to. */
export const useMoney = () => moneyIn(useCurrency());

/** Carries out a change and fetches again what it touched. */
export function useChange<A, R>(change: (argument: A) => Promise<R>, ...touches: string[]) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => Promise.all(touches.map((key) => client.invalidateQueries({ queryKey: [key] }))),
  });
}
