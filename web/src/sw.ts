export {};
declare const self: ServiceWorkerGlobalScope;
// filled in by build/sw.ts
declare const __PRECACHE__: string[];
declare const __VERSION__: string;

/** The page and all its files, so that it opens without a connection; answers of the API are the page's own business. */
const CACHE = `shell-${__VERSION__}`;

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
    for (const key of await caches.keys())
      if (key.startsWith('shell-') && key !== CACHE) await caches.delete(key);
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
      return (await cache.match(request, { ignoreVary: true })) ?? fetch(request);
    // a page from the server is newer than ours; ours is for when there is no server
    try {
      return await fetch(request);
    } catch (fault) {
      const kept = await cache.match('/index.html');
      if (kept) return kept;
      throw fault;
    }
  };
  event.respondWith(answer());
});
