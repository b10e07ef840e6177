import { z } from 'zod';
import { Id } from '@elastic-folio/core';
import { FolioError } from '@elastic-folio/core/node';
import { Measures, OnPhones, PublishedSite, Run } from '@elastic-folio/core/api';
import { checkPublishable, publishResult } from '../handover/publishResult.ts';
import { outputStates } from '../runs/outputStates.ts';
import type { Standing } from '../runs/outputStates.ts';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';

const site = z.object({ site: z.string() });

/** Results given to readers: the simulated web host, phones in the same network, and what readers have sent back. */
export function handoverRoutes(api: Api, s: Services): void {
  const standing = async (id: string, recipe: string): Promise<Standing> => {
    const output = (await outputStates(s.documents, s.runs, id)).find((o) => o.recipe === recipe);
    if (!output) throw new FolioError('recipe.none', 'This output is not in the document any more.', 'Add it again.');
    return output;
  };

  api.route(
    {
      method: 'get',
      path: '/folios/:id/published',
      says: 'What of a document is on the simulated web host',
      params: z.object({ id: z.string() }),
      answer: z.array(PublishedSite),
    },
    ({ params: p }) => s.published.ofDocument(p.id),
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/published',
      says: 'Publish the newest result of an output on the simulated web host; `older`: also where the document has changed since',
      params: z.object({ id: z.string() }),
      body: z.object({ recipe: Id, older: z.boolean().default(false) }),
      answer: PublishedSite,
    },
    async ({ params: p, body }) => {
      const { lastDone: run, run: newest, state, name } = await standing(p.id, body.recipe);
      if (!run) throw new FolioError('result.none', 'This output has no result yet.', 'Run it first.');
      checkPublishable(run.output);
      const remade = newest?.state === 'waiting' || newest?.state === 'running';
      if (!body.older && (remade || state !== 'fresh'))
        throw new FolioError(
          'publish.older',
          remade ? `“${name}” is being made anew; its present result is older.` : `The document has changed since “${name}” was made.`,
          'Publish it once it has been refreshed, or publish the older result.',
        );
      return publishResult(s, run);
    },
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/published/refreshed',
      says: 'Refresh an output and publish it as soon as it is there',
      params: z.object({ id: z.string() }),
      body: z.object({ recipe: Id, actor: z.string().max(100).default('') }),
      answer: Run,
    },
    async ({ params: p, body }) => {
      const { run: newest, output, upToDateSoon } = await standing(p.id, body.recipe);
      checkPublishable(output);
      const run = upToDateSoon && newest ? await s.runs.publishWhenDone(newest.id) : null;
      if (run) return run;
      const [asked] = await s.runner.ask([{ folio: p.id, recipe: body.recipe, output, by: body.actor, publish: true }]);
      return asked!;
    },
  );

  api.route(
    {
      method: 'post',
      path: '/published/:site/shown',
      says: 'Show another version of a site, or none',
      params: site,
      body: z.object({ version: z.number().int().min(1).nullable() }),
      answer: PublishedSite,
    },
    async ({ params: p, body }) => {
      // A phone would go on showing what was taken down.
      await s.phones.stop(p.site);
      return s.published.show(p.site, body.version);
    },
  );

  api.route(
    { method: 'delete', path: '/published/:site', says: 'Take a site off the host', params: site, answer: z.object({}) },
    async ({ params: p }) => {
      await s.phones.stop(p.site);
      await s.published.remove(p.site);
      return {};
    },
  );

  const phoneOf = (id: string): OnPhones => ({ phone: s.phones.address(id), closedForWrongCodes: s.phones.wasClosedForWrongCodes(id) });
  api.route(
    { method: 'get', path: '/published/:site/phone', says: 'Where phones find a site now', params: site, answer: OnPhones },
    ({ params: p }) => phoneOf(p.site),
  );
  api.route(
    {
      method: 'post',
      path: '/published/:site/phone',
      says: 'Let phones in the same network open a site for a while',
      params: site,
      answer: OnPhones,
    },
    async ({ params: p }) => {
      const found = await s.published.get(p.site);
      if (found.shown === null) throw new FolioError('site.down', 'This site was taken down.', 'Show one of its versions first.');
      await s.phones.start(p.site, s.published.versionFolder(p.site, found.shown));
      return phoneOf(p.site);
    },
  );
  api.route(
    { method: 'delete', path: '/published/:site/phone', says: 'Let phones in no longer', params: site, answer: z.object({}) },
    async ({ params: p }) => {
      await s.phones.stop(p.site);
      return {};
    },
  );

  const named = z.object({ id: z.string().max(100) });
  api.route(
    { method: 'get', path: '/collected', says: 'What editions have sent under a name, counted', query: named, answer: Measures },
    ({ query }) => s.collector.measures(query.id),
  );
  api.route(
    { method: 'delete', path: '/collected', says: 'Forget what was sent under a name', query: named, answer: z.object({}) },
    async ({ query }) => {
      await s.collector.clear(query.id);
      return {};
    },
  );
}
