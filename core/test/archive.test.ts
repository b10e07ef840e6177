import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as after } from 'node:timers/promises';
import { strToU8, zipSync } from 'fflate';
import { collect, openArchive } from '../src/packages/archive.ts';
import type { ArchiveEntry } from '../src/packages/archive.ts';
import { DEFAULT_LIMITS } from '../src/packages/limits.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'folio-archive-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** An archive of one part, of which the directory says that it is a byte longer than it is (APPNOTE 4.3.12: the field at 24). */
function longerThanItIs(): Uint8Array {
  const bytes = Buffer.from(zipSync({ 'part.txt': strToU8('some words '.repeat(20)) }));
  const entry = bytes.indexOf('PK\x01\x02', 0, 'latin1');
  bytes.writeUInt32LE(bytes.readUInt32LE(entry + 24) + 1, entry + 24);
  return bytes;
}

describe('parts of archives', () => {
  test('that are found damaged before they are read say so to whoever reads them, and to nobody else', async () => {
    const file = join(folder, 'damaged.zip');
    await writeFile(file, longerThanItIs());
    const archive = await openArchive(file, DEFAULT_LIMITS);
    const { value: part } = (await archive.entries.next()) as { value: ArchiveEntry };
    const stream = await part.open();
    stream.resume();
    // An error of a stream without a listener would end the program here.
    await after(50);
    await expect(collect(stream, 1000, 'part.txt')).rejects.toMatchObject({ code: 'archive.damaged' });
    archive.close();
  });
});
