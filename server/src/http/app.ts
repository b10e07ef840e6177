import express from 'express';
import type { Express } from 'express';
import { join } from 'node:path';
import type { Services } from '../services.ts';
import { backupRoutes } from './backupRoutes.ts';
import { documentRoutes } from './documentRoutes.ts';
import { eventRoute } from './eventRoute.ts';
import { compressed } from './compressed.ts';
import { correctionRoutes } from './correctionRoutes.ts';
import { jobRoutes } from './jobRoutes.ts';
import { languageRoutes } from './languageRoutes.ts';
import { newerRoutes } from './newerRoutes.ts';
import { ownPages } from './ownPages.ts';
import { answerProblems, Api } from './route.ts';
import { fileRoutes } from './fileRoutes.ts';
import { fontRoutes } from './fontRoutes.ts';
import { handoverRoutes } from './handoverRoutes.ts';
import { lastAnswer } from '../lastAnswer.ts';
import { jsonBodies } from './jsonBodies.ts';
import { keptRecipeRoutes } from './keptRecipeRoutes.ts';
import { roleSetRoutes } from './roleSetRoutes.ts';
import { sampleRoutes } from './sampleRoutes.ts';
import { runRoutes } from './runRoutes.ts';
import { trustOwnHosts } from './trust.ts';
import { webFiles } from './webFiles.ts';

/** The application's origin: the API under /api, the web application for everything else. */
export function createApp(s: Services): Express {
  const app = express();
  const { port, resultPort, guestPort, root } = s.config;
  app.disable('x-powered-by');
  // Answers of the API are never the same for long: nobody asks whether they are.
  app.disable('etag');
  app.use(trustOwnHosts(port));
  app.use(compressed());
  app.use(ownPages({ frames: [`http://*.localhost:${resultPort}`] }));
  const router = express.Router();
  router.use(...jsonBodies('20mb'));
  const api = new Api(router);
  documentRoutes(api, s);
  fileRoutes(api, s);
  fontRoutes(api, s);
  newerRoutes(api, s);
  correctionRoutes(api, s);
  languageRoutes(api, s);
  jobRoutes(api, s);
  roleSetRoutes(api, s);
  keptRecipeRoutes(api, s);
  sampleRoutes(api, s);
  runRoutes(api, s);
  handoverRoutes(api, s);
  backupRoutes(api, s);
  eventRoute(router, s.events);
  router.get('/openapi.json', (_req, res) => void res.json(api.openApi()));
  router.get('/settings', (_req, res) => void res.json({ resultPort, guestPort }));
  router.use(
    (_req, res) =>
      void res.status(404).json({ code: 'route.none', message: 'There is nothing at this address.', advice: 'Go back to the shelf.' }),
  );
  router.use(answerProblems);
  app.use('/api', router);
  const web = join(root, 'dist', 'web');
  app.use(webFiles(web));
  app.get('/{*any}', (_req, res) => {
    res.setHeader('Cache-Control', 'no-cache');
    res.sendFile('index.html', { root: web });
  });
  app.use(lastAnswer);
  return app;
}
