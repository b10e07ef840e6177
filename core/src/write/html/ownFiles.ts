import { attrs } from '../../paint/svg/markup.ts';
import type { WriteJob } from '../writer.ts';
import type { HtmlSettings } from './settings.ts';

interface OwnFile {
  path: string;
  mediaType: string;
  media: string;
  as: HtmlSettings['files'][number]['as'];
}

/** The designer's own files, by the names they were brought in with; those that are not in the document any more are passed over. */
export function ownFiles({ folio, settings }: WriteJob<HtmlSettings>): OwnFile[] {
  const taken = new Set<string>();
  return settings.files.flatMap(({ media, as }) => {
    const file = folio.head.media[media];
    if (!file) return [];
    const safe =
      file.name
        .normalize('NFC')
        .replace(/[^\p{L}\p{N}._-]+/gu, '-')
        .replace(/^[.-]+/, '') || file.id;
    const [, stem = safe, end = ''] = /^(.*?)(\.[^.]*)?$/.exec(safe) ?? [];
    let name = safe;
    for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${stem}-${n}${end}`;
    taken.add(name.toLowerCase());
    return [{ path: `own/${name}`, mediaType: file.mediaType, media, as }];
  });
}

/** How they come into a page: style sheets in the head, scripts where the recipe puts them. */
export function ownMarkup(files: readonly OwnFile[], at: 'head' | 'end'): string {
  return files
    .map(({ path, mediaType, as }) => {
      const address = path.split('/').map(encodeURIComponent).join('/');
      if (mediaType === 'text/css') return at === 'head' && as !== 'beside' ? `<link${attrs({ rel: 'stylesheet', href: address })}>\n` : '';
      return mediaType === 'text/javascript' && as === at
        ? `<script${attrs({ src: address })}${at === 'head' ? ' defer' : ''}></script>\n`
        : '';
    })
    .join('');
}
