// Takes a round offline: parts by content hash, each kept as it arrives, so that a broken transfer goes on where it stopped.
import { say } from "../shell/say.js";
import { getJson, request } from "../shell/server.js";
import * as store from "./store.js";

/** A broken transfer is told at once, since it goes on where it stopped. */
const ONCE = { patient: false };
/** The lock under which packs are taken out. */
export const TAKING = "taking packs out";

async function sha256(bytes) {
  const d = new Uint8Array(await crypto.subtle.digest("SHA-256", bytes));
  return [...d].map((b) => b.toString(16).padStart(2, "0")).join("");
}

/** Fetches what is missing of a round's pack; the pack counts as taken only when every part is here. */
export function takeOut(roundId, person, progress) {
  // its parts belong to no pack until all are here; meanwhile nobody clears unused ones away
  if (!navigator.locks) return taken(roundId, person, progress);
  return navigator.locks.request(TAKING, { mode: "shared" }, () => taken(roundId, person, progress));
}

async function taken(roundId, person, progress) {
  /** @type {import("../../types/border").Manifest} */
  const manifest = await getJson(`/api/day/rounds/${roundId}/manifest`, ONCE);
  let have = 0;
  for (const part of manifest.parts) {
    if ((await store.get("parts", part.hash)) === undefined) await fetchPart(roundId, part);
    have += part.bytes;
    progress(have, manifest.bytes);
  }
  const hashes = Object.fromEntries(manifest.parts.map((p) => [p.name, p.hash]));
  await store.put("packs", {
    round: roundId,
    person,
    takenAt: new Date().toISOString(),
    madeAt: manifest.madeAt,
    bytes: manifest.bytes,
    parts: hashes,
  });
  await navigator.storage?.persist?.();
  return open(roundId);
}

async function fetchPart(roundId, part) {
  for (let attempt = 1; ; attempt++) {
    const bytes = await (await request(`/api/day/rounds/${roundId}/parts/${part.name}?hash=${part.hash}`, ONCE)).arrayBuffer();
    if ((await sha256(bytes)) === part.hash) return store.put("parts", new TextDecoder().decode(bytes), part.hash);
    if (attempt === 3) throw new Error(say("day.partDamaged"));
  }
}

/** A pack that was taken out, opened from the device; undefined when it was not. */
export async function open(roundId) {
  const pack = await store.get("packs", roundId);
  if (!pack) return undefined;
  const part = async (name) => JSON.parse(await store.get("parts", pack.parts[name]));
  const work = await part("work");
  const features = await part("features");
  const lookups = [];
  for (const name of Object.keys(pack.parts)) if (name.startsWith("lookup-")) lookups.push(await part(name));
  return { ...pack, work, features, lookups: lookups.filter((l) => !l.missing), last: await part("last-visits") };
}

export async function basemap(pack) {
  return JSON.parse(await store.get("parts", pack.parts.basemap));
}

/** The project's map around the stops, and the tiles of its basemap there; null for what an older pack does not have. */
export async function mapOf(pack) {
  const part = async (name) => (pack.parts[name] ? JSON.parse(await store.get("parts", pack.parts[name])) : null);
  return { map: await part("map"), ground: await part("ground") };
}

/** The form and schema with which a visit was begun, which may be an older edition than the pack's. */
export async function workOf(hash) {
  return JSON.parse(await store.get("parts", hash));
}

export { sha256 };
