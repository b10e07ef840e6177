import type { Folio } from '../../folio/folio.ts';
import type { MediaFile } from '../../folio/head.ts';
import { itemsById } from '../../motion/liveTargets.ts';
import { adapted, dropped } from '../treatments.ts';
import type { WriteJob } from '../writer.ts';
import { asMp3, canBeMp3 } from './mp3.ts';
import type { Plan } from '../treatments.ts';

export const BOOK_SOUND_SENTENCES = {
  'sound.asMp3': 'Books hold sounds as MP3, AAC or Opus only: this one is made an MP3.',
  'sound.notInBooks': 'Books hold sounds as MP3, AAC or Opus only (EPUB 3.3, core media types), and this one cannot be made one of them.',
};
export type BookSoundCode = keyof typeof BOOK_SOUND_SENTENCES;

/** What becomes of a sound in a book: core media types are kept (EPUB 3.3, 3.2), plain samples become MP3, others are left out. Films may be of any kind. */
function fateOf({ mediaType, codec }: MediaFile): 'kept' | 'asMp3' | 'out' {
  if (!mediaType.startsWith('audio/') || mediaType === 'audio/mpeg' || mediaType === 'audio/mp4') return 'kept';
  if (mediaType === 'audio/ogg') return codec === 'opus' ? 'kept' : 'out';
  return mediaType === 'audio/wav' && canBeMp3(codec) ? 'asMp3' : 'out';
}

/** A document as books can hold it: its sounds are core media types, or none. */
export function forBooks(folio: Folio): Folio {
  if (Object.values(folio.head.media).every((file) => fateOf(file) === 'kept' && file.mediaType !== 'audio/ogg')) return folio;
  const media = Object.fromEntries(
    Object.values(folio.head.media).map((file): [string, MediaFile] => {
      const fate = fateOf(file);
      if (fate === 'asMp3')
        return [file.id, { ...file, mediaType: 'audio/mpeg', file: file.file.replace(/\.[A-Za-z0-9]+$/, '.mp3'), codec: 'mp3' }];
      if (fate === 'out') return [file.id, { ...file, mediaType: 'application/octet-stream' }];
      return [file.id, file.mediaType === 'audio/ogg' ? { ...file, mediaType: 'audio/ogg; codecs=opus' } : file];
    }),
  );
  return { ...folio, head: { ...folio.head, media } };
}

/** A job for a book: what it is asked for is core media types, made where they have to be. */
export async function bookJob<S>(job: WriteJob<S>): Promise<WriteJob<S>> {
  const folio = forBooks(job.folio);
  if (folio === job.folio) return job;
  const made = new Map<string, Uint8Array>();
  const media = { ...folio.head.media };
  for (const file of Object.values(job.folio.head.media)) {
    if (fateOf(file) !== 'asMp3') continue;
    const key = `mp3-1-${file.sha256}`;
    let mp3 = await job.derived.get(key);
    if (!mp3) await job.derived.put(key, (mp3 = await asMp3(await job.media(file.id), job.signal)));
    made.set(file.id, mp3);
    media[file.id] = { ...media[file.id]!, bytes: mp3.length };
  }
  return { ...job, folio: { ...folio, head: { ...folio.head, media } }, media: async (id) => made.get(id) ?? job.media(id) };
}

/** Tells what became of sounds, beside what the book's own plan tells. */
export function planBookSounds<Code extends string>(folio: Folio, plan: Plan<Code>): Plan<Code | BookSoundCode> {
  const items = itemsById(folio);
  return (about) => {
    const treatment = plan(about);
    const item = about.subject.kind === 'item' && about.subject.aspect === 'media' ? items.get(about.subject.id) : undefined;
    const file = item?.kind === 'media' && item.media !== null ? folio.head.media[item.media] : undefined;
    const fate = file && fateOf(file);
    if (fate === 'asMp3' && treatment.outcome === 'kept') return adapted('sound.asMp3');
    return fate === 'out' ? (item?.kind === 'media' && item.poster !== undefined ? adapted : dropped)('sound.notInBooks') : treatment;
  };
}
