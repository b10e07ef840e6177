import type { Item } from '../../folio/items.ts';
import type { WriteJob } from '../writer.ts';
import { PictureEncoder, pictureOf } from './encodePictures.ts';
import type { PictureSettings } from './encodePictures.ts';
import type { PaintedLeaf } from '../pages/paintedPage.ts';

/** An encoder for pictures that go into drawings. */
export const drawingEncoder = (job: WriteJob<PictureSettings>): PictureEncoder => new PictureEncoder(job).forDrawings();

/** The pictures of items as addresses that hold them, so that a drawing of them is whole. */
export async function drawnSources(
  { folio }: Pick<WriteJob<unknown>, 'folio'>,
  encoder: PictureEncoder,
  items: Iterable<Item>,
): Promise<Map<string, string>> {
  const sources = new Map<string, string>();
  for (const item of items) {
    const media = item.kind === 'group' ? null : pictureOf(item);
    if (!media || sources.has(media) || !folio.head.media[media]) continue;
    encoder.want(item as PaintedLeaf);
    const { bytes, mediaType } = await encoder.get(media);
    sources.set(media, `data:${mediaType};base64,${Buffer.from(bytes).toString('base64')}`);
  }
  return sources;
}
