import { nameOfPages } from '../../folio/joinedSpreads.ts';
import type { Page } from '../../folio/spread.ts';
import { printedNumber } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import type { PptxSettings } from './settings.ts';

/** Sizes of slides, in points: an inch to 56 inches (ISO/IEC 29500-1, 19.7.37, ST_SlideSizeCoordinate). */
const SMALLEST_SLIDE = 72;
export const LARGEST_SLIDE = 56 * 72;

/** The slides of one file. */
export interface Deck {
  path: string;
  size: { width: number; height: number };
  pages: readonly PagePlace[];
  /** The number of its first slide. */
  first: number;
}

/** The files of a result: one for all pages, or one for each size. */
export function decksOf(pages: readonly PagePlace[], { sizes, template }: Pick<PptxSettings, 'sizes' | 'template'>): Deck[] {
  const ending = template ? 'potx' : 'pptx';
  const groups = new Map<string, PagePlace[]>();
  for (const place of pages) {
    const { width, height } = place.page.box;
    const key = sizes === 'one' ? '' : `${Math.round(width)}x${Math.round(height)}`;
    groups.set(key, [...(groups.get(key) ?? []), place]);
  }
  return [...groups].map(([key, own], i) => ({
    path: i === 0 ? `document.${ending}` : `document-${key}.${ending}`,
    size: sizeOf(own.map((p) => p.page.box)),
    pages: own,
    first: firstNumber(own),
  }));
}

const sizeOf = (boxes: readonly Page['box'][]): Deck['size'] => {
  const within = (points: number): number => Math.min(LARGEST_SLIDE, Math.max(SMALLEST_SLIDE, points));
  return { width: within(Math.max(...boxes.map((b) => b.width))), height: within(Math.max(...boxes.map((b) => b.height))) };
};

/** The number of the first slide by which most pages have their own (19.2.1.26, `firstSlideNum`); up to 9999, common practice. */
function firstNumber(pages: readonly PagePlace[]): number {
  const firsts = new Map<number, number>();
  pages.forEach((place, at) => {
    const first = Number(printedNumber(place)) - at;
    if (Number.isInteger(first) && first >= 0 && first <= 9999) firsts.set(first, (firsts.get(first) ?? 0) + 1);
  });
  return [...firsts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 1;
}

/** Where a page lies on its slide: in the middle. */
export const offsetOf = ({ size }: Deck, { box }: Pick<Page, 'box'>): { dx: number; dy: number } => ({
  dx: Math.max(0, (size.width - box.width) / 2),
  dy: Math.max(0, (size.height - box.height) / 2),
});

/** Whether a page is as large as its slide. */
export const fillsSlide = ({ size }: Deck, { box }: Pick<Page, 'box'>): boolean =>
  Math.abs(size.width - box.width) < 0.1 && Math.abs(size.height - box.height) < 0.1;

/** Whether the number of a page is that of its slide. */
export const countsPage = (deck: Deck, at: number): boolean =>
  !deck.pages[at]!.joins && printedNumber(deck.pages[at]!) === String(deck.first + at);

/** What a slide is called: the pages that it shows. */
export const slideName = (place: PagePlace): string =>
  place.joins ? nameOfPages(place.number, place.joins.length) : `Page ${place.number}`;
