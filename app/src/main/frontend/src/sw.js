// Keeps the day book's shell, its files and its texts on the device, so that it opens without a network. Data are not its business.
const CACHE = "whinridge-" + BUILD;
const SHELL = "/day";
const worker = /** @type {any} */ (self);

/** The address of the texts that the shell names. @param {Response} shell */
async function textsOf(shell) {
  return /data-messages[^>]*?href="([^"]+)"/s.exec(await shell.clone().text())?.[1];
}

async function keepShell() {
  const cache = await caches.open(CACHE);
  const shell = await fetch(new Request(SHELL, { cache: "reload" }));
  if (!shell.ok) throw new Error(String(shell.status));
  const texts = await textsOf(shell);
  await cache.addAll(["/icon.svg", ...(texts ? [texts] : []), ...FILES.map((f) => new Request(f, { cache: "reload" }))]);
  await cache.put(SHELL, shell);
}

async function forgetOthers() {
  for (const key of await caches.keys()) if (key.startsWith("whinridge-") && key !== CACHE) await caches.delete(key);
  await worker.clients.claim();
}

worker.addEventListener("install", (event) => event.waitUntil(keepShell()));
worker.addEventListener("activate", (event) => event.waitUntil(forgetOthers()));
// the page says when: a newer day book takes over between stops, never inside one
worker.addEventListener("message", (event) => event.data === "take over" && worker.skipWaiting());
worker.addEventListener("fetch", (event) => {
  const url = new URL(event.request.url);
  if (event.request.method !== "GET" || url.origin !== location.origin) return;
  // registered for /day only, so that the desk is never served from here
  const shell = event.request.mode === "navigate" && url.pathname === SHELL;
  const key = shell ? SHELL : url.pathname;
  if (shell || FILES.includes(url.pathname) || url.pathname.startsWith("/messages/"))
    event.respondWith(caches.open(CACHE).then(async (c) => (await c.match(key)) ?? fetch(event.request)));
});
