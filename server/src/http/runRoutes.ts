import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { Id } from '@elastic-folio/core';
import { FolioError } from '@elastic-folio/core/node';
import { COMMON_SENTENCES, keywordsFor, writerById, WRITERS, zipFiles } from '@elastic-folio/core/write';
import type { Start } from '@elastic-folio/core/write';
import { outputStates } from '../runs/outputStates.ts';
import { Run } from '@elastic-folio/core/api';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';
import { Ledger, OutputKind, OutputState, Rehearsal, Weights } from '@elastic-folio/core/api';

const params = z.object({ id: z.string() });

/** Every way of answering a start's questions, with the settings that it comes to. */
function settledStart({ questions, settle }: Start): NonNullable<OutputKind['start']> {
  const ways = questions.reduce<Record<string, string>[]>(
    (all, q) => all.flatMap((given) => q.answers.map((a) => ({ ...given, [q.id]: a.id }))),
    [{}],
  );
  return { questions, settled: Object.fromEntries(ways.map((w) => [questions.map((q) => w[q.id]).join(' '), settle(w)])) };
}

/** Outputs, runs, results and ledgers. */
export function runRoutes(api: Api, s: Services): void {
  api.route({ method: 'get', path: '/outputs', says: 'Every kind of output with its settings', answer: z.array(OutputKind) }, () =>
    WRITERS.map((w) => ({
      id: w.id,
      label: w.label,
      about: w.about,
      version: w.version,
      view: w.view,
      entry: w.entry,
      redrawn: w.redraw !== undefined,
      comesBack: w.comesBack === true,
      settings: z.toJSONSchema(w.settings, { io: 'input' }) as Record<string, unknown>,
      sentences: { ...COMMON_SENTENCES, ...w.sentences },
      ...(w.start && { start: settledStart(w.start) }),
    })),
  );

  api.route(
    { method: 'get', path: '/folios/:id/outputs', says: 'How each output of a document stands', params, answer: z.array(OutputState) },
    ({ params: p }) => outputStates(s.documents, s.runs, p.id),
  );

  api.route(
    {
      method: 'get',
      path: '/folios/:id/keywords',
      says: 'What a document would be listed under: its subjects, and words that stand out in its text',
      params,
      answer: z.array(z.string()),
    },
    async ({ params: p }) => keywordsFor((await s.documents.get(p.id)).folio),
  );

  api.route(
    {
      method: 'get',
      path: '/folios/:id/recipes/:recipe/plan',
      says: 'What an output will keep, adapt, drop or leave out, before it is made',
      params: z.object({ id: z.string(), recipe: z.string() }),
      answer: Ledger,
    },
    ({ params: p }) => s.plans.of(p.id, p.recipe),
  );

  api.route({ method: 'get', path: '/runs', says: 'The newest runs', answer: z.array(Run) }, () => s.runs.list());

  api.route(
    {
      method: 'post',
      path: '/folios/:id/runs',
      says: 'Start an output, unless it waits already',
      params,
      body: z.object({ recipe: Id, actor: z.string().max(100).default('') }),
      answer: Run,
    },
    async ({ params: p, body }) => {
      const { folio } = await s.documents.get(p.id);
      const recipe = folio.recipes[body.recipe];
      if (!recipe) throw new FolioError('recipe.none', 'This output is not in the document any more.', 'Add it again.');
      if (!writerById(recipe.output))
        throw new FolioError('output.none', `There is no output "${recipe.output}" in this version.`, 'Choose another output.');
      const [run] = await s.runner.ask([{ folio: p.id, recipe: recipe.id, output: recipe.output, by: body.actor }]);
      return run!;
    },
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/refresh',
      says: 'Start every output whose result is older than the document, unless it is on its way',
      params,
      body: z.object({ actor: z.string().max(100).default('') }),
      answer: z.array(Run),
    },
    ({ params: p, body }) => s.runner.refresh(p.id, body.actor),
  );

  api.route(
    { method: 'post', path: '/runs/:id/cancel', says: 'Stop a run', params, answer: z.object({ run: Run.nullable() }) },
    async ({ params: p }) => ({ run: await s.runner.cancel(p.id) }),
  );

  const finished = async (id: string): Promise<Run> => {
    const run = await s.runs.get(id);
    if (run?.state !== 'done') throw new FolioError('result.none', 'This result is not there any more.', 'Run the output again.');
    return run;
  };

  api.route(
    {
      method: 'post',
      path: '/folios/:id/rehearsals',
      says: 'Make a page to be played, as the web edition makes it; with settings, the pages around it by these',
      params,
      body: z.object({ page: z.number().int().min(1), settings: z.record(z.string(), z.unknown()).optional() }),
      answer: Rehearsal,
    },
    ({ params: p, body }) => (body.settings ? s.rehearsals.view(p.id, body.page, body.settings) : s.rehearsals.make(p.id, body.page)),
  );

  api.route(
    { method: 'get', path: '/runs/:id/ledger', says: 'What a run kept, adapted, dropped or left out', params, answer: Ledger },
    async ({ params: p }) => {
      const run = await finished(p.id);
      try {
        return Ledger.parse(JSON.parse(await readFile(join(s.paths.results, run.id, 'ledger.json'), 'utf8')));
      } catch {
        throw new FolioError('ledger.none', 'The account of this result is damaged or gone.', 'Run the output again.');
      }
    },
  );

  api.route(
    { method: 'get', path: '/runs/:id/weights', says: 'Where the bytes of a web edition are', params, answer: Weights },
    async ({ params: p }) => {
      const run = await finished(p.id);
      const { folio } = await s.documents.get(run.folio);
      const pages = run.files!.filter((f) => /^[^/]+\.html$/.test(f.path));
      const texts = await Promise.all(
        pages.map(async ({ path }) => ({ path, text: await readFile(join(s.paths.results, run.id, path), 'utf8') })),
      ).catch(() => {
        throw new FolioError('result.none', 'Files of this result are not there any more.', 'Run the output again.');
      });
      const { weightsOf } = await import('@elastic-folio/core/preview');
      return weightsOf(folio, run.files!, texts);
    },
  );

  api.route({ method: 'get', path: '/runs/:id/result.zip', says: 'All files of a result', params }, async ({ params: p, res }) => {
    const run = await finished(p.id);
    res.attachment(await nameOf(s, run, 'zip'));
    zipFiles(run.files!.map((f) => ({ path: f.path, file: join(s.paths.results, run.id, f.path) })))
      .on('error', () => res.destroy())
      .pipe(res);
  });

  api.route(
    {
      method: 'get',
      path: '/runs/:id/file/*path',
      says: 'One file of a result',
      params: z.object({ id: z.string(), path: z.array(z.string()) }),
      query: z.object({ download: z.string().optional() }),
    },
    async ({ params: p, query, res }) => {
      const run = await finished(p.id);
      const file = run.files!.find((f) => f.path === p.path.join('/'));
      if (!file) throw new FolioError('result.none', 'The result has no such file.', 'Run the output again.');
      if (query.download !== undefined)
        res.attachment(run.files!.length === 1 ? await nameOf(s, run, file.path.split('.').pop()!) : file.path.split('/').pop()!);
      // Whatever a result holds, here it is only ever data.
      res.setHeader('Content-Security-Policy', "default-src 'none'; sandbox");
      res.type(file.mediaType === 'application/pdf' ? file.mediaType : 'application/octet-stream');
      await new Promise<void>((resolve, reject) =>
        res.sendFile(file.path, { root: join(s.paths.results, run.id) }, (e) => (e ? reject(e) : resolve())),
      );
    },
  );
}

/** A download's name: the document's title and the output. */
async function nameOf(s: Services, run: Run, extension: string): Promise<string> {
  const { folio } = await s.documents.get(run.folio);
  const plain = (folio.head.metadata.title || 'document').replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'document';
  return `${plain} (${writerById(run.output)?.label ?? run.output}).${extension}`;
}
