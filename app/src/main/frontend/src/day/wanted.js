// The round that a link or a code on paper asks for: the day book opens at it.
import { say } from "../shell/say.js";
import { Failure } from "../shell/server.js";
import { book, load, tell } from "./book.js";
import { takeOut } from "./pack.js";
import * as store from "./store.js";

/** The round behind the # of an address; "" for none. @param {string} hash */
export const roundOf = (hash) => /^#round=([0-9a-f-]{36})$/i.exec(hash)?.[1]?.toLowerCase() ?? "";

const WANTED = "wanted-round";

/** Remembers the round that the address asks for, until somebody is let in here. */
export async function noteWanted() {
  const id = roundOf(location.hash);
  if (!id) return;
  history.replaceState(null, "", location.pathname);
  await store.put("meta", id, WANTED);
}

/** Takes the wanted round out, if it is not here, and turns to it. Gives the view to open; "" when none was asked for. */
export async function openWanted() {
  const id = await store.get("meta", WANTED);
  if (!id || !book.person) return "";
  const here = book.packs.find((p) => p.round === id);
  const mine = book.me?.rounds.find((r) => r.id === id);
  if (!here && !mine && !book.me) return ""; // no link: it is asked for again then
  await store.remove("meta", WANTED);
  if (!here && !mine) {
    tell("told", say("day.wantedNotYours"));
    return "";
  }
  try {
    if (!here) await takeOut(id, book.person, () => {});
  } catch (e) {
    if (!(e instanceof Failure) && !(e instanceof store.StoreFull)) throw e;
    tell("problem", e instanceof store.StoreFull ? say("day.full.takeOut") : say("day.takeOutBroke"));
    return "";
  }
  book.round = /** @type {any} */ ({ round: id });
  await load();
  return "stops";
}
