// Whether the day book itself is kept on the device, with all of its files: only then can it go offline.

/** So long it is waited for, in milliseconds. */
const PATIENCE = 60_000;

/** Waits until it is; false when that takes too long, or this browser can't keep it. @returns {Promise<boolean>} */
export async function shellKept() {
  const workers = navigator.serviceWorker;
  if (!workers) return false;
  if (workers.controller) return true;
  const known = await workers.getRegistration("/day");
  // a page that was loaded past its worker is not served by it, but what it needs is kept
  if (known?.active?.state === "activated") return true;
  return new Promise((resolve) => {
    workers.addEventListener("controllerchange", () => resolve(true), { once: true });
    setTimeout(() => resolve(Boolean(workers.controller)), PATIENCE);
  });
}
