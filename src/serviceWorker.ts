import {
  CacheFirst,
  CacheableResponsePlugin,
  ExpirationPlugin,
  NetworkFirst,
  Serwist,
  type PrecacheEntry,
  type SerwistPlugin,
} from 'serwist';
import { HOLD, PAGES, PHOTOS, pageKey } from './features/offline/caches';

interface FetchAsked extends Event {
  readonly request: Request;
  respondWith(answer: Promise<Response>): void;
}
interface Told extends Event {
  readonly data: unknown;
  waitUntil(done: Promise<void>): void;
}
declare const self: {
  __SW_MANIFEST: (PrecacheEntry | string)[];
  clients: { claim(): Promise<void> };
  addEventListener(type: 'fetch', listener: (event: FetchAsked) => void): void;
  addEventListener(type: 'message', listener: (event: Told) => void): void;
};

/** A server that says nothing for so long is away: what is kept here is shown. */
const PATIENCE_S = 5;
const MOST_PAGES = 300;
const MOST_PHOTOS = 600;
const AWAY = 500;

const kept: SerwistPlugin = {
  // One page a job, whichever of its steps was open.
  cacheKeyWillBeUsed: ({ request }) => Promise.resolve(pageKey(request.url)),
  // A server that fails is as good as none: what is kept here is better than its page of trouble.
  fetchDidSucceed: ({ response }) => {
    if (response.status >= AWAY) throw new Error(`the server failed (${response.status})`);
    return Promise.resolve(response);
  },
  handlerDidError: () => serwist.matchPrecache('/offline'),
};

/** Pages that were opened here, files of the build and photos, for where there is no network. Nothing that is written goes through here. */
const serwist = new Serwist({
  precacheEntries: self.__SW_MANIFEST,
  // A page that is open goes on with the files that it was opened with; the next one gets the new ones.
  skipWaiting: false,
  clientsClaim: true,
  navigationPreload: false,
  runtimeCaching: [
    {
      // The same page whichever job it is to show; kept with the program.
      matcher: ({ request, url, sameOrigin }) =>
        sameOrigin && request.mode === 'navigate' && url.pathname === '/begun',
      handler: async ({ request }) => (await serwist.matchPrecache('/begun')) ?? fetch(request),
    },
    {
      matcher: ({ request, url, sameOrigin }) =>
        sameOrigin &&
        request.mode === 'navigate' &&
        !/^\/(api|sign-in|account|people|trail)\b/.test(url.pathname),
      handler: new NetworkFirst({
        cacheName: PAGES,
        networkTimeoutSeconds: PATIENCE_S,
        matchOptions: { ignoreVary: true },
        plugins: [
          kept,
          new CacheableResponsePlugin({ statuses: [200] }),
          new ExpirationPlugin({ maxEntries: MOST_PAGES }),
        ],
      }),
    },
    {
      // A photo's name is its content.
      matcher: ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith('/api/photos/'),
      handler: new CacheFirst({
        cacheName: PHOTOS,
        plugins: [
          new CacheableResponsePlugin({ statuses: [200] }),
          new ExpirationPlugin({ maxEntries: MOST_PHOTOS }),
        ],
      }),
    },
  ],
});

/**
 * A worker is told what to load behind the `#` of its address. What comes out of a cache has an address of its own, without
 * that; an answer made here has none, and the worker keeps the one it was asked for by.
 */
self.addEventListener('fetch', (event) => {
  const { request } = event;
  if (request.destination !== 'worker' || new URL(request.url).origin !== location.origin) return;
  event.stopImmediatePropagation();
  event.respondWith(
    serwist
      .matchPrecache(request.url.split('#')[0]!)
      .then(async (kept) =>
        kept ? new Response(await kept.blob(), { headers: kept.headers }) : fetch(request),
      ),
  );
});
// A page that was on its way while this was put in place, or was loaded past it, asks to be held: else what it has not loaded yet would not come in a dead spot.
self.addEventListener('message', (event) => {
  if (event.data === HOLD) event.waitUntil(self.clients.claim());
});
serwist.addEventListeners();
