// A device that is let in no more: what was taken out goes, what was done here stays.
import { VISIT } from "../shell/states.js";
import { dropUnnamed, held } from "./contact.js";
import { peopleOf } from "./pack.js";
import { dropRounds } from "./kept-rounds.js";
import * as store from "./store.js";

/** Clears away a person's packs and what is safe at the office, in a copy of its store too; all else stays with its photos. @param {string | null} person */
export async function wipe(person) {
  for (const p of await store.all("packs")) {
    const left = peopleOf(p).filter((x) => x !== person);
    if (left.length === 0) await store.remove("packs", p.round);
    else if (left.length < peopleOf(p).length) await store.put("packs", { ...p, people: left });
  }
  for (const k of await store.keys("meta")) if (String(k).startsWith("extra:")) await store.remove("meta", k);
  await dropRounds(person);
  for (const what of ["given:", "news:", "fresh:", "lately:"]) await store.remove("meta", what + person);
  const files = (await store.get("meta", "form-files")) ?? [];
  await store.put(
    "meta",
    files.filter((f) => f.person !== person),
    "form-files",
  );
  const upTo = (await store.get("meta", "copied-up-to")) ?? "";
  for (const v of await store.all("visits"))
    if (v.person === person && v.status === VISIT.HANDED_IN && held(v.office?.receivedAt, upTo)) {
      const own = (await store.all("photos")).filter((p) => p.visit === v.id);
      if (!own.every((p) => held(p.sent, upTo))) continue;
      for (const p of own) await store.remove("photos", p.id);
      await store.remove("visits", v.id);
    }
  await dropUnnamed();
}
