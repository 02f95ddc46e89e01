// Keeps the page itself on the device, so that a lesson can be opened without a
// connection. Data never pass through here.
const shell = "shell-2";

// After how long without an answer the last page is taken, and for how long nothing else is waited for then.
const patience = 800;
const stalledFor = 30_000;
let stalledUntil = 0;

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
  if (e.request.mode === "navigate") e.respondWith(page(e));
  else if (url.pathname.startsWith("/assets/")) e.respondWith(file(e));
  else if (/\.(js|svg)$/.test(url.pathname)) e.respondWith(newest(e, e.request));
});

// Every screen of the teacher is the same page; that of a family is another.
const page = (e) => newest(e, new URL(e.request.url).pathname.startsWith("/home/") ? "/home/" : "/");

// Keeps a copy. A device that is full keeps none; what was asked for is answered all the same.
const keep = (e, cache, key, fresh) => {
  if (fresh.ok) e.waitUntil(cache.put(key, fresh.clone()).catch(() => {}));
  return fresh;
};

// What is kept, where the device lets it be read.
const held = async (cache, key) => (cache ? cache.match(key).catch(() => undefined) : undefined);
const opened = () => caches.open(shell).catch(() => undefined);

// The newest when there is a connection that answers, else the last one.
async function newest(e, key) {
  const cache = await opened();
  const last = await held(cache, key);
  const fresh = fetch(e.request).then((answer) => {
    stalledUntil = 0;
    return cache ? keep(e, cache, key, answer) : answer;
  });
  if (!last) return fresh;
  // A server that is just starting anew, behind its proxy, is as good as none.
  const answered = fresh.then((answer) => (answer.status >= 502 && answer.status <= 504 ? last : answer), () => last);
  e.waitUntil(answered);
  const stalled = new Promise((done) => {
    const giveUp = setTimeout(
      () => {
        stalledUntil = Date.now() + stalledFor;
        done(last);
      },
      Date.now() < stalledUntil ? 0 : patience,
    );
    answered.then(() => clearTimeout(giveUp));
  });
  return Promise.race([answered, stalled]);
}

// Files carry a hash of their contents in their names.
async function file(e) {
  const cache = await opened();
  const last = await held(cache, e.request);
  if (last) return last;
  const fresh = await fetch(e.request);
  return cache ? keep(e, cache, e.request, fresh) : fresh;
}
