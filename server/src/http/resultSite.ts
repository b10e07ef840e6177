import express from 'express';
import { readdir, readFile } from 'node:fs/promises';
import { join, posix } from 'node:path';
import { rateLimit } from 'express-rate-limit';
import type { Express, Request, RequestHandler, Response } from 'express';
import { Collected } from '@elastic-folio/core/api';
import { loadFonts } from '@elastic-folio/core/compose';
import type { FontFace } from '@elastic-folio/core/compose';
import type { Config } from '../config.ts';
import type { Services } from '../services.ts';
import { bookFile, BOOK_PATH } from './bookFiles.ts';
import type { BookAnswer } from './bookFiles.ts';
import { lastAnswer } from '../lastAnswer.ts';
import { redrawn } from './redrawn.ts';

type Parts = Pick<Services, 'runs' | 'rehearsals' | 'published' | 'collector' | 'paths' | 'loaded' | 'fontSources'>;
type Ports = Pick<Config, 'port' | 'resultPort'>;

const RUN = /^([0-9a-f-]{36})\.localhost(:\d+)?$/;
const FONT_FILE = /\.(woff2?|ttf|otf)$/i;
/** Messages that one address may send in a minute: a reader who turns pages quickly sends a few. */
const MOST_A_MINUTE = 120;
const SITE = /^([a-z0-9-]{1,63})\.pages\.localhost(:\d+)?$/;

/**
 * Finished web results, each on an origin of its own, without cookies and behind a policy that lets it load nothing from anywhere
 * else: runs (`<run>.localhost`), what is published on the simulated host (`<name>.pages.localhost`), and the collector that
 * editions are tried with (`127.0.0.1/collect`).
 */
export function resultSite(s: Parts, ports: Ports): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(collect(s, ports));
  app.use((req, res, next) => {
    const host = req.headers.host ?? '';
    const [run, site] = [RUN.exec(host)?.[1], SITE.exec(host)?.[1]];
    if ((!run && !site) || (req.method !== 'GET' && req.method !== 'HEAD')) return void res.status(404).end();
    const { runs, rehearsals, published, paths } = s;
    const folder = async (): Promise<string | null | undefined> => {
      if (site) return published.folderShown(site);
      const isThere = rehearsals.has(run!) || (await runs.get(run!))?.state === 'done';
      return isThere ? join(paths.results, run!) : undefined;
    };
    void folder().then((found) => {
      if (found === null) return void res.status(410).type('text').send('This edition was taken down.');
      if (found === undefined || isLedger(req.path)) return void res.status(404).end();
      policy(req, res, ports);
      const book = BOOK_PATH.exec(req.path);
      if (book) return void bookFile(join(found, 'book.epub'), book[1]!, req.query).then((f) => send(res, f), next);
      if (run && req.path === '/redrawn') return void sendRedrawn(s, run, found, Number(req.query['page']) || 1, res).catch(next);
      const asked = /^\/at\/(\d{1,6})$/.exec(req.path)?.[1];
      if (asked !== undefined)
        return void fileOfPage(found, asked, req.query['as'] === 'is').then(
          (file) => (file ? res.redirect(302, file) : res.status(404).end()),
          next,
        );
      // What is shown under an address may change with the next version.
      if (site) res.setHeader('Cache-Control', 'no-cache');
      express.static(found, { dotfiles: 'deny', index: 'index.html', redirect: false })(req, res, next);
    }, next);
  });
  app.use(lastAnswer);
  return app;
}

/**
 * A result runs its own programs, and those that its designer has put into it, on an origin that holds nothing else. What is shown
 * inside a page is one file with its scripts inside it, and has no origin wherever it is opened.
 */
function policy({ path, headers }: Request, res: Response, { port, resultPort }: Ports): void {
  const isEmbed = path.startsWith('/embeds/');
  const sandbox = isEmbed ? '; sandbox allow-scripts allow-forms allow-popups' : '';
  res.setHeader(
    'Content-Security-Policy',
    `default-src 'self' data:; style-src 'self' 'unsafe-inline'; script-src 'self' 'unsafe-inline'${isEmbed ? ' data:' : ''}; connect-src 'self' http://127.0.0.1:${resultPort}/collect; object-src 'none'; base-uri 'none'; form-action 'none'; frame-ancestors 'self' http://127.0.0.1:${port} http://localhost:${port}${sandbox}`,
  );
  res.setHeader('X-Content-Type-Options', 'nosniff');
  res.setHeader('Referrer-Policy', 'no-referrer');
  // A sandboxed frame has no origin of its own; its fonts still come from here, and nothing else may be read from elsewhere.
  if (headers.origin === 'null' && FONT_FILE.test(path)) res.setHeader('Access-Control-Allow-Origin', 'null');
}

/** The account of a result is not part of it, however its address is written. */
function isLedger(path: string): boolean {
  try {
    return /^[/\\]*ledger\.json[/\\]*$/i.test(posix.normalize(decodeURIComponent(path)));
  } catch {
    return false;
  }
}

/**
 * Takes what editions send that are shown on the trial host, from their own origins alone, and not more in a minute than readers send;
 * whoever sends what is none is told nothing more.
 */
function collect({ collector, published }: Parts, { resultPort }: Ports): RequestHandler {
  const limit = rateLimit({ windowMs: 60_000, limit: MOST_A_MINUTE, standardHeaders: false, legacyHeaders: false, message: '' });
  const isShown = async (origin: string | undefined): Promise<boolean> => {
    const host = origin?.startsWith('http://') ? origin.slice('http://'.length) : '';
    const name = host.endsWith(`:${resultPort}`) ? SITE.exec(host)?.[1] : undefined;
    return name !== undefined && typeof (await published.folderShown(name)) === 'string';
  };
  const text = express.text({ type: () => true, limit: '200kb' });
  return (req, res, next) => {
    if (req.path !== '/collect' || !/^(127\.0\.0\.1|localhost)(:\d+)?$/.test(req.headers.host ?? '')) return next();
    const { origin } = req.headers;
    void isShown(origin).then((shown) => {
      if (!shown) return void res.status(403).end();
      res.setHeader('Access-Control-Allow-Origin', origin!);
      res.setHeader('Vary', 'Origin');
      if (req.method !== 'POST') return void res.status(405).end();
      void limit(req, res, () =>
        text(req, res, (error?: unknown) => {
          const sent = error ? null : Collected.safeParse(json(req.body));
          if (!sent?.success) return void res.status(400).end();
          collector.take(sent.data).then((taken) => res.status(taken ? 204 : 429).end(), next);
        }),
      );
    }, next);
  };
}

function json(text: unknown): unknown {
  try {
    return JSON.parse(String(text));
  } catch {
    return null;
  }
}

/** Where a page is found in a web edition of one file or of several: as readers see it, or as it was designed and alone. */
async function fileOfPage(folder: string, page: string, asRead: boolean): Promise<string | null> {
  const names = (await readdir(folder)).filter((name) => name.endsWith('.html'));
  for (const name of names.sort((a, b) => Number(b === 'index.html') - Number(a === 'index.html')))
    if ((await readFile(join(folder, name), 'utf8')).includes(`<section class="page" id="page-${page}"`))
      return `/${encodeURIComponent(name)}${asRead ? '' : '?plain'}#page-${page}`;
  return null;
}

async function sendRedrawn({ runs, loaded, fontSources }: Parts, id: string, folder: string, number: number, res: Response): Promise<void> {
  const installed = async (document: string): Promise<readonly FontFace[]> =>
    (await loadFonts((await loaded(document)).folio.head, await fontSources(document))).faces;
  const run = await runs.get(id);
  const page = run && (await redrawn(folder, run, number, () => installed(run.folio)));
  if (page) res.type('html').send(page);
  else res.status(404).end();
}

function send(res: Response, file: BookAnswer | null): void {
  if (!file) return void res.status(404).end();
  if ('elsewhere' in file) return void res.redirect(302, file.elsewhere);
  res.type(file.mediaType).send(Buffer.from(file.bytes));
}
