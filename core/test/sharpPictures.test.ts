import { describe, expect, jest, test } from '@jest/globals';
import sharp from 'sharp';
import { samePicture, SIGNATURE_CELLS } from '../src/ledger/findings.ts';
import { decodesOnce } from '../src/ports/decodesOnce.ts';
import { sharpPictures } from '../src/ports/node.ts';

const asPng = (pixels: Buffer, width: number, height: number): Promise<Buffer> =>
  sharp(pixels, { raw: { width, height, channels: 4 } })
    .png({ compressionLevel: 1 })
    .toBuffer();

/** A photograph as far as coding goes: noise on a ground that goes from dark to light. */
async function photograph(width: number, height: number): Promise<Buffer> {
  const pixels = Buffer.alloc(width * height * 4);
  let seed = 7;
  for (let y = 0, at = 0; y < height; y++)
    for (let x = 0; x < width; x++, at += 4) {
      // A linear congruential generator (Numerical Recipes, ch. 7.1).
      seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
      const light = (200 * (x + y)) / (width + height) + (seed >>> 29);
      pixels.set([light, 255 - light, light / 2, 255], at);
    }
  return asPng(pixels, width, height);
}

/** One colour, of which all is there but, perhaps, a corner. */
function plain(width: number, height: number, corner: number): Promise<Buffer> {
  const pixels = Buffer.alloc(width * height * 4, Buffer.of(40, 120, 200, 255));
  pixels[3] = corner * 255;
  return asPng(pixels, width, height);
}

describe('a picture with an opacity', () => {
  // The second is larger than what is held in memory as it is worked with.
  test.each([
    [600, 400],
    [4200, 4100],
  ])('of %i × %i pixels goes by whether anything shows through', async (width, height) => {
    const whole = await plain(width, height, 1);
    const options = { maxWidth: 300, quality: 80 };
    const made = await sharpPictures.encode(whole, options);
    expect(made).toMatchObject({ mediaType: 'image/jpeg', width: 300 });
    // The same as of a picture that never had one.
    const without = await sharp(whole).removeAlpha().png({ compressionLevel: 1 }).toBuffer();
    expect(Buffer.from(made.bytes).equals(Buffer.from((await sharpPictures.encode(without, options)).bytes))).toBe(true);
    const seenThrough = await sharpPictures.encode(await plain(width, height, 0.5), options);
    expect(seenThrough).toMatchObject({ mediaType: 'image/png', width: 300 });
    expect(await sharp(seenThrough.bytes).metadata()).toMatchObject({ hasAlpha: true });
  });

  test('stands upright, as its camera says', async () => {
    const lying = await sharp(await plain(60, 40, 1))
      .withMetadata({ orientation: 6 })
      .png()
      .toBuffer();
    const { width, height } = await sharpPictures.encode(lying, { maxWidth: 60, quality: 80 });
    expect([width, height]).toEqual([40, 60]);
  });
});

describe('a JPEG that is packed quickly', () => {
  test('is larger, and shows the same: differences stay below what the quality allows', async () => {
    const source = await photograph(600, 400);
    const [tight, quick] = await Promise.all([
      sharpPictures.encode(source, { maxWidth: 600, quality: 82 }),
      sharpPictures.encode(source, { maxWidth: 600, quality: 82, quick: true }),
    ]);
    expect(quick.bytes.length / tight.bytes.length).toBeGreaterThan(1);
    expect(quick.bytes.length / tight.bytes.length).toBeLessThan(1.35);
    const pixels = (bytes: Uint8Array): Promise<Buffer> => sharp(bytes).removeAlpha().raw().toBuffer();
    const [original, slow, fast] = await Promise.all([source, tight.bytes, quick.bytes].map(pixels));
    const error = (shown: Buffer): number => shown.reduce((sum, value, i) => sum + (value - original![i]!) ** 2, 0) / shown.length;
    expect(error(fast!)).toBeLessThanOrEqual(error(slow!));
  });
});

describe('what tells pictures apart', () => {
  test('is the same of a PNG and of its JPEG, which is averaged as it is decoded, at every size', async () => {
    for (const [width, height] of [
      [40, 24],
      [255, 300],
      [1200, 1500],
    ] as const) {
      const png = await photograph(width, height);
      const jpeg = await sharp(png).removeAlpha().jpeg({ quality: 90 }).toBuffer();
      const [one, other] = await Promise.all([png, jpeg].map((bytes) => sharpPictures.signature(bytes, SIGNATURE_CELLS)));
      expect(samePicture(one!, other!)).toBe(true);
      expect(Math.max(...one!.map((value, i) => Math.abs(value - other![i]!)))).toBeLessThanOrEqual(6);
    }
  });

  test('counts what shows through as white', async () => {
    const grey = await sharp({ create: { width: 16, height: 16, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0.4 } } })
      .png()
      .toBuffer();
    expect([...new Set(await sharpPictures.signature(grey, SIGNATURE_CELLS))]).toEqual([153]);
  });
});

describe('whether a picture decodes', () => {
  const kept = new Map<string, Uint8Array>();
  const derived = { get: async (key: string) => kept.get(key), put: async (key: string, bytes: Uint8Array) => void kept.set(key, bytes) };

  test('is found out once for the same bytes, and each time where nothing is kept', async () => {
    for (const does of [true, false]) {
      const decodes = jest.fn(async () => does);
      const asked = (): Promise<boolean> => decodesOnce(`sum-${does}`, async () => new Uint8Array(1), { pictures: { decodes }, derived });
      expect([await asked(), await asked(), await asked()]).toEqual([does, does, does]);
      expect(decodes).toHaveBeenCalledTimes(1);
      await decodesOnce(`sum-${does}`, async () => new Uint8Array(1), { pictures: { decodes } });
      expect(decodes).toHaveBeenCalledTimes(2);
    }
  });

  test('is not kept of a file that is not there', async () => {
    const decodes = jest.fn(async () => true);
    const missing = (): Promise<Uint8Array> => Promise.reject(new Error('gone'));
    await expect(decodesOnce('gone', missing, { pictures: { decodes }, derived })).rejects.toThrow('gone');
    expect(await decodesOnce('gone', async () => new Uint8Array(1), { pictures: { decodes }, derived })).toBe(true);
  });
});
