/// <reference lib="webworker" />
import { ExpirationPlugin } from 'workbox-expiration';
import {
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  type PrecacheEntry,
  precacheAndRoute,
} from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { CacheFirst, NetworkFirst } from 'workbox-strategies';
import { GO_ON, KEPT_HEADER, withStored } from './kept';

/*
 * Junta without its server. The whole application of one build is kept as it was built, so that a page is never half of
 * one and half of another; of what the server has, the last answers about jobs, rack and kit. What is written goes out
 * as ever and waits in the pages' own outbox.
 */

declare const self: ServiceWorkerGlobalScope;
/** All files of this build, each with a digest of its content: put in by scripts/build.mjs. */
declare const FILES: PrecacheEntry[];

const CACHE = 'junta-work';
const PHOTOS = 'junta-photos';
/** Photos that are kept, the small ones counted too. */
const MOST_PHOTOS = 300;
/** Answers that are kept: the jobs opened lately, and the lists. */
const MOST_KEPT = 120;
const KEPT_DAYS = 60;
/** A server that has not answered by now is taken to be away, s. */
const PATIENCE_S = 8;

precacheAndRoute(FILES);
cleanupOutdatedCaches();
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { denylist: [/^\/api\//] }));

/** Answers are of one shop: the header that says which is part of what they are kept under. */
const keyOf = (request: Request): string => {
  const url = new URL(request.url);
  url.searchParams.set('of', request.headers.get('Junta-Shop') ?? '');
  return url.href;
};
const READ = /^\/api\/(jobs(\/[0-9a-f-]{36}(\/notes)?)?|kit|boards(\/[0-9a-f-]{36}\/notes)?|builds|shops)$/;
const PHOTO = /^\/api\/notes\/[0-9a-f-]{36}\/photo$/;
const JOB = /^\/api\/jobs\/[0-9a-f-]{36}$/;

registerRoute(
  ({ url, sameOrigin }) => sameOrigin && READ.test(url.pathname),
  new NetworkFirst({
    cacheName: CACHE,
    networkTimeoutSeconds: PATIENCE_S,
    plugins: [
      {
        cacheKeyWillBeUsed: async ({ request }) => keyOf(request),
        // Whoever asks learns that this is what was kept, and that the server is away.
        cachedResponseWillBeUsed: async ({ cachedResponse }) => {
          if (!cachedResponse) return undefined;
          const headers = new Headers(cachedResponse.headers);
          headers.set(KEPT_HEADER, 'yes');
          return new Response(await cachedResponse.arrayBuffer(), { status: 200, headers });
        },
        // A server whose database is away knows less than what is kept here.
        fetchDidSucceed: async ({ response }) => {
          if (response.status >= 500) throw new Error(`The server answered ${response.status}.`);
          return response;
        },
      },
      new ExpirationPlugin({ maxEntries: MOST_KEPT, maxAgeSeconds: KEPT_DAYS * 86_400 }),
    ],
  }),
);

/** A photo never changes under its address: what was looked at here once is there without the server. */
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && PHOTO.test(url.pathname),
  new CacheFirst({
    cacheName: PHOTOS,
    plugins: [
      new ExpirationPlugin({
        maxEntries: MOST_PHOTOS,
        maxAgeSeconds: KEPT_DAYS * 86_400,
        purgeOnQuotaError: true,
      }),
    ],
  }),
);

/** A job that was stored is from now on what is kept of it: read again without the server, nothing older comes back. */
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && JOB.test(url.pathname),
  async ({ request, event }) => {
    const sent = request.clone();
    const response = await fetch(request);
    if (response.ok) (event as ExtendableEvent).waitUntil(keepStored(sent, response.clone()));
    return response;
  },
  'PUT',
);

async function keepStored(sent: Request, response: Response): Promise<void> {
  const cache = await caches.open(CACHE);
  const key = keyOf(sent);
  const kept = await cache.match(key);
  if (!kept) return;
  const next = withStored(await kept.json(), await sent.json(), await response.json());
  if (next)
    await cache.put(
      key,
      new Response(JSON.stringify(next), { headers: { 'Content-Type': 'application/json' } }),
    );
}

/** A new build takes over when a page says so, and only where that page is the only one: no other is left half old. */
self.addEventListener('message', (event) => {
  if (event.data !== GO_ON) return;
  event.waitUntil(
    self.clients
      .matchAll({ type: 'window' })
      .then((pages) => (pages.length <= 1 ? self.skipWaiting() : undefined)),
  );
});
