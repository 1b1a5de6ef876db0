/*
 * The page's own worker: keeps the files of one build together, so that the page opens while the server is away. The
 * page is kept with a mark in the place of its nonce; each opening gets a nonce of its own, in text and policy.
 */

import { RING_ADDRESS, type WantedRing } from '../src/app/workers/alarm-clock';

/** Filled in after the build: its name, addresses with the hash of their content, the hash of the page. */
declare const BUILD: string;
declare const FILES: readonly (readonly [string, string])[];
declare const PAGE: string;

const worker = globalThis as unknown as ServiceWorkerGlobalScope;
const MARK = '__CSP_NONCE__';
const CACHES = 'zaffet-shell-';
const CACHE = `${CACHES}${BUILD}`;
const KEPT_PAGE = '/__page';
const POLICY = 'content-security-policy';
/** Named by their content: the same in every build. */
const HASHED = /-[A-Z0-9]{8}\.\w+$/;
/** Of one answer alone. */
const OWN_HEADERS = ['content-length', 'content-encoding', 'etag', 'date'];
/** Files fetched at a time. */
const AT_ONCE = 6;

async function digest(bytes: ArrayBuffer): Promise<string> {
  const hash = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return [...hash].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** The page as the server gives it, its nonce taken out again; of another build it is not taken. */
async function takePage(cache: Cache): Promise<void> {
  const answer = await fetch('/', { cache: 'no-store', headers: { accept: 'text/html' } });
  const policy = answer.headers.get(POLICY) ?? '';
  const nonce = /'nonce-([^']+)'/.exec(policy)?.[1];
  if (!answer.ok || nonce === undefined) throw new Error('the page could not be taken');
  const text = (await answer.text()).replaceAll(nonce, MARK);
  if ((await digest(new TextEncoder().encode(text).buffer)) !== PAGE)
    throw new Error('the page is from another build');
  const headers = new Headers(answer.headers);
  headers.set(POLICY, policy.replaceAll(nonce, MARK));
  for (const name of OWN_HEADERS) headers.delete(name);
  await cache.put(KEPT_PAGE, new Response(text, { headers }));
}

async function takeFile(cache: Cache, [address, hash]: readonly [string, string]): Promise<void> {
  if ((await cache.match(address)) !== undefined) return;
  const earlier = HASHED.test(address) ? await caches.match(address) : undefined;
  if (earlier !== undefined) return cache.put(address, earlier);
  const answer = await fetch(address, { cache: 'no-cache' });
  if (!answer.ok) throw new Error(`${address}: ${answer.status}`);
  if ((await digest(await answer.clone().arrayBuffer())) !== hash)
    throw new Error(`${address} is from another build`);
  await cache.put(address, answer);
}

const isWhole = async (name: string): Promise<boolean> =>
  (await (await caches.open(name)).match(KEPT_PAGE)) !== undefined;

/**
 * All files of the build or none: one that does not fit leaves the build before in charge. The page comes last. Where
 * the connection breaks, what came stays, and the next try goes on from there.
 */
async function install(): Promise<void> {
  const cache = await caches.open(CACHE);
  for (let i = 0; i < FILES.length; i += AT_ONCE)
    await Promise.all(FILES.slice(i, i + AT_ONCE).map((file) => takeFile(cache, file)));
  await takePage(cache);
}

/** The build before stays one more turn, for a page that was not loaded again yet; what is not whole goes. */
async function tidy(): Promise<void> {
  const others = (await caches.keys()).filter((name) => name.startsWith(CACHES) && name !== CACHE);
  const whole: string[] = [];
  for (const name of others) if (await isWhole(name)) whole.push(name);
  const before = whole.at(-1);
  await Promise.all(others.filter((name) => name !== before).map((name) => caches.delete(name)));
  await worker.clients.claim();
}

async function page(): Promise<Response> {
  const kept = await (await caches.open(CACHE)).match(KEPT_PAGE);
  if (kept === undefined) return fetch('/', { cache: 'no-store' });
  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(16))));
  const headers = new Headers(kept.headers);
  headers.set(POLICY, (headers.get(POLICY) ?? '').replaceAll(MARK, nonce));
  return new Response((await kept.text()).replaceAll(MARK, nonce), { headers });
}

async function file(request: Request): Promise<Response> {
  const own = await (await caches.open(CACHE)).match(request, { ignoreVary: true });
  return own ?? (await caches.match(request, { ignoreVary: true })) ?? fetch(request);
}

/** Every page sleeps: a notice is all that can be heard of an alarm. */
async function ring(request: Request): Promise<Response> {
  const { id, text, to } = (await request.json()) as WantedRing;
  await worker.registration
    .showNotification('Zaffet', { body: text, tag: id, data: { to } })
    .catch(() => undefined);
  return new Response(null, { status: 204 });
}

worker.addEventListener('install', (event) => event.waitUntil(install()));
worker.addEventListener('activate', (event) => event.waitUntil(tidy()));
worker.addEventListener('message', ({ data }) => {
  if (data === 'take over') void worker.skipWaiting();
});
worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method === 'POST' && origin === worker.location.origin && pathname === RING_ADDRESS)
    return event.respondWith(ring(request));
  if (request.method !== 'GET' || origin !== worker.location.origin || pathname.startsWith('/api/')) return;
  event.respondWith(request.mode === 'navigate' ? page() : file(request));
});
worker.addEventListener('notificationclick', (event) => {
  event.notification.close();
  const to = (event.notification.data as { to?: string } | null)?.to ?? '/';
  event.waitUntil(
    worker.clients.matchAll({ type: 'window' }).then(async (open) => {
      const found = open.find(({ url }) => new URL(url).pathname === to) ?? open[0];
      await (found === undefined ? worker.clients.openWindow(to) : found.focus());
    }),
  );
});
