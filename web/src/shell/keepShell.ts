/*
 * The page itself and all it is made of are kept by the browser, so that a tablet that lost its
 * connection can be loaded anew. Browsers allow it over HTTPS and on this machine alone.
 */

/** The service worker's cache. */
const CACHE = "ironpeel-shell";

/** Registers the service worker, and keeps what was loaded before it stood. */
export async function keepShell() {
  if (!("serviceWorker" in navigator) || !("caches" in window)) return;
  try {
    await navigator.serviceWorker.register("/service-worker.js");
    await navigator.serviceWorker.ready;
    const cache = await caches.open(CACHE);
    const loaded = performance
      .getEntriesByType("resource")
      .map((one) => new URL(one.name))
      .filter((url) => url.origin === location.origin && url.pathname.startsWith("/assets/"))
      .map((url) => url.pathname);
    for (const path of new Set(loaded)) {
      if (!(await cache.match(path))) await cache.add(path);
    }
  } catch {
    // Not kept now, it is the next time.
  }
}
