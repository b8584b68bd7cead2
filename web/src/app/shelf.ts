/**
 * What is typed and not yet on the server is laid on a shelf in this browser, so
 * that neither a lost connection nor a closed tab loses it.
 */
export interface Shelved<D> {
  draft: D;
  /** What the draft was made from, and its version; none for something new. */
  base: D;
  version: number | undefined;
}

const place = (what: string) => `kladotex.unsaved.${what}`;

export const shelf = {
  put<D>(what: string, shelved: Shelved<D>) {
    localStorage.setItem(place(what), JSON.stringify(shelved));
  },
  look<D>(what: string): Shelved<D> | undefined {
    const text = localStorage.getItem(place(what));
    return text === null ? undefined : (JSON.parse(text) as Shelved<D>);
  },
  clear(what: string) {
    localStorage.removeItem(place(what));
  },
};
