// Keeps the page and its hashed files, never an answer of the API.

const CACHE = "ironpeel-shell";
/** Files of earlier versions go once there are more than this. */
const MOST = 400;

/** A worker that stands has the page: without it there is no beginning anew. */
async function install() {
  const cache = await caches.open(CACHE);
  await cache.addAll(["/", "/peel.svg"]);
  await self.skipWaiting();
}

self.addEventListener("install", (event) => event.waitUntil(install()));
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

/** The page as it is now; as it was kept where the server does not answer. */
async function page(request) {
  const cache = await caches.open(CACHE);
  try {
    const response = await fetch(request);
    if (response.ok) await cache.put("/", response.clone());
    return response;
  } catch (error) {
    const kept = await cache.match("/");
    if (kept) return kept;
    throw error;
  }
}

/** A hashed file never changes: as it was kept, or from the server. */
async function file(request) {
  const cache = await caches.open(CACHE);
  const kept = await cache.match(request);
  if (kept) return kept;
  const response = await fetch(request);
  if (response.ok) {
    await cache.put(request, response.clone());
    const all = await cache.keys();
    const files = all.filter((one) => new URL(one.url).pathname.startsWith("/assets/"));
    for (const old of files.slice(0, Math.max(0, files.length - MOST))) await cache.delete(old);
  }
  return response;
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== "GET" || url.origin !== self.location.origin) return;
  if (url.pathname.startsWith("/api/")) return;
  if (request.mode === "navigate") event.respondWith(page(request));
  else if (url.pathname.startsWith("/assets/") || url.pathname === "/peel.svg") {
    event.respondWith(file(request));
  }
});
