/* Keeps one programme's camera view and what it is drawn with, so that it opens while the shop does not answer. */
const KEPT = `camera ${self.registration.scope}`;
const wanted = (request) => request.method === "GET" && (request.mode === "navigate" || new URL(request.url).pathname.startsWith("/static/"));

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));
self.addEventListener("fetch", (event) => {
  if (!wanted(event.request)) return;
  event.respondWith((async () => {
    const kept = await caches.open(KEPT);
    try {
      const answer = await fetch(event.request);
      if (answer.status >= 500) throw new Error(answer.statusText);
      if (answer.ok) await kept.put(event.request, answer.clone());
      return answer;
    } catch (fault) {
      const before = await kept.match(event.request, { ignoreVary: true });
      if (before) return before;
      throw fault;
    }
  })());
});
