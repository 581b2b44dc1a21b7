/// <reference lib="webworker" />
/**
 * Keeps the application on the device, so that it starts without the server. Data it keeps none: those are in
 * the device's copy, which is encrypted.
 */
import {
  NavigationRoute,
  NetworkFirst,
  type PrecacheEntry,
  Route,
  Serwist,
  type SerwistGlobalConfig,
  type SerwistPlugin,
} from 'serwist';

declare global {
  interface WorkerGlobalScope extends SerwistGlobalConfig {
    __SW_MANIFEST: PrecacheEntry[];
  }
}
declare const self: ServiceWorkerGlobalScope;

const SHELL = '/without-server';
/** Longer than this a server that is there does not take to begin its answer. */
const PATIENCE_ms = 12_000;

/**
 * A thread beside the page reads in its own address, behind the #, what it is to start. Its address is that
 * of the answer, and what is kept here has lost that part: an answer made anew has no address, and the thread
 * keeps the one that was asked for.
 */
const threadKeepsItsAddress: SerwistPlugin = {
  handlerWillRespond: ({ request, response }) =>
    Promise.resolve(request.destination === 'worker' ? new Response(response.body, response) : response),
};

const serwist = new Serwist({
  precacheEntries: self.__SW_MANIFEST,
  // Without anybody's cookies: what is kept is the same for all.
  precacheOptions: {
    cleanupOutdatedCaches: true,
    fetchOptions: { credentials: 'omit' },
    plugins: [threadKeepsItsAddress],
  },
  skipWaiting: true,
  clientsClaim: true,
  navigationPreload: false,
});

/** A page comes from the server; where there is none, the application opens on what the device has. */
serwist.registerRoute(
  new NavigationRoute(
    async ({ request }) => {
      try {
        const response = await fetch(request, { signal: AbortSignal.timeout(PATIENCE_ms) });
        // A proxy that stands there without its server says so with these.
        if (![502, 503, 504].includes(response.status)) return response;
        return (await serwist.matchPrecache(SHELL)) ?? response;
      } catch {
        return (await serwist.matchPrecache(SHELL)) ?? Response.error();
      }
    },
    { denylist: [/^\/api\//, /^\/runs\/[^/]+\/print/, /^\/jobs\/[^/]+\/(?:report|codes)/] },
  ),
);
/** The words of a language that is not the application's own: the newest that could be had. */
serwist.registerRoute(
  new Route(({ url }) => url.pathname.startsWith('/words/'), new NetworkFirst({ cacheName: 'words' })),
);
serwist.addEventListeners();

/**
 * The key of the device's copy, as long as this worker lives: a page that is opened after another need not
 * ask for the PIN again. It is never written down.
 */
let key: unknown = null;
self.addEventListener('message', (event) => {
  const said = event.data as { type?: string; key?: unknown } | null;
  if (said?.type === 'hold-key') key = said.key ?? null;
  if (said?.type === 'give-key') event.ports[0]?.postMessage(key);
});
