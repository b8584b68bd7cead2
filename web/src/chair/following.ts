import { v4 as uuid } from "uuid";
import { Refusal, server } from "../api/client";
import { unpack } from "../api/unpack";
import type { ChairEvent, ChairView, Install, PlanResult } from "../api/types";
import * as device from "./device";
import { follow, type Fold } from "./fold";

/** How it stands with sending: all sent, some wait, no connection, signed out, or refused. */
export type Sending = "sent" | "waiting" | "away" | "signed-out" | "refused";

/** What a page shows. */
export interface Shown {
  view: ChairView;
  sending: Sending;
  /** Events that the server does not have. */
  waiting: number;
  /** What went wrong with keeping or sending, in words. */
  trouble: string | undefined;
}

/** What is told; the rest of an event is made here. */
export type Telling = Omit<ChairEvent, "id" | "n" | "at" | "hand">;

const pollTime = 4000; // ms between looks at what others told
const most = 400; // events sent at once
const openTime = 2500; // ms an install that is here waits for the server
const answerTime = 15_000; // ms until a connection counts as lost

/** The studio had it, and deleted it. */
const isGone = (error: unknown) => error instanceof Refusal && error.status === 410;

/**
 * One install followed on this device. What is told is kept on the disk first, then shown, then sent;
 * what others told is fetched and joins it. The order in which things arrive makes no difference.
 */
export class Following {
  readonly install: Install;
  /** How the head is drawn. */
  readonly result: PlanResult;
  private readonly fold: Fold;
  private readonly events = new Map<string, device.Kept>();
  private readonly hears = new Set<() => void>();
  private cursor = 0;
  private n = 0;
  private last = 0;
  private sending: Sending = "sent";
  private trouble: string | undefined;
  private busy: Promise<void> | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** True once the page is left, or there is nothing to follow any more. */
  private ended = false;
  private from: string | undefined;
  private stays = false;
  private hand: string;
  private byRow: boolean;
  private shown: Shown;

  private constructor(install: Install, fold: Fold, kept: readonly device.Kept[]) {
    this.install = install;
    this.fold = fold;
    this.result = unpack(install.head);
    this.hand = install.hand;
    this.byRow = install.brief.byRow;
    this.join(kept);
    this.shown = this.look();
  }

  /** Opens an install: from the server, or as this device took it along. */
  static async open(id: string): Promise<Following> {
    const here = await device.installHere(id).catch(() => undefined);
    let install = here;
    try {
      // Where it is here already, a connection that hangs is not waited for.
      install = await server.install(id, AbortSignal.timeout(here ? openTime : answerTime));
      await device.keepInstall(install).catch(() => undefined);
    } catch (error) {
      // What the studio deleted is deleted here too.
      if (isGone(error)) await device.forgetAll(id).catch(() => undefined);
      if (!install || error instanceof Refusal) throw error;
    }
    await device.takeUp(id).catch(() => undefined);
    const [fold, kept] = await Promise.all([follow(install.brief), device.eventsHere(id)]);
    return new Following(install, fold, kept);
  }

  /** Begins to send and to look for what others told; returns what ends it. */
  start(): () => void {
    this.ended = false;
    const now = () => this.exchange();
    window.addEventListener("online", now);
    document.addEventListener("visibilitychange", now);
    now();
    return () => {
      this.ended = true;
      window.removeEventListener("online", now);
      document.removeEventListener("visibilitychange", now);
      clearTimeout(this.timer);
    };
  }

  hear = (listener: () => void) => {
    this.hears.add(listener);
    return () => this.hears.delete(listener);
  };

  snapshot = (): Shown => this.shown;

  /** Who works with this device, and whether rows are attached as they are plaited. */
  get wish() {
    return { hand: this.hand, byRow: this.byRow };
  }

  setWish(wish: { hand?: string; byRow?: boolean }) {
    this.hand = wish.hand ?? this.hand;
    this.byRow = wish.byRow ?? this.byRow;
    this.from = undefined;
    this.stays = false;
    this.changed();
  }

  /** Goes to a task, as where the head was touched; without one, back to where this hand was. */
  goTo(task: string | undefined) {
    this.from = task;
    this.stays = task !== undefined;
    this.changed();
  }

  /** What there is to see now, some time after the last change. */
  tick() {
    this.changed();
  }

  /** Tells what happened. It is on the disk when this is done; only then the page goes on. */
  async tell(...what: readonly Telling[]): Promise<ChairEvent[]> {
    const made = what.map((one): ChairEvent => {
      this.n += 1;
      this.last = Math.max(Date.now(), this.last + 1);
      return { ...one, id: uuid(), n: this.n, at: this.last, hand: this.hand };
    });
    const kept = made.map((event) => ({ event, sent: false }));
    try {
      await device.keepEvents(this.install.id, kept);
      this.trouble = undefined;
    } catch (error) {
      // It is still sent while the page is open; that it is not kept is said.
      this.trouble = `This device keeps nothing (${error instanceof Error ? error.message : "no room"}): stay connected until all is sent.`;
    }
    if (what.some((one) => one.kind === "done" || one.kind === "left-out")) {
      // The next one follows where this was.
      this.from = undefined;
      this.stays = false;
    }
    this.join(kept);
    this.sending = "waiting";
    this.changed();
    this.exchange();
    return made;
  }

  /** Keeps a picture here and tells of it; it is sent when there is a connection. */
  async photograph(picture: Blob, text: string) {
    const photo = uuid();
    await device.keepPhoto(this.install.id, photo, picture);
    await this.tell({ kind: "photographed", photo, text });
  }

  private join(more: readonly device.Kept[]) {
    const fresh = more.filter(({ event }) => !this.events.has(event.id));
    for (const one of more) {
      this.events.set(one.event.id, one);
      this.n = Math.max(this.n, one.event.n);
    }
    if (fresh.length > 0) this.fold.tell(fresh.map(({ event }) => event));
  }

  private unsent() {
    return [...this.events.values()].filter((one) => !one.sent);
  }

  private look(): Shown {
    const view = this.fold.view({
      ...this.wish,
      ...(this.from !== undefined && { from: this.from, stays: this.stays }),
      now: Date.now(),
    });
    return { view, sending: this.sending, waiting: this.unsent().length, trouble: this.trouble };
  }

  private changed() {
    this.shown = this.look();
    for (const listener of this.hears) listener();
  }

  /** Sends and fetches, one exchange at a time, and again after a while. */
  exchange() {
    clearTimeout(this.timer);
    if (this.ended) return;
    this.busy ??= this.exchanged().finally(() => {
      this.busy = undefined;
      if (this.ended) return;
      const again = this.sending === "sent" || this.sending === "away" ? pollTime : pollTime / 4;
      if (document.visibilityState === "visible" || this.sending !== "sent")
        this.timer = setTimeout(() => this.exchange(), this.sending === "refused" ? 10 * pollTime : again);
    });
  }

  /** Sends the pictures that wait. One that is not taken is set aside and said, and keeps no other back. */
  private async sendPhotos(): Promise<string | undefined> {
    const id = this.install.id;
    let said: string | undefined;
    for (const [photo, picture] of await device.photosHere(id)) {
      try {
        await server.keepPhoto(id, photo, picture);
        await device.dropPhoto(id, photo);
      } catch (error) {
        if (
          !(error instanceof Refusal) ||
          error.status >= 500 ||
          error.status === 401 ||
          error.status === 429
        )
          throw error;
        await device.setAside(id, photo, picture);
        said = `A picture was not taken: ${error.message}`;
      }
    }
    return said;
  }

  private async exchanged() {
    const id = this.install.id;
    try {
      const unsent = this.unsent().slice(0, most);
      const answer = await server.tell(
        id,
        { after: this.cursor, events: unsent.map(({ event }) => event) },
        AbortSignal.timeout(answerTime),
      );
      const sent = unsent.map(({ event }) => ({ event, sent: true }));
      const theirs = answer.events.map((event) => ({ event, sent: true }));
      await device.keepEvents(id, [...sent, ...theirs]).catch(() => undefined);
      this.join([...sent, ...theirs]);
      this.cursor = answer.cursor;
      const known = [...this.events.values()].filter((one) => one.sent);
      if (answer.known < known.length) {
        // A copy was put back there, and some of it is lost: all is sent again.
        for (const one of this.events.values()) one.sent = false;
        this.cursor = 0;
      } else if (answer.known > known.length) this.cursor = 0; // the same, of what others told
      const refused = await this.sendPhotos();
      this.sending = this.unsent().length > 0 ? "waiting" : "sent";
      this.trouble = refused;
      if (answer.closed && this.sending === "sent" && this.shown.view.over)
        await device.forget(
          id,
          known.map(({ event }) => event.id),
        );
    } catch (error) {
      if (isGone(error)) {
        this.ended = true;
        await device.forgetAll(id).catch(() => undefined);
      }
      if (!(error instanceof Refusal) || error.status >= 500) this.sending = "away";
      else {
        this.sending = error.status === 401 ? "signed-out" : "refused";
        this.trouble = error.message;
      }
    }
    this.changed();
  }
}
