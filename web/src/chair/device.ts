import { del, get, set, type UseStore } from "idb-keyval";
import type { ChairEvent, Install } from "../api/types";

/**
 * What a device keeps of the installs it follows: each as it was taken along, every event, and
 * pictures that wait to be sent. What is told here is on the disk before the page goes on: it outlives
 * a killed browser and an empty battery.
 */

/** An event and whether the server has it. */
export interface Kept {
  event: ChairEvent;
  sent: boolean;
}

const name = "kladotex-chair";

let opened: Promise<IDBDatabase> | undefined;

function database(): Promise<IDBDatabase> {
  opened ??= new Promise((resolve, reject) => {
    const request = indexedDB.open(name, 1);
    request.onupgradeneeded = () => request.result.createObjectStore("kept");
    request.onsuccess = () => {
      // Another tab of a newer program may have to change it.
      request.result.onversionchange = () => {
        request.result.close();
        opened = undefined;
      };
      resolve(request.result);
    };
    request.onerror = () => {
      opened = undefined;
      reject(request.error ?? new Error("This device can keep nothing."));
    };
  });
  return opened;
}

/** A store whose writes are on the disk once they are done. */
const kept: UseStore = async (mode, work) => {
  const db = await database();
  return work(db.transaction("kept", mode, { durability: "strict" }).objectStore("kept"));
};

const installKey = (id: string) => `install/${id}`;
const eventKey = (install: string, event: string) => `event/${install}/${event}`;
const photoKey = (install: string, photo: string) => `photo/${install}/${photo}`;
const asideKey = (install: string, photo: string) => `refused/${install}/${photo}`;

export const keepInstall = (install: Install) => set(installKey(install.id), install, kept);
export const installHere = (id: string) => get<Install>(installKey(id), kept);

/** Keeps events; when it is done they are on the disk. */
export async function keepEvents(install: string, events: readonly Kept[]): Promise<void> {
  if (events.length === 0) return;
  await kept(
    "readwrite",
    (store) =>
      new Promise<void>((resolve, reject) => {
        for (const one of events) store.put(one, eventKey(install, one.event.id));
        const { transaction } = store;
        transaction.oncomplete = () => resolve();
        transaction.onabort = transaction.onerror = () =>
          reject(transaction.error ?? new Error("This device could not keep it."));
      }),
  );
}

/** The keys that begin so. Keys are texts, so they lie together: nothing else is read. */
const beginning = (start: string) => IDBKeyRange.bound(start, `${start}\uffff`);

/** All that is kept under keys that begin so. */
async function under<T>(start: string): Promise<[string, T][]> {
  return kept(
    "readonly",
    (store) =>
      new Promise<[string, T][]>((resolve, reject) => {
        const keys = store.getAllKeys(beginning(start)) as IDBRequest<string[]>;
        const values = store.getAll(beginning(start)) as IDBRequest<T[]>;
        store.transaction.oncomplete = () =>
          resolve(values.result.map((value, i) => [keys.result[i] ?? "", value]));
        store.transaction.onerror = () => reject(store.transaction.error ?? new Error("nothing can be read"));
      }),
  );
}

export const eventsHere = async (install: string): Promise<Kept[]> =>
  (await under<Kept>(`event/${install}/`)).map(([, one]) => one);

export const keepPhoto = (install: string, photo: string, picture: Blob) =>
  set(photoKey(install, photo), picture, kept);
export const dropPhoto = (install: string, photo: string) => del(photoKey(install, photo), kept);

/** Pictures that wait to be sent, by id. */
export const photosHere = async (install: string): Promise<[string, Blob][]> => {
  const start = photoKey(install, "");
  return (await under<Blob>(start)).map(([key, picture]) => [key.slice(start.length), picture]);
};

/** Sets a picture aside that the studio does not take: those after it go on. */
export async function setAside(install: string, photo: string, picture: Blob): Promise<void> {
  await set(asideKey(install, photo), picture, kept);
  await dropPhoto(install, photo);
}

/** Has pictures that were set aside wait to be sent once more, as after the client agreed. */
export async function takeUp(install: string): Promise<void> {
  const start = asideKey(install, "");
  for (const [key, picture] of await under<Blob>(start)) {
    await keepPhoto(install, key.slice(start.length), picture);
    await del(key, kept);
  }
}

/** Forgets all there is of an install, as after it was deleted. */
export async function forgetAll(install: string): Promise<void> {
  await kept(
    "readwrite",
    (store) =>
      new Promise<void>((resolve, reject) => {
        store.delete(installKey(install));
        for (const start of [eventKey(install, ""), photoKey(install, ""), asideKey(install, "")])
          store.delete(beginning(start));
        store.transaction.oncomplete = () => resolve();
        store.transaction.onerror = () => reject(store.transaction.error ?? new Error("not forgotten"));
      }),
  );
}

/** Forgets an install and those of its events that the server has; what was told meanwhile stays. */
export async function forget(install: string, sent: readonly string[]): Promise<void> {
  await kept(
    "readwrite",
    (store) =>
      new Promise<void>((resolve, reject) => {
        store.delete(installKey(install));
        for (const event of sent) store.delete(eventKey(install, event));
        store.transaction.oncomplete = () => resolve();
        store.transaction.onerror = () => reject(store.transaction.error ?? new Error("not forgotten"));
      }),
  );
}
