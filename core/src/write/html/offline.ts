import { createHash } from 'node:crypto';
import type { HtmlSettings } from './settings.ts';

/** The service worker's file. It lies at the top, since it can keep only what is beside it and below. */
export const OFFLINE_FILE = 'offline.js';

/**
 * The program that keeps an edition on a reader's device (W3C Service Workers). A cache belongs to one version of the edition, by
 * a hash of all its files; it is filled before the version is used, and older ones go only when nobody is reading them any more.
 */
export function offlineProgram(files: readonly { path: string; hash: string }[], keep: Exclude<HtmlSettings['offline'], 'no'>): string {
  const version = createHash('sha256')
    .update(JSON.stringify(files.map((f) => [f.path, f.hash]).sort()))
    .digest('hex')
    .slice(0, 12);
  // What is read can always be opened; pictures, fonts and films may come as they are asked for.
  const first = files.filter((f) => keep === 'all' || /\.(html|css|js|webmanifest)$/.test(f.path)).map((f) => f.path);
  return `'use strict';
const SCOPE = new URL('./', self.location).href;
const PREFIX = 'edition ' + SCOPE + ' ';
const CACHE = PREFIX + ${JSON.stringify(version)};
const FIRST = ${JSON.stringify(first)};

self.addEventListener('install', (e) =>
  e.waitUntil(caches.open(CACHE).then((c) => c.addAll(FIRST.map((f) => new Request(new URL(f.split('/').map(encodeURIComponent).join('/'), SCOPE), { cache: 'no-cache' }))))),
);
self.addEventListener('activate', (e) =>
  e.waitUntil(
    caches
      .keys()
      .then((names) => Promise.all(names.filter((n) => n.startsWith(PREFIX) && n !== CACHE).map((n) => caches.delete(n))))
      .then(() => self.clients.claim()),
  ),
);
self.addEventListener('fetch', (e) => {
  const url = new URL(e.request.url);
  if (e.request.method !== 'GET' || !url.href.startsWith(SCOPE)) return;
  url.search = url.hash = '';
  if (url.href === SCOPE) url.pathname += 'index.html';
  e.respondWith(answer(e.request, url.href));
});

async function answer(request, key) {
  const cache = await caches.open(CACHE);
  const kept = await cache.match(key);
  if (kept) return part(kept, request.headers.get('range'));
  const fresh = await fetch(request);
  if (fresh.status === 200) cache.put(key, fresh.clone()).catch(() => undefined);
  return fresh;
}

/** Films are asked for in parts (RFC 9110, 14). */
async function part(response, range) {
  const asked = /^bytes=(\\d+)-(\\d*)$/.exec(range || '');
  if (!asked) return response;
  const bytes = await response.arrayBuffer();
  const from = Number(asked[1]);
  const to = asked[2] ? Math.min(Number(asked[2]), bytes.byteLength - 1) : bytes.byteLength - 1;
  if (from > to) return new Response(null, { status: 416, headers: { 'Content-Range': 'bytes */' + bytes.byteLength } });
  return new Response(bytes.slice(from, to + 1), {
    status: 206,
    headers: {
      'Content-Type': response.headers.get('Content-Type') || '',
      'Content-Range': 'bytes ' + from + '-' + to + '/' + bytes.byteLength,
      'Content-Length': String(to - from + 1),
    },
  });
}
`;
}
