// A contact with the office: what it has of what is kept here, and what may leave the device then.
import { getJson } from "../shell/server.js";
import { say } from "../shell/say.js";
import { VISIT } from "../shell/states.js";
import { version } from "./contact-log.js";
import { sha256, TAKING } from "./pack.js";
import { carried } from "./carry.js";
import * as store from "./store.js";
import { visitDocument } from "./visit-document.js";

const MOST_ASKED = 1000;

/** What the office says of a visit, as it is kept here. @param {import("../../types/border").VisitAnswer} a */
export const office = (a) => ({
  state: a.state,
  ...(a.clash && { clash: true }),
  reason: a.fateReason ? say("day.fate", { reason: a.reason, fate: a.fate, why: a.fateReason }) : a.reason,
  hash: a.hash,
  receivedAt: a.receivedAt,
});

/** Notes which photos the office says that it has, and since when. @param {import("../../types/border").VisitAnswer} a */
export async function photosAre(a) {
  for (const p of a.photos ?? []) {
    const here = await store.get("photos", p.id);
    if (here && (here.sent ?? "") !== (p.receivedAt ?? ""))
      await store.put("photos", { ...here, sent: p.receivedAt, uploadUrl: p.receivedAt ? undefined : here.uploadUrl });
  }
}

/**
 * Asks the office what it has of the visits kept here. One that it does not have any more, or only in an older text, since its store went back to a copy,
 * is carried again. Then what is safe leaves the device. Gives how many are offered again, and by how much the clock is off.
 * @param {import("../../types/border").Me} me @param {{lon: number, lat: number} | undefined} [fix] where this device is, if it is to be told
 */
export async function contact(me, fix) {
  const headers = { "Content-Type": "application/json" };
  const kept = (await store.all("visits")).filter((v) => v.person === me.person && v.status !== VISIT.BEGUN && !v.light);
  const begun = (await store.all("visits"))
    .filter((v) => v.person === me.person && v.status === VISIT.BEGUN && !v.base?.made)
    .slice(0, MOST_ASKED)
    .map(({ round, feature }) => ({ round, feature }));
  let again = 0;
  /** @type {import("../../types/border").ContactAnswer} */
  let answer = { visits: [], given: [], copiedUpTo: "", now: "" };
  for (let from = 0; from === 0 || from < kept.length; from += MOST_ASKED) {
    const some = kept.slice(from, from + MOST_ASKED);
    const body = JSON.stringify({ visits: some.map((v) => v.id), device: await report(me.person, fix), begun });
    answer = await getJson("/api/day/contact", { method: "POST", headers, body });
    const has = new Map(answer.visits.map((a) => [a.id, a]));
    for (const v of some) again += (await learn(v, has.get(v.id))) ? 1 : 0;
  }
  await store.put("meta", answer.given, "given:" + me.person);
  await store.put("meta", answer.copiedUpTo ?? "", "copied-up-to");
  await letGo(me.person, answer.copiedUpTo ?? "");
  return { again, clockOff: Math.round((Date.now() - Date.parse(answer.now)) / 1000) };
}

/** What the office learns of this device. */
async function report(person, fix) {
  const c = await carried(person);
  return {
    version: await version(),
    left: (await store.room())?.left ?? null,
    visits: c.visits.length + c.refused.length + c.waiting.length,
    photos: c.photos.length,
    at: new Date().toISOString(),
    ...(fix && { lon: fix.lon, lat: fix.lat }),
  };
}

/** Takes over what the office says of a visit; true when it is carried again. */
async function learn(v, a) {
  if (v.status === VISIT.COMPLETE) {
    // it came there another way, as a file: it is handed in if that is the text which is here
    const there = a?.hash && a.hash === (await sha256(new TextEncoder().encode(JSON.stringify(visitDocument(v)))));
    if (there) await store.put("visits", { ...v, status: VISIT.HANDED_IN, refused: undefined, office: office(a) });
    if (a) await photosAre(a);
    return false;
  }
  const older = a?.hash && v.office?.hash && a.hash !== v.office.hash && Date.parse(a.receivedAt) < Date.parse(v.office.receivedAt);
  if (!a || older) {
    for (const p of v.photos ?? []) {
      const here = await store.get("photos", p.id);
      if (here && !here.light) await store.put("photos", { ...here, sent: undefined, uploadUrl: undefined });
    }
    await store.put("visits", { ...v, status: VISIT.COMPLETE, office: undefined });
    return true;
  }
  const now = office(a);
  if (JSON.stringify(now) !== JSON.stringify(v.office)) await store.put("visits", { ...v, office: now });
  await photosAre(a);
  return false;
}

/** Whether a copy of the office's store holds what arrived then. @param {string | undefined} at @param {string} upTo */
export const held = (at, upTo) => Boolean(at) && Boolean(upTo) && Date.parse(at) <= Date.parse(upTo);

async function letGo(person, upTo) {
  const today = new Date().toISOString().slice(0, 10);
  const visits = (await store.all("visits")).filter((v) => v.person === person);
  const photos = await store.all("photos");
  for (const v of visits) {
    if (v.status !== VISIT.HANDED_IN || !held(v.office?.receivedAt, upTo)) continue;
    const own = photos.filter((p) => p.visit === v.id);
    const past =
      v.office.state === VISIT.ACCEPTED && !v.light && (v.endedAt ?? "").slice(0, 10) < today && own.every((p) => held(p.sent, upTo));
    if (past) {
      const { id, round, form, feature, caption, status, startedAt, endedAt } = v;
      await store.put("visits", {
        id,
        round,
        form,
        feature,
        caption,
        person,
        status,
        startedAt,
        endedAt,
        office: v.office,
        light: true,
        took: own.length,
      });
      for (const p of own) await store.remove("photos", p.id);
    } else for (const p of own) if (!p.light && held(p.sent, upTo)) await lighten(p);
  }
  await dropParts();
}

async function lighten(p) {
  let blob;
  try {
    const bitmap = await createImageBitmap(p.blob, { resizeWidth: 240 });
    const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
    canvas.getContext("2d").drawImage(bitmap, 0, 0);
    blob = await canvas.convertToBlob({ type: "image/jpeg", quality: 0.7 });
  } catch {
    blob = new Blob([], { type: "image/jpeg" }); // no picture that this browser can draw: the office has it whole
  }
  await store.put("photos", { ...p, blob, light: true });
}

/** Clears away parts that no pack and no visit names any more; not while a pack is being taken out. */
const dropParts = () => navigator.locks?.request(TAKING, { ifAvailable: true }, (free) => free && dropUnnamed());

export async function dropUnnamed() {
  const named = new Set();
  for (const p of await store.all("packs")) for (const hash of Object.values(p.parts)) named.add(hash);
  for (const v of await store.all("visits")) if (v.work) named.add(v.work);
  for (const f of (await store.get("meta", "form-files")) ?? []) named.add(f.work);
  for (const key of await store.keys("parts")) if (!named.has(key)) await store.remove("parts", key);
}

/** How many photos are at the office and still whole here, waiting for a copy of its store. */
export async function waitingForCopy(person) {
  const mine = new Set((await store.all("visits")).filter((v) => v.person === person).map((v) => v.id));
  return (await store.all("photos")).filter((p) => mine.has(p.visit) && p.sent && !p.light).length;
}
