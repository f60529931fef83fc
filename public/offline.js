/**
 * Opens what was open though the server is away: pages where hands work, as they were when they were last seen,
 * and what they are made of. What is asked is asked of the server first; what is written never passes here.
 *
 * The address that it is registered under names the build, so that a new one begins anew.
 */
const CACHE = `vergleich ${new URL(self.location.href).searchParams.get('build')}`;
const MOST_PAGES = 60;
/** Pages of the bench, with the book at a machine. */
const BENCH = /^\/studies\/[^/]+\/(?:measure|runs|inspect|machines)(?:\/|$)/;
const BUILT = /^\/_astro\//;

const isBench = (url) => BENCH.test(url.pathname);

/** Keeps a page as it is seen, and lets go of the one that was kept first where there are too many. */
async function keep(request, answer) {
  const cache = await caches.open(CACHE);
  await cache.put(request, answer);
  const kept = (await cache.keys()).filter(({ url }) => isBench(new URL(url)));
  for (const old of kept.slice(0, Math.max(0, kept.length - MOST_PAGES))) await cache.delete(old);
}

async function page(event) {
  const { request } = event;
  try {
    const answer = await fetch(request);
    // Whoever must sign in again is shown nothing of before.
    const isBenchPage = isBench(new URL(request.url));
    if (isBenchPage && answer.type === 'opaqueredirect') await caches.delete(CACHE);
    else if (isBenchPage && answer.ok) event.waitUntil(keep(request.url, answer.clone()));
    return answer;
  } catch (error) {
    // That very address and no other: what stands after `?` is which specimen it is.
    const old = await (await caches.open(CACHE)).match(request.url);
    if (!old) throw error;
    return old;
  }
}

/** What is built never changes under its name. */
async function built(request) {
  const cache = await caches.open(CACHE);
  const known = await cache.match(request);
  if (known) return known;
  const answer = await fetch(request);
  if (answer.ok) await cache.put(request, answer.clone());
  return answer;
}

self.addEventListener('install', () => self.skipWaiting());

self.addEventListener('activate', (event) => {
  const begin = async () => {
    for (const name of await caches.keys()) {
      if (name.startsWith('vergleich ') && name !== CACHE) await caches.delete(name);
    }
    await self.clients.claim();
    // The pages that are open were there before this was: they and what they are made of are kept now.
    for (const client of await self.clients.matchAll()) {
      if (isBench(new URL(client.url))) client.postMessage('keep');
    }
  };
  event.waitUntil(begin());
});

self.addEventListener('message', (event) => {
  const { addresses } = event.data;
  const take = async (address) => {
    const url = new URL(address, self.location.origin);
    if (url.origin !== self.location.origin) return;
    if (BUILT.test(url.pathname)) await built(new Request(url));
    else if (isBench(url)) {
      const answer = await fetch(url);
      if (answer.ok && !answer.redirected) await keep(url.href, answer);
    }
  };
  event.waitUntil(Promise.all(addresses.map((address) => take(address).catch(() => undefined))));
});

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin) return;
  if (request.mode === 'navigate') event.respondWith(page(event));
  else if (BUILT.test(url.pathname)) event.respondWith(built(request));
});
