import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { Composer } from '../../../src/compose/index.ts';
import { pagesOf } from '../../../src/folio/traverse.ts';
import type { Folio } from '../../../src/index.ts';
import { spreadPicture } from '../../../src/paint/svg/index.ts';
import { fontsFor } from '../../../src/ports/node.ts';
import type { FileBlobs } from '../../../src/ports/node.ts';

/** Pictures are compared in this many squares across: small enough that a letter in another font does not count. */
const SQUARES = 24;

export interface Likeness {
  /** From 0 to 1: one less the mean difference of the squares' colours. */
  likeness: number;
  /** How alike an empty page would be: what the first has to be better than. */
  empty: number;
  /** The page that is meant: the one that was open when the file was saved. */
  page: number;
  ours: Buffer;
}

/** The pages as they came in against the picture that their maker's program left in the package; null where there is none. */
export async function likenessToThumbnail(bytes: Uint8Array, folio: Folio, blobs: FileBlobs): Promise<Likeness | null> {
  const thumbnail = unzipSync(bytes, { filter: (f) => f.name === 'Thumbnails/thumbnail.png' })['Thumbnails/thumbnail.png'];
  if (!thumbnail?.length) return null;
  const theirs = await squares(thumbnail);
  const alike = (y: (i: number) => number): number => 1 - theirs.reduce((sum, v, i) => sum + Math.abs(v - y(i)), 0) / theirs.length / 255;
  let best: Likeness | null = null;
  for await (const [page, ours] of picturesOf(folio, blobs)) {
    const own = await squares(ours);
    const likeness = alike((i) => own[i]!);
    if (!best || likeness > best.likeness) best = { likeness, empty: alike(() => 255), page, ours };
  }
  return best;
}

const WIDTH = 256;

async function* picturesOf(folio: Folio, blobs: FileBlobs): AsyncGenerator<[number, Buffer]> {
  const files = new Map(Object.values(folio.head.media).map((m) => [m.file, { sha256: m.sha256, bytes: m.bytes }]));
  const composition = new Composer(await fontsFor({ folio, files }, blobs)).compose(folio);
  const data = new Map<string, string>();
  for (const media of Object.values(folio.head.media)) {
    const small = await sharp(await blobs.read(media.sha256))
      .resize({ width: 2 * WIDTH, withoutEnlargement: true })
      .png()
      .toBuffer();
    data.set(media.id, `data:image/png;base64,${small.toString('base64')}`);
  }
  for (const { spread, page, number } of pagesOf(folio)) {
    const svg = spreadPicture(folio, composition, spread, page.box, WIDTH, {
      href: (id) => data.get(id),
      shown: (item) => folio.head.layers[item.layer]?.visible !== false,
    });
    yield [number, await sharp(Buffer.from(svg), { unlimited: true }).flatten({ background: '#fff' }).png().toBuffer()];
  }
}

const squares = (picture: Uint8Array): Promise<Buffer> =>
  sharp(picture)
    .flatten({ background: '#fff' })
    .toColourspace('srgb')
    .resize(SQUARES, SQUARES, { fit: 'fill' })
    .removeAlpha()
    .raw()
    .toBuffer();
