import type { PicturePort } from '../../ports/ports.ts';
import { navigationList, openBook } from '../book/openBook.ts';
import type { OpenBook } from '../book/openBook.ts';
import { resolve } from '../html/address.ts';
import { StyleRules } from '../html/css.ts';
import { attribute, elementsOf, parsePage } from '../html/dom.ts';
import { observeTexts } from './observeTexts.ts';
import type { ObservedFlow } from './observedFlow.ts';

/** Reads an e-book of running text back from its bytes alone. */
export async function observeEpub(bytes: Uint8Array, pictures: PicturePort): Promise<ObservedFlow> {
  const book = await openBook(bytes);
  const isCover = (path: string): boolean =>
    [...elementsOf(parsePage(book.text(path)))].some((e) => e.tagName === 'section' && attribute(e, 'epub:type') === 'cover');
  const texts = book.texts.filter((t) => !isCover(t.path)).map(({ path }) => ({ path, text: book.text(path) }));
  const read = await observeTexts(texts, { file: async (path) => book.files.get(path), pictures });
  const ids = new Map(texts.map((t) => [t.path, new Set([...elementsOf(parsePage(t.text))].flatMap((e) => attribute(e, 'id') ?? []))]));
  const links = (type: 'toc' | 'page-list'): { text: string; found: boolean }[] =>
    navigationList(book, type).map(({ text, target }) => ({
      text,
      found: target !== null && (target.id ? (ids.get(target.file)?.has(target.id) ?? false) : ids.has(target.file)),
    }));
  return {
    title: book.title,
    language: book.language,
    outline: links('toc'),
    pages: links('page-list').map(({ text, found }) => ({ number: text, found })),
    ...read,
    embedded: [...book.listed].filter(([, i]) => i.mediaType === 'text/css').flatMap(([path]) => facesOf(book, path)),
    problems: [...book.problems, ...read.problems],
  };
}

function facesOf(book: OpenBook, path: string): ObservedFlow['embedded'] {
  const rules = new StyleRules();
  rules.add(book.text(path));
  return rules.fontFaces
    .filter((f) => book.files.has(resolve(path, f.source)!.file))
    .map((f) => ({ family: f.family, weight: f.weight ?? '400', style: f.style ?? 'normal' }));
}
