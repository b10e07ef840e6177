import { expect, test } from '@playwright/test';
import { rmSync } from 'node:fs';
import type { Measures, PublishedSite } from '@elastic-folio/core/api';
import { addOutput, clientOf, gone, started, startServer } from './ownServer.ts';

const url = process.env['TEST_DATABASE_URL'];
const data = 'test-results/postgres-data';

test('on a PostgreSQL server: samples, an edit and both outputs, with a second process taking runs', async () => {
  test.skip(!url, 'there is no PostgreSQL server here');
  rmSync(data, { recursive: true, force: true });
  const env = { DATABASE_URL: url };
  const server = await startServer(4791, data, env);
  const worker = await started('dist/worker-process.mjs', { FOLIO_DATA: data, ...env }, 'Waiting for runs');
  const { get, post } = clientOf(4791);
  const { id } = (await get<{ id: string; title: string }[]>('/api/folios')).find((d) => d.title === 'Open Dome Night')!;
  const web = addOutput('web', 'html');
  await post(`/api/folios/${id}/edits`, { ...web, edits: [...web.edits, ...addOutput('print', 'pdf').edits] });
  const runs = await Promise.all(['web', 'print'].map((recipe) => post<{ id: string }>(`/api/folios/${id}/runs`, { recipe })));
  const states = async (): Promise<string[]> => {
    const all = await get<{ id: string; state: string }[]>('/api/runs');
    return runs.map((r) => all.find((a) => a.id === r.id)!.state);
  };
  await expect.poll(states, { timeout: 40_000 }).toEqual(['done', 'done']);
  // What is handed over lies in the same database.
  const site = await post<PublishedSite>(`/api/folios/${id}/published`, { recipe: 'web' });
  expect([site.shown, site.versions.length, site.versions[0]!.bytes > 1000]).toEqual([1, 1, true]);
  const sent = { id: 'pg', visit: 'abcdef', title: '', language: 'en', events: [{ kind: 'page', at: 1, page: 2 }] };
  const answer = await fetch('http://127.0.0.1:4792/collect', {
    method: 'POST',
    headers: { origin: `http://${site.name}.pages.localhost:4792` },
    body: JSON.stringify(sent),
  });
  expect(answer.status).toBe(204);
  expect(await get<Measures>('/api/collected?id=pg')).toMatchObject({ visits: 1, pages: [{ page: 2, shown: 1, visits: 1 }] });
  for (const child of [worker, server]) {
    child.kill('SIGTERM');
    await gone(child);
  }
  rmSync(data, { recursive: true, force: true });
});
