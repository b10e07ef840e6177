import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, rm, truncate, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { FileBlobs, sharpPictures } from '../src/ports/node.ts';
import { takeFile } from '../src/read/index.ts';
import { lookIntoPlayed } from '../src/read/media/lookIntoPlayed.ts';
import { beginsAs } from '../src/read/media/played.ts';
import { hugePng } from './support/hugePng.ts';
import { bytesOf, sample } from './support/samples.ts';
import { tone, waveOf } from './support/wave.ts';
import { zipped } from './support/zipped.ts';

const packed = (files: Record<string, string>): Uint8Array =>
  zipped(new Map(Object.entries(files).map(([path, text]) => [path, new TextEncoder().encode(text)])));

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'folio-test-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

async function take(name: string, content: Uint8Array | string, size?: number) {
  const file = join(folder, 'upload');
  await writeFile(file, content);
  if (size !== undefined) await truncate(file, size);
  return takeFile({ file, name, id: 'f1', blobs: new FileBlobs(join(folder, 'blobs')), pictures: sharpPictures });
}

describe('how films and sounds begin (WHATWG MIME Sniffing, 6.2)', () => {
  const bytes = (...values: (number | string)[]): Uint8Array =>
    new Uint8Array(values.flatMap((v) => (typeof v === 'string' ? [...v].map((c) => c.charCodeAt(0)) : [v])));
  test.each([
    ['video/mp4', bytes(0, 0, 0, 0x18, 'ftypmp42')],
    ['video/webm', bytes(0x1a, 0x45, 0xdf, 0xa3)],
    ['audio/ogg', bytes('OggS', 0)],
    ['audio/wav', bytes('RIFF', 1, 2, 3, 4, 'WAVE')],
    ['audio/mpeg', bytes('ID3', 3, 0)],
    ['audio/mpeg', bytes(0xff, 0xfb, 0x90)],
  ])('%s', (mediaType, head) => {
    expect(beginsAs(mediaType, head)).toBe(true);
    expect(beginsAs(mediaType, bytes('<!doctype html>'))).toBe(false);
  });
});

describe('files that a document is given', () => {
  test('a picture, with what it is; its name may end as it likes', async () => {
    const png = await sharp({ create: { width: 7, height: 5, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    expect(await take('photo', png)).toMatchObject({ mediaType: 'image/png', file: 'media/f1.png', width: 7, height: 5, colours: 'rgb' });
  });

  test('not a picture whose end is missing', async () => {
    const whole = await sharp({
      create: { width: 200, height: 200, channels: 3, background: '#369', noise: { type: 'gaussian', mean: 90, sigma: 40 } },
    })
      .jpeg()
      .toBuffer();
    await expect(take('photo.jpg', whole.subarray(0, whole.length >> 1))).rejects.toThrow('“photo.jpg” is damaged');
  });

  test('not a picture of more pixels than can be worked with, whose head alone is read', async () => {
    await expect(take('wall.png', hugePng())).rejects.toMatchObject({
      code: 'media.tooLarge',
      message: '“wall.png” cannot be taken: it has 60000 × 60000 pixels, more than can be worked with.',
      advice: 'Scale it down and place it again.',
    });
  });

  test('a sound, with how long it lasts: samples over samples a second (RIFF WAVE, by hand)', async () => {
    const wav = waveOf(tone(440, 1.5, 8000), 8000);
    expect(await take('bell.wav', wav)).toMatchObject({ mediaType: 'audio/wav', seconds: 1.5, codec: 'pcm-s16' });
    expect((await take('bell.wav', wav.subarray(0, 20))).seconds).toBeUndefined();
  });

  test('the samples’ film and bell last as long as their maker says', async () => {
    const almanac = await sample('marrowby-almanac');
    for (const id of ['turning', 'bell']) {
      const said = almanac.folio.head.media[id]!.seconds!;
      expect(Math.abs((await lookIntoPlayed(await bytesOf(almanac, id))).seconds! - said)).toBeLessThan(0.1);
    }
  });

  test('captions and a folder with a page', async () => {
    expect(await take('said.vtt', '\uFEFFWEBVTT\n\n')).toMatchObject({ mediaType: 'text/vtt', file: 'media/f1.vtt' });
    expect(await take('strip.zip', packed({ 'index.html': '<p>' }))).toMatchObject({ mediaType: 'application/zip' });
  });

  test.each([
    ['a film that is none', 'dome.mp4', 'no film', undefined, '“dome.mp4” is no film, whatever its name says.'],
    ['a picture that is none', 'dome.png', 'no picture', undefined, '“dome.png” is of no kind that outputs can show.'],
    ['captions that are none', 'said.vtt', 'WEBVTTX', undefined, '“said.vtt” is no file of captions (WebVTT), whatever its name says.'],
    ['a film that is too large', 'dome.webm', '', 600 * 2 ** 20, '“dome.webm” has 600 MB; at most 500 MB can be taken.'],
  ] as const)('%s is refused in words', async (_what, name, content, size, words) => {
    await expect(take(name, content, size)).rejects.toThrow(words);
  });

  test('a folder without a page, one that is none, and one that reaches out of itself', async () => {
    await expect(take('strip.zip', packed({ 'a.txt': 'a' }))).rejects.toThrow('holds no page of HTML');
    await expect(take('strip.zip', 'PK nothing')).rejects.toThrow('not a package that can be opened');
    await expect(take('strip.zip', packed({ '../a.html': '<p>' }))).rejects.toThrow('which would lie outside it');
  });
});
