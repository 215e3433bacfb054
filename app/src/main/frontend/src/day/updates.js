// A newer day book takes over between stops, never inside one: not while a window of this device fills a stop.
import { book } from "./book.js";

/** Whether any window fills a stop, by the lock that it holds. */
async function stopIsOpen() {
  if (book.stopOpen || book.busy) return true;
  const locks = await navigator.locks?.query();
  return Boolean(locks?.held?.some((l) => l.name?.startsWith("stop-")));
}

/** Lets a newer day book take over, if one waits and nobody fills a stop; the page then begins anew. */
export async function takeNewer() {
  const known = await navigator.serviceWorker?.getRegistration("/day");
  if (!known?.waiting || (await stopIsOpen())) return;
  navigator.serviceWorker.addEventListener("controllerchange", () => location.reload(), { once: true });
  known.waiting.postMessage("take over");
}

/** Looks whether there is a newer one. */
export async function lookForNewer() {
  const known = await navigator.serviceWorker?.getRegistration("/day");
  try {
    await known?.update();
  } catch {
    return; // no link: the next contact looks again
  }
  await takeNewer();
}
