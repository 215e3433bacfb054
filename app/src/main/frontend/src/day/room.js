// Making room on the device: what was taken out can be taken away, never what was done here.
import { VISIT } from "../shell/states.js";
import { bytes } from "../shell/format.js";
import { say } from "../shell/say.js";
import { book, stopState, tell } from "./book.js";
import { dropUnnamed } from "./contact.js";
import { OVER } from "./next.js";
import { peopleOf } from "./pack.js";
import * as store from "./store.js";

/** Whether a pack can go: nothing is under way in its round, and nothing is to be mended. @param {any} pack */
export const mayLeave = (pack) =>
  book.visits.every((v) => v.round !== pack.round || (v.status === VISIT.HANDED_IN && v.office?.state !== VISIT.SENT_BACK));

/**
 * The packs that leave first when room is needed: of rounds that are not this person's any more, then of those in which nothing is left to do; the oldest
 * first. None in which something is under way.
 */
export function couldLeave() {
  const open = new Set(book.rounds.map((r) => r.id));
  const isGone = (p) => !open.has(p.round);
  const isDone = (p) => p.stops.length > 0 && p.stops.every((s) => OVER.includes(stopState(p, s.feature)));
  const rank = (p) => (isGone(p) ? 0 : 1);
  return book.packs
    .filter((p) => mayLeave(p) && (isGone(p) || isDone(p)))
    .toSorted((a, b) => rank(a) - rank(b) || a.takenAt.localeCompare(b.takenAt));
}

/** Asks whether they may go, and takes them off; gives whether there is more room then. @param {string} [but] the round for which room is made */
export async function makeRoom(but) {
  const all = couldLeave().filter((p) => p.round !== but);
  const about = { n: all.length, names: all.map((p) => p.plan.round.name).join(", "), size: bytes(sizeOf(all)) };
  if (all.length === 0 || !window.confirm(say("day.room.ask", about))) return false;
  for (const p of all) await leave(p);
  tell("done", say("day.room.made", about));
  return true;
}

/** @param {any[]} packs */
export const sizeOf = (packs) => packs.reduce((n, p) => n + p.bytes, 0);

/** Takes a pack off this device for the person who is here; others' stay. @param {any} pack */
export async function leave(pack) {
  const kept = await store.get("packs", pack.round);
  const others = peopleOf(kept).filter((p) => p !== book.person);
  if (others.length) await store.put("packs", { ...kept, people: others });
  else {
    await store.remove("packs", pack.round);
    await store.remove("meta", "extra:" + pack.round);
  }
  if (book.round?.round === pack.round) book.round = null;
  await dropUnnamed();
}
