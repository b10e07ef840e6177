import { beforeAll, describe, expect, test } from '@jest/globals';
import { pagesOf } from '../../src/index.ts';
import type { PagePlace } from '../../src/index.ts';
import { elementsOf, parsePage, textOf } from '../../src/ledger/html/dom.ts';
import type { Element } from '../../src/ledger/html/dom.ts';
import { redrawWord } from '../../src/preview/ooxml/redrawWord.ts';
import { make, sample } from '../support/samples.ts';

/** A text document drawn from its bytes: what a person compares with the layout. */
describe('the Almanac’s text document, drawn', () => {
  let all: Element[];
  let html: string;
  let pages: PagePlace[];
  beforeAll(async () => {
    const almanac = await sample('marrowby-almanac');
    pages = pagesOf(almanac.folio);
    const made = await make(almanac, 'docx', { resolution: 36 });
    html = await redrawWord(await made.read('document.docx'), async () => undefined, 1);
    all = [...elementsOf(parsePage(html))];
  });
  const named = (id: string): Element | undefined => all.find((e) => e.attrs.some((a) => a.name === 'id' && a.value === id));
  test('has every page’s beginning and every paragraph by its id', () => {
    for (const { page } of pages) expect([page.id, named(`page-${page.id}`)?.tagName]).toEqual([page.id, 'a']);
    const paragraph = named('t-dome-feature-4')!.parentNode as Element;
    expect(paragraph.tagName).toBe('p');
    expect(textOf(paragraph)).toMatch(/^The keepers of the dome/);
  });
  test('has its words in their typefaces, which come from the file', () => {
    const family = /font-family:&quot;Source Serif 4&quot;/.test(html);
    expect(family).toBe(true);
    expect(html).toMatch(/@font-face\{font-family:"Source Serif 4";font-weight:400;font-style:normal;src:url\(data:font\/ttf/);
  });
  test('has its pictures, its table in columns of the layout, and its notes', () => {
    expect(all.filter((e) => e.tagName === 'img').length).toBeGreaterThan(20);
    expect(all.filter((e) => e.tagName === 'col')).toHaveLength(6);
    expect(all.filter((e) => e.tagName === 'tr')).toHaveLength(32);
    expect(html).toMatch(/<div class="note"><sup>1<\/sup>/);
  });
  test('asks for nothing outside, and runs nothing', () => {
    expect(html).not.toMatch(/<script|<link|src="(?!data:)|url\((?!data:)/);
  });
});

/** The same as laid out: a page at a time. */
describe('a page of the Almanac as laid out, drawn', () => {
  let html: string;
  beforeAll(async () => {
    const made = await make(await sample('marrowby-almanac'), 'docx', { resolution: 36, way: 'laid' });
    html = await redrawWord(await made.read('document.docx'), async () => undefined, 6);
  });
  const all = (): Element[] => [...elementsOf(parsePage(html))];
  test('is as large as the page, and everything on it stands in its place', () => {
    const page = all().find((e) => e.tagName === 'section')!;
    expect(page.attrs.find((a) => a.name === 'style')!.value).toMatch(
      /width:595\.\d+pt;height:76\d(\.\d+)?pt|width:\d+(\.\d+)?pt;height:\d+(\.\d+)?pt/,
    );
    expect(all().filter((e) => e.tagName === 'img').length).toBeGreaterThan(1);
    for (const e of all().filter((x) => x.parentNode === page))
      expect(e.attrs.find((a) => a.name === 'style')!.value).toMatch(/^position:absolute;left:/);
  });
  test('has its own number in a header that other pages share', () => {
    expect(textOf(all().find((e) => e.tagName === 'section')!)).toMatch(/When the dome turns\s*6|6\s*When the dome turns/);
  });
});
