import { z } from 'zod';
import { heardRow, historyOf, Id } from '@elastic-folio/core';
import { FolioError } from '@elastic-folio/core/node';
import { recordOf } from '@elastic-folio/core/read';
import type { PageSketch } from '@elastic-folio/core/read';
import { packFolio } from '@elastic-folio/core/write';
import { importUpload } from '../documents/importDocument.ts';
import type { Changed } from '../documents/documentStore.ts';
import { partsOf } from '../documents/parts.ts';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';
import {
  EditAnswer,
  EditRequest,
  FontEntry,
  IntakeReport,
  OpenedDocument,
  Parts,
  PartsAsked,
  ShelfEntry,
  UndoRequest,
} from '@elastic-folio/core/api';
import type { Run } from '@elastic-folio/core/api';
import { fontEntries, sendFont, sendPicture } from './documentBytes.ts';
import type { DocumentRow } from '../documents/documentStore.ts';
import { standingsOf } from '../runs/outputStates.ts';

const params = z.object({ id: z.string() });

/** Documents: the shelf, opening, parts, pictures, fonts, edits. */
export function documentRoutes(api: Api, s: Services): void {
  api.route({ method: 'get', path: '/folios', says: 'The shelf', answer: z.array(ShelfEntry) }, async () => {
    const documents = await s.documents.list();
    const runs = await s.runs.newestOf(documents.map((d) => d.id));
    const entries = documents.map((d) => {
      const ofIt = runs.filter((r) => r.folio === d.id);
      // One that has been taken off the shelf meanwhile is simply not there.
      return shelfEntry(s, d, ofIt).catch((error: unknown) => {
        if (error instanceof FolioError && error.code === 'document.none') return null;
        throw error;
      });
    });
    return (await Promise.all(entries)).filter((e) => e !== null);
  });

  api.route(
    {
      method: 'post',
      path: '/folios',
      says: 'Bring in a document (multipart, one file)',
      query: z.object({ reading: z.string().max(80).optional() }),
      answer: z.object({ id: z.string(), title: z.string() }),
    },
    async ({ req, res, query }) => {
      // Whoever goes away does not want it any more.
      const gone = new AbortController();
      res.on('close', () => res.writableEnded || gone.abort());
      const onPage = ({ page, total }: { page: PageSketch; total: number }): void => {
        if (query.reading !== undefined) s.events.tell({ type: 'reading', reading: query.reading, total, page });
      };
      const added = await importUpload(req, s.config.data, s.blobs, s.pool, s.documents, { onPage, signal: gone.signal });
      s.events.tell({ type: 'shelf' });
      return added;
    },
  );

  api.route(
    {
      method: 'get',
      path: '/folios/:id',
      says: 'A document’s head, and what one person can undo',
      params,
      query: z.object({ actor: z.string().default('') }),
      answer: OpenedDocument,
    },
    async ({ params: p, query }) => {
      const { folio, seq } = await s.documents.get(p.id);
      const history = historyOf(await s.documents.rowsOf(p.id, query.actor, 500), query.actor);
      const { head, recipes, editions } = folio;
      return { id: p.id, seq, head, recipes, editions, spreads: Object.keys(folio.spreads), stories: Object.keys(folio.stories), history };
    },
  );

  api.route(
    { method: 'delete', path: '/folios/:id', says: 'Take a document off the shelf', params, answer: z.object({}) },
    async ({ params: p }) => {
      await s.documents.remove(p.id);
      s.events.tell({ type: 'shelf' });
      return {};
    },
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/parts',
      says: 'Spreads and stories by their paths',
      params,
      // Asked for in the body: the paths of hundreds of spreads make no address.
      body: PartsAsked,
      answer: Parts,
    },
    async ({ params: p, body }) => {
      const all = partsOf(await s.documents.at(p.id, body.seq));
      return { parts: Object.fromEntries(body.paths.flatMap((path) => (all.has(path) ? [[path, all.get(path)]] : []))) };
    },
  );

  api.route(
    { method: 'get', path: '/folios/:id/intake', says: 'What was not taken over when a document came in', params, answer: IntakeReport },
    async ({ params: p }) => {
      const record = await recordOf(await s.loaded(p.id), s.blobs);
      return { notTaken: record?.notTaken ?? [], hasSource: record !== null };
    },
  );

  api.route(
    {
      method: 'get',
      path: '/folios/:id/media/:media',
      says: 'A picture, no wider than asked',
      params: params.extend({ media: Id }),
      query: z.object({ width: z.coerce.number().int().min(16).max(4000).default(1600) }),
    },
    async ({ params: p, query, res }) => {
      await sendPicture(s, p.id, p.media, query.width, res);
    },
  );

  api.route({ method: 'get', path: '/folios/:id/cover.svg', says: 'The first spread as a picture', params }, async ({ params: p, res }) => {
    const { cover } = await s.surveys.of(p.id, await s.documents.contentHash(p.id));
    if (cover === null)
      throw new FolioError('cover.failed', 'The first spread could not be drawn.', 'Open the document to see what is wrong.');
    res.setHeader('Content-Security-Policy', "default-src 'none'; img-src data:; style-src 'unsafe-inline'");
    res.setHeader('Cache-Control', 'private, max-age=31536000, immutable');
    res.type('image/svg+xml').send(cover);
  });

  api.route(
    {
      method: 'get',
      path: '/folios/:id/fonts',
      says: 'The fonts a document is set with, in matching order',
      params,
      answer: z.array(FontEntry),
    },
    ({ params: p }) => fontEntries(s, p.id),
  );

  api.route(
    { method: 'get', path: '/folios/:id/fonts/:key', says: 'A font file', params: params.extend({ key: z.string() }) },
    async ({ req, params: p, res }) => {
      await sendFont(s, p.id, p.key, req, res);
    },
  );

  api.route({ method: 'get', path: '/folios/:id/package', says: 'The document as a package', params }, async ({ params: p, res }) => {
    const { folio, files } = await s.loaded(p.id);
    res.attachment(`${folio.head.id}.efolio`);
    packFolio(folio, files, s.blobs)
      .on('error', () => res.destroy())
      .pipe(res);
  });

  api.route(
    { method: 'post', path: '/folios/:id/edits', says: 'Change a document', params, body: EditRequest, answer: EditAnswer },
    async ({ params: p, body }) => {
      const answer = await s.documents.edit(p.id, body);
      s.events.edited(p.id, answer.rows);
      return heard(answer);
    },
  );

  api.route(
    { method: 'post', path: '/folios/:id/undo', says: 'Take back rows of one’s own', params, body: UndoRequest, answer: EditAnswer },
    async ({ params: p, body }) => {
      const answer = await s.documents.undo(p.id, body);
      s.events.edited(p.id, answer.rows);
      return heard(answer);
    },
  );

  api.route(
    {
      method: 'get',
      path: '/folios/:id/edits',
      says: 'What changed since a row',
      params,
      query: z.object({ since: z.coerce.number().int().min(0) }),
      answer: EditAnswer,
    },
    async ({ params: p, query }) => heard({ rows: await s.documents.rowsSince(p.id, query.since), missed: [], refused: [] }),
  );
}

/** An answer to a change as windows hear it. */
export const heard = ({ rows, missed, refused }: Changed): EditAnswer => ({
  rows: rows.map(heardRow),
  missed: missed.map(heardRow),
  refused,
});

async function shelfEntry(s: Services, d: DocumentRow, runs: readonly Run[]): Promise<z.input<typeof ShelfEntry>> {
  const { name, title, content, withEditions, recipes, ...shown } = await s.shelfFacts.of(d);
  const survey = await s.surveys.peek(d.id, content);
  return {
    ...shown,
    id: d.id,
    folio: name,
    title: title || d.title,
    changedAt: d.changedAt,
    cover: `/api/folios/${d.id}/cover.svg?h=${content.slice(0, 12)}`,
    openPoints: survey && survey.openPoints,
    outputs: standingsOf({ recipes, content, withEditions }, runs),
  };
}
