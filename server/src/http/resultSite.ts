import express from 'express';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Express, Response } from 'express';
import { bookFile, BOOK_PATH } from './bookFiles.ts';
import type { BookAnswer } from './bookFiles.ts';
import type { Rehearsals } from '../runs/rehearsals.ts';
import type { RunStore } from '../runs/runStore.ts';

/**
 * Finished web results, each on an origin of its own (`<run>.localhost`), without cookies and behind a
 * policy that lets it load nothing from anywhere else.
 */
export function resultSite(runs: RunStore, rehearsals: Pick<Rehearsals, 'has'>, results: string, appPort: number): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use((req, res, next) => {
    const run = /^([0-9a-f-]{36})\.localhost(:\d+)?$/.exec(req.headers.host ?? '')?.[1];
    if (!run || (req.method !== 'GET' && req.method !== 'HEAD')) return void res.status(404).end();
    const known = rehearsals.has(run) ? Promise.resolve(true) : runs.get(run).then((found) => found?.state === 'done');
    void known.then((isThere) => {
      if (!isThere || req.path === '/ledger.json') return void res.status(404).end();
      // What is shown inside a page is one file with its scripts inside it, and has no origin wherever it is opened.
      const isEmbed = req.path.startsWith('/embeds/');
      const own = isEmbed ? " 'unsafe-inline' data:" : '';
      const sandbox = isEmbed ? '; sandbox allow-scripts allow-forms allow-popups' : '';
      res.setHeader(
        'Content-Security-Policy',
        `default-src 'self' data:; style-src 'self' 'unsafe-inline'; script-src 'self'${own}; object-src 'none'; base-uri 'none'; form-action 'none'; frame-ancestors 'self' http://127.0.0.1:${appPort} http://localhost:${appPort}${sandbox}`,
      );
      res.setHeader('X-Content-Type-Options', 'nosniff');
      res.setHeader('Referrer-Policy', 'no-referrer');
      // A sandboxed frame has no origin of its own; its fonts still come from here.
      res.setHeader('Access-Control-Allow-Origin', '*');
      const book = BOOK_PATH.exec(req.path);
      if (book) return void bookFile(join(results, run, 'book.epub'), book[1]!, req.query).then((f) => send(res, f), next);
      const asked = /^\/at\/(\d{1,6})$/.exec(req.path)?.[1];
      if (asked !== undefined)
        return void fileOfPage(join(results, run), asked, req.query['as'] === 'is').then(
          (file) => (file ? res.redirect(302, file) : res.status(404).end()),
          next,
        );
      express.static(join(results, run), { dotfiles: 'deny', index: 'index.html', redirect: false })(req, res, next);
    }, next);
  });
  return app;
}

/** Where a page is found in a web edition of one file or of several: as readers see it, or as it was designed and alone. */
async function fileOfPage(folder: string, page: string, asRead: boolean): Promise<string | null> {
  const names = (await readdir(folder)).filter((name) => name.endsWith('.html'));
  for (const name of names.sort((a, b) => Number(b === 'index.html') - Number(a === 'index.html')))
    if ((await readFile(join(folder, name), 'utf8')).includes(`<section class="page" id="page-${page}"`))
      return `/${encodeURIComponent(name)}${asRead ? '' : '?plain'}#page-${page}`;
  return null;
}

function send(res: Response, file: BookAnswer | null): void {
  if (!file) return void res.status(404).end();
  if ('elsewhere' in file) return void res.redirect(302, file.elsewhere);
  res.type(file.mediaType).send(Buffer.from(file.bytes));
}
