import { z } from 'zod';
import { Corrections } from '@elastic-folio/core';
import { resultOf } from '../conversion/resultOf.ts';
import { withUpload } from '../documents/receiveFile.ts';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';

/** What colleagues have changed in files that were written from a document. */
export function correctionRoutes(api: Api, s: Services): void {
  api.route(
    {
      method: 'post',
      path: '/folios/:id/corrections',
      says: 'What is changed in an office file that was written from a document (multipart, one file); nothing is taken',
      params: z.object({ id: z.string() }),
      answer: Corrections,
    },
    async ({ req, params: p }) => {
      const { folio } = await s.documents.get(p.id);
      return withUpload(req, s.config.data, 'corrections', async ({ file }) =>
        resultOf(await s.pool.foreign({ what: 'corrections', file, folio })),
      );
    },
  );
}
