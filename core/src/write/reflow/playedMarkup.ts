import type { MediaFile } from '../../folio/head.ts';
import type { Item } from '../../folio/items.ts';
import { attrs, escape } from '../../paint/svg/markup.ts';

/** What the words of a film or sound are called (by memory). */
const TRANSCRIPT: Record<string, string> = {
  de: 'Wortlaut',
  fr: 'Transcription',
  es: 'Transcripción',
  it: 'Trascrizione',
  ja: '文字起こし',
};
const transcriptWord = (language: string): string => TRANSCRIPT[language.split('-')[0]!] ?? 'Transcript';

export interface PlayedMarkup {
  src: string;
  poster?: string | undefined;
  captions?: string | undefined;
  language: string;
  /** More attributes of the element, such as its size. */
  more?: Record<string, string | number>;
}

/** A film or sound as HTML plays it; what is said in it can be read below. */
export function playedMarkup(
  item: Extract<Item, { kind: 'media' }>,
  file: MediaFile,
  { src, poster, captions, language, more }: PlayedMarkup,
): { element: string; said: string } {
  const isFilm = file.mediaType.startsWith('video/');
  const how = {
    src,
    'aria-label': item.alt || item.name || file.name,
    controls: item.controls ? '' : undefined,
    loop: item.loop ? '' : undefined,
    autoplay: item.autoplay ? '' : undefined,
    // Browsers let a film begin by itself only without its sound.
    muted: item.autoplay ? '' : undefined,
    preload: item.autoplay ? 'auto' : 'metadata',
    ...more,
  };
  const track = captions ? `<track${attrs({ kind: 'captions', src: captions, srclang: language, default: '' })}/>` : '';
  const said = item.transcript
    ? `<details class="script${isFilm ? '' : ' below'}"><summary${attrs({ 'aria-label': `${transcriptWord(language)}: ${item.alt || file.name}` })}>${escape(transcriptWord(language))}</summary>${escape(item.transcript)}</details>`
    : '';
  const element = isFilm ? `<video${attrs({ ...how, poster, playsinline: '' })}>${track}</video>` : `<audio${attrs(how)}>${track}</audio>`;
  return { element, said };
}
