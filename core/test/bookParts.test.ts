import { beforeAll, describe, expect, test } from '@jest/globals';
import { readingPage } from '../src/preview/readingPage.ts';
import type { ReadingLook } from '../src/preview/readingPage.ts';
import { resolve } from '../src/ledger/html/address.ts';
import { readPackage } from '../src/ledger/book/openBook.ts';
import { unzip } from '../src/packages/unzip.ts';
import { attribute, elementsOf, parsePage } from '../src/ledger/html/dom.ts';
import { accessibilityOf } from '../src/write/book/accessibility.ts';
import type { BookContent } from '../src/write/book/accessibility.ts';
import { navigationDocument, wordsFor } from '../src/write/book/navigation.ts';
import { identifierOf } from '../src/write/book/packageDocument.ts';
import { encryptionXml, scramble } from '../src/write/book/scramble.ts';
import { asSample, writeOnly } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

describe('the navigation document (EPUB 3.3, 7)', () => {
  const words = wordsFor('en');
  const nav = (levels: number[]): string =>
    navigationDocument({
      title: 'T',
      language: 'en',
      words,
      outline: levels.map((level, i) => ({ level, text: String(i + 1), href: `a.xhtml#h${i + 1}` })),
      pages: [],
      landmarks: [],
    });
  /** The contents as brackets: each entry with those below it. */
  const tree = (html: string): string =>
    /<nav epub:type="toc"[\s\S]*?<\/nav>/
      .exec(html)![0]
      .replace(/<h1[^>]*>[^<]*<\/h1>/, '')
      .replace(/<a [^>]*>(\d+)<\/a>/g, '$1')
      .replace(/<\/?nav[^>]*>|\s/g, '')
      .replace(/<ol>/g, '(')
      .replace(/<\/ol>/g, ')')
      .replace(/<li>/g, '[')
      .replace(/<\/li>/g, ']');
  test.each([
    [[1, 2, 2, 1], '([1([2][3])][4])'],
    // A level that is skipped is no rung of its own.
    [[1, 3, 2], '([1([2][3])])'],
    [[3, 1, 2], '([1][2([3])])'],
    [[1, 2, 3, 4, 1], '([1([2([3([4])])])][5])'],
  ])('of headings of the levels %j', (levels, brackets) => {
    expect(tree(nav(levels))).toBe(brackets);
  });
  test('has a list of pages only where there are some, and never an empty list', () => {
    expect(nav([1])).not.toContain('page-list');
    expect(nav([1])).not.toMatch(/<ol>\s*<\/ol>(?=\s*<\/nav>\s*<nav)/);
  });
  test('speaks the language of the book where its words are known', () => {
    expect(wordsFor('de-AT').contents).toBe('Inhalt');
    expect(wordsFor('xx').contents).toBe('Contents');
  });
});

describe('the package document (EPUB 3.3, 5)', () => {
  test('names a document that has no name of its own by its id, always the same', () => {
    const a = tinyFolio(['A']);
    expect(identifierOf(a)).toBe(identifierOf(tinyFolio(['B'])));
    expect(identifierOf({ ...a, head: { ...a.head, id: 'other' } })).not.toBe(identifierOf(a));
    expect(identifierOf({ ...a, head: { ...a.head, metadata: { ...a.head.metadata, identifier: 'urn:isbn:9780000000002' } } })).toBe(
      'urn:isbn:9780000000002',
    );
  });
  test('is read whatever prefixes it uses', () => {
    const facts = readPackage(
      '<o:package xmlns:o="http://www.idpf.org/2007/opf" xmlns:d="http://purl.org/dc/elements/1.1/"><o:metadata><d:title>T</d:title><d:language>de</d:language></o:metadata><o:manifest><o:item id="a" href="a.xhtml" media-type="application/xhtml+xml" properties="nav"/></o:manifest><o:spine><o:itemref idref="a"/></o:spine></o:package>',
    );
    expect(facts).toMatchObject({ title: 'T', language: 'de', spine: [{ item: 'a', properties: '' }] });
    expect(facts.items.get('a')).toEqual({ href: 'a.xhtml', mediaType: 'application/xhtml+xml', properties: 'nav' });
    expect(() => readPackage('<package><unclosed></package>')).toThrow();
  });
});

describe('scrambled fonts (EPUB 3.3, 4.4)', () => {
  const font = Uint8Array.from({ length: 2000 }, (_, i) => i % 251);
  test('are the same again when scrambled twice, and untouched behind their first 1,040 bytes', () => {
    const once = scramble(font, 'urn:uuid:1');
    expect(once).not.toEqual(font);
    expect(once.slice(1040)).toEqual(font.slice(1040));
    expect(scramble(once, 'urn:uuid:1')).toEqual(font);
  });
  test('go by the identifier without its white space', () => {
    expect(scramble(font, ' urn:uuid:1\n')).toEqual(scramble(font, 'urn:uuid:1'));
    expect(scramble(font, 'urn:uuid:2')).not.toEqual(scramble(font, 'urn:uuid:1'));
  });
  test('shorter than that are scrambled whole', () => {
    expect(scramble(font.slice(0, 10), 'x')).toHaveLength(10);
  });
  test('are listed with the algorithm that undoes it', () => {
    expect(encryptionXml(['EPUB/fonts/a.woff2'])).toMatch(/http:\/\/www\.idpf\.org\/2008\/embedding[\s\S]*URI="EPUB\/fonts\/a\.woff2"/);
  });
});

describe('accessibility (EPUB Accessibility 1.1)', () => {
  const none: BookContent = { pictures: [], tables: false, outline: false, pages: 'none', reflows: true };
  test('of text alone needs no eyes', () => {
    expect(accessibilityOf(none)).toMatchObject({ accessModes: ['textual'], sufficient: ['textual'] });
    expect(accessibilityOf(none).features).not.toContain('alternativeText');
    expect(accessibilityOf(none).summary).toMatch(/It has no pictures/);
  });
  test('claims ways of finding only where they are', () => {
    expect(accessibilityOf(none).features).toEqual(['displayTransformability', 'readingOrder']);
    expect(accessibilityOf({ ...none, outline: true, pages: 'marked' }).features).toEqual(
      expect.arrayContaining(['tableOfContents', 'pageNavigation', 'pageBreakMarkers']),
    );
    expect(accessibilityOf({ ...none, pages: 'listed' }).features).not.toContain('pageBreakMarkers');
  });
  test('needs eyes where a picture is not put in words, and says how many are', () => {
    const some = accessibilityOf({ ...none, pictures: [{ described: true }, { described: false }] });
    expect(some).toMatchObject({ accessModes: ['textual', 'visual'], sufficient: ['textual,visual'] });
    expect(some.features).not.toContain('alternativeText');
    expect(some.summary).toMatch(/1 of its 2 pictures/);
  });
  test('does not promise that fixed pages fit themselves to a reader', () => {
    const fixed = accessibilityOf({ ...none, reflows: false });
    expect(fixed.features).not.toContain('displayTransformability');
    expect(fixed.summary).toMatch(/only with the page/);
  });
});

describe('references inside a result', () => {
  test.each([
    ['EPUB/a.xhtml', '#x', { file: 'EPUB/a.xhtml', id: 'x' }],
    ['EPUB/a.xhtml', 'b.xhtml', { file: 'EPUB/b.xhtml', id: '' }],
    ['EPUB/text/a.xhtml', '../pictures/p.jpg', { file: 'EPUB/pictures/p.jpg', id: '' }],
    ['a.html', './b%20c.html#d', { file: 'b c.html', id: 'd' }],
    ['a.html', 'https://marrowby.example/', null],
    ['a.html', 'mailto:keeper@marrowby.example', null],
  ])('from %s to %s', (from, href, found) => {
    expect(resolve(from, href)).toEqual(found);
  });
});

describe('a book as a reading view shows it', () => {
  const look: ReadingLook = { size: 120, night: false, typeface: 'own', margin: 2 };
  let files: Map<string, Uint8Array>;
  beforeAll(async () => {
    const folio = tinyFolio(['First.', 'Second.']);
    files = await unzip((await writeOnly(asSample(folio), 'epub', { cover: 'none' }, folio)).get('book.epub')!);
  });
  const page = (more: Partial<ReadingLook> = {}): string => readingPage(files, { ...look, ...more }, (path) => `/book/${path}`);

  test('is all of it on one page, in order, with its own style sheet', () => {
    expect(page()).toMatch(/First\.[\s\S]*Second\./);
    expect(page()).toContain('<link rel="stylesheet" href="/book/EPUB/style.css">');
    expect(page()).toMatch(/^<!doctype html><html lang="en">/);
  });
  test('keeps the places that links lead to', () => {
    expect(page()).toContain('id="t-p2"');
    expect(page()).toContain('id="page-pg"');
  });
  test('is set as a reader sets it', () => {
    expect(page()).toContain('font-size: 120%');
    expect(page({ night: true })).toContain('background: #14181b');
    expect(page({ typeface: 'serif' })).toContain('font-family: serif !important');
    expect(page()).not.toContain('!important');
  });
  test('runs no program that a book brings', () => {
    const hostile = new Map(files);
    const path = [...hostile.keys()].find((p) => /text-001\.xhtml$/.test(p))!;
    const text = new TextDecoder()
      .decode(hostile.get(path))
      .replace('<p ', '<script>alert(1)</script><a href="https://marrowby.example/">out</a><p ');
    hostile.set(path, new TextEncoder().encode(text));
    const shown = [...elementsOf(parsePage(readingPage(hostile, look, (p) => `/book/${p}`)))];
    for (const script of shown.filter((e) => e.tagName === 'script')) expect(attribute(script, 'type')).toBe('text/plain');
    expect(
      shown.filter((e) => e.tagName === 'a').every((e) => attribute(e, 'href')!.startsWith('#') || attribute(e, 'rel') === 'noreferrer'),
    ).toBe(true);
  });
  test('of a book without a package is an error, not a page', () => {
    expect(() => readingPage(new Map(), look, (p) => p)).toThrow();
  });
});
