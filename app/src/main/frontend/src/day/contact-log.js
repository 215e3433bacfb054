// The last contacts with the office, as Kit tells them; which day book this is.
import { say } from "../shell/say.js";
import * as store from "./store.js";

/** So many are kept. */
const MOST = 20;

/** Which day book this is, by the files that it keeps; "" before they are. */
export const version = async () =>
  (await globalThis.caches?.keys())?.find((k) => k.startsWith("whinridge-"))?.slice("whinridge-".length) ?? "";

/** @returns {Promise<{at: string, said: string}[]>} the newest first */
export const lastContacts = async () => (await store.get("meta", "contacts")) ?? [];

/** Notes how a contact went. @param {number | undefined} status of its failure; undefined when it went well @param {string} [why] */
export async function noteContact(status, why = "") {
  const said = status === undefined ? say("day.contact.well") : status === 0 ? say("day.contact.noLink") : why;
  try {
    await store.put("meta", [{ at: new Date().toISOString(), said }, ...(await lastContacts())].slice(0, MOST), "contacts");
  } catch (e) {
    if (!(e instanceof store.StoreFull)) throw e; // what a contact brought matters more than its line here
  }
}
