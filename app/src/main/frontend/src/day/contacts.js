// Contacts that come by themselves: when there is a link again, when the day book is looked at again, and every few minutes. Never while a stop is open.
import { book, refresh } from "./book.js";
import { asksByItself } from "./link.js";
import { showAgain } from "./frame.js";
import { fetchChanged } from "./news.js";
import { lookForNewer, takeNewer } from "./updates.js";

/** So often the office is asked while the day book is looked at, in milliseconds. */
const AGAIN = 240_000;
/** Not more often than this, whatever happens. */
const REST = 20_000;

let last = 0;
let running = false;

/** Asks the office, if nobody fills a stop, and fetches what has changed. */
async function contactNow() {
  if (running || book.stopOpen || book.busy || !asksByItself() || Date.now() - last < REST) return;
  last = Date.now();
  running = true;
  try {
    const before = told();
    await refresh();
    const came = await fetchChanged();
    if (came || before !== told()) await showAgain();
    await lookForNewer();
  } finally {
    running = false;
  }
}

/** What a view would show otherwise. */
const told = () => JSON.stringify([book.offline, book.signedOut, book.me?.rounds, book.me?.asked, book.message]);

/** Begins with them; what has changed is fetched at once. */
export async function contacts() {
  last = Date.now();
  window.setInterval(() => document.visibilityState === "visible" && contactNow(), AGAIN);
  addEventListener("online", () => contactNow());
  document.addEventListener("visibilitychange", () => document.visibilityState === "visible" && contactNow());
  if (asksByItself() && (await fetchChanged())) await showAgain();
  await takeNewer();
}
