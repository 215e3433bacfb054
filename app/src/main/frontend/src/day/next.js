// The stop to go to next: the first in the order of visit, from the last visit on, that is left and not somebody else's.
import { say } from "../shell/say.js";
import { STOP, VISIT } from "../shell/states.js";
import { symbol } from "../shell/symbols.js";
import { html, nothing } from "../shell/view.js";
import { book, featureOf, isVisitedHere, stopOf, stopState } from "./book.js";
import { farFrom, farSaid } from "./far.js";
import { currentFix } from "./fix.js";
import { openStop } from "./stop/open.js";

/** States in which there is something left to do, in the order in which they are listed. */
export const LEFT = [STOP.SENT_BACK, STOP.STARTED, STOP.TO_DO];

/** States in which nothing is left to do. */
export const OVER = [STOP.DONE, STOP.NO_ACCESS, STOP.GONE];

/** Whether a stop is somebody else's, and nothing was begun there on this device. @param {any} pack @param {string} id */
export const isOthers = (pack, id) =>
  Boolean(stopOf(pack, id)?.person) && stopOf(pack, id)?.person !== book.person && !isVisitedHere(pack, id);

/** The id of the next stop; undefined when nothing is left. @param {any} pack @returns {string | undefined} */
export function nextOf(pack) {
  const { stops } = pack;
  const last = lastVisited(pack);
  const from = stops.findIndex((s) => s.feature === last) + 1;
  const order = [...stops.slice(from), ...stops.slice(0, from)];
  return order.find((s) => LEFT.includes(stopState(pack, s.feature)) && !isOthers(pack, s.feature))?.feature;
}

/** Where the last visit in a round was. @param {any} pack */
function lastVisited(pack) {
  const done = book.visits.filter((v) => v.round === pack.round && pack.isStop.has(v.feature) && v.status !== VISIT.BEGUN);
  return done.toSorted((a, b) => (a.endedAt ?? "").localeCompare(b.endedAt ?? "")).at(-1)?.feature;
}

/** The next stop with its distance, to be opened. @param {any} pack */
export async function nextStop(pack) {
  const id = nextOf(pack);
  if (!id) return nothing;
  const feature = featureOf(pack, id);
  const fix = currentFix();
  const far = fix ? (await farFrom(pack))(fix).get(id) : undefined;
  const open = () => {
    book.round = pack;
    return openStop(pack, feature);
  };
  return html`<button type="button" class="goto" data-next-stop=${id} @click=${open}>
    ${symbol(stopState(pack, id))}<span><strong>${feature.caption}</strong><span class="quiet">${say("day.nextStop")}</span></span
    ><span class="far">${farSaid(far)}</span>
  </button>`;
}
