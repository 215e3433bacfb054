// Opening a stop: one window at a time, with the visit that is here already or a new one.
import { say } from "../../shell/say.js";
import { VISIT } from "../../shell/states.js";
import { stateSaid } from "../../shell/words.js";
import { book, tell } from "../book.js";
import { page, show, turnTo } from "../frame.js";
import * as store from "../store.js";
import { openVisit } from "../visits.js";
import { stopPage } from "./stop-page.js";

/** One window at a time may fill a stop. Gives the function that lets it go, or null when another window has it. @returns {Promise<(() => void) | null>} */
function holdStop(name) {
  if (!navigator.locks) return Promise.resolve(() => {});
  return new Promise((resolve) => {
    navigator.locks.request("stop-" + name, { ifAvailable: true }, (lock) => {
      if (!lock) return resolve(null);
      return new Promise((release) => resolve(() => release(undefined)));
    });
  });
}

/** The visit that goes on here: begun, complete and not handed in, or sent back. */
async function existingVisit(pack, feature) {
  const goesOn = (v) => !v.light && (v.status !== VISIT.HANDED_IN || v.office?.state === VISIT.SENT_BACK);
  const here = (v) => v.person === book.person && v.round === pack.round && v.feature === feature.id;
  return (await store.all("visits")).filter((v) => here(v) && goesOn(v)).at(-1);
}

export async function openStop(pack, feature) {
  turnTo();
  const release = await holdStop(pack.round + feature.id);
  const { caption } = feature;
  if (!release) {
    tell("told", say("day.openElsewhere", { caption }));
    return show("stops");
  }
  const existing = await existingVisit(pack, feature);
  const handed = book.visits.find(
    (v) => v.round === pack.round && v.feature === feature.id && v.status === VISIT.HANDED_IN && v.office?.state !== VISIT.SENT_BACK,
  );
  if (!existing && handed) {
    release();
    tell("told", say("day.handedInAlready", { caption, state: stateSaid(handed.office?.state ?? VISIT.WAITING) }));
    return show("stops");
  }
  const visit = await openVisit(pack, feature, existing);
  const leave = (message) => {
    book.message = message ?? null;
    return show("stops");
  };
  turnTo(await stopPage({ root: page(), visit, release, leave }));
}
