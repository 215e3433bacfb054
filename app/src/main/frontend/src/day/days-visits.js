// The visits of today, in the order in which they were made, or by name or state.
import { choose } from "../shell/controls.js";
import { say } from "../shell/say.js";
import { STOP, VISIT } from "../shell/states.js";
import { when } from "../shell/styles.js";
import { symbol } from "../shell/symbols.js";
import { html, nothing } from "../shell/view.js";
import { stateSaid } from "../shell/words.js";
import { book } from "./book.js";
import { show } from "./frame.js";
import { goOnWith } from "./stop/open.js";

/** How the list is sorted; kept while the page lives. */
let sort = "time";

/** @type {Record<string, (a: any, b: any) => number>} */
const BY = {
  time: (a, b) => madeAt(a).localeCompare(madeAt(b)),
  name: (a, b) => a.caption.localeCompare(b.caption, undefined, { numeric: true }),
  state: (a, b) => stateOf(a).localeCompare(stateOf(b)),
};

const madeAt = (v) => v.endedAt ?? v.startedAt;
const two = (n) => String(n).padStart(2, "0");
const localDay = (d) => `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}`;

/** Whether a visit was made today, as this device counts days. @param {any} v */
export const isToday = (v) => localDay(new Date(madeAt(v))) === localDay(new Date());

/** The mark of it: what was begun is a stop that was started. */
const markOf = (v) => (v.status === VISIT.BEGUN ? STOP.STARTED : stateOf(v));

/** What became of it: where the office has it, what the office says. */
const stateOf = (v) =>
  v.status === VISIT.HANDED_IN ? (v.office?.state ?? VISIT.WAITING) : v.status === VISIT.COMPLETE ? "carried" : v.status;

export function daysVisits() {
  const all = book.visits.filter(isToday).toSorted(BY[sort]);
  if (all.length === 0) return nothing;
  const again = (v) => {
    sort = v;
    return show("today");
  };
  const sent = all.filter((v) => v.status === VISIT.HANDED_IN).length;
  const row = (v) =>
    html`<li>
      <button type="button" class="goto" data-visit=${v.id} @click=${() => goOnWith(v)}>
        ${symbol(markOf(v))}<span
          ><strong>${v.caption}</strong><span class="quiet">${stateSaid(stateOf(v))} · ${when(madeAt(v))}</span></span
        >
      </button>
    </li>`;
  return html`<section class="card" id="days-visits">
    <h2>${say("day.visitsToday", { n: all.length, sent })}</h2>
    <div class="flex gap-2 items-center">
      ${choose(
        say("day.sortBy"),
        sort,
        [
          ["time", say("day.sortTime")],
          ["name", say("day.sortName")],
          ["state", say("day.sortState")],
        ],
        again,
        { id: "days-sort" },
      )}
    </div>
    <ol class="flex flex-col gap-2 mt-2">
      ${all.map(row)}
    </ol>
  </section>`;
}
