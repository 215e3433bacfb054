// What the day book knows: who is here, the rounds, packs and visits on the device, what is to be said next.
import { Failure, getJson } from "../shell/server.js";
import { say } from "../shell/say.js";
import { STOP, VISIT } from "../shell/states.js";
import { contact } from "./contact.js";
import { currentFix } from "./fix.js";
import { hasToken } from "../shell/device-token.js";
import { bySession, here, tokenEnded } from "./people.js";
import { wipe } from "./wipe.js";
import { sayLengthsIn } from "../shell/format.js";
import { open as openPack } from "./pack.js";
import * as store from "./store.js";

/**
 * @typedef {{kind: "told" | "done" | "problem", text: string}} Message
 * @type {{view: string, me: import("../../types/border").Me | null, person: string | null, rounds: import("../../types/border").MyRound[], packs: any[], visits: any[], round: any, message: Message | null,
 *   offline: boolean, signedOut: boolean, clockOff: number}}
 * `clockOff`: by how many seconds this device's clock is ahead of the office's
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
};

/** What is shown with the next view. @param {Message["kind"]} kind @param {string} text */
export function tell(kind, text) {
  book.message = { kind, text };
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
    await store.put("meta", book.me.rounds, "rounds:" + book.person);
    const fix = book.packs.some((p) => p.work.round.tellsPosition) ? currentFix() : undefined;
    const { again, clockOff } = await contact(book.me, fix);
    book.clockOff = clockOff;
    if (again) tell("told", say("day.carriedAgain", { n: again }));
    book.offline = false;
    book.signedOut = false;
  } catch (e) {
    if (!(e instanceof Failure) && !(e instanceof store.StoreFull)) throw e;
    const status = e instanceof Failure ? e.status : undefined;
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
  book.rounds = book.me?.rounds ?? (await store.get("meta", "rounds:" + book.person)) ?? [];
  const packs = (await store.all("packs")).filter((p) => p.person === book.person);
  book.packs = await Promise.all(packs.map((p) => openPack(p.round)));
  book.visits = (await store.all("visits")).filter((v) => v.person === book.person);
  book.round = book.packs.find((p) => p.round === book.round?.round) ?? book.packs.at(-1) ?? null;
  sayLengthsIn(book.round?.work.project?.units);
}

/** The state of a stop as this device knows it. */
export function stopState(pack, featureId) {
  const v = book.visits.find((x) => x.round === pack.round && x.feature === featureId);
  if (v?.office?.state === VISIT.SENT_BACK && v.status !== VISIT.COMPLETE) return STOP.SENT_BACK;
  if (v) return v.status === VISIT.BEGUN ? STOP.STARTED : STOP.DONE;
  const known = book.rounds.find((r) => r.id === pack.round)?.stops.find((s) => s.feature === featureId);
  return known?.state ?? STOP.TO_DO;
}
