export {};
declare const self: ServiceWorkerGlobalScope;
// filled in by build/sw.ts
declare const __PRECACHE__: string[];
declare const __VERSION__: string;

/** The page and all its files, so that it opens without a connection; answers of the API are the page's own business. */
const CACHE = `shell-${__VERSION__}`;
/** How long a page may be waited for, ms. */
const SILENT_MS = 3500;

self.addEventListener('install', (event) => {
  const fetchAll = async () => {
    const cache = await caches.open(CACHE);
    await cache.addAll(__PRECACHE__.map((path) => new Request(path, { cache: 'reload' })));
    await self.skipWaiting();
  };
  event.waitUntil(fetchAll());
});

self.addEventListener('activate', (event) => {
  const tidy = async () => {
    // the version before stays, for a page of it that is still open and fetches its parts as they are wanted
    const others = (await caches.keys()).filter((key) => key.startsWith('shell-') && key !== CACHE);
    for (const key of others.slice(0, -1)) await caches.delete(key);
    await self.clients.claim();
  };
  event.waitUntil(tidy());
});

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin || url.pathname.startsWith('/api/'))
    return;
  const answer = async () => {
    const cache = await caches.open(CACHE);
    if (request.mode !== 'navigate')
      return (
        (await cache.match(request, { ignoreVary: true })) ??
        (await caches.match(request, { ignoreVary: true })) ??
        fetch(request)
      );
    // a page from the server is newer than ours; ours is for when there is no server, or one that says nothing
    const kept = await cache.match('/index.html');
    if (!kept) return fetch(request);
    const asked = fetch(request).catch(() => kept);
    return Promise.race([asked, new Promise<Response>((done) => setTimeout(() => done(kept), SILENT_MS))]);
  };
  event.respondWith(answer());
});
