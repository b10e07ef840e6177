import { createHash } from 'node:crypto';
import type { WriteJob } from '../writer.ts';
import type { EncodedPicture, PictureOptions } from '../../ports/ports.ts';
import { PT_PER_INCH } from '../../folio/units.ts';
import type { PaintedLeaf } from '../pages/paintedPage.ts';
import { shownWidth } from '../../paint/html/paintItem.ts';

const VERSION = 2;

/** Pictures for small screens are no smaller than this, in pixels, and no more than so many. */
const LEAST_WIDTH = 240;
const MOST_SIZES = 3;

/** The media file that an item shows as a still picture, if any. */
export const pictureOf = (item: PaintedLeaf): string | null | undefined =>
  item.kind === 'picture' ? item.media : item.kind === 'media' || item.kind === 'embed' ? item.poster : undefined;

/** The picture on a veil's flakes. */
export const coverOf = (item: PaintedLeaf): string | undefined => (item.kind === 'veil' ? item.cover : undefined);

/** How wide, in points, an item shows the whole of its picture. */
const pictureWidth = (item: PaintedLeaf): number =>
  item.kind === 'picture' ? shownWidth(item.placement, item.transform) : 'size' in item ? item.size.width : 0;

/** What a recipe says of its pictures. */
export interface PictureSettings {
  resolution: number;
  quality: number;
  pictureFormat?: NonNullable<PictureOptions['format']>;
  progressive?: boolean;
  thorough?: boolean;
  quick?: boolean;
  whiteGround?: 'keep' | 'through';
}

/** A recipe's wishes as those of the encoder. */
export const encodingOf = ({
  quality,
  pictureFormat,
  progressive,
  thorough,
  quick,
  whiteGround,
}: PictureSettings): Omit<PictureOptions, 'maxWidth'> => ({
  quality,
  ...(pictureFormat && { format: pictureFormat }),
  ...(progressive !== undefined && { progressive }),
  ...(thorough && { thorough }),
  ...(quick && { quick }),
  ...(whiteGround === 'through' && { throughWhite: true }),
});

export const PICTURE_EXTENSIONS: Record<EncodedPicture['mediaType'], string> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'image/avif': 'avif',
  'image/tiff': 'tiff',
};

/** Encodes pictures for an output, each once at its largest size, and keeps the results for the next run. */
export class PictureEncoder {
  private readonly done = new Map<string, Promise<EncodedPicture>>();

  constructor(
    private readonly job: WriteJob<PictureSettings>,
    private readonly widths = new Map<string, number>(),
  ) {}

  /** The same for pictures that go into drawings, as wide as is known here: what draws them reads neither AVIF nor TIFF. */
  forDrawings(): PictureEncoder {
    return new PictureEncoder({ ...this.job, settings: { ...this.job.settings, pictureFormat: 'auto' } }, this.widths);
  }

  /** Says that an item shows its picture; to be called for all items before the first is encoded. */
  want(item: PaintedLeaf): void {
    const media = pictureOf(item) ?? coverOf(item);
    if (media) this.widths.set(media, Math.max(this.widths.get(media) ?? 0, pictureWidth(item)));
  }

  get(media: string): Promise<EncodedPicture> {
    let picture = this.done.get(media);
    if (!picture) this.done.set(media, (picture = this.encode(media)));
    return picture;
  }

  /** The same picture for smaller screens: each half as wide as the one before it, the widest first. */
  async smaller(media: string): Promise<EncodedPicture[]> {
    const out: EncodedPicture[] = [];
    const { width } = await this.get(media);
    for (let w = Math.round(width / 2); w >= LEAST_WIDTH && out.length < MOST_SIZES; w = Math.round(w / 2))
      out.push(await this.encode(media, w));
    return out;
  }

  private async encode(media: string, width?: number): Promise<EncodedPicture> {
    const { settings, derived, pictures, folio } = this.job;
    const maxWidth = width ?? (Math.ceil(((this.widths.get(media) ?? 0) / PT_PER_INCH) * settings.resolution) || 1);
    const key = `picture/${VERSION}/${folio.head.media[media]?.sha256}/${maxWidth}/${JSON.stringify(encodingOf(settings))}`;
    const kept = await derived.get(key);
    if (kept) return unpack(kept);
    const encoded = await pictures.encode(await this.job.media(media), { maxWidth, ...encodingOf(settings) });
    await derived.put(key, pack(encoded));
    return encoded;
  }
}

/** A picture and its measures in one value: a line of JSON, then the bytes. */
function pack({ bytes, ...rest }: EncodedPicture): Uint8Array {
  const head = Buffer.from(JSON.stringify(rest) + '\n');
  return new Uint8Array(Buffer.concat([head, bytes]));
}

function unpack(value: Uint8Array): EncodedPicture {
  const end = value.indexOf(10);
  return {
    ...(JSON.parse(Buffer.from(value.subarray(0, end)).toString('utf8')) as Omit<EncodedPicture, 'bytes'>),
    bytes: value.slice(end + 1),
  };
}

/** A short name that changes with the content. */
export const shortHash = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex').slice(0, 12);
