// Keeps the page itself on the device, so that a lesson can be opened without a
// connection. Data never pass through here.
const shell = "shell-2";

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (e) =>
  e.waitUntil(
    caches
      .keys()
      .then((names) => Promise.all(names.filter((n) => n !== shell).map((n) => caches.delete(n))))
      .then(() => self.clients.claim()),
  ),
);

self.addEventListener("fetch", (e) => {
  const url = new URL(e.request.url);
  if (e.request.method !== "GET" || url.origin !== location.origin || url.pathname.startsWith("/api/")) return;
  if (e.request.mode === "navigate") e.respondWith(page(e.request));
  else if (url.pathname.startsWith("/assets/")) e.respondWith(file(e.request));
  else if (/\.(js|svg)$/.test(url.pathname)) e.respondWith(newest(e.request, e.request));
});

// Every screen of the teacher is the same page; that of a family is another.
const page = (request) => newest(request, new URL(request.url).pathname.startsWith("/home/") ? "/home/" : "/");

// The newest when there is a connection, else the last one.
async function newest(request, key) {
  const cache = await caches.open(shell);
  try {
    const fresh = await fetch(request);
    if (fresh.ok) await cache.put(key, fresh.clone());
    return fresh;
  } catch (error) {
    const last = await cache.match(key);
    if (last) return last;
    throw error;
  }
}

// Files carry a hash of their contents in their names.
async function file(request) {
  const cache = await caches.open(shell);
  const held = await cache.match(request);
  if (held) return held;
  const fresh = await fetch(request);
  if (fresh.ok) await cache.put(request, fresh.clone());
  return fresh;
}
