// Making room on the device: what was taken out can be taken away, never what was done here.
import { VISIT } from "../shell/states.js";
import { book } from "./book.js";
import { dropUnnamed } from "./contact.js";
import { peopleOf } from "./pack.js";
import * as store from "./store.js";

/** Whether a pack can go: nothing is under way in its round, and nothing is to be mended. @param {any} pack */
export const mayLeave = (pack) =>
  book.visits.every((v) => v.round !== pack.round || (v.status === VISIT.HANDED_IN && v.office?.state !== VISIT.SENT_BACK));

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
