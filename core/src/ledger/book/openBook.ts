import { SaxesParser } from 'saxes';
import { unzip } from '../../packages/unzip.ts';
import { resolve } from '../html/address.ts';
import { attribute, elementsOf, parsePage, textOf } from '../html/dom.ts';
import type { Element } from '../html/dom.ts';

interface PackageItem {
  href: string;
  mediaType: string;
  properties: string;
}
export interface PackageFacts {
  title: string;
  language: string;
  items: Map<string, PackageItem>;
  /** Texts in their order, each with what is said of its place. */
  spine: { item: string; properties: string }[];
  direction: string;
  meta: Map<string, string[]>;
}

/** What a package document says (EPUB 3.3, section 5). Throws where it is no well-formed XML. */
export function readPackage(xml: string): PackageFacts {
  const facts: PackageFacts = { title: '', language: '', items: new Map(), spine: [], direction: '', meta: new Map() };
  const parser = new SaxesParser({ xmlns: true });
  let text = '';
  let property = '';
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', ({ local, attributes: a }) => {
    text = '';
    const get = (name: string): string => Object.values(a).find((x) => x.local === name)?.value ?? '';
    if (local === 'item') facts.items.set(get('id'), { href: get('href'), mediaType: get('media-type'), properties: get('properties') });
    if (local === 'itemref') facts.spine.push({ item: get('idref'), properties: get('properties') });
    if (local === 'spine') facts.direction = get('page-progression-direction');
    property = local === 'meta' ? get('property') : '';
  });
  parser.on('text', (t) => (text += t));
  parser.on('closetag', ({ local }) => {
    if (local === 'title') facts.title ||= text;
    if (local === 'language') facts.language ||= text;
    if (local === 'meta' && property) facts.meta.set(property, [...(facts.meta.get(property) ?? []), text]);
  });
  parser.write(xml).close();
  return facts;
}

function malformed(xml: string): string | null {
  try {
    const parser = new SaxesParser({ xmlns: true });
    parser.on('error', (error) => {
      throw error;
    });
    parser.write(xml).close();
    return null;
  } catch (error) {
    return error instanceof Error ? error.message : 'it is no XML';
  }
}

/** A book that was opened: its files by their paths, what its package says, and what is wrong with it as a package. */
export interface OpenBook extends PackageFacts {
  files: ReadonlyMap<string, Uint8Array>;
  text(path: string): string;
  /** Files that the package lists, by their paths. */
  listed: ReadonlyMap<string, PackageItem>;
  /** Paths of the texts in their order. */
  texts: { path: string; properties: string }[];
  problems: { file: string; says: string }[];
}

/** Opens an e-book from its bytes alone. */
export async function openBook(bytes: Uint8Array): Promise<OpenBook> {
  const files = await unzip(bytes);
  const text = (path: string): string => new TextDecoder().decode(files.get(path) ?? new Uint8Array());
  const root = /full-path="([^"]+)"/.exec(text('META-INF/container.xml'))?.[1] ?? '';
  const facts = readPackage(text(root));
  const inBook = (href: string): string => resolve(root, href)!.file;
  const listed = new Map([...facts.items.values()].map((i) => [inBook(i.href), i]));
  const problems: OpenBook['problems'] = [];
  if ([...files.keys()][0] !== 'mimetype' || text('mimetype') !== 'application/epub+zip')
    problems.push({ file: 'mimetype', says: 'the book does not begin with its media type' });
  for (const path of files.keys())
    if (path !== 'mimetype' && path !== root && !path.startsWith('META-INF/') && !listed.has(path))
      problems.push({ file: path, says: 'it is not listed' });
  for (const path of listed.keys()) if (!files.has(path)) problems.push({ file: path, says: 'it is listed, and not there' });
  for (const [path, item] of listed) {
    const wrong = item.mediaType === 'application/xhtml+xml' && files.has(path) ? malformed(text(path)) : null;
    if (wrong) problems.push({ file: path, says: wrong });
  }
  const texts = facts.spine.flatMap(({ item, properties }) => {
    const found = facts.items.get(item);
    return found ? [{ path: inBook(found.href), properties }] : [];
  });
  return { ...facts, files, text, listed, texts, problems };
}

/** The entries of one of the lists by which a book is navigated, with the file and id that each leads to. */
export function navigationList(book: OpenBook, type: 'toc' | 'page-list'): { text: string; target: { file: string; id: string } | null }[] {
  const path = [...book.listed].find(([, i]) => i.properties.split(' ').includes('nav'))?.[0];
  if (path === undefined) return [];
  const nav = [...elementsOf(parsePage(book.text(path)))].find((e) => e.tagName === 'nav' && attribute(e, 'epub:type') === type);
  return (nav ? [...elementsOf(nav)] : [])
    .filter((e): e is Element => e.tagName === 'a')
    .map((e) => ({ text: textOf(e), target: resolve(path, attribute(e, 'href') ?? '') }));
}
