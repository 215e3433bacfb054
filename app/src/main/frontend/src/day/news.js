// What is new since the last contact: rounds that came and went, stops that were given or taken, and what is other in a pack that was fetched again.
import { inWords, say } from "../shell/say.js";
import { day, when } from "../shell/styles.js";
import { Failure } from "../shell/server.js";
import { html, nothing } from "../shell/view.js";
import { book } from "./book.js";
import { whatChanged } from "./changes.js";
import { open, takeOut } from "./pack.js";
import * as store from "./store.js";

/** So much of it is kept until somebody has seen it. */
const MOST = 30;

/** @typedef {{at: string, round: string, name: string, lines: any[]}} News */

const key = () => "news:" + book.person;

/** The rounds that are to be taken out by themselves, since they are new. */
const freshKey = () => "fresh:" + book.person;

/** @param {string} round @param {string} name @param {any[]} lines */
async function note(round, name, lines) {
  const kept = /** @type {News[]} */ ((await store.get("meta", key())) ?? []);
  await store.put("meta", [{ at: new Date().toISOString(), round, name, lines }, ...kept].slice(0, MOST), key());
}

const isMine = (s) => !s.person || s.person === book.person;

/** What is other in the list of rounds than it was. @param {any[]} was @param {any[]} is */
export async function roundsChanged(was, is) {
  const before = new Map(was.map((r) => [r.id, r]));
  for (const r of is) {
    const old = before.get(r.id);
    before.delete(r.id);
    if (!old) {
      await note(r.id, r.name, [{ say: "day.news.round", with: {} }]);
      await store.put("meta", [...((await store.get("meta", freshKey())) ?? []), r.id], freshKey());
    } else {
      const had = new Map(old.stops.map((s) => [s.feature, s]));
      const given = r.stops.filter((s) => had.has(s.feature) && isMine(s) && !isMine(had.get(s.feature))).length;
      const taken = r.stops.filter((s) => had.has(s.feature) && !isMine(s) && isMine(had.get(s.feature))).length;
      const lines = [
        ...(given ? [{ say: "day.news.given", with: { n: given } }] : []),
        ...(taken ? [{ say: "day.news.taken", with: { n: taken } }] : []),
      ];
      if (lines.length) await note(r.id, r.name, lines);
    }
  }
  for (const r of before.values()) await note(r.id, r.name, [{ say: "day.news.roundGone", with: {} }]);
}

/**
 * Fetches what has changed of the packs that are here, and rounds that are new to this device. Not while a stop is open. Gives whether anything came.
 */
export async function fetchChanged() {
  let came = false;
  const fresh = /** @type {string[]} */ ((await store.get("meta", freshKey())) ?? []);
  for (const r of book.me?.rounds ?? []) {
    const kept = await store.get("packs", r.id);
    const isNew = !kept && fresh.includes(r.id);
    const isOther = kept?.stamp && kept.stamp !== r.stamp && (await open(r.id));
    if ((!isNew && !isOther) || book.stopOpen) continue;
    try {
      const before = isOther ? { ...isOther } : null;
      const after = await takeOut(r.id, book.person, () => {});
      const lines = before ? whatChanged(before, after) : [];
      if (lines.length) await note(r.id, r.name, lines);
      came = true;
    } catch (e) {
      // what is here is whole and stays as it is; the button of the round tells why when it is asked
      if (!(e instanceof Failure) && !(e instanceof store.StoreFull)) throw e;
      return came;
    }
  }
  if (fresh.length && !book.stopOpen) await store.remove("meta", freshKey());
  return came;
}

/** A line in words, its day as this person writes days. @param {any} line */
const said = ({ say: text, with: about }) =>
  inWords(JSON.stringify([{ say: text, with: about.due ? { ...about, due: day(about.due) } : about }]))[0];

/** What nobody has seen yet, on Today. @param {(view: string) => Promise<unknown>} show */
export async function newsCard(show) {
  const all = /** @type {News[]} */ ((await store.get("meta", key())) ?? []);
  if (all.length === 0) return nothing;
  const seen = async () => {
    await store.remove("meta", key());
    return show("today");
  };
  return html`<section class="card" id="news">
    <h2>${say("day.news.title")}</h2>
    <ul>
      ${all.map(
        (n) =>
          html`<li>
            <strong>${n.name}</strong> <span class="quiet">${when(n.at)}</span>
            <ul>
              ${n.lines.map((l) => html`<li>${said(l)}</li>`)}
            </ul>
          </li>`,
      )}
    </ul>
    <p><button type="button" id="news-seen" @click=${seen}>${say("day.news.seen")}</button></p>
  </section>`;
}
