// A device that is let in no more: what was taken out goes, what was done here stays.
import { VISIT } from "../shell/states.js";
import { dropUnnamed } from "./contact.js";
import * as store from "./store.js";

/** Clears away a person's packs and what is safe at the office; visits that are carried or begun stay with their photos. @param {string | null} person */
export async function wipe(person) {
  for (const p of await store.all("packs")) if (p.person === person) await store.remove("packs", p.round);
  await store.remove("meta", "rounds:" + person);
  await store.remove("meta", "given:" + person);
  for (const v of await store.all("visits"))
    if (v.person === person && v.status === VISIT.HANDED_IN) {
      const own = (await store.all("photos")).filter((p) => p.visit === v.id);
      if (own.some((p) => !p.sent)) continue;
      for (const p of own) await store.remove("photos", p.id);
      await store.remove("visits", v.id);
    }
  await dropUnnamed();
}
