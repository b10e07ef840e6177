import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { collect, openArchive } from '../../packages/archive.ts';
import { BUNDLE_LIMITS } from './takeFile.ts';

/** Types by the ends of names, as web servers tell them (common practice); all else is bytes. */
const TYPES: Readonly<Record<string, string>> = {
  html: 'text/html',
  htm: 'text/html',
  xhtml: 'application/xhtml+xml',
  css: 'text/css',
  js: 'text/javascript',
  mjs: 'text/javascript',
  json: 'application/json',
  svg: 'image/svg+xml',
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  gif: 'image/gif',
  webp: 'image/webp',
  woff: 'font/woff',
  woff2: 'font/woff2',
  txt: 'text/plain',
  mp3: 'audio/mpeg',
  mp4: 'video/mp4',
  webm: 'video/webm',
};

interface BundlePart {
  path: string;
  mediaType: string;
  bytes: Uint8Array;
}

/** The files of a zipped folder, one after another. A FolioError tells of one that would lie outside it or outgrows the limits. */
export async function* openBundle(zip: Uint8Array): AsyncGenerator<BundlePart> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-bundle-'));
  try {
    const file = join(folder, 'bundle.zip');
    await writeFile(file, zip);
    const archive = await openArchive(file, BUNDLE_LIMITS);
    try {
      for await (const entry of archive.entries) {
        const bytes = new Uint8Array(await collect(await entry.open(), BUNDLE_LIMITS.partBytes, entry.path));
        const end = /\.([A-Za-z0-9]+)$/.exec(entry.path)?.[1]?.toLowerCase() ?? '';
        yield { path: entry.path, mediaType: TYPES[end] ?? 'application/octet-stream', bytes };
      }
    } finally {
      archive.close();
    }
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
