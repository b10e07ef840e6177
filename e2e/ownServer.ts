import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { existsSync } from 'node:fs';
import { preparedShelf } from '../scripts/preparedShelf.mjs';

/** Resolves when a program of ours has printed `says`; rejects where it ends before. */
export function started(program: string, env: NodeJS.ProcessEnv, says: string): Promise<ChildProcess> {
  const child = spawn(process.execPath, [program], { env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'inherit'] });
  return new Promise((resolve, reject) => {
    child.stdout.on('data', (d: Buffer) => d.includes(says) && resolve(child));
    child.once('exit', () => reject(new Error(`${program} did not start`)));
  });
}

/** A server of a test's own, apart from the one that others share; a new data folder of the embedded database has the samples. */
export async function startServer(port: number, data: string, env: NodeJS.ProcessEnv = {}): Promise<ChildProcess> {
  if (!existsSync(data) && !env['DATABASE_URL']) await preparedShelf(data);
  return started('dist/server.mjs', { PORT: String(port), FOLIO_DATA: data, ...env }, 'Everything is on the shelf');
}

export const gone = (child: ChildProcess): Promise<unknown> => new Promise((resolve) => child.once('exit', resolve));

/** A client of such a server's API; it throws where something is refused. */
export function clientOf(port: number) {
  const base = `http://127.0.0.1:${port}`;
  const headers = { origin: base, 'content-type': 'application/json' };
  const answer = async <T>(path: string, init?: RequestInit): Promise<T> => {
    const given = await fetch(base + path, init);
    if (!given.ok) throw new Error(`${path} is answered ${given.status}: ${await given.text()}`);
    return (await given.json()) as T;
  };
  return {
    get: <T>(path: string): Promise<T> => answer<T>(path),
    post: <T>(path: string, body: unknown): Promise<T> => answer<T>(path, { method: 'POST', headers, body: JSON.stringify(body) }),
  };
}

/** The edit that adds an output named `id` to a document nobody has changed yet. */
export const addOutput = (id: string, output: string, settings: object = {}) => ({
  base: 0,
  actor: 'test',
  edits: [{ uid: crypto.randomUUID(), burst: 'b', edit: { kind: 'recipe.set', args: { id, output, version: 1, name: id, settings } } }],
});
