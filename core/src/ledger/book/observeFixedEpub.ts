import type { PicturePort } from '../../ports/ports.ts';
import { attribute, elementsOf, parsePage } from '../html/dom.ts';
import { observePages } from '../html/observePages.ts';
import type { ObservedDocument } from '../observed.ts';
import { navigationList, openBook } from './openBook.ts';

/** What a book says of one of its pages beside what stands on it. */
interface BookPage {
  /** In CSS pixels; null where the page names no size. */
  viewport: { width: number; height: number } | null;
  /** The side on which it is shown when two pages are seen at once. */
  side: 'left' | 'right' | 'center' | null;
}

/** A book of fixed pages, read from its bytes alone. */
export interface ObservedFixedBook extends ObservedDocument {
  fixed: boolean;
  /** `rtl` where pages go on to the left. */
  direction: string;
  bookPages: BookPage[];
  /** Numbers of printed pages that readers can go to, and the page each leads to (from 1). */
  pageList: { number: string; page: number | null }[];
  problems: { file: string; says: string }[];
}

export async function observeFixedEpub(bytes: Uint8Array, pictures: PicturePort): Promise<ObservedFixedBook> {
  const book = await openBook(bytes);
  const texts = book.texts.map(({ path }) => ({ path, text: book.text(path) }));
  const observed = await observePages(texts, { file: async (path) => book.files.get(path), pictures });
  const index = new Map(texts.map((t, i) => [t.path, i + 1]));
  const ids = new Map(texts.map((t) => [t.path, new Set([...elementsOf(parsePage(t.text))].flatMap((e) => attribute(e, 'id') ?? []))]));
  const pageAt = (target: { file: string; id: string } | null): number | null =>
    target && (!target.id || ids.get(target.file)?.has(target.id)) ? (index.get(target.file) ?? null) : null;
  return {
    ...observed,
    title: book.title,
    language: book.language,
    outline: navigationList(book, 'toc').map(({ text, target }) => ({ text, page: pageAt(target) })),
    pageList: navigationList(book, 'page-list').map(({ text, target }) => ({ number: text, page: pageAt(target) })),
    fixed: book.meta.get('rendition:layout')?.[0] === 'pre-paginated',
    direction: book.direction || 'ltr',
    bookPages: book.texts.map(({ path, properties }) => ({
      viewport: viewportOf(book.text(path)),
      side: (/page-spread-(left|right|center)/.exec(properties)?.[1] as BookPage['side']) ?? null,
    })),
    problems: book.problems,
  };
}

/** The size that a page names for itself (EPUB 3.3, 8.2.2.6). */
function viewportOf(html: string): BookPage['viewport'] {
  const meta = [...elementsOf(parsePage(html))].find((e) => e.tagName === 'meta' && attribute(e, 'name') === 'viewport');
  const of = (name: string): number =>
    Number(new RegExp(`${name}\\s*=\\s*([\\d.]+)`).exec((meta && attribute(meta, 'content')) ?? '')?.[1]);
  const [width, height] = [of('width'), of('height')];
  return width > 0 && height > 0 ? { width, height } : null;
}
