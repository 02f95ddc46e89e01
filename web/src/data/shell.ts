/**
 * Keeps the page on the device (public/sw.js). What was loaded, or began to be, before the worker
 * began to listen is handed to it as it comes. The page of the teacher and that of a family are kept apart.
 */
export async function keepShell(page = "/") {
  if (!("serviceWorker" in navigator) || !window.isSecureContext) return;
  await navigator.serviceWorker.register("/sw.js");
  await navigator.serviceWorker.ready;
  await controlled();
  const cache = await caches.open("shell-2");
  const keep = async (path: string) => {
    if (!(await cache.match(path))) await cache.add(path);
  };
  // What was on its way when the worker began to listen is told when it has come.
  new PerformanceObserver((list) => {
    for (const path of ours(list.getEntries())) keep(path).catch(() => undefined);
  }).observe({ type: "resource", buffered: true });
  await keep(page);
}

/** The files of the page among what was loaded, each once. */
export function ours(loaded: { name: string }[], origin = location.origin): string[] {
  const paths = loaded
    .map((r) => new URL(r.name))
    .filter((u) => u.origin === origin && (u.pathname.startsWith("/assets/") || u.pathname.endsWith(".js")))
    .map((u) => u.pathname);
  return [...new Set(paths)];
}

/** Waits until the worker hears what is loaded; after a forced reload it never does, so not for long. */
const controlled = () =>
  new Promise<void>((done) => {
    if (navigator.serviceWorker.controller) done();
    navigator.serviceWorker.addEventListener("controllerchange", () => done(), { once: true });
    setTimeout(done, 5_000);
  });
