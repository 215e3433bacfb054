// The day book's frame: head, the view that is open, the tabs. A view is { body, begin? }: what is drawn, and what is watched while it is open.
import { say } from "../shell/say.js";
import { html, nothing, render } from "../shell/view.js";
import { book, load } from "./book.js";
import { carriedView } from "./carried.js";
import { carried } from "./carry.js";
import { kitView } from "./kit.js";
import { linkSaid } from "./link.js";
import { officeNotes } from "./notes.js";
import { mapView } from "./places.js";
import { stopsView } from "./stops.js";
import { todayView } from "./today.js";

const root = /** @type {HTMLElement} */ (document.getElementById("day"));
root.replaceChildren(); // what stood there while it opened
/** @type {() => void} */
let leave = () => {};
/** Counts what was turned to: a view that is made while another is turned to is not drawn over it. */
let turn = 0;

/** @type {[string, import("../shell/say.js").MessageKey, () => Promise<any> | any][]} */
const TABS = [
  ["today", "day.tab.today", todayView],
  ["stops", "day.tab.stops", stopsView],
  ["map", "day.tab.map", mapView],
  ["carried", "day.tab.carried", carriedView],
  ["kit", "day.tab.kit", kitView],
];

/** The element in which pages are drawn. */
export const page = () => root;

/** Ends what the open view watches; `next` is ended when the one that comes is left. @param {() => void} next */
export function turnTo(next = () => {}) {
  turn++;
  leave();
  leave = next;
}

export function message() {
  if (!book.message) return nothing;
  const { kind, text } = book.message;
  return html`<div class=${kind} role=${kind === "problem" ? "alert" : "status"}>${text}</div>`;
}

/** @param {(typeof TABS)[0]} of @param {number} count */
function tab([key, label], count) {
  const carriedCount = key === "carried" && count > 0 ? html`<span class="count needs">${count}</span>` : nothing;
  return html`<button type="button" aria-current=${String(key === book.view)} @click=${() => show(key)}>
    ${say(label)}${carriedCount}
  </button>`;
}

/** What is carried, told at its tab. */
let count = 0;

/** What was said last. @type {typeof book.message} */
let said = null;

/** Draws the open view anew, with what was said on it; nothing while somebody waits for something they asked for. */
export async function showAgain() {
  if (book.stopOpen || book.busy) return;
  book.message ??= said;
  await show(book.view);
}

/** Shows a view. @param {string} view */
export async function show(view) {
  turnTo();
  const asked = turn;
  book.view = view;
  book.stopOpen = false;
  await load();
  const c = await carried(book.person, book.visits);
  count = c.visits.length + c.refused.length + c.waiting.length + c.photos.length;
  const [, , make] = /** @type {(typeof TABS)[0]} */ (TABS.find(([key]) => key === view));
  const made = await make();
  if (turn !== asked) return;
  showView(made.body);
  said = book.message;
  book.message = null;
  const drawn = turn;
  const ended = (await made.begin?.(root)) ?? (() => {});
  if (turn === drawn) turnTo(ended);
  else ended();
}

/** Shows something below the head of the view that is open. @param {unknown} body */
export function showView(body) {
  turnTo();
  const [, title] = /** @type {(typeof TABS)[0]} */ (TABS.find(([key]) => key === book.view));
  render(
    html`<header class="day-head">
        <h1>${say(title)}</h1>
        <span class="quiet-on-dark" id="who-and-link">${[book.person, linkSaid()].filter(Boolean).join(" · ")}</span>
      </header>
      <div class="day-body">${message()}${officeNotes(count)}${body}</div>
      <nav class="day-foot day-tabs" aria-label=${say("day.name")}>${TABS.map((t) => tab(t, count))}</nav>`,
    root,
  );
}
