import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { chmod, mkdir, mkdtemp, readdir, readFile, rm, stat, truncate, utimes, writeFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { diskFault, inPlainWords } from '../src/diskFaults.ts';
import { DataInUse, lockData } from '../src/dataLock.ts';

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
let data: string;
const children: ChildProcess[] = [];
beforeEach(async () => {
  data = await mkdtemp(join(tmpdir(), 'folio-start-'));
});
afterEach(async () => {
  for (const child of children.splice(0)) child.kill('SIGKILL');
  await rm(data, { recursive: true, force: true });
  await rm(`${data}.lock`, { recursive: true, force: true });
});

/** Starts the program; resolves when it says something of a kind, or ends. */
function start(env: NodeJS.ProcessEnv, until: RegExp): Promise<{ said: string; code: number | null; child: ChildProcess }> {
  const child = spawn(process.execPath, [join(root, 'dist', 'server.mjs')], {
    env: { ...process.env, DATABASE_URL: '', FOLIO_DATA: data, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  children.push(child);
  return new Promise((resolve) => {
    let said = '';
    const hear = (d: Buffer): void => {
      said += d.toString();
      if (until.test(said)) resolve({ said, code: null, child });
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('exit', (code) => resolve({ said, code, child }));
  });
}
const freePort = (): Promise<{ port: number; close: () => void }> =>
  new Promise((resolve) => {
    const s = createServer();
    s.listen(0, '127.0.0.1', () => resolve({ port: (s.address() as AddressInfo).port, close: () => s.close() }));
  });
const ended = (child: ChildProcess): Promise<unknown> => new Promise((resolve) => child.once('exit', resolve));

describe('starting', () => {
  test('a port that is taken is said before anything is begun', async () => {
    const taken = await freePort();
    const { said, code } = await start({ PORT: String(taken.port) }, /never/);
    taken.close();
    expect([code, said]).toEqual([1, expect.stringMatching(/^Port \d+ is taken by another program/)]);
    expect(await readdir(data)).toEqual([]);
  });

  test('the shelf answers while the samples come in; one that is killed meanwhile finishes them at the next start, each once', async () => {
    const { port, close } = await freePort();
    close();
    const origin = `http://127.0.0.1:${port}`;
    const env = { PORT: String(port) };
    const titles = async (): Promise<string[]> =>
      ((await (await fetch(`${origin}/api/folios`)).json()) as { title: string }[]).map((d) => d.title);
    const first = await start(env, /is open at/);
    expect(first.said).not.toContain('Everything is on the shelf');
    expect(((await (await fetch(`${origin}/api/coming`)).json()) as unknown[]).length).toBeGreaterThan(0);
    expect((await fetch(`${origin}/api/ready`)).status).toBe(503);
    while ((await titles()).length < 1) await new Promise((r) => setTimeout(r, 50));
    first.child.kill('SIGKILL');
    await ended(first.child);
    await start(env, /Everything is on the shelf/);
    expect((await titles()).sort()).toEqual(['Five Worlds', 'Handbook for Volunteer Observers', 'Open Dome Night', 'The Marrowby Almanac']);
    expect((await fetch(`${origin}/api/ready`)).status).toBe(200);
    expect(await readdir(join(data, 'incoming'))).toEqual([]);

    // What has been worked out is made again where it does not read: emptied, changed, cut off, or a folder in its place.
    const shelf = async (): Promise<{ id: string; openPoints: string[] | null; cover: string }[]> => {
      for (;;) {
        const answer = await fetch(`${origin}/api/folios`);
        expect(answer.status).toBe(200);
        const all = (await answer.json()) as { id: string; openPoints: string[] | null; cover: string }[];
        if (all.every((d) => d.openPoints)) return all;
        await new Promise((r) => setTimeout(r, 100));
      }
    };
    const before = await shelf();
    const derived = join(data, 'derived');
    const last = children.at(-1)!;
    last.kill('SIGKILL');
    await ended(last);
    const files = (await readdir(derived)).sort();
    expect(files.length).toBeGreaterThanOrEqual(4);
    for (const [i, name] of files.entries()) {
      const file = join(derived, name);
      const bytes = await readFile(file);
      if (i % 4 === 0) await truncate(file, 0);
      else if (i % 4 === 1)
        await writeFile(
          file,
          bytes.map((b, at) => (at === bytes.length - 5 ? b ^ 1 : b)),
        );
      else if (i % 4 === 2) await truncate(file, Math.floor(bytes.length / 2));
      else {
        await rm(file);
        await mkdir(file);
      }
    }
    await start(env, /Everything is on the shelf/);
    expect(await shelf()).toEqual(before);
    for (const { cover } of before) expect((await fetch(origin + cover)).status).toBe(200);
  }, 300_000);

  test('a data folder that cannot be written to is said in plain words', async () => {
    // The superuser may write anywhere: a file in the way of the folder says the same to everybody.
    expect(inPlainWords(Object.assign(new Error('EROFS: read-only file system, mkdir'), { code: 'EROFS' }))).toMatch(
      /cannot be written to.*set FOLIO_DATA/,
    );
    if (process.getuid?.() === 0) return;
    await chmod(data, 0o500);
    const { said, code } = await start({ PORT: '4987' }, /never/);
    expect([code, said]).toEqual([1, expect.stringContaining('cannot be written to')]);
  });
});

describe('the lock of a data folder', () => {
  test('turns away a second program, also with a lock from the future, and says what to do', async () => {
    const unlock = await lockData(data);
    await expect(lockData(data, { waits: false })).rejects.toThrow(/in use by another Elastic Folio/);
    await unlock();
    await mkdir(`${data}.lock`);
    const ahead = new Date(Date.now() + 3600_000);
    await utimes(`${data}.lock`, ahead, ahead);
    await expect(lockData(data)).rejects.toThrow(DataInUse);
    await expect(lockData(data)).rejects.toThrow(/bears a time in the future.*remove/);
  });

  test('says so when it is taken away, instead of ending the program with a stack', async () => {
    const lost = new Promise<string>((resolve) => void lockData(data, { onLost: resolve }));
    while (!(await stat(`${data}.lock`).catch(() => null))) await new Promise((r) => setTimeout(r, 20));
    await rm(`${data}.lock`, { recursive: true });
    expect(await lost).toMatch(/was taken away.*stops/);
  }, 30_000);
});

test('disks that take nothing more are told from other faults', () => {
  const fault = (code: string, message = ''): string | null => diskFault(Object.assign(new Error(message), { code }));
  expect(['ENOSPC', '53100', 'EROFS', 'EACCES', 'ENOENT', '23505'].map((c) => fault(c))).toEqual([
    'full',
    'full',
    'closed',
    'closed',
    null,
    null,
  ]);
  expect(diskFault(new Error('could not extend file "base/5/16384": No space left on device'))).toBe('full');
});
