import { z } from 'zod';
import { FolioError } from '@elastic-folio/core/node';
import { Measures, PhoneAddress, PublishedSite } from '@elastic-folio/core/api';
import { writerById } from '@elastic-folio/core/write';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';

const site = z.object({ site: z.string() });

/** Results given to readers: the simulated web host, phones in the same network, and what readers have sent back. */
export function handoverRoutes(api: Api, s: Services): void {
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
      says: 'Publish the newest result of an output on the simulated web host',
      params: z.object({ id: z.string() }),
      body: z.object({ recipe: z.string() }),
      answer: PublishedSite,
    },
    async ({ params: p, body }) => {
      const run = (await s.runs.list(p.id)).find((r) => r.recipe === body.recipe && r.state === 'done');
      if (!run) throw new FolioError('result.none', 'This output has no result yet.', 'Run it first.');
      const writer = writerById(run.output);
      if (writer?.entry !== 'index.html')
        throw new FolioError('publish.kind', 'Only web editions can be opened from a web host.', 'Choose a web edition.');
      const { folio } = await s.documents.get(p.id);
      const recipe = folio.recipes[run.recipe];
      return s.published.publish(run, folio.head.metadata.title, writer.secure?.(writer.settings.parse(recipe?.settings ?? {})) ?? []);
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

  const onPhone = z.object({ phone: PhoneAddress.nullable() });
  api.route(
    { method: 'get', path: '/published/:site/phone', says: 'Where phones find a site now', params: site, answer: onPhone },
    ({ params: p }) => ({ phone: s.phones.address(p.site) }),
  );
  api.route(
    {
      method: 'post',
      path: '/published/:site/phone',
      says: 'Let phones in the same network open a site for a while',
      params: site,
      answer: onPhone,
    },
    async ({ params: p }) => {
      const found = await s.published.get(p.site);
      if (found.shown === null) throw new FolioError('site.down', 'This site was taken down.', 'Show one of its versions first.');
      return { phone: await s.phones.start(p.site, s.published.versionFolder(p.site, found.shown)) };
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
