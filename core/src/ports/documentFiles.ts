import type { FontSource } from '../compose/fontSet.ts';
import type { LibraryFont } from '../folio/libraryFont.ts';
import { loadFonts } from '../compose/fontSet.ts';
import type { FontSet } from '../compose/fontSet.ts';
import type { LoadedFolio } from '../intake/reader.ts';
import { FolioError } from './ports.ts';
import type { BlobStore } from './ports.ts';
import { shippedFontSource } from './shippedFonts.ts';

/** The fonts that travel with a document. */
function documentFontSource({ folio, files }: LoadedFolio, blobs: Pick<BlobStore, 'read'>): FontSource {
  const fonts = Object.values(folio.head.fonts).filter((f) => f.file && files.has(f.file));
  const content = (key: string): string => files.get(folio.head.fonts[key]!.file!)!.sha256;
  return {
    origin: 'document',
    list: () => fonts.map((f) => ({ key: f.id, family: f.family, weight: f.weight, style: f.style })),
    bytes: (key) => blobs.read(content(key)),
    content,
  };
}

/** The fonts of a user's library. */
function libraryFontSource(library: readonly LibraryFont[], blobs: Pick<BlobStore, 'read'>): FontSource {
  const content = (key: string): string => library.find((f) => f.id === key)!.sha256;
  return {
    origin: 'library',
    list: () => library.map((f) => ({ key: f.id, family: f.family, weight: f.weight, style: f.style })),
    bytes: (key) => blobs.read(content(key)),
    content,
  };
}

/** Where a document's fonts are looked for, in this order: itself, the user's library, what ships. */
export const fontSourcesFor = async (loaded: LoadedFolio, blobs: Pick<BlobStore, 'read'>): Promise<FontSource[]> => [
  documentFontSource(loaded, blobs),
  libraryFontSource(loaded.library ?? [], blobs),
  await shippedFontSource(),
];

/** All fonts a document is set with. */
export const fontsFor = async (loaded: LoadedFolio, blobs: Pick<BlobStore, 'read'>): Promise<FontSet> =>
  loadFonts(loaded.folio.head, await fontSourcesFor(loaded, blobs));

/** Bytes of the document's media files by id. */
export const mediaReader =
  ({ folio, files }: LoadedFolio, blobs: Pick<BlobStore, 'read'>) =>
  (id: string): Promise<Uint8Array> => {
    const media = folio.head.media[id];
    const file = media && files.get(media.file);
    if (!file) throw new FolioError('media.missing', `The media file "${id}" is not in the document.`, 'Place the picture again.');
    return blobs.read(file.sha256);
  };

/** Another document that is shown inside one, with what it is set with. */
export interface OtherFolio {
  folio: LoadedFolio['folio'];
  fonts: () => Promise<FontSet>;
  media: (id: string) => Promise<Uint8Array>;
}

/** The other documents that one shows, ready to be written. */
export const othersFor = (others: LoadedFolio['others'], blobs: Pick<BlobStore, 'read'>): ReadonlyMap<string, OtherFolio> =>
  new Map(
    [...(others ?? [])].map(([id, other]) => [
      id,
      { folio: other.folio, fonts: () => fontsFor(other, blobs), media: mediaReader(other, blobs) },
    ]),
  );

/** What the documents call themselves whose web editions a document shows. */
export const othersShownBy = ({ spreads }: Pick<LoadedFolio['folio'], 'spreads'>): string[] => [
  ...new Set(
    Object.values(spreads).flatMap((s) =>
      Object.values(s.items).flatMap((i) => (i.kind === 'embed' && i.source.from === 'folio' ? [i.source.folio] : [])),
    ),
  ),
];
