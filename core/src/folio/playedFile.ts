import type { Folio } from './folio.ts';
import type { MediaFile } from './head.ts';
import type { Item } from './items.ts';

/** The file of a film or sound; null for all else, and where it has none that plays. */
export function playedFile(folio: Pick<Folio, 'head'>, item: Item): MediaFile | null {
  const file = item.kind === 'media' && item.media !== null ? folio.head.media[item.media] : undefined;
  return file && /^(audio|video)\//.test(file.mediaType) ? file : null;
}
