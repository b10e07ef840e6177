import { readFile } from 'node:fs/promises';
import { extname } from 'node:path';
import { z } from 'zod';
import type { OpenBook } from '@elastic-folio/core/ledger';

/** What is asked of the inside of an e-book: `/book/reading` is all of it as one page, `/book/at/3` its third text, anything else one of its files. */
export const BOOK_PATH = /^\/book\/(.+)$/;

/** How the reading view is set, from its address. */
const Look = z.object({
  size: z.coerce.number().min(50).max(300).catch(100),
  night: z
    .enum(['0', '1'])
    .catch('0')
    .transform((v) => v === '1'),
  typeface: z.enum(['own', 'serif', 'sans']).catch('own'),
  margin: z.coerce.number().min(0).max(8).catch(1),
});

const TYPES: Record<string, string> = {
  '.css': 'text/css',
  '.xhtml': 'application/xhtml+xml',
  '.jpg': 'image/jpeg',
  '.png': 'image/png',
  '.svg': 'image/svg+xml',
  '.woff2': 'font/woff2',
};

export type BookAnswer = { mediaType: string; bytes: Uint8Array } | { elsewhere: string };

/** What opens books comes with the first. */
const reading = () => import('@elastic-folio/core/ledger');

/** Books that were looked into last, opened. */
const MOST_KEPT = 3;
const opened = new Map<string, Promise<OpenBook>>();

function open(file: string): Promise<OpenBook> {
  let book = opened.get(file);
  if (!book) {
    if (opened.size >= MOST_KEPT) opened.delete(opened.keys().next().value!);
    book = Promise.all([readFile(file), reading()]).then(([bytes, { openBook }]) => openBook(new Uint8Array(bytes)));
    book.catch(() => opened.delete(file));
    opened.set(file, book);
  }
  return book;
}

/** A file from inside an e-book, or the whole of it as a page; null where there is no such book or file. */
export async function bookFile(file: string, path: string, query: unknown): Promise<BookAnswer | null> {
  const book = await open(file).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return null;
    throw error;
  });
  if (!book) return null;
  if (path === 'reading') {
    const { readingPage } = await import('@elastic-folio/core/preview');
    const page = readingPage(book.files, Look.parse(query), (inner) => `/book/${inner}`);
    return { mediaType: 'text/html; charset=utf-8', bytes: new TextEncoder().encode(page) };
  }
  const at = /^at\/(\d{1,6})$/.exec(path)?.[1];
  const text = at === undefined ? undefined : book.texts[Number(at) - 1];
  if (text) return { elsewhere: `/book/${text.path}` };
  const bytes = book.files.get(decodeURIComponent(path));
  return bytes ? { mediaType: TYPES[extname(path)] ?? 'application/octet-stream', bytes } : null;
}
