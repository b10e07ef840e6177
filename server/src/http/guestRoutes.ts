import { z } from 'zod';
import type { Router } from 'express';
import { heardRow, historyOf, Id, Language, TranslatedUnit } from '@elastic-folio/core';
import type { Folio } from '@elastic-folio/core';
import {
  EditAnswer,
  EditRequest,
  FontEntry,
  GuestAnswer,
  GuestJob,
  KeptTerm,
  FoundMatch,
  MatchesAsked,
  OpenedDocument,
  Parts,
  PartsAsked,
  UndoRequest,
} from '@elastic-folio/core/api';
import type { ServerEvent, TranslationJob } from '@elastic-folio/core/api';
import { FolioError } from '@elastic-folio/core/node';
import {
  memoryUnitsOf,
  progressOf,
  reachOf,
  rowsOfJob,
  standingsOf,
  termsIn,
  translatorsUnits,
  wordsOf,
} from '@elastic-folio/core/language';
import type { Changed } from '../documents/documentStore.ts';
import { partsOf } from '../documents/parts.ts';
import type { Services } from '../services.ts';
import { fontEntries, sendFont, sendPicture } from './documentBytes.ts';
import { EventStream } from './eventStream.ts';
import { guestJob, guestOf, mayOpen, mayWrite } from './guest.ts';
import type { Guest, JobDocuments } from './guest.ts';
import { sourceAsked, titled } from './languageRoutes.ts';
import type { Api } from './route.ts';

const params = z.object({ id: z.string() });
const Units = z.record(z.string(), TranslatedUnit);
const inLanguage = params.extend({ language: Language });

const WORDS: Record<'accept' | 'decline' | 'done', string> = {
  accept: 'has taken the job on',
  decline: 'has said no',
  done: 'has finished',
};

/**
 * What a translator’s link answers: their job, its document as far as it reaches, and their texts. The addresses are those of the
 * application, so that the same desk works in both; each is a route of its own here, and says no to everything outside of the job.
 */
export function guestRoutes(api: Api, router: Router, s: Services, documents: JobDocuments): void {
  const actor = (job: TranslationJob): string => `guest:${job.id}`;
  const guestFor = (req: Parameters<typeof guestOf>[0], id: string, may: (guest: Guest) => void): Guest => {
    const guest = guestOf(req);
    if (guest.job.folio !== id) throw new FolioError('document.none', 'This document is not part of the job.', 'Reload the page.');
    may(guest);
    return guest;
  };
  const tells = async (guest: Guest): Promise<GuestJob> => {
    const { folio } = await s.documents.get(guest.job.folio);
    const { all, done } = progressOf(standingsOf(folio, guest.job.language, new Set(guest.job.units)));
    return guestJob(guest, folio, { all, done }, reachOf(folio, guest.job).pages);
  };

  api.route({ method: 'get', path: '/job', says: 'The job', answer: GuestJob }, ({ req }) => tells(guestOf(req)));

  api.route(
    { method: 'post', path: '/job', says: 'Take it on, say no, ask, or say that it is done', body: GuestAnswer, answer: GuestJob },
    async ({ req, body }) => {
      const guest = guestOf(req);
      const { job, name } = guest;
      if (body.says === 'question') {
        if (body.unit !== undefined && !job.units.includes(body.unit))
          throw new FolioError('job.refused', 'This text is not part of the job.', 'Reload the page.');
        mayOpen(guest);
        await s.notices.add({ folio: job.folio, job: job.id, kind: 'question', says: `${name} asks: ${body.text}`, unit: body.unit });
        return tells(guest);
      }
      if (body.says === 'accept' && job.state === 'done') mayWrite(guest);
      const state = body.says === 'accept' ? 'accepted' : body.says === 'decline' ? 'declined' : 'done';
      const moved = await s.jobs.move(job.id, state);
      const why = body.says === 'decline' && body.why ? `: ${body.why}` : '.';
      await s.notices.add({ folio: job.folio, job: job.id, kind: state, says: `${name} ${WORDS[body.says]}${why}` });
      return tells({ ...guest, job: moved });
    },
  );

  api.route(
    { method: 'get', path: '/folios/:id', says: 'The document of the job', params, answer: OpenedDocument },
    async ({ req, params: p }) => {
      const { job } = guestFor(req, p.id, mayOpen);
      const { folio, seq } = await s.documents.get(p.id);
      const { head, editions, spreads, stories } = documents.shown(job, folio);
      const history = historyOf(await s.documents.rowsOf(p.id, actor(job), 500), actor(job));
      return { id: p.id, seq, head, recipes: {}, editions, spreads: Object.keys(spreads), stories: Object.keys(stories), history };
    },
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/parts',
      says: 'Spreads and texts of the job',
      params,
      body: PartsAsked,
      answer: Parts,
    },
    async ({ req, params: p, body }) => {
      const { job } = guestFor(req, p.id, mayOpen);
      const all = partsOf(documents.shown(job, await s.documents.at(p.id, body.seq)));
      return { parts: Object.fromEntries(body.paths.flatMap((path) => (all.has(path) ? [[path, all.get(path)]] : []))) };
    },
  );

  api.route(
    { method: 'get', path: '/folios/:id/fonts', says: 'Its fonts', params, answer: z.array(FontEntry) },
    async ({ req, params: p }) => {
      guestFor(req, p.id, mayOpen);
      return fontEntries(s, p.id);
    },
  );
  api.route(
    { method: 'get', path: '/folios/:id/fonts/:key', says: 'A font file', params: params.extend({ key: z.string() }) },
    async ({ req, params: p, res }) => {
      guestFor(req, p.id, mayOpen);
      await sendFont(s, p.id, p.key, req, res);
    },
  );
  api.route(
    {
      method: 'get',
      path: '/folios/:id/media/:media',
      says: 'A picture on the pages of the job',
      params: params.extend({ media: Id }),
      query: z.object({ width: z.coerce.number().int().min(16).max(4000).default(1600) }),
    },
    async ({ req, params: p, query, res }) => {
      const { job } = guestFor(req, p.id, mayOpen);
      const { folio } = await s.documents.get(p.id);
      if (!documents.shown(job, folio).head.media[p.media])
        throw new FolioError('media.none', 'There is no such picture.', 'Reload the page.');
      await sendPicture(s, p.id, p.media, query.width, res);
    },
  );

  api.route(
    { method: 'post', path: '/folios/:id/edits', says: 'Texts of the job, translated', params, body: EditRequest, answer: EditAnswer },
    async ({ req, params: p, body }) => {
      const { job, name } = guestFor(req, p.id, mayWrite);
      const { folio } = await s.documents.get(p.id);
      const edition = folio.editions[job.language] ?? { units: {} };
      const translator = { name, units: new Set(job.units), reviews: job.may.reviews };
      const at = new Date().toISOString();
      const edits = body.edits.map(({ edit, ...sent }) => {
        if (edit.kind !== 'edition.units' || edit.args.language !== job.language)
          throw new FolioError('job.refused', 'Only texts of the job can be changed here.', 'Reload the page.');
        const units = translatorsUnits(edition, Units.parse(edit.args.units), translator, at);
        return { ...sent, edit: { ...edit, args: { ...edit.args, units } } };
      });
      const answer = await s.documents.edit(p.id, { base: body.base, actor: actor(job), edits });
      s.events.edited(p.id, answer.rows);
      s.events.tell({ type: 'jobs', folio: p.id });
      return heard(job, (await s.documents.get(p.id)).folio, answer);
    },
  );

  api.route(
    { method: 'post', path: '/folios/:id/undo', says: 'Take back what one wrote', params, body: UndoRequest, answer: EditAnswer },
    async ({ req, params: p, body }) => {
      const { job } = guestFor(req, p.id, mayWrite);
      const answer = await s.documents.undo(p.id, { ...body, actor: actor(job) });
      s.events.edited(p.id, answer.rows);
      return heard(job, (await s.documents.get(p.id)).folio, answer);
    },
  );

  api.route(
    {
      method: 'get',
      path: '/folios/:id/edits',
      says: 'What changed of the job since a row',
      params,
      query: z.object({ since: z.coerce.number().int().min(0) }),
      answer: EditAnswer,
    },
    async ({ req, params: p, query }) => {
      const { job } = guestFor(req, p.id, mayOpen);
      const rows = await s.documents.rowsSince(p.id, query.since);
      return heard(job, (await s.documents.get(p.id)).folio, { rows, missed: [], refused: [] });
    },
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/languages/:language/matches',
      says: 'What the memory has of a text of the job',
      params: inLanguage,
      body: MatchesAsked,
      answer: z.array(FoundMatch),
    },
    async ({ req, params: p, body }) => {
      const { job } = guestFor(req, p.id, mayOpen);
      if (p.language !== job.language || !job.may.seesMemory) return [];
      const { folio } = await s.documents.get(p.id);
      // The memory answers for texts of the job, and for no others.
      const source = sourceAsked(folio, job.language, body, new Set(job.units));
      return source ? s.memory.matches(folio.head.metadata.language, job.language, source) : [];
    },
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/languages/:language/memory',
      says: 'Keeps translations of the job in the memory of whoever asked for it',
      params: inLanguage,
      body: z.object({ units: Units }),
      answer: z.object({ added: z.number() }),
    },
    async ({ req, params: p, body }) => {
      const { job, name } = guestFor(req, p.id, mayWrite);
      if (p.language !== job.language) throw new FolioError('job.refused', 'The job is in another language.', 'Reload the page.');
      const { folio } = await s.documents.get(p.id);
      const mine = Object.fromEntries(Object.entries(body.units).filter(([id]) => job.units.includes(id)));
      return { added: await s.memory.add(folio.head.metadata.language, job.language, memoryUnitsOf(mine, titled(folio.head), name)) };
    },
  );

  api.route(
    {
      method: 'get',
      path: '/terms/:source/:target',
      says: 'Terms that stand in texts of the job',
      params: z.object({ source: Language, target: Language }),
      answer: z.array(KeptTerm),
    },
    async ({ req }) => {
      const guest = guestOf(req);
      mayOpen(guest);
      const { job } = guest;
      const { folio } = await s.documents.get(job.folio);
      const text = standingsOf(folio, job.language, new Set(job.units)).map(({ unit }) => wordsOf(unit.parts));
      const terms = await s.terms.of(folio.head.metadata.language, job.language);
      const said = new Set(termsIn(text.join('\n'), terms).map((f) => f.term.source.toLowerCase()));
      return terms.filter((t) => said.has(t.source.toLowerCase()));
    },
  );

  /** What others changed, as far as it belongs to the job. */
  router.get('/events', (req, res) => {
    const { job, link } = guestOf(req);
    const send = (event: ServerEvent): void => {
      if (!('folio' in event) || event.folio !== job.folio || (event.type !== 'edits' && event.type !== 'jobs')) return;
      void (async () => {
        // A link that was taken back, or whose time is over, hears nothing more.
        const now = await s.jobs.get(job.id);
        if (now.link !== link || now.job.state === 'withdrawn' || now.job.until < new Date().toISOString()) return stream.end();
        if (event.type === 'jobs' || !event.rows) return stream.send(event);
        const { folio } = await s.documents.get(job.folio);
        stream.send({ ...event, rows: rowsOfJob(folio, job, event.rows) });
      })().catch(() => stream.end());
    };
    const stream = new EventStream(req, res, () => void s.events.off('event', send));
    s.events.on('event', send);
  });
}

/** An answer to a translator: of rows by others, what belongs to the job. */
function heard(job: TranslationJob, folio: Folio, { rows, missed, refused }: Changed): EditAnswer {
  return { rows: rowsOfJob(folio, job, rows.map(heardRow)), missed: rowsOfJob(folio, job, missed.map(heardRow)), refused };
}
