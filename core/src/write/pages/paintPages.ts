import type { Folio } from '../../folio/folio.ts';
import { playedFile } from '../../folio/playedFile.ts';
import type { Item } from '../../folio/items.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { drawnLetters } from '../../paint/html/paintItem.ts';
import { LookSheet } from '../../paint/html/styleSheet.ts';
import { Cancelled } from '../../ports/ports.ts';
import { readingOfSpread } from '../../structure/reading.ts';
import type { PageReading } from '../../structure/reading.ts';
import { coverOf, PICTURE_EXTENSIONS, PictureEncoder, pictureOf, shortHash } from '../assets/encodePictures.ts';
import type { PictureSettings } from '../assets/encodePictures.ts';
import type { EncodedPicture } from '../../ports/ports.ts';
import type { PictureSource } from '../../paint/html/paintItem.ts';
import { groupsApart } from './groupsApart.ts';
import { itemsOfPage } from './paintedPage.ts';
import type { Scope } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import type { Overflow } from './flowing.ts';
import { lettersPicture } from './lettersPicture.ts';
import { paintHtmlPage } from './paintPage.ts';
import type { HtmlPageContext } from './paintPage.ts';

interface PageJobSettings extends PictureSettings {
  language: string;
  /** Whether pictures come in several widths, of which a screen takes what it needs. */
  sizes?: boolean;
  /** Whether letters are those of fonts, or drawn. */
  text?: 'live' | 'flowing' | 'shapes' | 'picture';
  overflow?: Overflow;
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
  how: Pick<HtmlPageContext, 'frames' | 'anchorOf' | 'addressOf'> & {
    lazy: (page: string) => boolean;
    /** Whether pages are as wide as the window. */
    fitsWindow?: boolean;
    /** Frames whose text is scrolled to its end. */
    scrolls?: ReadonlySet<string>;
  },
): PagePress {
  const { folio, composition, settings } = job;
  const looks = new LookSheet(folio.head.swatches, settings.text === 'shapes' || settings.text === 'picture');
  const language = settings.language || folio.head.metadata.language;
  const apart = new Map([...new Set(scope.pages.map((p) => p.spread))].map((s) => [s, groupsApart(folio, composition, s, scope)]));
  const itemsOf = (place: PagePlace) => itemsOfPage(folio, place, scope, (group) => apart.get(place.spread)!.has(group.id));
  const written = new Map<string, string>();
  const sets = new Map<string, string>();
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
        const put = ({ bytes, mediaType }: EncodedPicture): string => {
          const path = `pictures/${media}-${shortHash(bytes)}.${PICTURE_EXTENSIONS[mediaType]}`;
          pictures.push({ path, mediaType, bytes });
          return path;
        };
        const whole = await encoder.get(media);
        written.set(media, put(whole));
        // What is shown through flakes, or before a film, has one file.
        const smaller = settings.sizes && item.kind === 'picture' ? await encoder.smaller(media) : [];
        if (smaller.length)
          sets.set(media, [whole, ...smaller].map((p) => `${p === whole ? written.get(media) : put(p)} ${p.width}w`).join(', '));
      }
      const texts = new Map<string, string>();
      if (settings.text === 'picture')
        for (const { item } of items) {
          const frame = item.kind === 'textFrame' ? composition.frames.get(item.id) : undefined;
          const drawn = item.kind === 'textFrame' && frame && (await lettersPicture(job, item, frame, looks));
          if (!drawn) continue;
          const { bytes } = drawn;
          const path = `pictures/text-${item.id.replace(/[^A-Za-z0-9]+/g, '-')}-${shortHash(bytes)}.png`;
          pictures.push({ path, mediaType: 'image/png', bytes });
          texts.set(item.id, drawn.markup(path));
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
      const source = (media: string): PictureSource => {
        const srcset = sets.get(media);
        return {
          src: written.get(media)!,
          ...(srcset !== undefined && { srcset, ...(how.fitsWindow && { pageWidth: place.page.box.width }) }),
        };
      };
      const markup = paintHtmlPage(place, items, reading, {
        ...how,
        lazy: how.lazy(place.page.id),
        scrolls: how.scrolls ?? new Set(),
        folio,
        composition,
        looks,
        language,
        source,
        scope,
        flows: settings.text === 'flowing' ? (settings.overflow ?? 'shown') : null,
        letters: (item, frame) => texts.get(item.id) ?? (settings.text === 'picture' ? '' : drawnLetters(frame, item, folio.head, looks)),
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
