// Assets that the round allows and that did not travel with its pack: found at the office while there is a link, and kept here from then on.
import { say } from "../shell/say.js";
import { Failure, getJson } from "../shell/server.js";
import { ALLOWS } from "../shell/states.js";
import { book, featureOf, load } from "./book.js";
import { asksByItself } from "./link.js";
import * as store from "./store.js";

/** So many are kept of a round. */
const MOST = 500;

const key = (round) => "extra:" + round;

/** Whether the office may be asked for more than is here. @param {any} pack */
export const mayAsk = (pack) => pack.plan.round.allows !== ALLOWS.STOPS && Boolean(book.me) && asksByItself();

/** Puts what was found before into a pack that was opened. @param {any} pack */
export async function addFound(pack) {
  for (const f of (await store.get("meta", key(pack.round))) ?? []) {
    if (pack.byId.has(f.id)) continue;
    const here = { ...f, found: true }; // it is no part of the pack: what is other in that says nothing of it
    pack.byId.set(f.id, here);
    pack.features.push(here);
  }
}

/** Asks the office; gives the features that are here now, or says why there are none. @param {any} pack @param {Record<string, string>} how @returns {Promise<{found: any[], why: string}>} */
export async function ask(pack, how) {
  try {
    /** @type {{layer: string, feature: any}[]} */
    const got = await getJson(`/api/day/rounds/${pack.round}/assets?${new URLSearchParams(how)}`);
    const found = got.map(({ layer, feature }) => ({ ...feature, layer }));
    const fresh = found.filter((f) => !featureOf(pack, f.id));
    if (fresh.length) {
      const kept = (await store.get("meta", key(pack.round))) ?? [];
      await store.put("meta", [...fresh, ...kept].slice(0, MOST), key(pack.round));
      await load();
    }
    return { found: found.map((f) => featureOf(pack, f.id)).filter(Boolean), why: "" };
  } catch (e) {
    if (!(e instanceof Failure) && !(e instanceof store.StoreFull)) throw e;
    return { found: [], why: e instanceof Failure && e.status === 0 ? say("day.contact.noLink") : e.message };
  }
}
