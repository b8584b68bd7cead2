// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { readTable } from "../api/client";
import type { Imported } from "../api/types";
import { queryClient } from "../api/queries";
import { Files } from "./Files";

const looked: Imported = {
  lines: 3,
  new: 1,
  changed: 1,
  same: 1,
  repeated: 0,
  rows: [{ line: 2, what: "changed", name: "Driftline", says: "Price" }],
  errors: [],
  wrong: 0,
  saved: false,
};

interface Call {
  address: string;
  answer: (...lines: unknown[]) => void;
  end: () => void;
  signal: AbortSignal;
}

const calls: Call[] = [];

/** A server whose answer comes line by line, as the test says. */
function serve(request: Request): Promise<Response> {
  if (request.url.endsWith("/session"))
    return Promise.resolve(Response.json({ id: "o", name: "Odalys", role: "owner", may: ["importTable"] }));
  let control: ReadableStreamDefaultController<Uint8Array> | undefined;
  const stream = new ReadableStream<Uint8Array>({ start: (c) => void (control = c) });
  request.signal.addEventListener("abort", () => control?.error(request.signal.reason));
  calls.push({
    address: request.url.replace(/^[^/]*\/\/[^/]*/, ""),
    answer: (...lines) =>
      lines.forEach((l) => control?.enqueue(new TextEncoder().encode(`${JSON.stringify(l)}\n`))),
    end: () => control?.close(),
    signal: request.signal,
  });
  return Promise.resolve(new Response(stream));
}

const call = async (n: number): Promise<Call> => {
  await waitFor(() => expect(calls.length).toBeGreaterThan(n));
  const found = calls[n];
  if (!found) throw new Error("no such call");
  return found;
};

/** Requests with an address of this page, as browsers make them. */
class PageRequest extends Request {
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    super(typeof input === "string" && input.startsWith("/") ? `http://localhost${input}` : input, init);
  }
}

beforeEach(() => {
  calls.length = 0;
  vi.stubGlobal("Request", PageRequest);
  vi.stubGlobal("fetch", serve);
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const file = new File(["Name,Kind\nDriftline,soft-loc\n"], "pieces.csv", { type: "text/csv" });

function draw() {
  const client = new QueryClient();
  client.setQueryData(["me"], { id: "o", name: "Odalys", role: "owner", may: ["importTable"] });
  render(
    <QueryClientProvider client={client}>
      <Files />
    </QueryClientProvider>,
  );
}

const choose = () =>
  fireEvent.change(screen.getByLabelText("Table to read in"), { target: { files: [file] } });

it("looks at a table first, tells how far it is, and reads it in when it is wished", async () => {
  draw();
  choose();
  const look = await call(0);
  expect(look.address).toBe("/api/v1/tables/pieces?save=false");
  look.answer({ done: 1000, of: 3000 });
  expect(await screen.findByText("1000 of about 3000 lines")).toBeTruthy();
  look.answer({ says: looked });
  look.end();
  expect(await screen.findByText("This would be 1 new, 1 changed, 1 as they are.")).toBeTruthy();
  fireEvent.click(screen.getByText("Read 2 lines in"));
  const save = await call(1);
  expect(save.address).toBe("/api/v1/tables/pieces?save=true");
  const touched = vi.spyOn(queryClient, "invalidateQueries");
  save.answer({ says: { ...looked, saved: true } });
  save.end();
  expect(await screen.findByText("Done: 1 new, 1 changed, 1 as they are.")).toBeTruthy();
  expect(touched).toHaveBeenCalledWith({ queryKey: ["items"] });
});

it("names what is wrong by line and column, and offers nothing to read in", async () => {
  draw();
  choose();
  const look = await call(0);
  look.answer({
    says: {
      ...looked,
      wrong: 2,
      errors: [{ line: 7, column: "In a pack", message: "A number belongs here." }],
    },
  });
  look.end();
  expect(await screen.findByText(/2 things are wrong; nothing was changed/)).toBeTruthy();
  expect(screen.getByText("In a pack").parentElement?.textContent).toBe("7In a packA number belongs here.");
  expect(screen.queryByText(/^Read .* in$/)).toBeNull();
});

it("can be stopped, and says that nothing was changed", async () => {
  draw();
  choose();
  const look = await call(0);
  look.answer({ done: 1000, of: 50000 });
  fireEvent.click(await screen.findByText("Stop"));
  expect(await screen.findByText("Stopped; nothing was changed.")).toBeTruthy();
  expect(look.signal.aborted).toBe(true);
});

it("puts lines together that come in pieces, and notices an answer that breaks off", async () => {
  const progress: number[] = [];
  const reading = readTable(
    "stash",
    file,
    false,
    (done) => progress.push(done),
    new AbortController().signal,
  );
  const first = await call(0);
  first.answer({ done: 1000, of: 2000 }, { done: 2000, of: 2000 }, { says: looked });
  first.end();
  expect((await reading).new).toBe(1);
  expect(progress).toEqual([1000, 2000]);

  const broken = readTable("stash", file, true, () => undefined, new AbortController().signal);
  (await call(1)).end();
  await expect(broken).rejects.toThrow("broke off");
  const trouble = readTable("stash", file, true, () => undefined, new AbortController().signal);
  const third = await call(2);
  third.answer({ trouble: "The disk is full." });
  third.end();
  await expect(trouble).rejects.toThrow("The disk is full.");
});
