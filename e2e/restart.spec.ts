import { expect, test } from '@playwright/test';
import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { rmSync } from 'node:fs';

const PORT = 4785;
const BASE = `http://127.0.0.1:${PORT}`;
const data = 'test-results/restart-data';
const headers = { origin: BASE, 'content-type': 'application/json' };

async function start(): Promise<{ server: ChildProcess; ms: number }> {
  const began = Date.now();
  const server = spawn(process.execPath, ['dist/server.mjs'], {
    env: { ...process.env, PORT: String(PORT), FOLIO_DATA: data },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve, reject) => {
    server.stdout!.on('data', (d: Buffer) => d.includes('is open at') && resolve());
    server.once('exit', () => reject(new Error('the server did not start')));
  });
  return { server, ms: Date.now() - began };
}
const gone = (server: ChildProcess): Promise<unknown> => new Promise((resolve) => server.once('exit', resolve));
const json = async <T>(path: string, init?: RequestInit): Promise<T> => (await (await fetch(BASE + path, init)).json()) as T;

test('a server killed in the middle of a run takes it up again; what was acknowledged is kept; two on one folder are told apart', async () => {
  test.setTimeout(120_000);
  rmSync(data, { recursive: true, force: true });
  const first = await start();
  const shelf = await json<{ id: string; title: string }[]>('/api/folios');
  const { id } = shelf.find((d) => d.title.includes('Almanac'))!;
  const edit = {
    base: 0,
    actor: 'test',
    burst: 'b',
    edits: [{ kind: 'recipe.set', args: { id: 'web', output: 'html', version: 1, name: 'Web', settings: {} } }],
  };
  await json(`/api/folios/${id}/edits`, { method: 'POST', headers, body: JSON.stringify(edit) });

  const second = spawn(process.execPath, ['dist/server.mjs'], {
    env: { ...process.env, PORT: '4787', FOLIO_DATA: data },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let said = '';
  second.stderr.on('data', (d: Buffer) => (said += d.toString()));
  await gone(second);
  expect(said).toMatch(/in use by another Elastic Folio/);

  const run = await json<{ id: string }>(`/api/folios/${id}/runs`, { method: 'POST', headers, body: '{"recipe":"web"}' });
  const state = async (): Promise<string> => (await json<{ id: string; state: string }[]>('/api/runs')).find((r) => r.id === run.id)!.state;
  await expect.poll(state, { intervals: [20] }).toBe('running');
  first.server.kill('SIGKILL');
  await gone(first.server);

  const again = await start();
  expect((await json<{ recipes: object }>(`/api/folios/${id}`)).recipes).toHaveProperty('web');
  await expect.poll(state, { timeout: 40_000 }).toBe('done');
  again.server.kill('SIGTERM');
  await gone(again.server);
  const third = await start();
  console.log(`second start of the server: ${third.ms} ms`);
  third.server.kill('SIGTERM');
  await gone(third.server);
  rmSync(data, { recursive: true, force: true });
});
