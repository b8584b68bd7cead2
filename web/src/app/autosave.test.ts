// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refusal } from "../api/client";
import { Autosave, shelfName, type Keeper, type Stored } from "./autosave";
import { shelf } from "./shelf";

interface Note {
  text: string;
}

/** A server in memory that can be told to fail. */
function studio() {
  const kept = new Map<string, { version: number; draft: Note }>();
  let failing: (() => Error) | undefined;
  let busy = 0;
  let mostBusy = 0;
  const act = async (work: () => Stored): Promise<Stored> => {
    mostBusy = Math.max(mostBusy, ++busy);
    await new Promise((done) => setTimeout(done, 50));
    busy--;
    if (failing) throw failing();
    return work();
  };
  const store = (id: string, draft: Note): Stored => {
    const version = (kept.get(id)?.version ?? 0) + 1;
    kept.set(id, { version, draft });
    return { id, version, updated: "2026-05-31T09:30:00Z" };
  };
  const keeper: Keeper<Note> = {
    kind: "note",
    create: (draft) => act(() => store("a", draft)),
    save: (id, version, draft) =>
      act(() => {
        if (kept.get(id)?.version !== version) throw new Refusal(412, undefined);
        return store(id, draft);
      }),
    read: (id) => {
      const { version, draft } = kept.get(id) ?? { version: 0, draft: { text: "" } };
      return Promise.resolve({ id, version, updated: "2026-05-31T09:30:00Z", draft });
    },
  };
  return {
    kept,
    keeper,
    store,
    fail: (how: (() => Error) | undefined) => (failing = how),
    mostBusy: () => mostBusy,
  };
}

const start: Note = { text: "" };
const ignore = () => undefined;
const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
});
afterEach(() => void vi.useRealTimers());

describe("saving by itself", () => {
  it("waits for a pause, and makes nothing of what was only looked at", async () => {
    const s = studio();
    const autosave = new Autosave(start, start, undefined, s.keeper);
    autosave.take({ text: "" }, ignore);
    await pass(5000);
    expect(s.kept.size).toBe(0);
    autosave.take({ text: "o" }, ignore);
    await pass(400);
    autosave.take({ text: "on" }, ignore);
    await pass(400);
    expect(s.kept.size).toBe(0);
    await pass(1000);
    expect(s.kept.get("a")).toEqual({ version: 1, draft: { text: "on" } });
    expect(autosave.current().kind).toBe("saved");
    expect(autosave.id).toBe("a");
  });

  it("sends one save at a time and ends with the last state", async () => {
    const s = studio();
    const autosave = new Autosave(start, start, undefined, s.keeper);
    const made: boolean[] = [];
    for (let n = 1; n <= 40; n++) {
      autosave.take({ text: String(n) }, (_, created) => made.push(created));
      void autosave.save();
      await pass(20);
    }
    await pass(5000);
    expect(s.mostBusy()).toBe(1);
    expect(s.kept.get("a")?.draft.text).toBe("40");
    expect(made.filter(Boolean)).toHaveLength(1);
    expect(autosave.isSaved).toBe(true);
  });

  it("keeps what is typed on the shelf until the connection is back", async () => {
    const s = studio();
    const opened = s.store("a", start);
    const autosave = new Autosave(start, start, opened, s.keeper);
    s.fail(() => new TypeError("no connection"));
    autosave.take({ text: "typed" }, ignore);
    await pass(700);
    expect(autosave.current().kind).toBe("offline");
    expect(shelf.look(shelfName("note", "a"))).toEqual({ draft: { text: "typed" }, base: start, version: 1 });
    autosave.take({ text: "typed on" }, ignore);
    s.fail(undefined);
    await pass(4000);
    expect(s.kept.get("a")?.draft.text).toBe("typed on");
    expect(shelf.look(shelfName("note", "a"))).toBeUndefined();
  });

  it("keeps what is typed while a save is under way", async () => {
    const s = studio();
    const autosave = new Autosave(start, start, undefined, s.keeper);
    autosave.take({ text: "first" }, ignore);
    void autosave.save();
    await pass(20);
    autosave.take({ text: "and more" }, ignore);
    await pass(40);
    s.fail(() => new TypeError("no connection"));
    await pass(1000);
    expect(s.kept.get("a")?.draft.text).toBe("first");
    expect(shelf.look(shelfName("note", "a"))).toEqual({
      draft: { text: "and more" },
      base: { text: "first" },
      version: 1,
    });
    expect(shelf.look(shelfName("note", undefined))).toBeUndefined();
  });

  it("takes up from the shelf over the version it was begun on", async () => {
    const s = studio();
    const opened = s.store("a", start);
    s.store("a", { text: "theirs" });
    const autosave = new Autosave({ text: "mine" }, start, { ...opened, version: 1 }, s.keeper);
    autosave.take({ text: "mine" }, ignore);
    await pass(1000);
    expect(autosave.current().kind).toBe("stale");
    expect(s.kept.get("a")?.draft.text).toBe("theirs");
  });
});

describe("undoing before it was saved", () => {
  it("leaves nothing to save and nothing on the shelf", async () => {
    const s = studio();
    const autosave = new Autosave(start, start, s.store("a", start), s.keeper);
    autosave.take({ text: "a slip" }, ignore);
    expect(autosave.current().kind).toBe("changed");
    autosave.take(start, ignore);
    expect(autosave.current().kind).toBe("saved");
    expect(shelf.look(shelfName("note", "a"))).toBeUndefined();
    await pass(5000);
    expect(s.kept.get("a")?.version).toBe(1);
  });
});

describe("when someone else saved", () => {
  async function conflict() {
    const s = studio();
    const autosave = new Autosave(start, start, s.store("a", start), s.keeper);
    s.store("a", { text: "theirs" });
    autosave.take({ text: "mine" }, ignore);
    await pass(1000);
    expect(autosave.current().kind).toBe("stale");
    autosave.take({ text: "mine too" }, ignore);
    await pass(5000);
    expect(s.kept.get("a")?.version).toBe(2);
    return { s, autosave };
  }

  it("keeps mine over theirs when told so", async () => {
    const { s, autosave } = await conflict();
    void autosave.keepMine();
    await pass(1000);
    expect(s.kept.get("a")).toEqual({ version: 3, draft: { text: "mine too" } });
    expect(autosave.current().kind).toBe("saved");
  });

  it("goes on with theirs when told so", async () => {
    const { s, autosave } = await conflict();
    expect(await autosave.takeTheirs()).toEqual({ text: "theirs" });
    expect(shelf.look(shelfName("note", "a"))).toBeUndefined();
    autosave.take({ text: "theirs and more" }, ignore);
    await pass(1000);
    expect(s.kept.get("a")).toEqual({ version: 3, draft: { text: "theirs and more" } });
  });
});

describe("when the server says no", () => {
  it("tells why and tries the next change again", async () => {
    const s = studio();
    const autosave = new Autosave(start, start, undefined, s.keeper);
    s.fail(
      () =>
        new Refusal(422, {
          type: "about:blank",
          detail: "A note needs words.",
          errors: [{ location: "body.text", message: "A note needs words." }],
        }),
    );
    autosave.take({ text: " " }, ignore);
    await pass(1000);
    expect(autosave.current()).toEqual({
      kind: "refused",
      message: "A note needs words.",
      fields: { text: "A note needs words." },
    });
    expect(shelf.look(shelfName("note", undefined))).toBeUndefined();
    s.fail(undefined);
    autosave.take({ text: "words" }, ignore);
    await pass(1000);
    expect(s.kept.get("a")?.draft.text).toBe("words");
  });

  it("stops when it was deleted, and keeps the words here", async () => {
    const s = studio();
    const autosave = new Autosave(start, start, s.store("a", start), s.keeper);
    s.fail(() => new Refusal(404, undefined));
    autosave.take({ text: "late" }, ignore);
    await pass(20_000);
    expect(autosave.current().kind).toBe("gone");
    expect(shelf.look<Note>(shelfName("note", "a"))?.draft.text).toBe("late");
  });

  it("keeps the words on the shelf when the sign-in has ended", async () => {
    const s = studio();
    const autosave = new Autosave(start, start, s.store("a", start), s.keeper);
    s.fail(() => new Refusal(401, undefined));
    autosave.take({ text: "after hours" }, ignore);
    await pass(1000);
    expect(shelf.look<Note>(shelfName("note", "a"))?.draft.text).toBe("after hours");
  });
});
