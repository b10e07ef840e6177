import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import sharp from 'sharp';
import { FileBlobs, FolioError, sharpPictures } from '../../src/ports/node.ts';
import type { ArchiveEntry } from '../../src/packages/archive.ts';
import { PackageFiles } from '../../src/read/odf/packageFiles.ts';
import { sketchOf } from '../../src/intake/pageSketch.ts';
import { DEFAULT_LIMITS } from '../../src/read/index.ts';
import { readBytes, flat } from './support/flatFile.ts';

let folder: string;
beforeEach(async () => void (folder = await mkdtemp(join(tmpdir(), 'folio-files-'))));
// Files are still being stored when a test has seen enough: what comes in while the folder is emptied is taken away as well.
afterEach(() => rm(folder, { recursive: true, force: true, maxRetries: 5, retryDelay: 50 }));

/** A package of entries that count how often each is opened. */
function packageOf(contents: Record<string, Buffer | Error>) {
  const opened: Record<string, number> = {};
  let closed = 0;
  const entries = new Map<string, ArchiveEntry>(
    Object.entries(contents).map(([path, body]) => [
      path,
      {
        path,
        size: body instanceof Error ? 10 : body.length,
        open: async () => {
          opened[path] = (opened[path] ?? 0) + 1;
          if (body instanceof Error) throw body;
          return Readable.from([body]);
        },
      },
    ]),
  );
  const job = { file: '', blobs: new FileBlobs(join(folder, 'blobs')), pictures: sharpPictures, limits: DEFAULT_LIMITS };
  return { files: new PackageFiles(job, entries, () => closed++), opened, isClosed: () => closed };
}
const png = (): Promise<Buffer> =>
  sharp({ create: { width: 3, height: 2, channels: 3, background: '#345' } })
    .png()
    .toBuffer();

describe('files of a package, stored while its pages are read', () => {
  test('pictures are stored from the start, once each, with what they are; others when they are asked for', async () => {
    const { files, opened, isClosed } = packageOf({
      'Pictures/a.png': await png(),
      'Fonts/f.ttf': Buffer.from('font'),
      'Thumbnails/t.png': await png(),
      'layout-cache': Buffer.from('x'),
    });
    const [a, again] = await Promise.all([files.get('Pictures/a.png'), files.get('Pictures/a.png')]);
    expect(a).toEqual(again);
    expect(a!.look).toMatchObject({ info: { width: 3, height: 2, format: 'png', colours: 'rgb' } });
    await files.settle();
    expect(opened).toEqual({ 'Pictures/a.png': 1 });
    expect(await files.get('Fonts/f.ttf')).toMatchObject({ bytes: 4 });
    expect([await files.get('gone'), opened['Thumbnails/t.png'], isClosed()]).toEqual([null, undefined, 0]);
    await files.close();
    expect(isClosed()).toBe(1);
  });

  test('many pictures are stored all the same, a few at a time', async () => {
    const picture = await png();
    const { files } = packageOf(
      Object.fromEntries(Array.from({ length: 40 }, (_, i) => [`Pictures/${i}.png`, Buffer.concat([picture, Buffer.from([i])])])),
    );
    await files.settle();
    const stored = await Promise.all(Array.from({ length: 40 }, (_, i) => files.get(`Pictures/${i}.png`)));
    expect(new Set(stored.map((s) => s!.sha256)).size).toBe(40);
  });

  test('what goes wrong with one of them is told at the end, and nothing is still being written', async () => {
    const bad = new FolioError('archive.damaged', 'It is damaged.', 'Copy it again.');
    const { files } = packageOf({ 'Pictures/a.png': bad, 'Pictures/b.png': await png() });
    await expect(files.settle()).rejects.toThrow('It is damaged.');
    await files.close();
    expect(await readdir(join(folder, 'blobs', 'tmp')).catch(() => [])).toEqual([]);
  });

  test('something that is no picture, under a picture’s name, is stored and told when it is used', async () => {
    const { files } = packageOf({ 'Pictures/a.png': Buffer.from('no picture') });
    expect((await files.get('Pictures/a.png'))!.look).toMatchObject({ error: expect.any(FolioError) });
  });
});

describe('pages as they appear while a file is read', () => {
  const BOX = 'svg:x="1cm" svg:y="2cm" svg:width="4cm" svg:height="3cm"';
  const FILLED =
    '<style:style style:name="g" style:family="graphic"><style:graphic-properties draw:fill="solid" draw:fill-color="#336699"/></style:style>';
  const page = (inside: string): string => `<draw:page draw:name="P" draw:master-page-name="M">${inside}</draw:page>`;

  test('a sketch says where texts and shapes stand, and their colours', async () => {
    const text = `<draw:frame ${BOX}><draw:text-box><text:p>x</text:p></draw:text-box></draw:frame>`;
    const { folio, done } = await readBytes(
      't.fodg',
      flat({ automatic: FILLED, pages: page(`<draw:rect draw:style-name="g" ${BOX}/>${text}`) }),
    );
    await done();
    const sketch = sketchOf(Object.values(folio.spreads)[0]!, 1, {});
    expect(sketch).toMatchObject({ number: 1, width: 566.9, height: 283.5 });
    expect(sketch.boxes.map((b) => [b.kind, b.fill])).toEqual([
      ['shape', '#336699'],
      ['text', undefined],
    ]);
    expect(sketch.boxes[0]).toMatchObject({ x: 28.3, y: 56.7, width: 113.4, height: 85 });
  });

  test('a page of ten thousand shapes is sketched by some of them', async () => {
    const { folio, done } = await readBytes('t.fodg', flat({ pages: page(`<draw:rect ${BOX}/>`.repeat(500)) }));
    await done();
    expect(sketchOf(Object.values(folio.spreads)[0]!, 1, {}).boxes.length).toBeLessThanOrEqual(60);
  });
});
