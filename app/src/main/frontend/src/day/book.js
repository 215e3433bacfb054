// What the day book knows: who is here, the rounds, packs and visits on the device, what is to be said next.
import { Failure, getJson } from "../shell/server.js";
import { say } from "../shell/say.js";
import { STOP, VISIT } from "../shell/states.js";
import { contact } from "./contact.js";
import { noteContact } from "./contact-log.js";
import { addFound } from "./elsewhere.js";
import { currentFix } from "./fix.js";
import { bindFormFiles } from "./form-file.js";
import { hasToken } from "../shell/device-token.js";
import { bySession, here, tokenEnded } from "./people.js";
import { wipe } from "./wipe.js";
import { sayLengthsIn } from "../shell/format.js";
import { isSwitchedOff } from "./link.js";
import { keepRounds, keptRounds } from "./kept-rounds.js";
import { roundsChanged } from "./news.js";
import { formsFor, open as openPack, peopleOf } from "./pack.js";
import * as store from "./store.js";

/**
 * @typedef {{kind: "told" | "done" | "problem", text: string}} Message
 * @type {{view: string, me: import("../../types/border").Me | null, person: string | null, rounds: import("../../types/border").MyRound[], packs: any[], visits: any[], round: any, message: Message | null,
 *   offline: boolean, signedOut: boolean, clockOff: number, stopOpen: boolean, busy: boolean}}
 * `stopOpen`: whether a visit is being filled, so that nothing else changes meanwhile; `busy`: whether something is sent or fetched that somebody asked for; `clockOff`: by how many seconds this device's clock is ahead of the office's
 */
export const book = {
  view: "today",
  me: null,
  person: null,
  rounds: [],
  packs: [],
  visits: [],
  round: null,
  message: null,
  offline: false,
  signedOut: false,
  clockOff: 0,
  stopOpen: false,
  busy: false,
};

/** What is shown with the next view. @param {Message["kind"]} kind @param {string} text */
export function tell(kind, text) {
  book.message = { kind, text };
}

/** Asks the office when the day book opens, unless the link is switched off on this device. */
export async function begin() {
  if (isSwitchedOff()) book.offline = true;
  else await refresh();
}

/** Asks the office: which rounds this person has, what became of what was handed in. A device that is not let in yet is, if somebody signed in on it. */
export async function refresh() {
  try {
    book.person = (await here())?.name ?? book.person;
    if (!hasToken() && !(await bySession())) throw new Failure(401, say("day.notSignedIn"));
    book.me = await getJson("/api/day/me");
    if (book.person && book.person !== book.me.person) tell("told", say("day.otherPerson", { now: book.me.person, before: book.person }));
    book.person = book.me.person;
    await store.put("meta", book.person, "person");
    const before = await keptRounds(book.person);
    await keepRounds(book.person, book.me.rounds);
    // what a device hears of first is not new: it knew nothing
    if (before) await roundsChanged(before, book.me.rounds);
    const fix = book.packs.some((p) => p.plan.round.tellsPosition) ? currentFix() : undefined;
    await bindFormFiles();
    const { again, clockOff } = await contact(book.me, fix);
    book.clockOff = clockOff;
    if (again) tell("told", say("day.carriedAgain", { n: again }));
    book.offline = false;
    book.signedOut = false;
    await noteContact(undefined);
  } catch (e) {
    if (!(e instanceof Failure) && !(e instanceof store.StoreFull)) throw e;
    const status = e instanceof Failure ? e.status : undefined;
    if (status !== undefined) await noteContact(status, e.message);
    if (e instanceof Failure && e.status === 401) await notLetIn(e);
    book.signedOut = status === 401;
    book.offline = status === 0;
    if (status && status !== 401) tell("problem", e.message);
  }
}

/** The office does not know this device any more; what it carries stays. @param {Failure} e */
async function notLetIn(e) {
  book.me = null;
  if (!hasToken()) return;
  if (e.revoked) {
    await wipe(book.person);
    tell("problem", say("day.revoked"));
  }
  await tokenEnded();
}

/** Reads what the device keeps of this person. */
export async function load() {
  book.person ??= (await store.get("meta", "person")) ?? null;
  const [rounds, packs, visits] = await Promise.all([book.me?.rounds ?? keptRounds(book.person), store.all("packs"), store.all("visits")]);
  book.rounds = rounds ?? [];
  const own = packs.filter((p) => peopleOf(p).includes(book.person ?? ""));
  book.packs = await Promise.all(own.map((p) => openPack(p.round, p)));
  await Promise.all(book.packs.map((p) => addFound(p)));
  book.visits = visits.filter((v) => v.person === book.person);
  for (const p of book.packs) p.made = madeIn(p);
  book.round = book.packs.find((p) => p.round === book.round?.round) ?? book.packs.at(-1) ?? null;
  index();
  sayLengthsIn(book.round?.plan.project?.units);
}

/** The features that visits on this device make and the pack does not have, by id. @param {any} pack @returns {Map<string, any>} */
function madeIn(pack) {
  const out = new Map();
  for (const v of book.visits) {
    if (v.round !== pack.round || !v.base?.made || pack.byId.has(v.feature) || out.has(v.feature)) continue;
    out.set(v.feature, { ...v.base, caption: v.caption, geometry: placed(v.state?.place) });
  }
  return out;
}

/** Where a visit that was kept is. @param {any} at */
export const placed = (at) => (at ? (at.geometry ?? { type: "Point", coordinates: [at.lon, at.lat] }) : null);

/** A feature of a pack, or one that was made here. @param {any} pack @param {string} id */
export const featureOf = (pack, id) => pack.byId.get(id) ?? pack.made.get(id);

/** The visits on the device, and what the office says of each stop, by round and feature; made once for each reading. @type {Map<string, Map<string, any[]>>} */
let visitsAt = new Map();
/** @type {Map<string, Map<string, import("../../types/border").MyRound["stops"][0]>>} */
let stopsAt = new Map();
/** The rounds of which `stopsAt` was made. @type {any} */
let stopsOf = null;

function index() {
  visitsAt = new Map();
  for (const v of book.visits) {
    const of = visitsAt.get(v.round) ?? new Map();
    visitsAt.set(v.round, of.set(v.feature, [...(of.get(v.feature) ?? []), v]));
  }
  if (stopsOf === book.rounds) return;
  stopsOf = book.rounds;
  stopsAt = new Map(book.rounds.map((r) => [r.id, new Map(r.stops.map((s) => [s.feature, s]))]));
}

/** How a form that was opened from a file is called here. @param {string} hash */
export const fileForm = (hash) => "file:" + hash;

/** The form of a visit; one that was begun when a round had one form does not say, and has that. @param {any} v @param {string} only */
export const formOf = (v, only) => v.form ?? (v.formFile ? fileForm(v.formFile) : only);

/** The visits here to a feature of a round with one of its forms. @param {any} pack @param {string} featureId @param {string} formId @returns {any[]} */
export const visitsTo = (pack, featureId, formId) =>
  (visitsAt.get(pack.round)?.get(featureId) ?? []).filter((v) => formOf(v, formId) === formId);

/** Whether there is a visit to a feature here, in whatever state. @param {any} pack @param {string} featureId */
export const isVisitedHere = (pack, featureId) => Boolean(visitsAt.get(pack.round)?.has(featureId));

/** What the office says of a stop; undefined for an asset that is none. @param {any} pack @param {string} featureId @returns {import("../../types/border").MyRound["stops"][0] | undefined} */
export const stopOf = (pack, featureId) => stopsAt.get(pack.round)?.get(featureId);

const isBack = (v) => v.office?.state === VISIT.SENT_BACK && v.status !== VISIT.COMPLETE;

/** The state of a stop as this device knows it: done when it was visited with each of its forms. */
export function stopState(pack, featureId) {
  // thousands are asked for at once, and hardly any has a visit here
  if (!isVisitedHere(pack, featureId)) return stopOf(pack, featureId)?.state ?? STOP.TO_DO;
  const feature = featureOf(pack, featureId);
  const last = formsFor(pack, feature).map((f) => visitsTo(pack, featureId, f.id).at(-1));
  if (last.some((v) => v && isBack(v))) return STOP.SENT_BACK;
  const known = stopOf(pack, featureId)?.state ?? STOP.TO_DO;
  if (last.every((v) => v === undefined) || known === STOP.DONE) return known;
  return last.every((v) => v && v.status !== VISIT.BEGUN) ? STOP.DONE : STOP.STARTED;
}
