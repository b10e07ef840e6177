import { createHash } from 'node:crypto';
import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import sharp from 'sharp';
import type { Folio, Picture } from '../src/index.ts';
import { asSample, writeOnly } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

/** A picture whose left half is red and whose right half is blue, 80 by 40 pixels. */
const halves = async (): Promise<Uint8Array> =>
  new Uint8Array(
    await sharp(
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="80" height="40"><rect width="40" height="40" fill="#f00"/><rect x="40" width="40" height="40" fill="#00f"/></svg>',
      ),
    )
      .png()
      .toBuffer(),
  );

/** The picture that an article shows of it, in a frame of 80 by 40 pt with the changes given. */
async function shown(change: (p: Picture) => void): Promise<{ width: number; height: number; at: (x: number, y: number) => string }> {
  const bytes = await halves();
  const folio: Folio = produce(tinyFolio(['A text.']), (d) => {
    d.head.media['m'] = {
      id: 'm',
      name: 'm.png',
      file: 'media/m.png',
      mediaType: 'image/png',
      sha256: createHash('sha256').update(bytes).digest('hex'),
      bytes: bytes.length,
      width: 80,
      height: 40,
    };
    const p = {
      ...d.spreads['s']!.items['f1']!,
      kind: 'picture',
      id: 'pic',
      media: 'm',
      size: { width: 80, height: 40 },
      transform: [1, 0, 0, 1, 10, 400],
      placement: [80, 0, 0, 40, 0, 0],
    } as unknown as Picture;
    change(p);
    d.spreads['s']!.items['pic'] = p;
    d.spreads['s']!.order.push('pic');
  });
  const s = {
    ...asSample(folio),
    blobs: {
      stream: () =>
        (async function* () {
          yield bytes;
        })() as never,
    },
  };
  const files = await writeOnly(s, 'article', { pictureFormat: 'png', resolution: 72 }, folio);
  const [, made] = [...files].find(([path]) => path.startsWith('pictures/'))!;
  const { data, info } = await sharp(made).flatten({ background: '#fff' }).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const at = (x: number, y: number): string => {
    const i = (Math.floor(y * info.height) * info.width + Math.floor(x * info.width)) * info.channels;
    return [...data.subarray(i, i + 3)].map((v) => (v > 200 ? 'f' : v < 55 ? '0' : '-')).join('');
  };
  return { width: info.width, height: info.height, at };
}

describe('a picture in running text', () => {
  test('that is shown whole is its own file', async () => {
    const p = await shown(() => undefined);
    expect([p.width, p.height, p.at(0.25, 0.5), p.at(0.75, 0.5)]).toEqual([80, 40, 'f00', '00f']);
  });
  test('is cropped as its frame crops it', async () => {
    const p = await shown((item) => (item.size = { width: 40, height: 40 }));
    expect([p.width, p.height, p.at(0.1, 0.5), p.at(0.9, 0.5)]).toEqual([40, 40, 'f00', 'f00']);
  });
  test('is turned as the page turns it', async () => {
    // A quarter turn clockwise: what was left is above.
    const p = await shown((item) => (item.transform = [0, 1, -1, 0, 100, 400]));
    expect([p.width, p.height, p.at(0.5, 0.25), p.at(0.5, 0.75)]).toEqual([40, 80, 'f00', '00f']);
  });
  test('is mirrored as the page mirrors it', async () => {
    const p = await shown((item) => (item.placement = [-80, 0, 0, 40, 80, 0]));
    expect([p.at(0.25, 0.5), p.at(0.75, 0.5)]).toEqual(['00f', 'f00']);
  });
  test('is cut out as its frame cuts it', async () => {
    const p = await shown((item) => (item.clip = [['M', 0, 0], ['L', 40, 0], ['L', 40, 20], ['L', 0, 20], ['Z']]));
    expect([p.at(0.25, 0.25), p.at(0.25, 0.75), p.at(0.75, 0.25)]).toEqual(['f00', 'fff', 'fff']);
  });
});
