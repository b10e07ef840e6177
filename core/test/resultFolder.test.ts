import { mkdtemp, mkdir, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { convert, readSettings, writerById } from '../src/write/index.ts';
import type { OutputFile, Writer } from '../src/write/index.ts';
import { asSample, fontsOf, portsFor } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let home: string;
beforeEach(async () => {
  home = await mkdtemp(join(tmpdir(), 'folio-result-'));
  await mkdir(join(home, 'out'));
  await writeFile(join(home, 'out', 'of-a-former-run.txt'), 'kept');
});
afterEach(() => rm(home, { recursive: true, force: true }));

const html = writerById('html')!;
async function run(writer: Writer = html, signal = new AbortController().signal): Promise<unknown> {
  const folio = tinyFolio(['x']);
  const settings = readSettings(html, { version: html.version, name: '', settings: {} });
  return convert(folio, writer, settings, join(home, 'out'), portsFor(asSample(folio), await fontsOf(folio), { signal }));
}

test('a new result takes the place of the former one as a whole', async () => {
  await run();
  expect(await readdir(home)).toEqual(['out']);
  expect((await readdir(join(home, 'out'))).sort()).toEqual(['fonts', 'index.html', 'player.js', 'style.css']);
});

/** The web edition, of which the second file comes half and then ends so. */
const breaksBy = (error: () => Error): Writer => ({
  ...html,
  async *write(job) {
    let n = 0;
    for await (const file of html.write(job)) {
      const broken: OutputFile['body'] = (async function* () {
        yield new Uint8Array([1, 2, 3]);
        throw error();
      })();
      yield ++n === 2 ? { ...file, body: broken } : file;
    }
  },
});

test('a disk that is full in the middle is said so in words; the former result stays, and nothing half-done', async () => {
  const full = breaksBy(() => Object.assign(new Error('write'), { code: 'ENOSPC' }));
  await expect(run(full)).rejects.toMatchObject({ code: 'disk.full', message: expect.stringMatching(/The last result is still there/) });
  expect(await readdir(home)).toEqual(['out']);
  expect(await readFile(join(home, 'out', 'of-a-former-run.txt'), 'utf8')).toBe('kept');
});

test('a run can be cancelled until the last moment; the former result stays', async () => {
  const controller = new AbortController();
  const late: Writer = {
    ...html,
    async *readBack(files, job) {
      yield* html.readBack(files, job);
      controller.abort();
    },
  };
  await expect(run(late, controller.signal)).rejects.toThrow();
  expect(await readdir(home)).toEqual(['out']);
  expect(await readdir(join(home, 'out'))).toEqual(['of-a-former-run.txt']);
});
