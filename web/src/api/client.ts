import createClient from "openapi-fetch";
import type { components, paths } from "./schema";
import { unpack } from "./unpack";

/** The studio's own name for the cookie, written into the page. */
const csrfCookie = document.querySelector<HTMLMetaElement>("meta[name=csrf-cookie]")?.content ?? "";

/** Browsers that do not say where a request comes from send the token back instead. */
function withToken(request: Request) {
  const token = document.cookie
    .split("; ")
    .find((cookie) => cookie.startsWith(`${csrfCookie}=`))
    ?.slice(csrfCookie.length + 1);
  if (token) request.headers.set("X-CSRF-Token", token);
  return fetch(request);
}

// As its fetch and not as middleware, which would wait until the page has drawn.
const http = createClient<paths>({ baseUrl: window.location.origin, fetch: withToken });

type Schemas = components["schemas"];
type Problem = Schemas["ErrorModel"];

/** A refusal by the server, with the message for each field it names. */
export class Refusal extends Error {
  readonly status: number;
  /** Messages by the field's path in the document, such as "head.earToEarMm". */
  readonly fields: Readonly<Record<string, string>>;

  constructor(status: number, problem: Problem | undefined) {
    super(problem?.detail ?? `The server answered ${status}.`);
    this.status = status;
    const fields: Record<string, string> = {};
    for (const e of problem?.errors ?? []) {
      const path = e.location?.replace(/^body\.((input|facts|item)\.)?/, "");
      if (path && e.message) fields[path] ??= e.message;
    }
    this.fields = fields;
  }
}

interface Answer<T> {
  data?: T;
  error?: Problem;
  response: Response;
}

/** The data of an answer, or the Refusal it carries. */
async function settle<T>(request: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await request;
  if (!response.ok) throw new Refusal(response.status, error);
  return data as T;
}

const at = (id: string) => ({ params: { path: { id } } });
const over = (id: string, version: number) => ({
  params: { path: { id }, header: { "If-Match": `"${version}"` } },
});

/** An install being worn with how it is drawn. */
const unpacked = (doc: Schemas["WornDocument"]) => ({ ...doc, head: unpack(doc.head) });

export const server = {
  studio: () => settle(http.GET("/api/v1/studio")),
  claim: (body: Schemas["Credentials"]) => settle(http.POST("/api/v1/owner", { body })),
  signIn: (body: Schemas["Credentials"]) => settle(http.POST("/api/v1/session", { body })),
  signInDemo: (id: string) => settle(http.POST("/api/v1/session/demo", { body: { id } })),
  /** Who is signed in; undefined where nobody is. */
  me: () => settle<Schemas["Me"] | undefined>(http.GET("/api/v1/session")),
  signOut: () => settle(http.DELETE("/api/v1/session")),
  signOutEverywhere: () => settle(http.DELETE("/api/v1/sessions")),
  changePassword: (body: Schemas["ChangePasswordRequest"]) =>
    settle(http.PUT("/api/v1/session/password", { body })),

  people: () => settle(http.GET("/api/v1/people")),
  addPerson: (body: Schemas["AddPersonRequest"]) => settle(http.POST("/api/v1/people", { body })),
  changePerson: (id: string, body: Schemas["ChangePersonRequest"]) =>
    settle(http.PUT("/api/v1/people/{id}", { ...at(id), body })),
  setPace: ({ id, ...body }: Schemas["PersonPace"] & { id: string }) =>
    settle(http.PUT("/api/v1/people/{id}/pace", { ...at(id), body })),
  removePerson: (id: string) => settle(http.DELETE("/api/v1/people/{id}", at(id))),

  clients: (query: { search?: string; archived?: boolean; after?: string; limit?: number }) =>
    settle(http.GET("/api/v1/clients", { params: { query } })),
  client: (id: string) => settle(http.GET("/api/v1/clients/{id}", at(id))),
  createClient: (id: string, draft: Schemas["ClientDraft"]) =>
    settle(http.POST("/api/v1/clients", { body: { id, ...draft } })),
  saveClient: (id: string, version: number, body: Schemas["ClientDraft"]) =>
    settle(http.PUT("/api/v1/clients/{id}", { ...over(id, version), body })),
  removeClient: (id: string) => settle(http.DELETE("/api/v1/clients/{id}", at(id))),

  /** The input with the client's head and hair in it, as far as they were measured. */
  putOnHead: (id: string, input: Schemas["Input"]) =>
    settle(http.POST("/api/v1/clients/{id}/input", { ...at(id), body: input })),

  catalogue: () => settle(http.GET("/api/v1/catalogue")),
  begin: (query: Record<string, string>) => settle(http.GET("/api/v1/begin", { params: { query } })),
  whyNot: (body: Schemas["WhyWish"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/proposals/why", { body, signal })),
  heldAgainstWish: (body: Schemas["Wished"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/proposals/held", { body, signal })),
  preview: async (input: Schemas["Input"], signal: AbortSignal) =>
    unpack(await settle(http.POST("/api/v1/preview", { body: input, signal }))),
  drape: (input: Schemas["Input"], style: Schemas["Drape"]["style"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/drape", { body: { input, style }, signal })),
  landing: (input: Schemas["Input"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/landing", { body: input, signal })),
  fitting: (input: Schemas["Input"], clientId: string, signal: AbortSignal) =>
    settle(http.POST("/api/v1/fitting", { body: { input, ...(clientId && { clientId }) }, signal })),
  price: (input: Schemas["Input"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/price", { body: input, signal })),
  quotes: (plan: string) => settle(http.GET("/api/v1/plans/{id}/quotes", at(plan))),
  quote: (id: string) => settle(http.GET("/api/v1/quotes/{id}", at(id))),
  giveQuote: ({ plan, version, ...body }: Schemas["NewQuote"] & { plan: string; version: number }) =>
    settle(http.POST("/api/v1/plans/{id}/quotes", { ...over(plan, version), body })),
  answerQuote: ({ id, state }: { id: string; state: Schemas["QuoteDocument"]["state"] }) =>
    settle(http.PUT("/api/v1/quotes/{id}/state", { ...at(id), body: { state } })),
  shopping: (plan: string, input: Schemas["Input"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/shopping", { params: { query: { plan } }, body: input, signal })),
  alternatives: (body: Schemas["AlternativesRequest"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/alternatives", { body, signal })),
  holdStash: (id: string, holds: boolean) =>
    settle(http.PUT("/api/v1/plans/{id}/hold", { ...at(id), body: { holds } })),
  orderForPlan: (id: string) => settle(http.POST("/api/v1/plans/{id}/orders", at(id))),
  prepare: ({ id, task, done }: { id: string; task: string; done: number }) =>
    settle(
      http.PUT("/api/v1/plans/{id}/prepared/{task}", { params: { path: { id, task } }, body: { done } }),
    ),

  items: (query: {
    search?: string;
    kind?: Schemas["Item"]["kind"];
    archived?: boolean;
    after?: string;
    limit?: number;
  }) => settle(http.GET("/api/v1/items", { params: { query } })),
  item: (id: string) => settle(http.GET("/api/v1/items/{id}", at(id))),
  createItem: (id: string, draft: Schemas["ItemDraft"]) =>
    settle(http.POST("/api/v1/items", { body: { id, ...draft } })),
  saveItem: (id: string, version: number, body: Schemas["ItemDraft"]) =>
    settle(http.PUT("/api/v1/items/{id}", { ...over(id, version), body })),
  removeItem: (id: string) => settle(http.DELETE("/api/v1/items/{id}", at(id))),
  weigh: (item: Schemas["Item"], packs: number) =>
    settle(http.POST("/api/v1/scale", { body: { item, packs } })),
  stash: (query: { search?: string; item?: string; empty?: boolean; after?: string; limit?: number }) =>
    settle(http.GET("/api/v1/stash", { params: { query } })),
  addLot: (body: Schemas["NewLot"]) => settle(http.POST("/api/v1/stash", { body })),
  moveStash: ({ lot, ...body }: Schemas["LotMove"] & { lot: string }) =>
    settle(http.POST("/api/v1/stash/{id}/moves", { ...at(lot), body })),
  stashMoves: (lot: string) => settle(http.GET("/api/v1/stash/{id}/moves", at(lot))),
  suppliers: () => settle(http.GET("/api/v1/suppliers")),
  addSupplier: ({ id, ...draft }: Schemas["SupplierDraft"] & { id: string }) =>
    settle(http.POST("/api/v1/suppliers", { body: { id, ...draft } })),
  saveSupplier: ({ id, version, ...body }: Schemas["SupplierDraft"] & { id: string; version: number }) =>
    settle(http.PUT("/api/v1/suppliers/{id}", { ...over(id, version), body })),
  removeSupplier: (id: string) => settle(http.DELETE("/api/v1/suppliers/{id}", at(id))),
  practiseSuppliers: () => settle(http.POST("/api/v1/suppliers/practice")),
  supplierList: (id: string) => settle(http.GET("/api/v1/suppliers/{id}/list", at(id))),
  refreshPrices: (save: boolean) => settle(http.POST("/api/v1/suppliers/prices", { body: { save } })),
  orders: (query: { plan?: string }) => settle(http.GET("/api/v1/orders", { params: { query } })),
  placeOrder: ({ id, on }: { id: string; on: string }) =>
    settle(http.POST("/api/v1/orders/{id}/place", { ...at(id), body: { on } })),
  arriveOrder: ({ id, ...body }: Schemas["ArriveOrderRequest"] & { id: string }) =>
    settle(http.POST("/api/v1/orders/{id}/arrival", { ...at(id), body })),
  dropOrder: (id: string) => settle(http.DELETE("/api/v1/orders/{id}", at(id))),
  work: (input: Schemas["Input"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/work", { body: input, signal })),
  day: (input: Schemas["Input"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/day", { body: input, signal })),
  clashes: (planId: string, input: Schemas["Input"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/clashes", { body: { input, ...(planId && { planId }) }, signal })),
  booking: (plan: string) => settle(http.GET("/api/v1/plans/{id}/booking", at(plan))),
  book: ({ plan, version, id }: { plan: string; version: number; id: string }) =>
    settle(http.POST("/api/v1/plans/{id}/booking", { ...over(plan, version), body: { id } })),
  cancelBooking: (id: string) => settle(http.DELETE("/api/v1/bookings/{id}", at(id))),
  calendar: (from: string, to: string) =>
    settle(http.GET("/api/v1/calendar", { params: { query: { from, to } } })),
  feed: () => settle(http.GET("/api/v1/calendar/feed")),
  renewFeed: () => settle(http.POST("/api/v1/calendar/feed")),
  importBusy: ({ person, file }: { person: string; file: File }) =>
    settle(
      http.PUT("/api/v1/people/{id}/busy", {
        ...at(person),
        body: "",
        bodySerializer: () => file,
        headers: { "Content-Type": "text/calendar" },
      }),
    ),
  letter: (plan: string, kind: Schemas["SentMessage"]["kind"]) =>
    settle(http.GET("/api/v1/plans/{id}/letters/{kind}", { params: { path: { id: plan, kind } } })),
  messages: (plan: string) => settle(http.GET("/api/v1/plans/{id}/messages", at(plan))),
  sendMessage: ({ plan, ...body }: Schemas["NewMessage"] & { plan: string }) =>
    settle(http.POST("/api/v1/plans/{id}/messages", { ...at(plan), body })),
  quicker: (input: Schemas["Input"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/quicker", { body: input, signal })),
  guide: (input: Schemas["Input"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/guide", { body: input, signal })),

  startInstall: ({ plan, ...body }: Schemas["NewInstall"] & { plan: string }) =>
    settle(http.POST("/api/v1/plans/{id}/install", { ...at(plan), body })),
  atChair: () => settle(http.GET("/api/v1/installs")),
  install: (id: string, signal: AbortSignal) =>
    settle(http.GET("/api/v1/installs/{id}", { ...at(id), signal })),
  tell: (id: string, body: Schemas["TellRequest"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/installs/{id}/events", { ...at(id), body, signal })),
  keepPhoto: (id: string, photo: string, file: Blob) =>
    settle(
      http.PUT("/api/v1/installs/{id}/photos/{photo}", {
        params: { path: { id, photo }, query: { asked: true } },
        body: "",
        bodySerializer: () => file,
        headers: { "Content-Type": "image/jpeg" },
      }),
    ),
  dropPhoto: ({ id, photo }: { id: string; photo: string }) =>
    settle(http.DELETE("/api/v1/installs/{id}/photos/{photo}", { params: { path: { id, photo } } })),
  log: (query: { after?: string; limit?: number }) => settle(http.GET("/api/v1/log", { params: { query } })),
  logOf: (id: string) => settle(http.GET("/api/v1/log/{id}", at(id))),
  worn: () => settle(http.GET("/api/v1/wear")),
  wornOf: async (id: string) => unpacked(await settle(http.GET("/api/v1/installs/{id}/wear", at(id)))),
  putWear: async (id: string, entry: Schemas["WearEntry"]) =>
    unpacked(
      await settle(
        http.PUT("/api/v1/installs/{id}/wear/{entry}", {
          params: { path: { id, entry: entry.id } },
          body: entry,
        }),
      ),
    ),
  dropWear: async (id: string, entry: string) =>
    unpacked(
      await settle(http.DELETE("/api/v1/installs/{id}/wear/{entry}", { params: { path: { id, entry } } })),
    ),
  removeInstall: (id: string) => settle(http.DELETE("/api/v1/installs/{id}", at(id))),
  handCare: (id: string) => settle(http.POST("/api/v1/installs/{id}/care-link", at(id))),
  revokeCare: (id: string) => settle(http.DELETE("/api/v1/installs/{id}/care-link", at(id))),
  heads: (client: string) => settle(http.GET("/api/v1/clients/{id}/heads", at(client))),
  year: (year: number) => settle(http.GET("/api/v1/ledger/{year}", { params: { path: { year } } })),
  paces: () => settle(http.GET("/api/v1/paces")),
  loggedPaces: () => settle(http.GET("/api/v1/paces/plans")),

  figure: (figure: string) => settle(http.GET("/api/v1/figures/{figure}", { params: { path: { figure } } })),
  motion: (figure: string, still: number, query: { left: boolean; back: boolean }, signal: AbortSignal) =>
    settle(
      http.GET("/api/v1/figures/{figure}/{still}/motion", {
        params: { path: { figure, still }, query },
        signal,
      }),
    ),

  house: () => settle(http.GET("/api/v1/house")),
  saveHouse: ({ version, rules }: Schemas["HouseDocument"]) =>
    settle(http.PUT("/api/v1/house", { params: { header: { "If-Match": `"${version}"` } }, body: rules })),

  fitCount: (body: Schemas["CountWish"]) => settle(http.POST("/api/v1/fit", { body })),
  changes: (body: Schemas["TwoInputs"]) => settle(http.POST("/api/v1/changes", { body })),
  advice: (input: Schemas["Input"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/advice", { body: input, signal })),
  clearance: (plan: string) => settle(http.GET("/api/v1/plans/{id}/clearance", at(plan))),
  askAboutHead: (plan: string, history: readonly string[]) =>
    settle(
      http.PUT("/api/v1/plans/{id}/asked", {
        ...at(plan),
        body: { history: history as Schemas["AskAboutHeadRequest"]["history"] },
      }),
    ),
  readCaution: (plan: string, caution: string) =>
    settle(http.POST("/api/v1/plans/{id}/cautions", { ...at(plan), body: { caution } })),
  departures: (input: Schemas["Input"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/departures", { body: input, signal })),
  tradeOff: (input: Schemas["Input"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/tradeoff", { body: input, signal })),

  plans: (query: { client?: string; after?: string; limit?: number }) =>
    settle(http.GET("/api/v1/plans", { params: { query } })),
  plan: (id: string) => settle(http.GET("/api/v1/plans/{id}", at(id))),
  createPlan: (id: string, draft: Schemas["PlanDraft"]) =>
    settle(http.POST("/api/v1/plans", { body: { id, ...draft } })),
  savePlan: (id: string, version: number, body: Schemas["PlanDraft"]) =>
    settle(http.PUT("/api/v1/plans/{id}", { ...over(id, version), body })),
  removePlan: (id: string) => settle(http.DELETE("/api/v1/plans/{id}", at(id))),
  versions: (id: string) => settle(http.GET("/api/v1/plans/{id}/versions", at(id))),
  version: (id: string, version: number) =>
    settle(http.GET("/api/v1/plans/{id}/versions/{version}", { params: { path: { id, version } } })),
  compare: (id: string, body: Schemas["Comparison"]) =>
    settle(http.POST("/api/v1/plans/{id}/compare", { ...at(id), body })),
  /** Stores the plan in an exported file; the server reads the file, so that it can say what is wrong. */
  importPlan: ({ id, file }: { id: string; file: File }) =>
    settle(
      http.POST("/api/v1/import", {
        params: { query: { id } },
        body: "",
        bodySerializer: () => file,
        headers: { "Content-Type": "application/json" },
      }),
    ),
};

/** How far reading a table in has come, and in the end what came of it. */
type ReadingIn = Schemas["ReadingIn"];

/**
 * Has the server read a table in, or say what that would change; progress is told as it comes. Stopped by
 * the signal, nothing is changed.
 */
export async function readTable(
  table: string,
  file: File,
  save: boolean,
  onProgress: (done: number, of: number) => void,
  signal: AbortSignal,
): Promise<Schemas["Imported"]> {
  const response = await withToken(
    new Request(`/api/v1/tables/${table}?save=${save}`, {
      method: "POST",
      body: file,
      headers: { "Content-Type": "text/csv" },
      signal,
    }),
  );
  if (!response.ok || !response.body)
    throw new Refusal(response.status, (await response.json().catch(() => undefined)) as Problem | undefined);
  let said: Schemas["Imported"] | undefined;
  await readLines(response.body, (line) => {
    const news = line as ReadingIn;
    if (news.trouble) throw new Error(news.trouble);
    if (news.says) said = news.says;
    else onProgress(news.done ?? 0, news.of ?? 0);
  });
  if (!said) throw new Error("The answer broke off; nothing was changed.");
  return said;
}

/** Reads lines of JSON as they come. */
async function readLines(body: ReadableStream<Uint8Array<ArrayBuffer>>, onLine: (line: unknown) => void) {
  const reader = body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    const lines = (rest + part.value).split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) if (line !== "") onLine(JSON.parse(line));
  }
}

/** Has plans proposed that meet the wish of a plan; onProgress is told how far the search has come. */
export async function propose(
  wished: Schemas["Wished"],
  onProgress: (progress: Schemas["Progress"]) => void,
  signal: AbortSignal,
): Promise<Schemas["Answer"]> {
  const response = await withToken(
    new Request("/api/v1/proposals", {
      method: "POST",
      body: JSON.stringify(wished),
      headers: { "Content-Type": "application/json" },
      signal,
    }),
  );
  if (!response.ok || !response.body)
    throw new Refusal(response.status, (await response.json().catch(() => undefined)) as Problem | undefined);
  let answer: Schemas["Answer"] | undefined;
  await readLines(response.body, (line) => {
    const news = line as Schemas["Proposing"];
    if (news.trouble) throw new Error(news.trouble);
    if (news.progress) onProgress(news.progress);
    if (news.answer) answer = news.answer;
  });
  if (!answer) throw new Error("The answer broke off. Ask again.");
  return answer;
}
