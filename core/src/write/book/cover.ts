import { PICTURE_EXTENSIONS, PictureEncoder, shortHash } from '../assets/encodePictures.ts';
import { pagePicture } from '../pages/pagePicture.ts';
import type { Scope } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import type { Book } from './book.ts';
import type { CoverSettings } from './bookSettings.ts';

/** Pixels across of a cover that is drawn from a page (common practice of bookshops: 1,600 on the longer side at least). */
const COVER_WIDTH = 1600;

/** Adds the picture that stands for the book on shelves: the document’s own, or its first page drawn. Gives its path, null where there is none. */
export async function addCover(
  job: WriteJob<CoverSettings & { resolution: number; quality: number }>,
  scope: Scope,
  book: Book,
): Promise<string | null> {
  const { folio, settings } = job;
  if (settings.cover === 'none') return null;
  const media = folio.head.metadata.cover === undefined ? undefined : folio.head.media[folio.head.metadata.cover];
  const first = scope.pages[0];
  const picture =
    settings.cover === 'picture' && media
      ? await job.pictures.encode(await job.media(media.id), {
          maxWidth: Math.min(COVER_WIDTH, media.width ?? COVER_WIDTH),
          quality: settings.quality,
        })
      : first && (await pagePicture(job, new PictureEncoder(job), first, scope, COVER_WIDTH));
  if (!picture) return null;
  const path = `pictures/cover-${shortHash(picture.bytes)}.${PICTURE_EXTENSIONS[picture.mediaType]}`;
  await book.add(path, picture.mediaType, picture.bytes, 'cover-image');
  return path;
}
