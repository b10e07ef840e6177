import type { Folio } from '../../../folio/folio.ts';
import { playedFile } from '../../../folio/playedFile.ts';
import type { Item } from '../../../folio/items.ts';
import type { PagePlace } from '../../../folio/traverse.ts';
import { LookSheet } from '../../../paint/html/styleSheet.ts';
import { Cancelled } from '../../../ports/ports.ts';
import { readingOfSpread } from '../../../structure/reading.ts';
import type { PageReading } from '../../../structure/reading.ts';
import { coverOf, PICTURE_EXTENSIONS, PictureEncoder, pictureOf, shortHash } from '../encodePictures.ts';
import { groupsApart } from '../groupsApart.ts';
import { itemsOfPage } from '../paintedPage.ts';
import type { Scope } from '../scope.ts';
import type { WriteJob } from '../../writer.ts';
import { paintHtmlPage } from './paintPage.ts';
import type { HtmlPageContext } from './paintPage.ts';

interface PageJobSettings {
  resolution: number;
  quality: number;
  language: string;
}

/** A page in HTML, with the pictures, films and sounds that no page before it had. */
interface PaintedPage {
  place: PagePlace;
  reading: PageReading;
  markup: string;
  pictures: { path: string; mediaType: string; bytes: Uint8Array }[];
}

/** Pages painted one after another, and what is known of them: all looks of text once the last is painted. */
export interface PagePress {
  language: string;
  looks: LookSheet;
  pages: AsyncGenerator<PaintedPage>;
  /** The file of a picture, film or sound that some page has had. */
  fileOf(media: string): string | undefined;
}

/** Makes HTML of pages, one at a time; pictures lie in a folder `pictures/` beside them. */
export function paintPages(
  job: WriteJob<PageJobSettings>,
  scope: Scope,
  how: Pick<HtmlPageContext, 'lazy' | 'frames' | 'anchorOf' | 'addressOf'>,
): PagePress {
  const { folio, composition, settings } = job;
  const looks = new LookSheet(folio.head.swatches);
  const language = settings.language || folio.head.metadata.language;
  const apart = new Map([...new Set(scope.pages.map((p) => p.spread))].map((s) => [s, groupsApart(folio, composition, s, scope)]));
  const itemsOf = (place: PagePlace) => itemsOfPage(folio, place, scope, (group) => apart.get(place.spread)!.has(group.id));
  const written = new Map<string, string>();
  async function* pages(): AsyncGenerator<PaintedPage> {
    const encoder = new PictureEncoder(job);
    for (const place of scope.pages) for (const { item } of itemsOf(place)) encoder.want(item);
    let last: { spread: string; readings: Map<string, PageReading> } | undefined;
    for (const [done, place] of scope.pages.entries()) {
      if (job.signal.aborted) throw new Cancelled();
      const items = itemsOf(place);
      const pictures: PaintedPage['pictures'] = [];
      for (const { item } of items) {
        const media = pictureOf(item) ?? coverOf(item);
        if (!media || written.has(media)) continue;
        const { bytes, mediaType } = await encoder.get(media);
        const path = `pictures/${media}-${shortHash(bytes)}.${PICTURE_EXTENSIONS[mediaType]}`;
        written.set(media, path);
        pictures.push({ path, mediaType, bytes });
      }
      for (const media of mediaNeeded(
        job.folio,
        place,
        items.map((i) => i.item),
      )) {
        const file = folio.head.media[media];
        if (!file || written.has(media)) continue;
        const bytes = await job.media(media);
        const path = `media/${media}-${shortHash(bytes)}${/\.[A-Za-z0-9]+$/.exec(file.file)?.[0] ?? ''}`;
        written.set(media, path);
        pictures.push({ path, mediaType: file.mediaType, bytes });
      }
      if (last?.spread !== place.spread.id)
        last = { spread: place.spread.id, readings: readingOfSpread(folio, composition, place.spread, scope.shown) };
      const reading = last.readings.get(place.page.id)!;
      const source = (media: string): string => written.get(media)!;
      const markup = paintHtmlPage(place, items, reading, {
        ...how,
        folio,
        composition,
        looks,
        language,
        source,
        scope,
        mediaFile: (media) => written.get(media),
      });
      yield { place, reading, markup, pictures };
      job.progress(done + 1, scope.pages.length);
    }
  }
  return { language, looks, pages: pages(), fileOf: (media) => written.get(media) };
}

/** Films, sounds, captions, and files that a cue opens, on a page. */
function mediaNeeded(folio: Folio, { page }: PagePlace, items: readonly Item[]): string[] {
  const opened = [page, ...items].flatMap(({ cues }) =>
    Object.values(cues).flatMap((cue) => cue.steps.flatMap((s) => (s.do === 'openFile' ? [s.media] : []))),
  );
  return [...items.flatMap((i) => (i.kind === 'media' && playedFile(folio, i) ? [i.media, i.captions] : [])), ...opened].filter(
    (m): m is string => !!m,
  );
}
