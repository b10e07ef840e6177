import sharp from 'sharp';
import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { sharpPictures } from '../src/ports/node.ts';
import { isOnWhite, seenThrough } from '../src/ports/whiteGround.ts';
import type { RawPixels } from '../src/ports/whiteGround.ts';
import { subjectKey } from '../src/ledger/index.ts';
import { bytesOf, make, sample } from './support/samples.ts';
import { ofToday } from './support/ofToday.ts';

/** A picture from letters: `.` white, `#` black, `g` grey of 224, `r` red. */
function drawn(...rows: string[]): RawPixels {
  const ink: Record<string, number[]> = { '.': [255, 255, 255], '#': [0, 0, 0], g: [224, 224, 224], r: [255, 0, 0] };
  const data = Uint8Array.from(rows.flatMap((row) => [...row].flatMap((c) => [...ink[c]!, 255])));
  return { data, width: rows[0]!.length, height: rows.length };
}
const covers = (p: RawPixels): string[] => {
  const out = seenThrough(p);
  return Array.from({ length: p.height }, (_, y) =>
    Array.from({ length: p.width }, (_, x) =>
      out[(y * p.width + x) * 4 + 3] === 0 ? '.' : out[(y * p.width + x) * 4 + 3] === 255 ? '#' : '+',
    ).join(''),
  );
};

describe('white that surrounds what a picture shows', () => {
  test('is seen through; white within stays, and so does white behind a gap that is none', () => {
    expect(covers(drawn('......', '.####.', '.#..#.', '.####.', '......'))).toEqual(['......', '.####.', '.####.', '.####.', '......']);
  });

  test('reaches in wherever it is open', () => {
    expect(covers(drawn('......', '.####.', '.#....', '.####.', '......'))).toEqual(['......', '.####.', '.#....', '.####.', '......']);
  });

  test('soft edges become half seen through, and look the same on white', () => {
    const soft = drawn('.....', '.ggg.', '.g#g.', '.ggg.', '.....');
    expect(covers(soft)).toEqual(['.....', '.+++.', '.+#+.', '.+++.', '.....']);
    const out = seenThrough(soft);
    for (let i = 0; i < 25; i++) {
      const cover = out[i * 4 + 3]! / 255;
      for (let c = 0; c < 3; c++) expect(Math.abs(255 - (255 - out[i * 4 + c]!) * cover - soft.data[i * 4 + c]!)).toBeLessThanOrEqual(1);
    }
  });

  test('is a ground only where it makes up most of the edge', () => {
    expect(isOnWhite(drawn('......', '.rrrr.', '.rrrr.', '......'))).toBe(true);
    // A sky that is burnt out over a hill: the upper half of the edge.
    expect(isOnWhite(drawn('......', '......', '######', '######'))).toBe(false);
    expect(isOnWhite(drawn('r'))).toBe(false);
  });

  test('a picture that is seen through at its edge has no ground to take away', () => {
    const p = drawn('...', '.#.', '...');
    p.data[3] = 0;
    expect(isOnWhite(p)).toBe(false);
  });
});

const disc = async (ground: string): Promise<Uint8Array> =>
  new Uint8Array(
    await sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="200" height="200"><rect width="200" height="200" fill="${ground}"/><circle cx="100" cy="100" r="70" fill="#204080"/><circle cx="100" cy="100" r="20" fill="#fff"/></svg>`,
      ),
    )
      .flatten()
      .jpeg({ quality: 80 })
      .toBuffer(),
  );

describe('a photograph of a ring on white', () => {
  const ask = { maxWidth: 200, quality: 82 };
  test('keeps its colours, and lets through what lies below around it', async () => {
    const bytes = await disc('#fff');
    expect(await sharpPictures.hasWhiteGround(bytes)).toBe(true);
    const { mediaType, bytes: png } = await sharpPictures.encode(bytes, { ...ask, format: 'jpeg', throughWhite: true });
    expect(mediaType).toBe('image/png');
    const at = async (x: number, y: number): Promise<number[]> => [
      ...(await sharp(png).extract({ left: x, top: y, width: 1, height: 1 }).raw().toBuffer()),
    ];
    expect((await at(3, 3))[3]).toBe(0);
    expect((await at(100, 100))[3]).toBe(255);
    expect((await at(100, 60)).map((v) => Math.round(v / 32))).toEqual([1, 2, 4, 8]);
    // Nothing of it is left over: on black, what is far from the ring stays black.
    const onBlack = await sharp(png).flatten({ background: '#000' }).raw().toBuffer();
    let bright = 0;
    for (let y = 0; y < 200; y++)
      for (let x = 0; x < 200; x++) if (Math.hypot(x - 100, y - 100) > 80 && onBlack[(y * 200 + x) * 3]! > 24) bright++;
    expect(bright).toBe(0);
  });

  test('stays what it is as TIFF, as a picture on another ground, and where nothing is asked for', async () => {
    const white = await disc('#fff');
    expect((await sharpPictures.encode(white, { ...ask, format: 'tiff', throughWhite: true })).mediaType).toBe('image/tiff');
    expect((await sharpPictures.encode(white, ask)).mediaType).toBe('image/jpeg');
    const blue = await disc('#cde');
    expect(await sharpPictures.hasWhiteGround(blue)).toBe(false);
    expect((await sharpPictures.encode(blue, { ...ask, throughWhite: true })).mediaType).toBe('image/jpeg');
  });
});

test.each(ofToday(['pptx', 'docx', 'odp', 'odt'], 1, (id) => id))(
  'a ledger of %s names the pictures whose ground was taken away, and no others',
  async (output) => {
    const almanac = await sample('marrowby-almanac');
    const { head } = almanac.folio;
    const items = Object.values(almanac.folio.spreads).flatMap((s) => Object.values(s.items));
    const shown = items.find((i) => i.kind === 'picture' && i.media !== null && !i.clip);
    if (shown?.kind !== 'picture') throw new Error('no picture');
    const ring = await disc('#fff');
    const folio = produce(almanac.folio, (d) => {
      d.head.media[shown.media!]!.sha256 = 'f'.repeat(64);
    });
    const media = async (id: string): Promise<Uint8Array> => (id === shown.media ? ring : bytesOf(almanac, id));
    const made = await make(almanac, output, { resolution: 36, whiteGround: 'through' }, folio, { media });
    const named = new Set(made.ledger.filter((e) => e.code === 'picture.groundThrough').map((e) => subjectKey(e.subject)));
    const same = items.flatMap((i) => (i.kind === 'picture' && i.media === shown.media ? [`item:${i.id}:picture`] : []));
    expect([...named].filter((key) => !same.includes(key))).toEqual([]);
    expect(named.size).toBeGreaterThan(0);
    expect(head.media[shown.media!]).toBeDefined();
  },
);
