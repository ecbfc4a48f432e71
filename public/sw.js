// The singer's page without a network: what was opened once opens again. Only pages under /p/ are looked after.
const CACHE = 'wendel-practice-1';

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) =>
  event.waitUntil(
    (async () => {
      for (const name of await caches.keys()) if (name !== CACHE) await caches.delete(name);
      await self.clients.claim();
    })(),
  ),
);

/** Files that never change under their name. */
const isAsset = (url) => url.pathname.startsWith('/_next/static/') || url.pathname.startsWith('/piano/') || /\.(woff2|svg|js)$/.test(url.pathname);

self.addEventListener('fetch', (event) => {
  const url = new URL(event.request.url);
  if (event.request.method !== 'GET' || url.origin !== location.origin || url.pathname.startsWith('/api/')) return;
  if (isAsset(url)) event.respondWith(cacheFirst(event.request));
  else if (url.pathname.startsWith('/p/')) event.respondWith(networkFirst(event.request));
});

async function cacheFirst(request) {
  const cache = await caches.open(CACHE);
  const kept = await cache.match(request);
  if (kept) return kept;
  const answer = await fetch(request);
  if (answer.ok) await cache.put(request, answer.clone());
  return answer;
}

async function networkFirst(request) {
  const cache = await caches.open(CACHE);
  try {
    const answer = await fetch(request);
    if (answer.ok) await cache.put(request, answer.clone());
    // A link that has ended leaves nothing of the singer behind.
    if (answer.status === 404 || answer.status === 410) await cache.delete(request, { ignoreVary: true });
    return answer;
  } catch (error) {
    const kept = await cache.match(request, { ignoreVary: true });
    if (kept) return kept;
    throw error;
  }
}

// What the page loaded before this worker was there.
self.addEventListener('message', (event) => {
  if (event.data?.keep) event.waitUntil(caches.open(CACHE).then((cache) => Promise.allSettled(event.data.keep.map((url) => cache.add(url)))));
});
