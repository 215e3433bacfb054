// What the day book keeps on the device, in IndexedDB. Everything here survives closing the browser.
import { openDB } from "idb";
import { say } from "../shell/say.js";

/** The device could not keep something; the message says what was and what was not kept. */
export class StoreFull extends Error {}

const db = openDB("whinridge-day", 1, {
  upgrade(d) {
    d.createObjectStore("parts"); // by content hash: text
    d.createObjectStore("packs", { keyPath: "round" });
    d.createObjectStore("visits", { keyPath: "id" });
    d.createObjectStore("photos", { keyPath: "id" });
    d.createObjectStore("meta");
  },
});

export async function get(store, key) {
  return (await db).get(store, key);
}

export async function all(store) {
  return (await db).getAll(store);
}

export async function keys(store) {
  return (await db).getAllKeys(store);
}

export async function put(store, value, key) {
  return guarded(async () => {
    const tx = (await db).transaction(store, "readwrite", { durability: "strict" });
    tx.store.put(value, key);
    await tx.done;
  });
}

/** A photo and the visit that names it, both or neither. */
export async function putPhoto(photo, visit) {
  return guarded(async () => {
    const tx = (await db).transaction(["photos", "visits"], "readwrite", { durability: "strict" });
    tx.objectStore("photos").put(photo);
    tx.objectStore("visits").put(visit);
    await tx.done;
  });
}

export async function remove(store, key) {
  return (await db).delete(store, key);
}

async function guarded(write) {
  try {
    return await write();
  } catch (e) {
    if (e?.name === "QuotaExceededError" || e?.inner?.name === "QuotaExceededError") throw new StoreFull(say("day.storeFull"));
    throw e;
  }
}

/** Whether the browser keeps this store when it runs out of room; asked for with the first pack. */
export const isDurable = async () => (await navigator.storage?.persisted?.()) ?? false;

/** How much is used and left, in bytes; undefined where the browser does not tell. */
export async function room() {
  const e = await navigator.storage?.estimate?.();
  return e && { used: e.usage, left: e.quota - e.usage };
}
