// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { Refusal, server } from "../api/client";
import type { ChairEvent, ChairView, Install } from "../api/types";
import * as device from "./device";
import { Following } from "./following";

// The fold itself is the server's, tested in Go; here it counts what it is told.
const seen = vi.hoisted(() => ({ told: [] as ChairEvent[] }));
vi.mock("./fold", () => ({
  follow: () =>
    Promise.resolve({
      tell: (events: ChairEvent[]) => seen.told.push(...events),
      view: () => ({ over: false, told: seen.told.length }) as unknown as ChairView,
    }),
}));
vi.mock("../api/unpack", () => ({ unpack: () => ({}) }));

const install = { id: "", hand: "first", brief: { byRow: false }, head: {} } as unknown as Install;

/** A server that keeps what it is told, and can be gone. */
function studio(id: string) {
  const held = new Map<string, ChairEvent>();
  const state = { away: false, posts: 0 };
  vi.spyOn(server, "install").mockImplementation(() =>
    state.away ? Promise.reject(new TypeError("no connection")) : Promise.resolve({ ...install, id }),
  );
  vi.spyOn(server, "tell").mockImplementation((_, { after, events }) => {
    state.posts++;
    if (state.away) return Promise.reject(new TypeError("no connection"));
    for (const e of events) if (!held.has(e.id)) held.set(e.id, e);
    const all = [...held.values()];
    return Promise.resolve({ events: all.slice(after), cursor: all.length, known: all.length });
  });
  return { held, state };
}

const until = (is: () => boolean) => vi.waitFor(() => expect(is()).toBe(true), { timeout: 10_000 });

let count = 0;
let id = "";
beforeEach(() => {
  vi.restoreAllMocks();
  seen.told.length = 0;
  id = `install-${++count}`;
});

describe("an install followed on a device", () => {
  it("keeps what is told without a connection, through a restart, and sends it once", async () => {
    const { held, state } = studio(id);
    const first = await Following.open(id);
    state.away = true;
    await first.tell({ kind: "done", tasks: ["plait/A"] });
    await first.tell({ kind: "done", tasks: ["plait/B"] });
    await until(() => first.snapshot().sending === "away");
    expect(first.snapshot().waiting).toBe(2);
    expect(await device.eventsHere(id)).toHaveLength(2);

    seen.told.length = 0; // the browser is killed and opened again, still away
    const again = await Following.open(id);
    expect(seen.told).toHaveLength(2);
    state.away = false;
    again.exchange();
    await until(() => again.snapshot().sending === "sent");
    expect(held.size).toBe(2);
    expect((await device.eventsHere(id)).every((one) => one.sent)).toBe(true);
    const numbers = [...held.values()].map((e) => e.n);
    expect(new Set(numbers).size).toBe(2);
  });

  it("joins what others told, and numbers what comes after it higher", async () => {
    const { held } = studio(id);
    const theirs = {
      id: "theirs-0001",
      n: 40,
      at: 1,
      hand: "other",
      kind: "done",
      tasks: ["x"],
    } as ChairEvent;
    held.set(theirs.id, theirs);
    const here = await Following.open(id);
    here.exchange();
    await until(() => seen.told.length === 1);
    const [mine] = await here.tell({ kind: "done", tasks: ["y"] });
    expect(mine?.n).toBe(41);
  });

  it("sends all again to a studio where an earlier copy was put back", async () => {
    const { held } = studio(id);
    const here = await Following.open(id);
    await here.tell({ kind: "done", tasks: ["plait/A"] });
    await until(() => here.snapshot().sending === "sent");
    held.clear();
    here.exchange();
    await until(() => here.snapshot().sending === "sent" && held.size === 1);
  });

  it("says when it is signed out, and keeps everything", async () => {
    studio(id);
    const here = await Following.open(id);
    vi.mocked(server.tell).mockRejectedValue(new Refusal(401, undefined));
    await here.tell({ kind: "began" });
    await until(() => here.snapshot().sending === "signed-out");
    expect(here.snapshot().waiting).toBe(1);
  });

  it("looks no more once its page is left", async () => {
    const { state } = studio(id);
    const here = await Following.open(id);
    const end = here.start();
    await until(() => state.posts === 1 && here.snapshot().sending === "sent");
    here.exchange();
    end();
    const posts = state.posts;
    vi.useFakeTimers();
    await vi.advanceTimersByTimeAsync(60_000);
    vi.useRealTimers();
    here.exchange();
    expect(state.posts).toBe(posts);
  });

  it("sends the pictures after one that is refused, says so, and tries that one again when opened anew", async () => {
    studio(id);
    const taken: string[] = [];
    const refused = new Set<string>();
    vi.spyOn(server, "keepPhoto").mockImplementation((_, photo) => {
      if (refused.has(photo))
        return Promise.reject(new Refusal(422, { detail: "The client did not agree." } as never));
      taken.push(photo);
      return Promise.resolve(undefined as never);
    });
    const here = await Following.open(id);
    for (const photo of ["a", "b", "c"]) await device.keepPhoto(id, photo, new Blob(["x"]));
    refused.add("a");
    here.exchange();
    await until(() => taken.length === 2);
    expect(taken).toEqual(["b", "c"]);
    await until(() => here.snapshot().trouble?.includes("did not agree") ?? false);
    expect(here.snapshot().sending).toBe("sent");
    expect(await device.photosHere(id)).toHaveLength(0);
    refused.clear();
    await Following.open(id);
    expect((await device.photosHere(id)).map(([photo]) => photo)).toEqual(["a"]);
  });

  it("forgets all of an install that the studio deleted, and nothing of one it does not know", async () => {
    studio(id);
    const here = await Following.open(id);
    await here.tell({ kind: "began" });
    await device.keepPhoto(id, "a", new Blob(["x"]));
    await device.keepEvents("another", [{ event: { id: "theirs-0001" } as ChairEvent, sent: true }]);
    vi.mocked(server.tell).mockRejectedValue(new Refusal(404, undefined));
    here.exchange();
    await until(() => here.snapshot().sending === "refused");
    expect((await device.eventsHere(id)).length).toBeGreaterThan(0);
    vi.mocked(server.tell).mockRejectedValue(new Refusal(410, undefined));
    here.exchange();
    await vi.waitFor(async () => expect(await device.eventsHere(id)).toHaveLength(0));
    expect(await device.photosHere(id)).toHaveLength(0);
    expect(await device.installHere(id)).toBeUndefined();
    expect(await device.eventsHere("another")).toHaveLength(1);
  });
});
