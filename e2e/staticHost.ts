import { existsSync, readFileSync, statSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join, normalize } from 'node:path';
import { gzipSync } from 'node:zlib';

const TYPES: Record<string, string> = {
  html: 'text/html; charset=utf-8',
  css: 'text/css',
  js: 'text/javascript',
  webmanifest: 'application/manifest+json',
  png: 'image/png',
  jpg: 'image/jpeg',
  webp: 'image/webp',
  avif: 'image/avif',
  woff2: 'font/woff2',
  webm: 'video/webm',
  mp3: 'audio/mpeg',
};

export interface StaticHost {
  address: string;
  /** What was asked for, with the bytes that were sent; what was not there has none. */
  asked: { path: string; bytes: number | null }[];
  /** What was posted to `/collect`. */
  collected: string[];
  close(): Promise<void>;
}

/** A plain host of files, with the edition in a sub-folder; it takes what is posted to `/collect`, and lets `/hangs` wait for ever. `packs`: texts are compressed, as hosts do. */
export async function staticHost(folder: string, under = '/publications/almanac/', port = 0, packs = false): Promise<StaticHost> {
  const asked: StaticHost['asked'] = [];
  const collected: string[] = [];
  const server = createServer((req, res) => {
    const path = decodeURIComponent(new URL(req.url!, 'http://x').pathname);
    if (req.method === 'POST') {
      let body = '';
      req.on('data', (d: Buffer) => (body += d.toString()));
      req.on('end', () => {
        collected.push(body);
        if (path !== '/hangs') res.writeHead(204).end();
      });
      return;
    }
    const file = normalize(join(folder, path.startsWith(under) ? path.slice(under.length) || 'index.html' : 'none'));
    if (!file.startsWith(folder) || !existsSync(file) || statSync(file).isDirectory()) {
      asked.push({ path, bytes: null });
      return void res.writeHead(404).end();
    }
    const zipped = packs && /\.(html|css|js)$/.test(file);
    const body = zipped ? gzipSync(readFileSync(file)) : readFileSync(file);
    asked.push({ path: path.slice(under.length), bytes: body.length });
    res.writeHead(200, {
      'content-type': TYPES[file.split('.').pop()!] ?? 'application/octet-stream',
      'content-length': body.length,
      ...(zipped && { 'content-encoding': 'gzip' }),
    });
    res.end(body);
  });
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  return {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}${under}`,
    asked,
    collected,
    close: () =>
      new Promise((resolve) => {
        server.closeAllConnections();
        server.close(() => resolve());
      }),
  };
}
