import { z } from 'zod';
import { EditAnswer, NewerChoice, NewerProposal } from '@elastic-folio/core/api';
import { withUpload } from '../documents/receiveFile.ts';
import type { Services } from '../services.ts';
import { heard } from './documentRoutes.ts';
import type { Api } from './route.ts';

const params = z.object({ id: z.string() });
const waiting = params.extend({ token: z.string() });

/** Newer versions of the file that a document came from. */
export function newerRoutes(api: Api, s: Services): void {
  api.route(
    {
      method: 'post',
      path: '/folios/:id/newer',
      says: 'Bring in a newer version of the source (multipart, one file)',
      params,
      answer: NewerProposal,
    },
    ({ req, params: p }) => withUpload(req, s.config.data, 'document', ({ file, name, folder }) => s.newer.begin(p.id, file, name, folder)),
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/newer/:token',
      says: 'What a newer version brings, with what a person has decided',
      params: waiting,
      body: NewerChoice,
      answer: NewerProposal,
    },
    ({ params: p, body }) => s.newer.propose(p.id, p.token, body),
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/newer/:token/take',
      says: 'Take a newer version over, as one step that can be undone',
      params: waiting,
      body: NewerChoice.extend({ actor: z.string().min(1).max(80) }),
      answer: EditAnswer,
    },
    async ({ params: p, body: { actor, ...choice } }) => {
      const answer = await s.newer.take(p.id, p.token, choice, actor);
      s.events.edited(p.id, answer.rows);
      s.events.tell({ type: 'shelf' });
      return heard(answer);
    },
  );

  api.route(
    {
      method: 'get',
      path: '/folios/:id/newer/:token/:side/:page.svg',
      says: 'A page of the document or of the newer version, as a picture',
      params: waiting.extend({ side: z.enum(['here', 'there']), page: z.coerce.number().int().min(1) }),
    },
    async ({ params: p, res }) => {
      const svg = await s.newer.picture(p.id, p.token, p.side, p.page);
      res.setHeader('Content-Security-Policy', "default-src 'none'; img-src data:; style-src 'unsafe-inline'");
      res.type('image/svg+xml').send(svg);
    },
  );
}
