// Handing in: visits in parts, photos after. What the office has is what the office says it has, at each contact; the end of a transfer says nothing.
import { BUSY, VISIT } from "./states.js";
import * as tus from "tus-js-client";
import { Failure, request } from "./api.js";
import { TAKING } from "./pack.js";
import * as store from "./store.js";
import { deviceName } from "./visits.js";

/** A part of a hand-in has at most so many characters and visits; the office takes 8 MB at once. */
const MOST_CHARACTERS = 3_000_000;
const MOST_VISITS = 100;
const MOST_ASKED = 1000;

/** Made once with the store, so that it lasts as long as what the store keeps. */
async function deviceId() {
  let id = await store.get("meta", "device-id");
  if (!id) await store.put("meta", (id = crypto.randomUUID()), "device-id");
  return id;
}

/**
 * What the office does not have yet: complete visits, those among them that it refused (kept apart with the reason), photos. A photo of a visit that was
 * set aside waits until that is read.
 */
export async function carried(person) {
  const all = (await store.all("visits")).filter((v) => v.person === person);
  const complete = all.filter((v) => v.status === VISIT.COMPLETE);
  const of = new Map(all.map((v) => [v.id, v]));
  const photos = (await store.all("photos")).filter((p) => !p.sent && of.has(p.visit) && of.get(p.visit).status !== VISIT.BEGUN && !of.get(p.visit).refused);
  return {
    visits: complete.filter((v) => !v.refused),
    refused: complete.filter((v) => v.refused),
    photos: photos.filter((p) => of.get(p.visit).office?.state !== VISIT.SET_ASIDE),
    begun: all.filter((v) => v.status === VISIT.BEGUN),
  };
}

function document(v) {
  const g = v.base.geometry;
  return {
    id: v.id, round: v.round, edition: v.start.edition, feature: v.feature, startedAt: v.startedAt, endedAt: v.endedAt, start: v.start, state: v.state,
    ...v.result, base: { ...v.result.base, geometry: g ?? null }, photos: v.photos,
  };
}

/** Visits as texts in parts that the office takes at once; one that is larger alone is a part of its own. */
export function parts(texts) {
  const out = [];
  let part = [];
  let size = 0;
  for (const t of texts) {
    if (part.length && (size + t.text.length > MOST_CHARACTERS || part.length === MOST_VISITS)) {
      out.push(part);
      part = [];
      size = 0;
    }
    part.push(t);
    size += t.text.length;
  }
  if (part.length) out.push(part);
  return out;
}

/** Sends everything complete: visits first, photos after. `told` hears how far it is. Throws a Failure when the office can't take it now. */
export async function handIn(me, told) {
  const headers = { [me.csrf.header]: me.csrf.token };
  const waiting = (await carried(me.person)).visits;
  const refused = [];
  if (waiting.length) await sendVisits(me, headers, waiting, refused, told);
  const photos = (await carried(me.person)).photos.filter((p) => !waiting.some((v) => v.id === p.visit && refused.includes(v.id)));
  let problem = null;
  let n = 0;
  for (const p of photos) {
    told(`Photo ${++n} of ${photos.length}`);
    try {
      await send(p, headers, (share) => told(`Photo ${n} of ${photos.length}, ${Math.round(share * 100)} %`));
    } catch (e) {
      if (!(e instanceof Failure)) throw e;
      problem = e;
      if ([0, 401, 429].includes(e.status)) break; // no link, signed out, or enough for today: the others would fail too
    }
  }
  if (problem?.status !== 401 && problem?.status !== 0) await contact(me);
  const left = (await carried(me.person)).photos.filter((p) => photos.some((x) => x.id === p.id));
  if (problem && left.length) throw problem;
  const at = (await store.all("visits")).filter((v) => waiting.some((w) => w.id === v.id) && v.status === VISIT.HANDED_IN);
  return { visits: at.length, photos: photos.length - left.length, refused: refused.length };
}

async function sendVisits(me, headers, waiting, refused, told) {
  const handInId = (await store.get("meta", "open-hand-in")) ?? crypto.randomUUID();
  await store.put("meta", handInId, "open-hand-in");
  const head = { id: handInId, device: deviceName(), deviceId: await deviceId(), person: me.person, sentAt: new Date().toISOString() };
  const todo = parts(waiting.map((v) => ({ visit: v, text: JSON.stringify(document(v)) })));
  let sent = 0;
  while (todo.length) {
    const part = todo.shift();
    told(waiting.length === 1 ? "Sending 1 visit" : `Sending visits, ${sent} of ${waiting.length}`);
    const body = JSON.stringify(head).slice(0, -1) + ',"visits":[' + part.map((t) => t.text).join(",") + "]}";
    let answer;
    try {
      answer = await (await request("/api/day/hand-ins", { method: "POST", body, headers: { "Content-Type": "application/json", ...headers } })).json();
    } catch (e) {
      if (!(e instanceof Failure) || ![413, 422].includes(e.status)) throw e;
      if (part.length > 1) {
        // one of these is refused: find out which, and send the others
        const half = Math.ceil(part.length / 2);
        todo.unshift(part.slice(0, half), part.slice(half));
        continue;
      }
      await refuse(part[0].visit, e.message);
      refused.push(part[0].visit.id);
      continue;
    }
    for (const a of answer.visits) await taken(a, waiting);
    sent += part.length;
  }
  await store.remove("meta", "open-hand-in");
}

/** Kept apart with the reason, until it is changed or tried again by hand. */
async function refuse(visit, reason) {
  const v = await store.get("visits", visit.id);
  if (v?.status === VISIT.COMPLETE && v.changedAt === visit.changedAt) await store.put("visits", { ...v, refused: reason });
}

export async function tryAgain(id) {
  const v = await store.get("visits", id);
  if (v?.refused) await store.put("visits", { ...v, refused: undefined });
}

async function taken(a, waiting) {
  const v = await store.get("visits", a.id);
  // changed meanwhile in another window: what was sent is not what is here, so it stays carried and goes with the next hand-in
  const asSent = waiting.find((w) => w.id === a.id)?.changedAt === v?.changedAt;
  if (!v || v.status !== VISIT.COMPLETE || !asSent || a.state === BUSY) return;
  await store.put("visits", { ...v, status: VISIT.HANDED_IN, office: office(a) });
  await photosAre(a);
}

const office = (a) => ({ state: a.state, ...(a.clash && { clash: true }), reason: a.fateReason ? `${a.reason} Now: ${a.fate}, “${a.fateReason}”.` : a.reason, hash: a.hash, receivedAt: a.receivedAt });

/** Notes which photos the office says that it has, and since when. */
async function photosAre(a) {
  for (const p of a.photos ?? []) {
    const here = await store.get("photos", p.id);
    if (here && (here.sent ?? "") !== (p.receivedAt ?? "")) await store.put("photos", { ...here, sent: p.receivedAt, uploadUrl: p.receivedAt ? undefined : here.uploadUrl });
  }
}

/**
 * Asks the office what it has of the visits kept here. One that it does not have any more, or only in an older text, since its store went back to a copy,
 * is carried again. Then what is safe leaves the device. Gives how many are offered again.
 */
export async function contact(me) {
  const headers = { "Content-Type": "application/json", [me.csrf.header]: me.csrf.token };
  const kept = (await store.all("visits")).filter((v) => v.person === me.person && v.status !== VISIT.BEGUN && !v.light);
  let again = 0;
  let answer = null;
  for (let from = 0; from === 0 || from < kept.length; from += MOST_ASKED) {
    const some = kept.slice(from, from + MOST_ASKED);
    answer = await (await request("/api/day/contact", { method: "POST", headers, body: JSON.stringify({ visits: some.map((v) => v.id) }) })).json();
    const has = new Map(answer.visits.map((a) => [a.id, a]));
    for (const v of some) again += (await learn(v, has.get(v.id))) ? 1 : 0;
  }
  await store.put("meta", answer.given, "given:" + me.person);
  await store.put("meta", answer.copiedUpTo ?? "", "copied-up-to");
  await letGo(me.person, answer.copiedUpTo ?? "");
  return again;
}

/** Takes over what the office says of a visit; true when it is carried again. */
async function learn(v, a) {
  if (v.status === VISIT.COMPLETE) {
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

/** The rule by which things leave the device, as it is shown. */
export const RULE =
  "A photo leaves this device once the office has it and a copy of the office's store holds it; a small picture stays for the day. An accepted visit becomes a line of the log on the day after.";

const held = (at, upTo) => Boolean(at) && Boolean(upTo) && Date.parse(at) <= Date.parse(upTo);

async function letGo(person, upTo) {
  const today = new Date().toISOString().slice(0, 10);
  const visits = (await store.all("visits")).filter((v) => v.person === person);
  const photos = await store.all("photos");
  for (const v of visits) {
    if (v.status !== VISIT.HANDED_IN || !held(v.office?.receivedAt, upTo)) continue;
    const own = photos.filter((p) => p.visit === v.id);
    const past = v.office.state === VISIT.ACCEPTED && !v.light && (v.endedAt ?? "").slice(0, 10) < today && own.every((p) => held(p.sent, upTo));
    if (past) {
      const { id, round, feature, caption, status, startedAt, endedAt } = v;
      await store.put("visits", { id, round, feature, caption, person, status, startedAt, endedAt, office: v.office, light: true, took: own.length });
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

async function dropUnnamed() {
  const named = new Set();
  for (const p of await store.all("packs")) for (const hash of Object.values(p.parts)) named.add(hash);
  for (const v of await store.all("visits")) if (v.work) named.add(v.work);
  for (const key of await store.keys("parts")) if (!named.has(key)) await store.remove("parts", key);
}

/** How many photos are at the office and still whole here, waiting for a copy of its store. */
export async function waitingForCopy(person) {
  const mine = new Set((await store.all("visits")).filter((v) => v.person === person).map((v) => v.id));
  return (await store.all("photos")).filter((p) => mine.has(p.visit) && p.sent && !p.light).length;
}

async function send(photo, headers, progress) {
  const device = await deviceId();
  return new Promise((resolve, reject) => {
    const upload = new tus.Upload(photo.blob, {
      endpoint: "/api/day/uploads",
      uploadUrl: photo.uploadUrl ?? null,
      chunkSize: 1_500_000,
      retryDelays: [0, 1000, 3000],
      storeFingerprintForResuming: false,
      metadata: { photo: photo.id, device },
      headers,
      onShouldRetry: (e) => ![401, 403, 404, 409, 422, 429].includes(e.originalResponse?.getStatus()),
      onUploadUrlAvailable: () => store.put("photos", { ...photo, uploadUrl: upload.url }),
      onChunkComplete: (_, accepted, total) => progress(accepted / total),
      onSuccess: () => resolve(),
      onError: (e) => {
        const status = e.originalResponse?.getStatus() ?? 0;
        const said = status === 401 ? "You are not signed in any more. Sign in again; nothing on this device is lost." : status === 0 ? "The link broke off while a photo was being sent. What the office has is kept; it goes on from there." : e.originalResponse.getBody() || "A photo could not be sent.";
        // an upload that the office does not know any more is begun anew next time
        const forget = [404, 409, 410, 422].includes(status) ? store.put("photos", { ...photo, uploadUrl: undefined }) : Promise.resolve();
        forget.finally(() => reject(new Failure(status, said)));
      },
    });
    upload.start();
  });
}
