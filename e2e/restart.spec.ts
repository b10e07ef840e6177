import { expect, test } from '@playwright/test';
import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { addOutput, clientOf, gone, startServer } from './ownServer.ts';

const PORT = 4785;
const data = 'test-results/restart-data';

test('a server killed in the middle of a run takes it up again; what was acknowledged is kept; two on one folder are told apart', async () => {
  test.setTimeout(120_000);
  rmSync(data, { recursive: true, force: true });
  const first = await startServer(PORT, data);
  const { get, post } = clientOf(PORT);
  const { id } = (await get<{ id: string; title: string }[]>('/api/folios')).find((d) => d.title.includes('Almanac'))!;
  await post(`/api/folios/${id}/edits`, addOutput('web', 'html'));

  const second = spawn(process.execPath, ['dist/server.mjs'], {
    env: { ...process.env, PORT: '4770', FOLIO_DATA: data },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let said = '';
  second.stderr.on('data', (d: Buffer) => (said += d.toString()));
  await gone(second);
  expect(said).toMatch(/in use by another Elastic Folio/);

  const run = await post<{ id: string }>(`/api/folios/${id}/runs`, { recipe: 'web' });
  const state = async (): Promise<string> => (await get<{ id: string; state: string }[]>('/api/runs')).find((r) => r.id === run.id)!.state;
  await expect.poll(state, { intervals: [20] }).toBe('running');
  first.kill('SIGKILL');
  await gone(first);

  const again = await startServer(PORT, data);
  expect((await get<{ recipes: object }>(`/api/folios/${id}`)).recipes).toHaveProperty('web');
  await expect.poll(state, { timeout: 40_000 }).toBe('done');
  again.kill('SIGTERM');
  await gone(again);
  const began = Date.now();
  const third = await startServer(PORT, data);
  console.log(`second start of the server: ${Date.now() - began} ms`);
  third.kill('SIGTERM');
  await gone(third);
  rmSync(data, { recursive: true, force: true });
});
