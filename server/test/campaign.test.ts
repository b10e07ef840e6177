import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { existsSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { campaign } from '../../campaign/campaign.ts';
import { extremes, extremesOf } from '../../campaign/extremes.ts';
import { inputs } from '../../campaign/inputs.ts';
import { attacked, listenersOf } from '../../campaign/listeners.ts';
import { mutated } from '../../campaign/mutators.ts';
import { Random } from '../../campaign/random.ts';
import { RunningServer } from './support/runningServer.ts';

describe('a short campaign of broken and hostile files', () => {
  let server: RunningServer;
  let folder: string;
  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'folio-campaign-'));
    server = await RunningServer.start();
  }, 120_000);
  afterAll(async () => {
    await server.stop();
    await rm(folder, { recursive: true, force: true });
  });

  test('ends with every answer in plain words and the shelf as it was', async () => {
    const shelf = (await server.get('/api/folios')).json<{ id: string; title: string }[]>();
    const document = shelf.find((d) => d.title === 'Open Dome Night')!.id;
    const all = await inputs(folder, true);
    const report = await campaign({ port: server.port, document }, all, {
      seed: 24,
      going: (round) => round <= all.length * 5,
      keep: folder,
    });
    expect(report.faults).toEqual([]);
    const { refused, taken } = Object.values(report.kinds).reduce((a, b) => ({ refused: a.refused + b.refused, taken: a.taken + b.taken }));
    expect(refused).toBeGreaterThan(taken / 4);
  }, 240_000);

  test('what is made to do harm does none: paths and links out of archives, drawings that read files, many at once', async () => {
    const shelf = (await server.get('/api/folios')).json<{ id: string; title: string }[]>();
    const document = shelf.find((d) => d.title === 'Open Dome Night')!.id;
    const all = extremesOf(false).filter(({ kind }) => !/30,000/.test(kind));
    const reports = await extremes({ port: server.port, document }, all, folder);
    expect(reports.filter((r) => r.faults.length).map(({ kind, faults }) => ({ kind, faults }))).toEqual([]);
    expect(existsSync('/tmp/folio-escape')).toBe(false);
    expect(reports.filter((r) => r.refused).length).toBeGreaterThan(8);
  }, 240_000);

  test('whoever is not welcome at one of its ends has nothing of it, and keeps nobody out', async () => {
    const shelf = (await server.get('/api/folios')).json<{ id: string; title: string }[]>();
    const document = shelf.find((d) => d.title === 'Open Dome Night')!.id;
    const reports = [];
    for (const listener of await listenersOf({ port: server.port, document })) reports.push(await attacked(listener, new Random(24)));
    expect(reports.flatMap((r) => r.faults)).toEqual([]);
    for (const { asked, answers } of reports) expect(answers['4xx']! / asked).toBeGreaterThan(0.4);
  }, 240_000);

  test('makes the same files again from the same seed', () => {
    const bytes = new TextEncoder().encode('<a b="12">words</a>'.repeat(50));
    expect(mutated(bytes, new Random(7))).toEqual(mutated(bytes, new Random(7)));
    expect(mutated(bytes, new Random(7))).not.toEqual(mutated(bytes, new Random(8)));
    const file = Buffer.from(bytes);
    for (let seed = 0; seed < 200; seed++) mutated(file, new Random(seed));
    expect(file.equals(bytes)).toBe(true);
  });
});
