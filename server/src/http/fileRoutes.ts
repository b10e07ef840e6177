import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { MediaFile, pathOfCopy } from '@elastic-folio/core';
import { FilesOfAnother } from '@elastic-folio/core/api';
import { resultOf } from '../conversion/resultOf.ts';
import { withUpload } from '../documents/receiveFile.ts';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';

const params = z.object({ id: z.string() });

/** Files that a document is given here: pictures, films, sounds, captions, zipped folders. An edit then names them. */
export function fileRoutes(api: Api, s: Services): void {
  api.route(
    { method: 'post', path: '/folios/:id/files', says: 'Store a file with a document (multipart, one file)', params, answer: MediaFile },
    async ({ req, params: p }) => {
      const id = `file-${randomUUID().slice(0, 8)}`;
      const taken = await withUpload(req, s.config.data, 'media', async ({ file, name }) =>
        resultOf(await s.pool.foreign({ what: 'media', file, name, id, blobs: s.paths.blobs })),
      );
      await s.documents.addFiles(p.id, new Map([[taken.file, { sha256: taken.sha256, bytes: taken.bytes }]]));
      return taken;
    },
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/files/take',
      says: 'Store files of another document with this one too',
      params,
      body: FilesOfAnother,
      answer: z.object({}),
    },
    async ({ params: p, body }) => {
      const { folio, files } = await s.loaded(body.from);
      const named = body.media.flatMap((m) => folio.head.media[m] ?? []);
      await s.documents.addFiles(
        p.id,
        new Map(named.flatMap((m) => (files.has(m.file) ? [[pathOfCopy(m), files.get(m.file)!] as const] : []))),
      );
      return {};
    },
  );
}
