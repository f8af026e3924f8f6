import { Serwist, type PrecacheEntry, type SerwistPlugin } from 'serwist';
import { DATA_HEADERS, kindOfKey, pageKey } from './page-key';

/*
 * Keeps the whole program in the browser, so that it works without a network (decision 55). Every
 * version has a cache of its own, filled before the version can be taken: pages, what the framework
 * fetches when it goes from one to another, scripts, styles and fonts are always of one version.
 */

declare const self: ServiceWorkerGlobalScope;
/** Set by scripts/offline.mjs: which build this is, and everything it consists of. */
declare const BUILD: string;
declare const FILES: PrecacheEntry[];

const CACHES = 'jaunty-reed-';
const OURS = `${CACHES}${BUILD}`;
const STATIC = '/_next/static/';
const isStatic = (url: URL) => url.pathname.startsWith(STATIC);
/** The script that a worker begins with. */
const BEGINS_WORKER = /\/turbopack-worker-[^/]*$/;

const pages: SerwistPlugin = {
  requestWillFetch: ({ request }) => {
    const kind = kindOfKey(new URL(request.url));
    return Promise.resolve(
      kind === undefined ? request : new Request(request, { headers: DATA_HEADERS[kind] }),
    );
  },
  // Files are kept as they came: to one that was made here, the browser keeps no compiled form, and
  // compiles it at every start. A worker would take its address from a kept answer, and lose what is
  // said behind it. What a page says of the headers that it depends on is in its name already.
  cacheWillUpdate: ({ request, response }) => {
    if (!response.ok) return Promise.resolve(null);
    const url = new URL(request.url);
    if (isStatic(url) && !BEGINS_WORKER.test(url.pathname)) return Promise.resolve(response);
    const headers = new Headers(response.headers);
    headers.delete('vary');
    const { status, statusText } = response;
    return Promise.resolve(new Response(response.body, { status, statusText, headers }));
  },
};

const serwist = new Serwist({
  precacheEntries: FILES,
  precacheOptions: {
    cacheName: OURS,
    plugins: [pages],
    concurrency: 6,
    // The page's sign is asked for with its fingerprint behind it.
    ignoreURLParametersMatching: [/^icon\./],
  },
  clientsClaim: true,
  // Where the browser can, scripts, styles and fonts come out of the cache without this worker being
  // asked: forty questions at a start take it a quarter of a second.
  requestRules: {
    condition: { urlPattern: { pathname: `${STATIC}*` } },
    source: { cacheName: OURS },
  },
  disableDevLogs: true,
});

const asked = (request: Request, url: URL) => ({
  path: url.pathname,
  navigates: request.mode === 'navigate',
  header: (name: string) => request.headers.get(name),
});

// Where the browser asks all the same, what an earlier version left here is found too.
serwist.registerCapture(
  ({ url, sameOrigin }) => sameOrigin && isStatic(url),
  async ({ request }) => (await caches.match(request)) ?? fetch(request),
);

serwist.registerCapture(
  ({ request, url, sameOrigin }) =>
    sameOrigin && request.method === 'GET' && pageKey(asked(request, url)) !== undefined,
  async ({ request, url }) =>
    (await serwist.matchPrecache(pageKey(asked(request, url))!)) ?? fetch(request),
);

const others = async () =>
  (await caches.keys()).filter((name) => name.startsWith(CACHES) && name !== OURS);

/** Forget the versions that no tab can be running any more. @returns whether they were forgotten */
async function tidy(tabs: number): Promise<boolean> {
  const open = await self.clients.matchAll({ type: 'window', includeUncontrolled: true });
  if (open.length > tabs) return false;
  for (const name of await others()) await caches.delete(name);
  return true;
}

/**
 * A tab that an earlier version runs in finds the scripts of that version for as long as it is open:
 * they are looked for in this version's cache alone, so they are put beside its own.
 */
async function takeOver(): Promise<void> {
  const ours = await caches.open(OURS);
  for (const name of await others()) {
    const theirs = await caches.open(name);
    for (const request of await theirs.keys()) {
      if (!isStatic(new URL(request.url)) || (await ours.match(request))) continue;
      const response = await theirs.match(request);
      if (response) await ours.put(request, response);
    }
  }
}

self.addEventListener('install', (event) => event.waitUntil(serwist.handleInstall(event)));
self.addEventListener('activate', (event) =>
  event.waitUntil(
    serwist.handleActivate(event).then(async () => {
      if (!(await tidy(0))) await takeOver();
    }),
  ),
);
self.addEventListener('fetch', (event) => serwist.handleFetch(event));
// A page that has just begun, and is the only one, is of this version.
self.addEventListener('message', (event) => {
  if ((event.data as { type?: unknown } | null)?.type === 'BEGUN') event.waitUntil(tidy(1));
});
