import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { kills } from '../../campaign/kills.ts';
import { Random } from '../../campaign/random.ts';
import { postgres } from '../../scripts/postgres.mjs';
import { testServer } from './support/databases.ts';

// `npm run campaign -- --kills N` does the same as often as is asked for.
const PORT = 4834;
let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'folio-kills-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

test('killed while people write and outputs are made, it loses nothing that was confirmed, and makes nothing twice', async () => {
  const report = await kills({ port: PORT, data: join(folder, 'embedded') }, 2, new Random(24));
  expect(report.faults).toEqual([]);
  expect([report.kills.server, report.edits > 50, report.runs > 1]).toEqual([2, true, true]);
}, 300_000);

const onServer = testServer() === null ? test.skip : test;
onServer(
  'nor does it on a PostgreSQL server that is killed as well',
  async () => {
    const server = (await postgres())!;
    try {
      const databaseUrl = server.database('killed').TEST_DATABASE_URL;
      const killDatabase = (): Promise<void> => server.restart(200, 'immediate');
      const report = await kills({ port: PORT, data: join(folder, 'postgres'), databaseUrl, killDatabase }, 2, new Random(24));
      expect(report.faults).toEqual([]);
      expect([report.kills.server > 0, report.kills.database > 0, report.edits > 50]).toEqual([true, true, true]);
    } finally {
      server.stop();
    }
  },
  300_000,
);
