import express from 'express';
import type { Express, Request, Response } from 'express';
import helmet from 'helmet';
import { join } from 'node:path';
import type { GuestJob, TranslationJob } from '@elastic-folio/core/api';
import type { Folio } from '@elastic-folio/core';
import { FolioError } from '@elastic-folio/core/node';
import { onlyOfJob } from '@elastic-folio/core/language';
import type { Services } from '../services.ts';
import { guestRoutes } from './guestRoutes.ts';
import { answerProblem, Api } from './route.ts';
import { trustOwnHosts } from './trust.ts';

/** What a link was found to stand for, for the routes behind it. */
export interface Guest {
  job: TranslationJob;
  name: string;
}
const guests = new WeakMap<Request, Guest>();
export const guestOf = (req: Request): Guest => guests.get(req)!;

/** The document of a job as its translator may see it; worked out once for a document as it is. */
export class JobDocuments {
  private readonly made = new Map<string, { of: Folio; folio: Folio }>();

  shown(job: TranslationJob, of: Folio): Folio {
    const known = this.made.get(job.id);
    if (known?.of === of) return known.folio;
    const folio = onlyOfJob(of, job);
    this.made.delete(job.id);
    this.made.set(job.id, { of, folio });
    if (this.made.size > 8) this.made.delete(this.made.keys().next().value!);
    return folio;
  }
}

/** Says that a job is not to be seen yet or any more, or not to be changed. */
export function mayOpen({ job }: Guest): void {
  if (job.state === 'invited') throw new FolioError('job.open', 'This job was not taken on yet.', 'Take it on, or say no.');
  if (job.state === 'declined')
    throw new FolioError('job.declined', 'You said no to this job.', 'Ask whoever sent it, if you have thought again.');
}
export function mayWrite(guest: Guest): void {
  mayOpen(guest);
  if (guest.job.state === 'done') throw new FolioError('job.done', 'This job is delivered.', 'Ask whoever sent it to open it again.');
}

/**
 * The origin that translators are let in at. It answers under a signed link only, and for the one job that the link names: nothing of the
 * application’s own API is here.
 */
export function guestSite(s: Services): Express {
  const { root, guestPort } = s.config;
  const app = express();
  app.disable('x-powered-by');
  app.use(trustOwnHosts(guestPort));
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'", 'data:', 'blob:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          baseUri: ["'none'"],
          formAction: ["'none'"],
          frameAncestors: ["'none'"],
        },
      },
      crossOriginEmbedderPolicy: false,
      hsts: false,
      // The address is the key: it is told to nobody.
      referrerPolicy: { policy: 'no-referrer' },
    }),
  );
  const router = express.Router({ mergeParams: true });
  router.use((req, res, next) => {
    void admitted(s, (req.params as { token: string }).token).then(
      (guest) => {
        guests.set(req, guest);
        res.setHeader('Cache-Control', 'no-store');
        next();
      },
      (error: unknown) => refused(res, error),
    );
  });
  router.use(express.json({ limit: '4mb' }));
  guestRoutes(new Api(router), router, s, new JobDocuments());
  router.use(
    (_req, res) =>
      void res.status(404).json({ code: 'route.none', message: 'There is nothing at this address.', advice: 'Reload the page.' }),
  );
  app.use('/t/:token/api', router);
  const web = join(root, 'dist', 'web');
  app.use('/assets', express.static(join(web, 'assets'), { index: false, maxAge: '1y', immutable: true }));
  app.get('/t/:token/', (_req, res) => {
    res.setHeader('Cache-Control', 'no-cache');
    res.sendFile('index.html', { root: web });
  });
  app.use((_req, res) => void res.status(404).type('text').send('There is nothing here without an invitation.'));
  return app;
}

/** Who comes with a link: its signature, its time, whether it is the newest, and whether the job is still there. */
async function admitted(s: Services, token: string): Promise<Guest> {
  const invitation = await s.links.open(token);
  const { job, link } = await s.jobs.get(invitation.job);
  if (link !== invitation.link || job.state === 'withdrawn' || job.for.kind !== 'person')
    throw new FolioError(
      'invitation.none',
      'This invitation was taken back, or there is a newer mail.',
      'Use the link of the newest mail.',
    );
  return { job, name: job.for.name };
}

function refused(res: Response, error: unknown): void {
  if (!(error instanceof FolioError)) return answerProblem(res, error);
  res.status(403).json({ code: error.code, message: error.message, advice: error.advice });
}

/** What a translator is told of their job. */
export function guestJob({ job, name }: Guest, folio: Folio, progress: GuestJob['progress'], pages: number[]): GuestJob {
  const { id, folio: document, language, may, due, message, state, asked, until, answered, finished, units } = job;
  return {
    id,
    folio: document,
    language,
    may,
    due,
    message,
    state,
    asked,
    until,
    answered,
    finished,
    units,
    name,
    progress,
    pages,
    title: folio.head.metadata.title,
    source: folio.head.metadata.language,
    words: job.analysis.total.words,
  };
}
