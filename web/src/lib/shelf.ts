import { parsed, storage } from "./storage";

/**
 * What is typed and not yet on the server is laid on a shelf in this browser, so
 * that neither a lost connection nor a closed tab loses it. Every person has a shelf of
 * their own: who signs in next on the same tablet does not find it.
 */
export interface Shelved<D> {
  draft: D;
  /** What the draft was made from, and its version; none for something new. */
  base: D;
  version: number | undefined;
  /** What was sent and never answered: it may be stored. */
  sent: D | undefined;
}

const shelves = "kladotex.unsaved.";

/** A place on the shelf: of one person, for one thing of a kind. */
export class ShelfPlace<D> {
  private readonly name: string;

  constructor(person: string, kind: string, id: string) {
    this.name = `${shelves}${person}.${kind}.${id}`;
  }

  put(shelved: Shelved<D>) {
    storage.setItem(this.name, JSON.stringify(shelved));
  }

  look(): Shelved<D> | undefined {
    const found = parsed(storage.getItem(this.name));
    return found && typeof found === "object" && "draft" in found && "base" in found
      ? (found as Shelved<D>)
      : undefined;
  }

  clear() {
    storage.removeItem(this.name);
  }
}

/** A draft that never reached the server. */
export interface NeverSaved<D> {
  id: string;
  draft: D;
}

/** What a person made of a kind on this device that never reached the server. */
export function neverSaved<D>(person: string, kind: string): NeverSaved<D>[] {
  const start = `${shelves}${person}.${kind}.`;
  return storage
    .names()
    .filter((name) => name.startsWith(start))
    .flatMap((name) => {
      const id = name.slice(start.length);
      const shelved = new ShelfPlace<D>(person, kind, id).look();
      return shelved && shelved.version === undefined ? [{ id, draft: shelved.draft }] : [];
    });
}
