// Handing in: visits in parts, photos after. What the office has is what the office says it has, at each contact; the end of a transfer says nothing.
import { BUSY, VISIT } from "../shell/states.js";
import { say } from "../shell/say.js";
import { Failure, getJson } from "../shell/server.js";
import * as store from "./store.js";
import { carried } from "./carry.js";
import { contact, office, photosAre } from "./contact.js";
import { deviceId, deviceName } from "./device.js";
import { sendPhoto } from "./send-photo.js";
import { visitDocument } from "./visit-document.js";

/** A part of a hand-in has at most so many characters and visits; the office takes 8 MB at once. */
const MOST_CHARACTERS = 3_000_000;
const MOST_VISITS = 100;

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
  const waiting = (await carried(me.person)).visits;
  const refused = [];
  if (waiting.length) await sendVisits(me, waiting, refused, told);
  const photos = (await carried(me.person)).photos.filter((p) => !waiting.some((v) => v.id === p.visit && refused.includes(v.id)));
  let problem = null;
  let n = 0;
  for (const p of photos) {
    n++;
    told(say("day.photoOf", { n, of: photos.length }));
    try {
      await sendPhoto(p, (share) => told(say("day.photoShare", { n, of: photos.length, share })));
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

async function sendVisits(me, waiting, refused, told) {
  const handInId = (await store.get("meta", "open-hand-in")) ?? crypto.randomUUID();
  await store.put("meta", handInId, "open-hand-in");
  const head = { id: handInId, device: deviceName(), deviceId: await deviceId(), person: me.person, sentAt: new Date().toISOString() };
  const todo = parts(waiting.map((v) => ({ visit: v, text: JSON.stringify(visitDocument(v)) })));
  let sent = 0;
  while (todo.length) {
    const part = todo.shift();
    told(say("day.sending", { sent, of: waiting.length }));
    const body = JSON.stringify(head).slice(0, -1) + ',"visits":[' + part.map((t) => t.text).join(",") + "]}";
    let answer;
    try {
      answer = await getJson("/api/day/hand-ins", { method: "POST", body, headers: { "Content-Type": "application/json" } });
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
