import { expect, test } from '@playwright/test';
import { rmSync } from 'node:fs';
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
  for (const child of [worker, server]) {
    child.kill('SIGTERM');
    await gone(child);
  }
  rmSync(data, { recursive: true, force: true });
});
