import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import { Language, TranslatedUnit } from '@elastic-folio/core';
import { BackHome, Counted } from '@elastic-folio/core/api';
import { FolioError } from '@elastic-folio/core/node';
import { memoryKey } from '@elastic-folio/core/language';
import type { MemoryUnit } from '@elastic-folio/core/language';
import { DEFAULT_LIMITS, readExchange, readMemory } from '@elastic-folio/core/read';
import { ExchangeSettings, writeMemory } from '@elastic-folio/core/write';
import { withUpload } from '../documents/receiveFile.ts';
import type { Services } from '../services.ts';
import type { Outcome } from '../conversion/tasks.ts';
import type { Api } from './route.ts';

const params = z.object({ id: z.string(), language: Language });

function done<T>(outcome: Outcome<T>): T {
  if ('ok' in outcome) return outcome.ok;
  if ('failure' in outcome) throw new FolioError(outcome.failure.code, outcome.failure.message, outcome.failure.advice);
  throw new FolioError('cancelled', 'This was stopped.', 'Try again.');
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
      body: z.object({ settings: z.record(z.string(), z.unknown()) }),
      answer: Counted,
    },
    async ({ params: p, body }) => {
      const chosen = ExchangeSettings.safeParse({ ...body.settings, target: p.language });
      if (!chosen.success) throw new FolioError('texts.settings', 'These settings cannot be used.', 'Choose others.');
      const task = await held(p.id);
      const memory = await s.memory.of(task.folio.head.metadata.language, chosen.data);
      return done(await s.pool.count({ ...task, chosen: chosen.data, language: p.language, memory }));
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
      return withUpload(req, s.config.data, async ({ file, name }) => {
        const inbound = await readExchange(file, name, DEFAULT_LIMITS);
        return done(await s.pool.bringBack({ ...task, inbound, language: p.language }));
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
      const units = Object.values(body.units).flatMap((u) =>
        u.segments.flatMap(({ source, target, by, at }, i): MemoryUnit[] =>
          target
            ? [
                {
                  source,
                  target,
                  // Neighbours inside a paragraph; its first and last have those of the texts around it, which may change.
                  ...(u.segments[i - 1] && { before: memoryKey(u.segments[i - 1]!.source) }),
                  ...(u.segments[i + 1] && { after: memoryKey(u.segments[i + 1]!.source) }),
                  from: folio.head.metadata.title || folio.head.id,
                  ...(by !== undefined && { by }),
                  ...(at !== undefined && { at }),
                },
              ]
            : [],
        ),
      );
      return { added: await s.memory.add(folio.head.metadata.language, p.language, units) };
    },
  );

  const pair = z.object({ source: Language, target: Language });
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
      withUpload(req, s.config.data, async ({ file }) => {
        const { units, others } = readMemory(await readFile(file, 'utf8'), p.source, p.target);
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
