import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { newEdition } from '../src/language/index.ts';
import { createWriteStream } from 'node:fs';
import { mkdtemp, readFile, rm, truncate, writeFile, copyFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import yazl from 'yazl';
import type { Folio } from '../src/index.ts';
import { FileBlobs, sharpPictures } from '../src/ports/node.ts';
import { DEFAULT_LIMITS, readFolio } from '../src/read/index.ts';
import type { ArchiveLimits } from '../src/read/index.ts';
import { packFolio } from '../src/write/index.ts';
import { hugePng } from './support/hugePng.ts';
import { listFolder, sample } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'folio-package-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

let n = 0;
const path = (): string => join(folder, `doc-${++n}.efolio`);
const open = (file: string, limits: Partial<ArchiveLimits> = {}, blobs = new FileBlobs(join(folder, `blobs-${++n}`))) =>
  readFolio(file, { file, blobs, pictures: sharpPictures, limits: { ...DEFAULT_LIMITS, ...limits } });

type Entries = Record<string, string | Buffer>;
async function zip(entries: Entries, mimetype = 'application/vnd.elastic-folio+zip'): Promise<string> {
  const file = path();
  const z = new yazl.ZipFile();
  z.addBuffer(Buffer.from(mimetype), 'mimetype', { compress: false });
  for (const [name, body] of Object.entries(entries)) z.addBuffer(Buffer.from(body), name);
  z.end();
  await pipeline(Readable.from(z.outputStream as AsyncIterable<Buffer>), createWriteStream(file));
  return file;
}
const parts = (folio: Folio): Entries => ({
  'folio.json': JSON.stringify(folio.head),
  'spreads/s.json': JSON.stringify(folio.spreads['s']),
  'stories/t.json': JSON.stringify(folio.stories['t']),
});
const withMedia = (bytes: Buffer, mediaType = 'image/png'): Entries => {
  const folio = tinyFolio(['x']);
  const media = {
    id: 'm',
    name: 'Star',
    file: 'media/m.png',
    mediaType,
    sha256: createHash('sha256').update(bytes).digest('hex'),
    bytes: bytes.length,
  };
  return { ...parts({ ...folio, head: { ...folio.head, media: { m: media } } }), 'media/m.png': bytes };
};

describe('packages', () => {
  test.each(['marrowby-almanac', 'open-dome-night'] as const)(
    '%s goes out and comes in as the same document, and as the same bytes again',
    async (id) => {
      const s = await sample(id);
      const first = path();
      await pipeline(packFolio(s.folio, s.files, s.blobs), createWriteStream(first));
      const blobs = new FileBlobs(join(folder, `blobs-${id}`));
      const read = await open(first, {}, blobs);
      expect(read.folio).toEqual(s.folio);
      expect([...read.files].sort()).toEqual([...s.files].sort());
      const second = path();
      await pipeline(packFolio(read.folio, read.files, blobs), createWriteStream(second));
      expect((await readFile(second)).equals(await readFile(first))).toBe(true);
    },
  );

  test('recipes and editions travel too', async () => {
    const folio: Folio = {
      ...tinyFolio(['x']),
      recipes: { r: { id: 'r', output: 'pdf', version: 1, name: 'For print', settings: { pages: '1' } } },
      editions: { de: newEdition('de') },
    };
    const file = path();
    await pipeline(packFolio(folio, new Map(), { stream: () => Readable.from([]) }), createWriteStream(file));
    expect((await open(file)).folio).toEqual(folio);
  });
});

describe('what cannot be brought in says why, in a sentence', () => {
  const cases: [string, () => Promise<string>, RegExp, Partial<ArchiveLimits>?][] = [
    [
      'no archive at all',
      async () => {
        const f = path();
        await writeFile(f, 'hello');
        return f;
      },
      /not a package that can be opened/,
    ],
    [
      'an empty file',
      async () => {
        const f = path();
        await writeFile(f, '');
        return f;
      },
      /not a package that can be opened/,
    ],
    [
      'a truncated archive',
      async () => {
        const f = await zip(withMedia(Buffer.alloc(4000, 7)));
        await truncate(f, 1500);
        return f;
      },
      /only its beginning is there/,
    ],
    ['another kind of archive', () => zip({ 'a.txt': 'x' }, 'application/epub+zip'), /not a document package/],
    ['a folio.json that is no JSON', () => zip({ 'folio.json': '{' }), /folio\.json is not valid JSON/],
    [
      'a folio.json that breaks the schema',
      () => zip({ 'folio.json': JSON.stringify({ formatVersion: 1, id: 'x' }) }),
      /folio\.json: “metadata” is missing/,
    ],
    ['a newer format', () => zip({ 'folio.json': JSON.stringify({ formatVersion: 99 }) }), /format 99/],
    [
      'a spread that is named but missing',
      () => {
        const p = parts(tinyFolio(['x']));
        delete p['spreads/s.json'];
        return zip(p);
      },
      /spread "s" is missing/,
    ],
    [
      'a chain of frames that comes back',
      () => {
        const f = tinyFolio(['x']);
        f.stories['t']!.frames.push(f.stories['t']!.frames[0]!);
        return zip(parts(f));
      },
      /comes back to frame/,
    ],
    [
      'a part under another’s name',
      () => zip({ ...parts(tinyFolio(['x'])), 'stories/u.json': JSON.stringify(tinyFolio(['x']).stories['t']) }),
      /holds a part called "t"/,
    ],
    [
      'a missing picture',
      () => {
        const p = withMedia(Buffer.from('x'));
        delete p['media/m.png'];
        return zip(p);
      },
      /media\/m\.png is named in the document but missing/,
    ],
    ['a picture with absurd dimensions', () => zip(withMedia(hugePng())), /60000 × 60000 pixels/],
    [
      'a picture changed after packing',
      () => {
        const p = withMedia(Buffer.from('a'));
        p['media/m.png'] = 'b';
        return zip(p);
      },
      /not the file it was/,
    ],
    ['too many parts', () => zip({ ...parts(tinyFolio(['x'])), a: '', b: '', c: '' }), /holds 7 parts; at most 5/, { entries: 5 }],
    [
      'more than the limit when expanded',
      () => zip({ ...parts(tinyFolio(['x'])), 'media/a': Buffer.alloc(3 * 2 ** 20, 'ab') }),
      /expands to more than 1 MiB/,
      { expandedBytes: 2 ** 20, ratio: 1e9 },
    ],
    [
      'an archive bomb',
      () => zip({ ...parts(tinyFolio(['x'])), 'media/a': Buffer.alloc(8 * 2 ** 20) }),
      /more than 200 times its packed size/,
    ],
    ['a part that is too large', () => zip({ 'folio.json': JSON.stringify({ a: 'x'.repeat(5000) }) }), /larger than/, { partBytes: 1000 }],
    ['an entry named ../x', () => evil('../x.json'), /would lie outside it/],
    ['an entry named /etc/x', () => evil('/etc/x.js'), /would lie outside it/],
    ['a file protected by a password', encrypted, /protected by a password/],
    [
      'a name of no known kind',
      async () => {
        const f = join(folder, 'a.txt');
        await writeFile(f, 'x');
        return f;
      },
      /no kind that can be brought in/,
    ],
  ];
  test.each(cases.map(([what, make, says, limits = {}]) => ({ what, make, says, limits })))('$what', async ({ make, says, limits }) => {
    const file = await make();
    const blobs = new FileBlobs(join(folder, `staging-${++n}`));
    const error = await open(file, limits, blobs).then(
      () => null,
      (e: Error & { advice?: string }) => e,
    );
    expect(error?.message).toMatch(says);
    expect(error?.message.split('\n')).toHaveLength(1);
    expect(error?.advice).toBeTruthy();
    expect(await listFolder(join(blobs.folder, 'tmp'))).toEqual([]);
  });
});

/** An archive with an entry whose name was changed to one of the same length after packing. */
async function evil(name: string): Promise<string> {
  const plain = 'x'.repeat(name.length);
  const file = await zip({ ...parts(tinyFolio(['x'])), [plain]: 'x' });
  const bytes = await readFile(file);
  for (let at = bytes.indexOf(plain); at >= 0; at = bytes.indexOf(plain, at + 1)) bytes.write(name, at);
  await writeFile(file, bytes);
  return file;
}

/** An archive with the encryption bit set (APPNOTE 4.4.4, bit 0). */
async function encrypted(): Promise<string> {
  const source = await zip(parts(tinyFolio(['x'])));
  const file = path();
  await copyFile(source, file);
  const bytes = await readFile(file);
  for (let at = 0; at < bytes.length - 4; at++) {
    if (bytes.readUInt32LE(at) === 0x04034b50 && bytes[at + 8]) bytes[at + 6]! |= 1;
    if (bytes.readUInt32LE(at) === 0x02014b50 && bytes[at + 10]) bytes[at + 8]! |= 1;
  }
  await writeFile(file, bytes);
  return file;
}
