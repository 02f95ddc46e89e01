/**
 * Keeps the page on the device (public/sw.js). What was loaded before the worker
 * began to listen is handed to it once. The page of the teacher and that of a family are kept apart.
 */
export async function keepShell(page = "/") {
  if (!("serviceWorker" in navigator) || !window.isSecureContext) return;
  await navigator.serviceWorker.register("/sw.js");
  await navigator.serviceWorker.ready;
  await controlled();
  const cache = await caches.open("shell-2");
  const loaded = performance
    .getEntriesByType("resource")
    .map((r) => new URL(r.name))
    .filter(
      (u) =>
        u.origin === location.origin && (u.pathname.startsWith("/assets/") || u.pathname.endsWith(".js")),
    )
    .map((u) => u.pathname);
  for (const path of new Set([page, ...loaded])) if (!(await cache.match(path))) await cache.add(path);
}

/** Waits until the worker hears what is loaded; after a forced reload it never does, so not for long. */
const controlled = () =>
  new Promise<void>((done) => {
    if (navigator.serviceWorker.controller) done();
    navigator.serviceWorker.addEventListener("controllerchange", () => done(), { once: true });
    setTimeout(done, 5_000);
  });
