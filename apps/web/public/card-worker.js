/**
 * Lets grinder cards open and go on with the network gone: pages under /card/ only. What was built is kept as it is,
 * what the server said last is kept beside it, and what is written waits in the page itself until the server answers.
 */
const STORE = "true-spine-card-1";
const SHELL = "/card/";

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

/** The page tells what it was loaded from before this worker stood between it and the network. */
self.addEventListener("message", (event) => {
  if (event.data?.kind !== "keep") return;
  event.waitUntil(
    keepAll(event.data.urls).then(
      () => event.source?.postMessage({ kind: "kept" }),
      () => event.source?.postMessage({ kind: "not kept" }),
    ),
  );
});

async function keepAll(urls) {
  const store = await caches.open(STORE);
  const shell = await fetch("/");
  if (!shell.ok) throw new Error("no shell");
  await store.put(SHELL, shell);
  for (const url of urls) {
    if (await store.match(url)) continue;
    const answer = await fetch(url);
    if (answer.ok) await store.put(url, answer);
  }
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (url.origin !== self.location.origin) return;
  if (request.mode === "navigate") event.respondWith(freshOr(request, SHELL));
  else if (request.method === "GET" && url.pathname.startsWith("/api/"))
    event.respondWith(freshOr(request, request.url));
  else if (request.method === "GET") event.respondWith(keptOr(request));
  else if (request.method === "PUT" && url.pathname.startsWith("/api/")) event.respondWith(saved(request));
});

/** The network's answer, kept for later; without one, what was kept. */
async function freshOr(request, key) {
  const store = await caches.open(STORE);
  try {
    const answer = await fetch(request);
    if (answer.ok) await store.put(key, answer.clone());
    if (answer.status < 500) return answer;
    return (await store.match(key)) ?? answer;
  } catch (error) {
    const kept = await store.match(key);
    if (kept) return kept;
    throw error;
  }
}

/** Built files carry their content in their names: what is kept is what would come. */
async function keptOr(request) {
  const store = await caches.open(STORE);
  const kept = await store.match(request);
  if (kept) return kept;
  const answer = await fetch(request);
  if (answer.ok) await store.put(request, answer.clone());
  return answer;
}

/** A save that landed is what the server would say from now on. */
async function saved(request) {
  const body = await request.clone().text();
  const answer = await fetch(request);
  if (answer.ok) {
    try {
      const store = await caches.open(STORE);
      const { revision } = await answer.clone().json();
      const before = await store.match(request.url);
      const row = before ? await before.json() : {};
      const now = { ...row, revision, file: JSON.parse(body).file };
      await store.put(
        request.url,
        new Response(JSON.stringify(now), { headers: { "content-type": "application/json" } }),
      );
    } catch {
      // What is kept is then a little older; the next save finds out.
    }
  }
  return answer;
}
