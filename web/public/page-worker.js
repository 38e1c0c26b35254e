/*
 * Keeps the person's own page at hand: once opened it opens without a network.
 * It holds the page and its files, and no answer of the server.
 */
const CACHE = 'dial-gauge-own-page';
const PAGE = '/p/';

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));

/** The page says which files it is made of; what it no longer is made of goes. */
self.addEventListener('message', (event) => {
  const files = event.data && event.data.files;
  if (Array.isArray(files) && files.length > 0) event.waitUntil(keepOnly(files));
});

async function keepOnly(files) {
  const cache = await caches.open(CACHE);
  const wanted = new Set(files.map((file) => new URL(file, self.location.origin).pathname));
  for (const request of await cache.keys()) {
    const { pathname } = new URL(request.url);
    if (pathname !== PAGE && !wanted.has(pathname)) await cache.delete(request);
  }
  // The page itself came before this worker did.
  if (!(await cache.match(PAGE))) await cache.add(PAGE).catch(() => undefined);
  const there = new Set((await cache.keys()).map((request) => new URL(request.url).pathname));
  await Promise.all([...wanted].filter((file) => !there.has(file)).map((file) => cache.add(file).catch(() => undefined)));
}

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== 'GET' || origin !== self.location.origin || pathname.startsWith('/api/')) return;
  event.respondWith(request.mode === 'navigate' ? page(request) : file(request));
});

/** From the network while there is one; the address carries the link, so that it is kept without it. */
async function page(request) {
  const cache = await caches.open(CACHE);
  try {
    const answer = await fetch(request);
    if (answer.ok) await cache.put(PAGE, answer.clone());
    return answer;
  } catch (error) {
    const kept = await cache.match(PAGE);
    if (kept) return kept;
    throw error;
  }
}

/** Files carry a hash of what they hold in their names: what was kept is right. */
async function file(request) {
  const cache = await caches.open(CACHE);
  const kept = await cache.match(request);
  if (kept) return kept;
  const answer = await fetch(request);
  if (answer.ok) await cache.put(request, answer.clone());
  return answer;
}
