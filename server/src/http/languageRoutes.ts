import { z } from 'zod';
import { Language, TextPart, TranslatedUnit } from '@elastic-folio/core';
import type { Folio } from '@elastic-folio/core';
import { BackHome, Counted, FoundMatch, KeptTerm, MatchesAsked, MemoryEntry } from '@elastic-folio/core/api';
import { FolioError } from '@elastic-folio/core/node';
import { LettersReport, memoryUnitsOf, standingsOf, Term } from '@elastic-folio/core/language';
import { ExchangeSettings, writeMemory } from '@elastic-folio/core/write';
import { resultOf } from '../conversion/resultOf.ts';
import { withUpload } from '../documents/receiveFile.ts';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';

const params = z.object({ id: z.string(), language: Language });

/** What a memory says that its texts are from. */
export const titled = (head: Folio['head']): { title: string } => ({ title: head.metadata.title || head.id });

/** The source of one segment as it was parted, or of the whole text; undefined where it does not go out. */
export function sourceAsked(
  folio: Folio,
  language: string,
  { unit, segment }: MatchesAsked,
  only?: ReadonlySet<string>,
): readonly TextPart[] | undefined {
  const found = standingsOf(folio, language, only).find((row) => row.unit.id === unit)?.unit;
  return found && (folio.editions[language]?.units[unit]?.segments[segment]?.source ?? found.parts);
}

/** Texts out to translators and back: what there is to do, what a file brings, and the memory. */
export function languageRoutes(api: Api, s: Services): void {
  const held = async (id: string) => {
    const { folio, files, library = [] } = await s.documents.loaded(id);
    return { folio, files: [...files], library, blobs: s.paths.blobs };
  };

  api.route(
    {
      method: 'post',
      path: '/folios/:id/languages/:language/count',
      says: 'What there is to translate, against the memory',
      params,
      body: z.object({ settings: z.record(z.string(), z.unknown()), others: z.array(z.string()).max(200).default([]) }),
      answer: Counted,
    },
    async ({ params: p, body }) => {
      const chosen = ExchangeSettings.safeParse({ ...body.settings, target: p.language });
      if (!chosen.success) throw new FolioError('texts.settings', 'These settings cannot be used.', 'Choose others.');
      const task = await held(p.id);
      const memory = await s.memory.of(task.folio.head.metadata.language, chosen.data);
      const others = await Promise.all(body.others.filter((id) => id !== p.id).map(async (id) => (await s.documents.get(id)).folio));
      const counted = resultOf(await s.pool.count({ ...task, others, chosen: chosen.data, language: p.language, memory }));
      return { analysis: counted.analysis, stays: counted.stays, others: counted.others };
    },
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/languages/:language/return',
      says: 'What a translator sent back (multipart, one file), against the document; nothing is taken',
      params,
      answer: BackHome,
    },
    async ({ req, params: p }) => {
      const task = await held(p.id);
      return withUpload(req, s.config.data, 'exchange', async ({ file, name }) => {
        const inbound = resultOf(await s.pool.foreign({ what: 'exchange', file, name }));
        return resultOf(await s.pool.bringBack({ ...task, inbound, language: p.language }));
      });
    },
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/languages/:language/memory',
      says: 'Keeps translations of a document in the memory',
      params,
      body: z.object({ units: z.record(z.string(), TranslatedUnit) }),
      answer: z.object({ added: z.number() }),
    },
    async ({ params: p, body }) => {
      const { folio } = await s.documents.get(p.id);
      const units = memoryUnitsOf(body.units, titled(folio.head));
      return { added: await s.memory.add(folio.head.metadata.language, p.language, units) };
    },
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/languages/:language/matches',
      says: 'What the memory has of a text',
      params,
      body: MatchesAsked,
      answer: z.array(FoundMatch),
    },
    async ({ params: p, body }) => {
      const { folio } = await s.documents.get(p.id);
      const source = sourceAsked(folio, p.language, body);
      return source ? s.memory.matches(folio.head.metadata.language, p.language, source) : [];
    },
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/languages/:language/known',
      says: 'What the memory has of open texts, the same in words and codes; nothing is taken',
      params,
      answer: z.object({ units: z.record(z.string(), TranslatedUnit) }),
    },
    async ({ params: p }) => {
      const { folio } = await s.documents.get(p.id);
      return { units: await s.memory.known(folio, p.language, new Date().toISOString()) };
    },
  );

  api.route(
    {
      method: 'get',
      path: '/folios/:id/languages/:language/letters',
      says: 'Which fonts of a document lack letters of a language, and which could stand in for them',
      params,
      answer: LettersReport,
    },
    async ({ params: p }) => resultOf(await s.pool.letters({ ...(await held(p.id)), language: p.language })),
  );

  const pair = z.object({ source: Language, target: Language });
  api.route(
    {
      method: 'get',
      path: '/memory/:source/:target/lengths',
      says: 'How long texts of the memory are in both languages',
      params: pair,
      answer: z.object({ source: z.number(), target: z.number(), texts: z.number() }),
    },
    ({ params: p }) => s.memory.lengths(p.source, p.target),
  );
  api.route(
    { method: 'get', path: '/terms/:source/:target', says: 'Terms between two languages', params: pair, answer: z.array(KeptTerm) },
    ({ params: p }) => s.terms.of(p.source, p.target),
  );
  api.route(
    {
      method: 'post',
      path: '/terms/:source/:target',
      says: 'Keeps a term',
      params: pair,
      body: Term,
      answer: z.object({ added: z.number() }),
    },
    async ({ params: p, body }) => ({ added: await s.terms.take(p.source, p.target, [body]) }),
  );
  api.route(
    {
      method: 'post',
      path: '/terms/:source/:target/file',
      says: 'Takes a TBX file (multipart, one file)',
      params: pair,
      answer: z.object({ added: z.number(), others: z.number() }),
    },
    ({ req, params: p }) =>
      withUpload(req, s.config.data, 'terms', async ({ file }) => {
        const { terms, others } = resultOf(await s.pool.foreign({ what: 'terms', file, ...p }));
        if (!terms.length)
          throw new FolioError(
            'terms.nothing',
            `The file has no terms from “${p.source}” into “${p.target}”.`,
            'Choose another file, or other languages.',
          );
        return { added: await s.terms.take(p.source, p.target, terms), others };
      }),
  );
  api.route(
    {
      method: 'delete',
      path: '/terms/:source/:target/:term',
      says: 'Forgets a term',
      params: pair.extend({ term: z.string() }),
      answer: z.object({}),
    },
    async ({ params: p }) => {
      await s.terms.remove(p.source, p.target, p.term);
      return {};
    },
  );
  api.route(
    {
      method: 'get',
      path: '/memory/:source/:target/entries',
      says: 'What of the memory holds some words, the newest first',
      params: pair,
      query: z.object({ words: z.string().max(500).default('') }),
      answer: z.object({ of: z.number(), entries: z.array(MemoryEntry) }),
    },
    ({ params: p, query }) => s.memory.search(p.source, p.target, query.words),
  );
  api.route(
    {
      method: 'post',
      path: '/memory/:source/:target/entries/:entry',
      says: 'Another translation in the memory',
      params: pair.extend({ entry: z.string() }),
      body: z.object({ target: z.array(TextPart).min(1) }),
      answer: z.object({}),
    },
    async ({ params: p, body }) => {
      await s.memory.change(p.source, p.target, p.entry, body.target);
      return {};
    },
  );
  api.route(
    {
      method: 'delete',
      path: '/memory/:source/:target/entries/:entry',
      says: 'Forgets a translation',
      params: pair.extend({ entry: z.string() }),
      answer: z.object({}),
    },
    async ({ params: p }) => {
      await s.memory.forget(p.source, p.target, p.entry);
      return {};
    },
  );

  api.route(
    { method: 'get', path: '/memory/:source/:target', says: 'The memory between two languages, as TMX', params: pair },
    async ({ params: p, res }) => {
      res.attachment(`memory.${p.source}-${p.target}.tmx`);
      res.type('application/xml').send(writeMemory(await s.memory.of(p.source, p), p.source, p.target, new Date()));
    },
  );

  api.route(
    {
      method: 'post',
      path: '/memory/:source/:target',
      says: 'Takes a TMX file (multipart, one file) into the memory',
      params: pair,
      answer: z.object({ added: z.number(), others: z.number() }),
    },
    ({ req, params: p }) =>
      withUpload(req, s.config.data, 'memory', async ({ file }) => {
        const { units, others } = resultOf(await s.pool.foreign({ what: 'memory', file, ...p }));
        if (!units.length)
          throw new FolioError(
            'memory.none',
            `The file holds nothing from “${p.source}” into “${p.target}”.`,
            'Choose another file, or other languages.',
          );
        return { added: await s.memory.add(p.source, p.target, units), others };
      }),
  );
}
