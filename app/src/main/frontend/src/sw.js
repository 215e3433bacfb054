// Keeps the day book's shell and its files on the device, so that it opens without a network. Data are not its business.
const CACHE = "whinridge-" + BUILD;
const SHELL = "/day";

self.addEventListener("install", (event) => {
  event.waitUntil(caches.open(CACHE).then((c) => c.addAll([new Request(SHELL, { cache: "reload" }), "/icon.svg", ...FILES.map((f) => new Request(f, { cache: "reload" }))])));
});

self.addEventListener("activate", (event) => {
  event.waitUntil((async () => {
    for (const key of await caches.keys()) if (key.startsWith("whinridge-") && key !== CACHE) await caches.delete(key);
    await self.clients.claim();
  })());
});

self.addEventListener("fetch", (event) => {
  const url = new URL(event.request.url);
  if (event.request.method !== "GET" || url.origin !== location.origin) return;
  // registered for /day only, so that the desk is never served from here
  const shell = event.request.mode === "navigate" && url.pathname === SHELL;
  const key = shell ? SHELL : url.pathname;
  if (shell || FILES.includes(url.pathname)) event.respondWith(caches.open(CACHE).then(async (c) => (await c.match(key)) ?? fetch(event.request)));
});
