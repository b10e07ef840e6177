import { mkdtemp, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { ComingSample, SampleFile } from '@elastic-folio/core/api';
import { importFile } from '../documents/importDocument.ts';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';

const params = z.object({ name: z.string() });

/** The samples as files of OpenDocument: to be brought in like those of anybody, or looked at elsewhere. */
export function sampleRoutes(api: Api, s: Services): void {
  api.route(
    { method: 'get', path: '/samples', says: 'The samples as OpenDocument files, and what these cannot hold', answer: z.array(SampleFile) },
    () => s.samples.list(),
  );

  api.route(
    { method: 'get', path: '/coming', says: 'Sample documents that a first start is still bringing in', answer: z.array(ComingSample) },
    () => [...s.loading.coming],
  );

  api.route(
    { method: 'get', path: '/ready', says: 'Answers 200 once everything that a first start brings in is there, 503 until then' },
    ({ res }) => void res.status(s.loading.settled ? 200 : 503).end(),
  );

  api.route({ method: 'get', path: '/samples/:name', says: 'A sample as a file', params }, async ({ params: p, res }) => {
    const path = await s.samples.path(p.name);
    await new Promise<void>((resolve, reject) => res.download(path, p.name, (error) => (error ? reject(error) : resolve())));
  });

  api.route(
    { method: 'post', path: '/samples/:name', says: 'Bring in a sample', params, answer: z.object({ id: z.string(), title: z.string() }) },
    async ({ params: p }) => {
      const path = await s.samples.path(p.name);
      const staging = await mkdtemp(join(s.config.data, 'sample-'));
      try {
        const added = await importFile(path, p.name, staging, s.blobs, s.pool, s.documents);
        s.events.tell({ type: 'shelf' });
        return added;
      } finally {
        await rm(staging, { recursive: true, force: true });
      }
    },
  );
}
