// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refusal } from "../api/client";
import { Autosave, type Keeper, type Stored } from "./autosave";
import { neverSaved, ShelfPlace } from "../lib/shelf";

interface Note {
  text: string;
}

const updated = "2026-05-31T09:30:00Z";

/** A server in memory that can be told to fail, before it stores or after. */
function studio() {
  const kept = new Map<string, { version: number; draft: Note }>();
  let failing: (() => Error) | undefined;
  let losing = false;
  let busy = 0;
  let mostBusy = 0;
  const act = async (work: () => Stored): Promise<Stored> => {
    mostBusy = Math.max(mostBusy, ++busy);
    await new Promise((done) => setTimeout(done, 50));
    busy--;
    if (failing) throw failing();
    const stored = work();
    if (losing) throw new TypeError("the answer was lost");
    return stored;
  };
  const store = (id: string, draft: Note): Stored => {
    const version = (kept.get(id)?.version ?? 0) + 1;
    kept.set(id, { version, draft });
    return { id, version, updated };
  };
  const same = (id: string, draft: Note): Stored => {
    const have = kept.get(id);
    if (have?.draft.text !== draft.text) throw new Refusal(412, undefined);
    return { id, version: have.version, updated };
  };
  const keeper: Keeper<Note> = {
    touches: [],
    kind: "note",
    create: (id, draft) => act(() => (kept.has(id) ? same(id, draft) : store(id, draft))),
    save: (id, version, draft) =>
      act(() => (kept.get(id)?.version === version ? store(id, draft) : same(id, draft))),
    read: (id) => {
      const { version, draft } = kept.get(id) ?? { version: 0, draft: { text: "" } };
      return Promise.resolve({ id, version, updated, draft });
    },
  };
  return {
    kept,
    keeper,
    store,
    fail: (how: (() => Error) | undefined) => (failing = how),
    loseAnswers: (lose: boolean) => (losing = lose),
    mostBusy: () => mostBusy,
  };
}

const start: Note = { text: "" };
const ignore = () => undefined;
const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);
const shelfOf = (person = "odalys", id = "a") => new ShelfPlace<Note>(person, "note", id);

/** The autosave of a page that is opened on what the server has, or on a new note. */
function page(s: ReturnType<typeof studio>, person = "odalys", id = "a") {
  const stored = s.kept.get(id);
  const opened = stored && { ...stored, updated };
  const autosave = new Autosave({ id, opened, start, shelf: shelfOf(person, id) }, s.keeper);
  autosave.enter();
  return autosave;
}

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
});
afterEach(() => void vi.useRealTimers());

describe("saving by itself", () => {
  it("waits for a pause, and makes nothing of what was only looked at", async () => {
    const s = studio();
    const autosave = page(s);
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
  });

  it("sends one save at a time and ends with the last state", async () => {
    const s = studio();
    const autosave = page(s);
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
    s.store("a", start);
    const autosave = page(s);
    s.fail(() => new TypeError("no connection"));
    autosave.take({ text: "typed" }, ignore);
    await pass(700);
    expect(autosave.current().kind).toBe("offline");
    expect(shelfOf().look()).toEqual({
      draft: { text: "typed" },
      base: start,
      version: 1,
      sent: { text: "typed" },
    });
    autosave.take({ text: "typed on" }, ignore);
    s.fail(undefined);
    await pass(4000);
    expect(s.kept.get("a")?.draft.text).toBe("typed on");
    expect(shelfOf().look()).toBeUndefined();
  });

  it("takes up from the shelf over the version it was begun on", async () => {
    const s = studio();
    s.store("a", start);
    shelfOf().put({ draft: { text: "mine" }, base: start, version: 1, sent: undefined });
    s.store("a", { text: "theirs" });
    const autosave = page(s);
    expect(autosave.first).toEqual({ text: "mine" });
    autosave.take(autosave.first, ignore);
    await pass(1000);
    expect(autosave.current().kind).toBe("stale");
    expect(s.kept.get("a")?.draft.text).toBe("theirs");
  });
});

describe("when an answer is lost", () => {
  it("makes a new one once, and goes on with what was typed meanwhile", async () => {
    const s = studio();
    const autosave = page(s);
    s.loseAnswers(true);
    autosave.take({ text: "first" }, ignore);
    await pass(700);
    expect(s.kept.get("a")).toEqual({ version: 1, draft: { text: "first" } });
    expect(autosave.current().kind).toBe("offline");
    autosave.take({ text: "first, and more" }, ignore);
    s.loseAnswers(false);
    await pass(5000);
    expect(s.kept.size).toBe(1);
    expect(s.kept.get("a")).toEqual({ version: 2, draft: { text: "first, and more" } });
    expect(autosave.current().kind).toBe("saved");
  });

  it("does not take its own save for someone else's, not even after the page was opened again", async () => {
    const s = studio();
    s.store("a", start);
    const before = page(s);
    s.loseAnswers(true);
    before.take({ text: "sent" }, ignore);
    await pass(700);
    before.take({ text: "sent, typed on" }, ignore);
    s.loseAnswers(false);
    const again = page(s); // reads version 2, which it stored itself
    expect(again.first).toEqual({ text: "sent, typed on" });
    again.take(again.first, ignore);
    await pass(5000);
    expect(again.current().kind).toBe("saved");
    expect(s.kept.get("a")).toEqual({ version: 3, draft: { text: "sent, typed on" } });
  });
});

describe("a page that was left", () => {
  it("sends its last change once, and does not try for ever", async () => {
    const s = studio();
    s.store("a", start);
    const left = page(s);
    left.take({ text: "last words" }, ignore);
    s.fail(() => new TypeError("no connection"));
    left.leave();
    await pass(1000);
    s.fail(undefined);
    await pass(20_000);
    expect(s.kept.get("a")?.draft.text).toBe("");
    expect(shelfOf().look()?.draft.text).toBe("last words");
  });

  it("never competes with the one that is opened again", async () => {
    const s = studio();
    s.store("a", start);
    const left = page(s);
    left.take({ text: "under way" }, ignore);
    void left.save();
    await pass(20);
    left.take({ text: "typed behind it" }, ignore);
    left.leave();
    const again = page(s);
    again.take(again.first, ignore);
    again.take({ text: "typed in the new page" }, ignore);
    await pass(5000);
    expect(s.mostBusy()).toBe(1);
    expect(again.current().kind).toBe("saved");
    expect(s.kept.get("a")?.draft.text).toBe("typed in the new page");
    expect(shelfOf().look()).toBeUndefined();
  });
});

describe("the shelf", () => {
  it("is of one person and of one thing", async () => {
    const s = studio();
    s.fail(() => new TypeError("no connection"));
    page(s, "odalys", "for-the-cellist").take({ text: "for the cellist" }, ignore);
    await pass(1000);
    expect(page(s, "odalys", "for-the-pilot").first).toEqual(start);
    expect(page(s, "tamsin", "for-the-cellist").first).toEqual(start);
    expect(neverSaved<Note>("odalys", "note")).toEqual([
      { id: "for-the-cellist", draft: { text: "for the cellist" } },
    ]);
    expect(neverSaved("tamsin", "note")).toEqual([]);
  });

  it("holds in this tab when the browser's store is full, and shrugs at what is broken", () => {
    localStorage.setItem("kladotex.unsaved.odalys.note.a", "{half a");
    expect(shelfOf().look()).toBeUndefined();
    const full = vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    shelfOf().put({ draft: { text: "kept" }, base: start, version: 1, sent: undefined });
    expect(shelfOf().look()?.draft.text).toBe("kept");
    full.mockRestore();
    shelfOf().clear();
    expect(shelfOf().look()).toBeUndefined();
  });
});

describe("undoing before it was saved", () => {
  it("leaves nothing to save and nothing on the shelf", async () => {
    const s = studio();
    s.store("a", start);
    const autosave = page(s);
    autosave.take({ text: "a slip" }, ignore);
    expect(autosave.current().kind).toBe("changed");
    autosave.take(start, ignore);
    expect(autosave.current().kind).toBe("saved");
    expect(shelfOf().look()).toBeUndefined();
    await pass(5000);
    expect(s.kept.get("a")?.version).toBe(1);
  });
});

describe("when someone else saved", () => {
  async function conflict() {
    const s = studio();
    s.store("a", start);
    const autosave = page(s);
    s.store("a", { text: "theirs" });
    autosave.take({ text: "mine" }, ignore);
    await pass(1000);
    expect(autosave.current()).toEqual({ kind: "stale", times: 1 });
    autosave.take({ text: "mine too" }, ignore);
    await pass(5000);
    expect(s.kept.get("a")?.version).toBe(2);
    return { s, autosave };
  }

  it("keeps mine over the one it was held against", async () => {
    const { s, autosave } = await conflict();
    void autosave.keepMine(2);
    await pass(1000);
    expect(s.kept.get("a")).toEqual({ version: 3, draft: { text: "mine too" } });
    expect(autosave.current().kind).toBe("saved");
  });

  it("asks again when a third save came in between", async () => {
    const { s, autosave } = await conflict();
    s.store("a", { text: "a third hand" });
    void autosave.keepMine(2);
    await pass(1000);
    expect(s.kept.get("a")).toEqual({ version: 3, draft: { text: "a third hand" } });
    expect(autosave.current()).toEqual({ kind: "stale", times: 2 });
  });

  it("goes on with theirs when told so", async () => {
    const { s, autosave } = await conflict();
    expect(await autosave.takeTheirs()).toEqual({ text: "theirs" });
    expect(shelfOf().look()).toBeUndefined();
    autosave.take({ text: "theirs and more" }, ignore);
    await pass(1000);
    expect(s.kept.get("a")).toEqual({ version: 3, draft: { text: "theirs and more" } });
  });
});

describe("when the server says no", () => {
  it("tells why and tries the next change again", async () => {
    const s = studio();
    const autosave = page(s);
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
    s.fail(undefined);
    autosave.take({ text: "words" }, ignore);
    await pass(1000);
    expect(s.kept.get("a")?.draft.text).toBe("words");
  });

  it("stops when it was deleted, and keeps the words here", async () => {
    const s = studio();
    s.store("a", start);
    const autosave = page(s);
    s.fail(() => new Refusal(404, undefined));
    autosave.take({ text: "late" }, ignore);
    await pass(20_000);
    expect(autosave.current().kind).toBe("gone");
    expect(shelfOf().look()?.draft.text).toBe("late");
  });

  it("keeps the words on the shelf when the sign-in has ended", async () => {
    const s = studio();
    s.store("a", start);
    const autosave = page(s);
    s.fail(() => new Refusal(401, undefined));
    autosave.take({ text: "after hours" }, ignore);
    await pass(1000);
    expect(shelfOf().look()?.draft.text).toBe("after hours");
  });
});
