import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import type { Folio } from '../src/index.ts';
import { pagesOf } from '../src/index.ts';
import type { Sample } from '@elastic-folio/demo';
import { subjectKey } from '../src/ledger/index.ts';
import { openBook } from '../src/ledger/book/openBook.ts';
import { unzip } from '../src/packages/unzip.ts';
import { observeFixedEpub } from '../src/ledger/book/observeFixedEpub.ts';
import { attribute, elementsOf, parsePage, textOf } from '../src/ledger/html/dom.ts';
import { sharpPictures } from '../src/ports/node.ts';
import { pageSide, readsFromRight } from '../src/write/epub-fixed/pageSide.ts';
import { asSample, make, readBack, sample, writeOnly } from './support/samples.ts';
import { pressable } from './support/pressable.ts';
import { describeBooks } from './support/validBook.ts';
import { zipped } from './support/zipped.ts';

const SMALL = { resolution: 36, cover: 'none' };
const bytesOf = async (s: Sample, settings: Record<string, unknown> = {}, folio: Folio = s.folio): Promise<Uint8Array> =>
  (await writeOnly(s, 'epub-fixed', { ...SMALL, ...settings }, folio)).get('book.epub')!;

describeBooks('epub-fixed', { ...SMALL, resolution: 72 }, (id, bytes) => {
  test('has every page once, in its order, in its size', async () => {
    const { bookPages, pages } = await observeFixedEpub(bytes(), sharpPictures);
    const places = pagesOf((await sample(id)).folio);
    expect(pages).toHaveLength(places.length);
    expect(bookPages.map((p) => p.viewport)).toEqual(
      places.map(({ page }) => ({ width: Math.floor((page.box.width * 96) / 72), height: Math.floor((page.box.height * 96) / 72) })),
    );
  });
});

describe('a book of fixed pages', () => {
  let almanac: Sample;
  let bytes: Uint8Array;
  beforeAll(async () => {
    almanac = await sample('marrowby-almanac');
    bytes = await bytesOf(almanac);
  });

  test('says of itself how it is shown (EPUB 3.3, 8.2)', async () => {
    const book = await openBook(await bytesOf(almanac, { spreads: 'turned', orientation: 'landscape' }));
    expect(book.meta.get('rendition:layout')).toEqual(['pre-paginated']);
    expect(book.meta.get('rendition:spread')).toEqual(['landscape']);
    expect(book.meta.get('rendition:orientation')).toEqual(['landscape']);
  });
  test('lets the cover stand on the right and pairs lie as they do in the layout', async () => {
    const sides = (await openBook(bytes)).texts.map((t) => t.properties);
    expect(sides.slice(0, 5)).toEqual([
      'page-spread-right',
      'page-spread-left',
      'page-spread-right',
      'page-spread-left',
      'page-spread-right',
    ]);
  });
  test('has its text in reading order, selectable, under the roles of its styles', async () => {
    const book = await openBook(bytes);
    const headings = book.texts.flatMap(({ path }) =>
      [...elementsOf(parsePage(book.text(path)))].filter((e) => e.tagName === 'h1').map((e) => textOf(e)),
    );
    expect(headings).toContainEqual(expect.stringMatching(/^When the dome turns/));
    // What is read last stands last, whatever lies above it: the page's words in the order of the file.
    const page = textOf([...elementsOf(parsePage(book.text('EPUB/page-005.xhtml')))].find((e) => e.tagName === 'section')!);
    expect(page.indexOf('Three evenings in one')).toBeLessThan(page.indexOf('Before you come'));
    // Nothing takes the pointer from the text, and no style keeps it from being selected.
    expect(book.text('EPUB/style.css')).not.toMatch(/user-select/);
  });
  test('leads from page to page through its links', async () => {
    const text = (await openBook(bytes)).text('EPUB/page-004.xhtml');
    expect(text).toMatch(/href="page-015\.xhtml"/);
  });
  test('lists headings to the depth asked for, and its pages where it has none', async () => {
    const outline = async (settings: Record<string, unknown>, folio?: Folio) =>
      (await observeFixedEpub(await bytesOf(almanac, settings, folio), sharpPictures)).outline;
    const [one, three] = [await outline({ depth: 1 }), await outline({ depth: 3 })];
    expect(one.length).toBeLessThan(three.length);
    expect(three.every((o) => o.page !== null)).toBe(true);
    const flat = produce(almanac.folio, (d) => {
      for (const s of Object.values(d.head.paragraphStyles)) if (/^h\d$/.test(s.role?.element ?? '')) s.role!.element = 'p';
    });
    expect((await outline({}, flat)).map((o) => o.text).slice(0, 3)).toEqual(
      pagesOf(almanac.folio)
        .slice(0, 3)
        .map((p) => p.page.number ?? String(p.number)),
    );
  });
  test('takes a part of the pages, under their own numbers', async () => {
    const { pageList, bookPages } = await observeFixedEpub(await bytesOf(almanac, { pages: '2-3' }), sharpPictures);
    expect(bookPages.map((p) => p.side)).toEqual(['left', 'right']);
    expect(pageList.map((p) => p.page)).toEqual([1, 2]);
  });
  test('scrambles its typefaces where asked, and takes an own style sheet last', async () => {
    const plain = await unzip(bytes);
    const other = await unzip(await bytesOf(almanac, { fonts: 'scrambled', css: '.page { outline: none }' }));
    const font = [...plain.keys()].find((p) => p.endsWith('.woff2'))!;
    expect(Buffer.from(other.get(font)!).equals(Buffer.from(plain.get(font)!))).toBe(false);
    expect(other.has('META-INF/encryption.xml')).toBe(true);
    expect(new TextDecoder().decode(other.get('EPUB/style.css')).trimEnd()).toMatch(/\.page \{ outline: none \}$/);
  });
  test('is the same, byte for byte, of the same document', async () => {
    expect(Buffer.from(await bytesOf(almanac)).equals(Buffer.from(bytes))).toBe(true);
  });
  test('has a cover for the shelf beside its pages', async () => {
    const book = await openBook(await bytesOf(almanac, { cover: 'page' }));
    const cover = [...book.listed].find(([, i]) => i.properties === 'cover-image')!;
    expect((await sharpPictures.info(book.files.get(cover[0])!)).width).toBeGreaterThan(500);
    expect(book.texts).toHaveLength(16);
  });
});

describe('what is damaged in a book of fixed pages is found', () => {
  let almanac: Sample;
  beforeAll(async () => {
    almanac = await sample('marrowby-almanac');
  });
  const contradicted = async (alter: (files: Map<string, Uint8Array>) => void): Promise<string[]> => {
    const made = await make(almanac, 'epub-fixed', { ...SMALL, pages: '1-3' });
    const files = await unzip(await made.read('book.epub'));
    alter(files);
    const ledger = await readBack(almanac, 'epub-fixed', new Map([['book.epub', zipped(files)]]), { ...SMALL, pages: '1-3' });
    return ledger.filter((e) => !e.agrees).map((e) => `${subjectKey(e.subject)} ${e.says}`);
  };
  const change = (path: string, from: string | RegExp, to: string) => (files: Map<string, Uint8Array>) => {
    const before = new TextDecoder().decode(files.get(path));
    const after = before.replace(from, to);
    expect(after).not.toBe(before);
    files.set(path, new TextEncoder().encode(after));
  };
  test.each<[string, (files: Map<string, Uint8Array>) => void, RegExp]>([
    ['pages on the wrong side', change('EPUB/package.opf', 'page-spread-left', 'page-spread-right'), /page:page-2:size lies right/],
    ['a page of another size', change('EPUB/page-002.xhtml', /content="width=\d+/, 'content="width=100'), /page:page-2:size shown 100/],
    ['a book that reflows', change('EPUB/package.opf', 'pre-paginated', 'reflowable'), /document:.*:order the book does not say/],
    [
      'a printed page that leads elsewhere',
      change('EPUB/nav.xhtml', /(page-list[\s\S]*?)page-002\.xhtml/, '$1page-001.xhtml'),
      /outline \d+ printed/,
    ],
    ['a page that is no XML', change('EPUB/page-003.xhtml', '</section>', ''), /order EPUB\/page-003\.xhtml/],
  ])('%s', async (_, alter, says) => {
    expect((await contradicted(alter)).join('\n')).toMatch(says);
  });
});

describe('what leads somewhere when it is pressed', () => {
  const folio = pressable();
  test.each(['html', 'epub-fixed'])('is a link in %s, and read back as one', async (output) => {
    const { ledger } = await make(asSample(folio), output, SMALL);
    const cues = ledger.filter((e) => e.subject.kind === 'cue').map((e) => [e.subject.id, e.outcome, e.code, e.check]);
    expect(cues).toEqual([
      ['toPage', 'kept', 'kept', 'confirmed'],
      ['toAddress', 'kept', 'kept', 'confirmed'],
      ['toNext', 'kept', 'kept', 'confirmed'],
      ['toScript', 'dropped', 'link.refused', 'uncheckable'],
      ['toMotion', 'kept', 'kept', 'confirmed'],
    ]);
  });
  test('names what it leads to where nothing else does', async () => {
    const files = await unzip(await bytesOf(asSample(folio)));
    const page = new TextDecoder().decode(files.get('EPUB/page-001.xhtml'));
    const links = [...elementsOf(parsePage(page))]
      .filter((e) => e.tagName === 'a')
      .map((e) => [attribute(e, 'href'), attribute(e, 'aria-label')]);
    expect(links).toEqual(
      expect.arrayContaining([
        ['page-002.xhtml', 'Page 2'],
        ['https://marrowby.example/', 'https://marrowby.example/'],
      ]),
    );
  });
});

describe('the side of a page', () => {
  const facing = async (alter: (draft: Folio) => void = () => undefined): Promise<(string | null)[]> => {
    const folio = produce((await sample('marrowby-almanac')).folio, alter);
    return pagesOf(folio).map((p) => pageSide(folio, p));
  };
  test('is none in a document of single pages', async () => {
    expect(
      new Set(
        await facing((d) => {
          for (const s of Object.values(d.spreads)) s.pages.splice(1);
        }),
      ),
    ).toEqual(new Set([null]));
  });
  test('of a cover is the other one in books that go on to the left', async () => {
    const turned = (d: Folio): void => {
      for (const s of Object.values(d.spreads)) if (s.pages.length === 2) s.pages.reverse();
    };
    expect((await facing(turned))[0]).toBe('left');
    expect(readsFromRight(produce((await sample('marrowby-almanac')).folio, turned))).toBe(true);
  });
});
