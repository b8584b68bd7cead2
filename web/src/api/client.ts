import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

const http = createClient<paths>({ baseUrl: window.location.origin });

type Problem = components["schemas"]["ErrorModel"];

/** A refusal by the server, with the message for each field it names. */
export class Refusal extends Error {
  readonly status: number;
  /** Messages by the field's path in the plan's input, such as "head.earToEarMm". */
  readonly fields: Readonly<Record<string, string>>;

  constructor(status: number, problem: Problem | undefined) {
    super(problem?.detail ?? `The server answered ${status}.`);
    this.status = status;
    const fields: Record<string, string> = {};
    for (const e of problem?.errors ?? []) {
      const path = e.location?.replace(/^body\.(input\.)?/, "");
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

export const server = {
  catalogue: () => settle(http.GET("/api/v1/catalogue")),
  plans: () => settle(http.GET("/api/v1/plans")),
  plan: (id: string) => settle(http.GET("/api/v1/plans/{id}", { params: { path: { id } } })),
  create: (body: components["schemas"]["PlanDraft"]) => settle(http.POST("/api/v1/plans", { body })),
  save: (id: string, version: number, body: components["schemas"]["PlanDraft"]) =>
    settle(
      http.PUT("/api/v1/plans/{id}", {
        params: { path: { id }, header: { "If-Match": `"${version}"` } },
        body,
      }),
    ),
  remove: (id: string) => settle(http.DELETE("/api/v1/plans/{id}", { params: { path: { id } } })),
  preview: (input: components["schemas"]["Input"], signal: AbortSignal) =>
    settle(http.POST("/api/v1/preview", { body: input, signal })),
};
