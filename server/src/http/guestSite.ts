import express from 'express';
import type { Express, Response } from 'express';
import { compressed } from './compressed.ts';
import { jsonBodies } from './jsonBodies.ts';
import { join } from 'node:path';
import { FolioError } from '@elastic-folio/core/node';
import type { Services } from '../services.ts';
import { JobDocuments, letIn } from './guest.ts';
import type { Guest } from './guest.ts';
import { guestRoutes } from './guestRoutes.ts';
import { ownPages } from './ownPages.ts';
import { answerProblem, answerProblems, Api } from './route.ts';
import { trustOwnHosts } from './trust.ts';
import { lastAnswer } from '../lastAnswer.ts';
import { webFiles } from './webFiles.ts';

/**
 * The origin that translators are let in at. It answers under a signed link only, and for the one job that the link names: nothing of the
 * application’s own API is here.
 */
export function guestSite(s: Services): Express {
  const { root, guestPort } = s.config;
  const app = express();
  app.disable('x-powered-by');
  app.use(trustOwnHosts(guestPort));
  app.use(compressed());
  app.use(ownPages());
  const router = express.Router({ mergeParams: true });
  router.use((req, res, next) => {
    void admitted(s, (req.params as { token: string }).token).then(
      (guest) => {
        letIn(req, guest);
        res.setHeader('Cache-Control', 'no-store');
        next();
      },
      (error: unknown) => refused(res, error),
    );
  });
  router.use(...jsonBodies('4mb'));
  guestRoutes(new Api(router), router, s, new JobDocuments());
  router.use(
    (_req, res) =>
      void res.status(404).json({ code: 'route.none', message: 'There is nothing at this address.', advice: 'Reload the page.' }),
  );
  router.use(answerProblems);
  app.use('/t/:token/api', router);
  const web = join(root, 'dist', 'web');
  app.use('/assets', webFiles(join(web, 'assets')));
  app.get('/t/:token/', (_req, res) => {
    res.setHeader('Cache-Control', 'no-cache');
    res.sendFile('index.html', { root: web });
  });
  app.use((_req, res) => void res.status(404).type('text').send('There is nothing here without an invitation.'));
  app.use(lastAnswer);
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
  return { job, link, name: job.for.name };
}

function refused(res: Response, error: unknown): void {
  if (!(error instanceof FolioError)) return answerProblem(res, error);
  res.status(403).json({ code: error.code, message: error.message, advice: error.advice });
}
