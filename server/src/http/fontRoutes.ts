import { z } from 'zod';
import { LibraryFont } from '@elastic-folio/core';
import { resultOf } from '../conversion/resultOf.ts';
import { withUpload } from '../documents/receiveFile.ts';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';

/** The library of fonts that a user has added for all documents. */
export function fontRoutes(api: Api, s: Services): void {
  api.route({ method: 'get', path: '/fonts', says: 'The fonts added for all documents', answer: z.array(LibraryFont) }, () =>
    s.library.list(),
  );

  api.route(
    { method: 'post', path: '/fonts', says: 'Add a font file (multipart, one TTF, OTF, WOFF or WOFF2 file)', answer: LibraryFont },
    async ({ req }) => {
      const added = await withUpload(req, s.config.data, 'font', async ({ file }) =>
        s.library.add(resultOf(await s.pool.foreign({ what: 'font', file }))),
      );
      s.events.tell({ type: 'fonts' });
      return added;
    },
  );

  api.route(
    {
      method: 'delete',
      path: '/fonts/:font',
      says: 'Take a font out of the library',
      params: z.object({ font: z.string() }),
      answer: z.object({}),
    },
    async ({ params: p }) => {
      await s.library.remove(p.font);
      s.events.tell({ type: 'fonts' });
      return {};
    },
  );
}
