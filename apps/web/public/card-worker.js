/**
 * Lets grinder cards open and go on with the network gone: pages under /card/ only. What was built is kept as it is,
 * what the server said last is kept beside it, and what is written waits in the page itself until the server answers.
 * Nothing is kept that is not what it was asked as: a page in the place of a script would end every card from then on.
 */
const STORE = "true-spine-card-2";
const SHELL = "/card/";
const KINDS = [
  [/\.js$/, /javascript/],
  [/\.css$/, /css/],
  [/\.wasm$/, /wasm/],
  [/\.woff2?$/, /font/],
  [/\.svg$/, /svg/],
  [/^\/api\//, /json/],
];

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(begin()));

/** Takes the pages over, and throws away what earlier versions kept. */
async function begin() {
  for (const name of await caches.keys()) {
    if (name.startsWith("true-spine-card-") && name !== STORE) await caches.delete(name);
  }
  await self.clients.claim();
}

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

/** Whether an answer is what its address says: whole, from here, of the right kind. */
function isSound(url, answer) {
  if (answer.status !== 200 || answer.redirected || answer.type !== "basic") return false;
  const kind = answer.headers.get("content-type") ?? "";
  const { pathname } = new URL(url, self.location.origin);
  if (pathname === SHELL || pathname === "/") return /html/.test(kind);
  const known = KINDS.find(([path]) => path.test(pathname));
  return known ? known[1].test(kind) : !/html/.test(kind);
}

/** Keeps all of them, or throws: a card that would open with a part missing would not open. */
async function keepAll(urls) {
  const store = await caches.open(STORE);
  const shell = await fetch("/");
  if (!isSound(SHELL, shell)) throw new Error("no shell");
  await store.put(SHELL, shell);
  for (const url of urls) {
    const kept = await store.match(url);
    if (kept && isSound(url, kept) && !url.includes("/api/")) continue;
    const answer = await fetch(url);
    if (!isSound(url, answer)) throw new Error(`not to be kept: ${url}`);
    await store.put(url, answer);
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
    if (isSound(key, answer)) await put(store, key, answer.clone());
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
  if (kept && isSound(request.url, kept)) return kept;
  const answer = await fetch(request);
  if (isSound(request.url, answer)) await put(store, request, answer.clone());
  return answer;
}

/** Out of room it is not kept, and the answer counts all the same. */
async function put(store, key, answer) {
  try {
    await store.put(key, answer);
  } catch {
    // The next one finds out whether there is room.
  }
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
