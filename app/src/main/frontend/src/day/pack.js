// Takes a round offline: parts by content hash, each kept as it arrives, so that a broken transfer goes on where it stopped.
import { say } from "../shell/say.js";
import { getJson, request } from "../shell/server.js";
import { ALLOWS } from "../shell/states.js";
import * as store from "./store.js";

/** A broken transfer is told at once, since it goes on where it stopped. */
const ONCE = { patient: false };
/** So many parts are fetched at once. */
const AT_ONCE = 4;
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
  const left = [...manifest.parts];
  const fetchAll = async () => {
    for (let part = left.shift(); part; part = left.shift()) {
      if ((await store.get("parts", part.hash)) === undefined) await fetchPart(roundId, part);
      have += part.bytes;
      progress(have, manifest.bytes);
    }
  };
  // one that fails ends the others, so that what is told of it stays true
  const ended = (e) => {
    left.length = 0;
    throw e;
  };
  await Promise.all(Array.from({ length: AT_ONCE }, () => fetchAll().catch(ended)));
  const hashes = Object.fromEntries(manifest.parts.map((p) => [p.name, p.hash]));
  const before = await store.get("packs", roundId);
  await store.put("packs", {
    round: roundId,
    people: [...new Set([...(before ? peopleOf(before) : []), person])],
    takenAt: new Date().toISOString(),
    madeAt: manifest.madeAt,
    stamp: manifest.stamp,
    told: manifest.told,
    bytes: manifest.bytes,
    parts: hashes,
  });
  await navigator.storage?.persist?.();
  return open(roundId);
}

/** Who of this device has taken a pack out; an older one was one person's. @param {any} pack @returns {string[]} */
export const peopleOf = (pack) => pack.people ?? [pack.person];

async function fetchPart(roundId, part) {
  for (let attempt = 1; ; attempt++) {
    const bytes = await (await request(`/api/day/rounds/${roundId}/parts/${part.name}?hash=${part.hash}`, ONCE)).arrayBuffer();
    if ((await sha256(bytes)) === part.hash) return store.put("parts", new TextDecoder().decode(bytes), part.hash);
    if (attempt === 3) throw new Error(say("day.partDamaged"));
  }
}

/** Packs that are open, with the hashes of what they were opened of: a view that is turned to reads nothing again. @type {Map<string, {of: string, pack: any}>} */
const opened = new Map();

/** A pack that was taken out, opened from the device; undefined when it was not. @param {string} roundId @param {any} [as] what is kept of it, where that was just read */
export async function open(roundId, as) {
  const kept = as ?? (await store.get("packs", roundId));
  if (!kept) return undefined;
  const of = JSON.stringify(kept.parts);
  const known = opened.get(roundId);
  if (known?.of === of)
    return Object.assign(known.pack, { people: peopleOf(kept), takenAt: kept.takenAt, stamp: kept.stamp, told: kept.told });
  const read = async (name) => JSON.parse(await store.get("parts", kept.parts[name]));
  const pack = { ...kept, people: peopleOf(kept), ...(kept.parts.work ? await ofOneForm(read) : await ofForms(kept, read)) };
  pack.features = pack.layers.flatMap((l) => l.features.map((f) => Object.assign(f, { layer: l.layer })));
  pack.byId = new Map(pack.features.map((f) => [f.id, f]));
  pack.stops = pack.plan.stops.filter((s) => pack.byId.has(s.feature));
  pack.made = new Map();
  pack.isStop = new Set(pack.stops.map((s) => s.feature));
  opened.set(roundId, { of, pack });
  return pack;
}

async function ofForms(kept, read) {
  const names = Object.keys(kept.parts);
  const all = (before) => Promise.all(names.filter((n) => n.startsWith(before)).map(read));
  const plan = /** @type {import("../../types/border").PackPlan} */ (await read("round"));
  const last = {};
  for (const f of plan.forms) last[f.id] = await read("last-" + f.id);
  return { plan, last, layers: await all("features-") };
}

/** A pack as it was when a round had one form: devices keep what they took out. */
async function ofOneForm(read) {
  const { round, project, form, edition, layer } = await read("work");
  const { schema, features } = await read("features");
  const id = layer.id;
  return {
    plan: {
      round: { ...round, people: [round.person], allows: ALLOWS.STOPS },
      project,
      forms: [{ id: "", title: form.title, edition, layer: id }],
      stops: features.map((f) => ({ feature: f.id, layer: id, note: "" })),
    },
    last: { "": await read("last-visits") },
    layers: [{ layer: id, name: layer.name, schema, cut: false, features }],
  };
}

/** The hash of what a visit with a form is begun with. @param {any} pack @param {string} form */
export const workHash = (pack, form) => pack.parts["form-" + form] ?? pack.parts.work;

/** The forms of a round for a feature. @param {any} pack @param {any} feature @returns {{id: string, title: string, edition: number, layer: string}[]} */
export function formsFor(pack, feature) {
  const given = pack.plan.forms.filter((f) => f.layer === feature.layer);
  // what was made here with a form of a file is visited with that one
  const { ofForm, caption, layer } = feature;
  return !ofForm || given.some((f) => f.id === ofForm) ? given : [...given, { id: ofForm, title: caption, edition: 0, layer }];
}

export async function basemap(pack) {
  return JSON.parse(await store.get("parts", pack.parts.basemap));
}

/** The project's map around the stops, and the tiles of its basemap there; null for what an older pack does not have. */
export async function mapOf(pack) {
  const part = async (name) => (pack.parts[name] ? JSON.parse(await store.get("parts", pack.parts[name])) : null);
  const map = await part("map");
  for (const l of map?.layers ?? []) if (l.tiled) l.tiles = await part("tiles-" + l.id);
  return { map, ground: await part("ground") };
}

/** The form and schema with which a visit was begun, which may be an older edition than the pack's. */
export async function workOf(hash) {
  return JSON.parse(await store.get("parts", hash));
}

export { sha256 };
