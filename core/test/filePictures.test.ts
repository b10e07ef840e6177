import { beforeAll, describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { samePicture, SIGNATURE_CELLS } from '../src/ledger/findings.ts';
import { filePictures, objectOfPixels } from '../src/ledger/pdf/filePictures.ts';
import { observePdf } from '../src/ledger/pdf/observePdf.ts';
import { openFile } from '../src/ledger/pdf/pdfFile.ts';
import { PdfCanvas } from '../src/paint/pdf/pdfCanvas.ts';
import { sharpPictures } from '../src/ports/node.ts';

/** A picture that is red above and another colour below. */
const picture = (below: string, format: 'png' | 'jpeg', opacity = 1): Promise<Buffer> => {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"><rect width="300" height="100" fill="#c00"/><rect y="100" width="300" height="100" fill="${below}" fill-opacity="${opacity}"/></svg>`;
  const image = sharp(Buffer.from(svg));
  return format === 'png' ? (opacity < 1 ? image.png() : image.removeAlpha().png()).toBuffer() : image.flatten().jpeg().toBuffer();
};

/** A page that shows pictures side by side, the first of them twice. */
async function pageOf(pictures: readonly Buffer[]): Promise<Uint8Array> {
  const canvas = new PdfCanvas({ title: 'Pictures', language: 'en', created: new Date(0) }, {});
  const chunks: Uint8Array[] = [];
  const read = (async () => {
    for await (const chunk of canvas.stream) chunks.push(chunk);
  })();
  canvas.addPage(600, 100, 0);
  [...pictures, pictures[0]!].forEach((bytes, i) => {
    canvas.save();
    canvas.transform([60, 0, 0, 40, 100 * i, 10]);
    canvas.image(String(i % pictures.length), bytes);
    canvas.restore();
  });
  canvas.end();
  await read;
  return new Uint8Array(Buffer.concat(chunks));
}

describe('pictures of a PDF, read without decoding them in JavaScript', () => {
  let made: Buffer[];
  let bytes: Uint8Array;
  beforeAll(async () => {
    made = [await picture('#06c', 'jpeg'), await picture('#0a0', 'png'), await picture('#000', 'png', 0.5)];
    bytes = await pageOf(made);
  });

  test('each is the one that was put there, in its place, also where it shows through', async () => {
    const { pages } = await observePdf(bytes, sharpPictures);
    const seen = pages[0]!.pictures;
    expect(seen.map((p) => Math.round(p.box.x))).toEqual([0, 100, 200, 300]);
    const wanted = await Promise.all([...made, made[0]!].map((b) => sharpPictures.signature(new Uint8Array(b), SIGNATURE_CELLS)));
    for (const [i, { picture: have }] of seen.entries())
      for (const [j, want] of wanted.entries()) expect(samePicture(want, have)).toBe(made[i % 3] === made[j % 3]);
  });

  test('they are read by their objects, and what is left to pdf.js is small', async () => {
    const read = filePictures(bytes, await openFile(bytes), sharpPictures);
    const text = Buffer.from(read.bytes).toString('latin1');
    const pixels = [...text.matchAll(/\n(\d+) 0 obj<<\/Type\/XObject\/Subtype\/Image\/Width 2\/[^>]*>>\s*stream\r?\n([\s\S]{6})/g)];
    // The picture of PNG without opacity is packed by rows that go by one another (PNG predictors): pdf.js reads it.
    expect(pixels).toHaveLength(2);
    for (const [, number, pixel] of pixels) {
      expect(objectOfPixels(Buffer.from(pixel!, 'latin1'))).toBe(Number(number));
      expect(await read.signature(Number(number))).toHaveLength(SIGNATURE_CELLS ** 2 * 3);
    }
    expect(read.signature(1)).toBeNull();
    // A picture of two pixels that are like one another is none of them.
    expect(objectOfPixels(new Uint8Array(6))).toBeNull();
    expect(text.length).toBe(bytes.length);
  });

  test('one whose bytes are damaged is another picture, not a failure', async () => {
    const damaged = Buffer.from(bytes);
    const start = damaged.indexOf(Buffer.from([0xff, 0xd8, 0xff]));
    damaged.fill(0, start + 20, start + 400);
    const { pages } = await observePdf(new Uint8Array(damaged), sharpPictures);
    const want = await sharpPictures.signature(new Uint8Array(made[0]!), SIGNATURE_CELLS);
    expect(pages[0]!.pictures).toHaveLength(4);
    expect(samePicture(want, pages[0]!.pictures[0]!.picture)).toBe(false);
  });
});
