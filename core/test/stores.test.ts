import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { mkdtemp, readdir, rm, utimes } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import sharp from 'sharp';
import { FileBlobs, FileDerived, sharpPictures } from '../src/ports/node.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'folio-stores-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

describe('blobs', () => {
  test('are named by their content, and found again', async () => {
    const blobs = new FileBlobs(join(folder, 'a'));
    const bytes = new TextEncoder().encode('hello');
    const { sha256, bytes: size } = await blobs.put(bytes);
    expect([sha256, size]).toEqual([createHash('sha256').update(bytes).digest('hex'), 5]);
    expect(await blobs.has(sha256)).toBe(true);
    expect(Buffer.from(await blobs.read(sha256)).toString()).toBe('hello');
    expect((await blobs.put(Readable.from([Buffer.from('hel'), Buffer.from('lo')]))).sha256).toBe(sha256);
  });
  test('a stream that breaks leaves nothing behind', async () => {
    const blobs = new FileBlobs(join(folder, 'b'));
    await expect(
      blobs.put(
        Readable.from(
          (async function* () {
            yield Buffer.from('half');
            throw new Error('broken');
          })(),
        ),
      ),
    ).rejects.toThrow('broken');
    expect(await readdir(join(folder, 'b', 'tmp'))).toEqual([]);
  });
  test('a name that is no hash cannot lead anywhere', () => expect(() => new FileBlobs(folder).path('../../etc/passwd')).toThrow());
});

describe('derived work', () => {
  test('is kept by key, and what was used longest ago goes first when there is too much', async () => {
    const derived = new FileDerived(join(folder, 'd'), 1000);
    await derived.put('old', new Uint8Array(400));
    await derived.put('used', new Uint8Array(400));
    for (const name of await readdir(join(folder, 'd'))) await utimes(join(folder, 'd', name), 1000, 1000);
    expect(await derived.get('used')).toHaveLength(400);
    await derived.put('new', new Uint8Array(400));
    expect([await derived.get('old'), (await derived.get('used'))?.length, (await derived.get('new'))?.length]).toEqual([
      undefined,
      400,
      400,
    ]);
    expect(await derived.get('never')).toBeUndefined();
  });
});

describe('pictures', () => {
  const solid = (r: number, alpha: number): Promise<Buffer> =>
    sharp({ create: { width: 40, height: 20, channels: 4, background: { r, g: 10, b: 10, alpha } } })
      .png()
      .toBuffer();
  test('opaque ones become JPEG, see-through ones stay PNG; none is made larger', async () => {
    expect(await sharpPictures.encode(await solid(200, 1), { maxWidth: 100, quality: 80 })).toMatchObject({
      mediaType: 'image/jpeg',
      width: 40,
      height: 20,
    });
    expect(await sharpPictures.encode(await solid(200, 0.5), { maxWidth: 10, quality: 80 })).toMatchObject({
      mediaType: 'image/png',
      width: 10,
      height: 5,
    });
  });
  test('signatures tell pictures apart and do not mind compression', async () => {
    const red = await solid(200, 1);
    const jpeg = (await sharpPictures.encode(red, { maxWidth: 40, quality: 40 })).bytes;
    const [a, b, c] = [
      await sharpPictures.signature(red, 4),
      await sharpPictures.signature(jpeg, 4),
      await sharpPictures.signature(await solid(90, 1), 4),
    ];
    const distance = (x: Uint8Array, y: Uint8Array): number => x.reduce((n, v, i) => n + Math.abs(v - y[i]!), 0) / x.length;
    expect(a).toHaveLength(48);
    expect(distance(a, b)).toBeLessThan(4);
    expect(distance(a, c)).toBeGreaterThan(20);
    const raw = await sharp(red).raw().toBuffer({ resolveWithObject: true });
    expect(distance(a, await sharpPictures.signatureOfPixels(raw.data, 40, 20, 4, 4))).toBeLessThan(1);
  });
  test('what is no picture says so', async () => {
    await expect(sharpPictures.info(new TextEncoder().encode('no'))).rejects.toThrow(/not a picture/);
  });
});
