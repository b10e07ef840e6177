import { createHash } from 'node:crypto';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import type { Folio } from '../src/index.ts';
import type { Sample } from '@elastic-folio/demo';
import { subjectKey } from '../src/ledger/index.ts';
import type { Evidence } from '../src/ledger/index.ts';
import { readPackage } from '../src/ledger/book/openBook.ts';
import { unzip } from '../src/packages/unzip.ts';
import { observeEpub } from '../src/ledger/flow/observeEpub.ts';
import { validateEpub } from '../src/ledger/book/validateEpub.ts';
import { sharpPictures } from '../src/ports/node.ts';
import { DAMAGE, IN_TEXT, INITIAL } from './support/damage.ts';
import { describeDamage } from './support/describeDamage.ts';
import { asSample, make, readBack, sample, writeOnly } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';
import { describeBooks } from './support/validBook.ts';

/** Small pictures: what is tested does not depend on their size, but line drawings need some. */
const SMALL = { resolution: 72, cover: 'none' };
const text = (files: Map<string, Uint8Array>, path: string): string => new TextDecoder().decode(files.get(path));
const book = async (s: Sample, settings: Record<string, unknown> = {}, folio: Folio = s.folio): Promise<Map<string, Uint8Array>> =>
  unzip((await writeOnly(s, 'epub', { ...SMALL, ...settings }, folio)).get('book.epub')!);

describeBooks('epub', SMALL, () => undefined);

describe('an e-book', () => {
  let almanac: Sample;
  let files: Map<string, Uint8Array>;
  beforeAll(async () => {
    almanac = await sample('marrowby-almanac');
    files = await book(almanac);
  });

  test('begins with its media type, stored, at byte 38 (OCF 4.3)', async () => {
    const bytes = (await writeOnly(almanac, 'epub', SMALL, almanac.folio)).get('book.epub')!;
    expect(Buffer.from(bytes.subarray(30, 58)).toString('latin1')).toBe('mimetypeapplication/epub+zip');
    expect(bytes[8]).toBe(0);
  });
  test('is the same, byte for byte, of the same document', async () => {
    const hash = async (): Promise<string> =>
      createHash('sha256')
        .update((await writeOnly(almanac, 'epub', SMALL, almanac.folio)).get('book.epub')!)
        .digest('hex');
    expect(await hash()).toBe(await hash());
  });
  test('says what it is, of whom and in which language', () => {
    const facts = readPackage(text(files, 'EPUB/package.opf'));
    expect(facts).toMatchObject({ title: 'The Marrowby Almanac', language: 'en' });
    // EPUB 3.3, 5.5.4: CCYY-MM-DDThh:mm:ssZ.
    expect(facts.meta.get('dcterms:modified')).toEqual(['2026-03-06T00:00:00Z']);
    expect(text(files, 'EPUB/package.opf')).toMatch(
      /<dc:identifier id="book-id">urn:uuid:[0-9a-f]{8}-[0-9a-f]{4}-5[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}</,
    );
  });
  test('claims of its accessibility only what is there (EPUB Accessibility 1.1)', async () => {
    const facts = readPackage(text(files, 'EPUB/package.opf'));
    expect(facts.meta.get('schema:accessMode')).toEqual(['textual', 'visual']);
    expect(facts.meta.get('schema:accessibilityFeature')).toEqual(
      expect.arrayContaining(['readingOrder', 'structuralNavigation', 'tableOfContents', 'pageNavigation', 'alternativeText']),
    );
    const silent = produce(almanac.folio, (d) => void delete d.spreads['s2']!.items['telescope-picture']!.alt);
    const without = readPackage(text(await book(almanac, { pageList: false }, silent), 'EPUB/package.opf'));
    expect(without.meta.get('schema:accessibilityFeature')).not.toContain('alternativeText');
    expect(without.meta.get('schema:accessibilityFeature')).not.toContain('pageNavigation');
    expect(without.meta.get('schema:accessModeSufficient')).toEqual(['textual,visual']);
    expect(without.meta.get('schema:accessibilitySummary')![0]).toMatch(/1 of its \d+ pictures has? ?n?o?/);
  });
  test('styles text by classes named after the document’s styles, in lengths that go with the reader’s', () => {
    const css = text(files, 'EPUB/style.css');
    expect(css).toMatch(/\.running-text \{/);
    const rule = /\.caption \{([^}]*)\}/.exec(css)![1]!;
    expect(rule).toMatch(/font-size: 0\.\d+em/);
    // The hairlines of tables are as thin as a device draws them.
    expect(css.replace(/@font-face[^}]*\}|border[^;]*;/g, '')).not.toMatch(/\d(pt|px|cm|mm)\b/);
  });
  test('lists headings as deep as asked, and the printed pages', async () => {
    const depth = async (d: number): Promise<number> =>
      (await observeEpub((await writeOnly(almanac, 'epub', { ...SMALL, depth: d }, almanac.folio)).get('book.epub')!, sharpPictures))
        .outline.length;
    expect(await depth(1)).toBeLessThan(await depth(3));
    expect(
      text(files, 'EPUB/nav.xhtml')
        .match(/<nav[^>]*page-list[\s\S]*<\/nav>/)![0]
        .match(/<li>/g),
    ).toHaveLength(16);
  });
  test('brings its typefaces, scrambles them, or leaves them to the reader', async () => {
    const fonts = (f: Map<string, Uint8Array>): string[] => [...f.keys()].filter((p) => p.startsWith('EPUB/fonts/'));
    expect(fonts(files).length).toBeGreaterThan(2);
    const scrambled = await book(almanac, { fonts: 'scrambled' });
    expect(fonts(scrambled)).toEqual(fonts(files));
    // The algorithm worked by hand from the identifier: EPUB 3.3, 4.4.3.
    const id = /<dc:identifier id="book-id">([^<]+)</.exec(text(scrambled, 'EPUB/package.opf'))![1]!;
    const key = createHash('sha1').update(id).digest();
    for (const path of fonts(files)) {
      const [plain, hidden] = [files.get(path)!, scrambled.get(path)!];
      expect(Buffer.from(hidden.map((b, i) => (i < 1040 ? b ^ key[i % 20]! : b))).equals(Buffer.from(plain))).toBe(true);
      expect(text(scrambled, 'META-INF/encryption.xml')).toContain(path);
    }
    const without = await book(almanac, { fonts: 'reader' });
    expect(fonts(without)).toEqual([]);
    expect(text(without, 'EPUB/style.css')).not.toContain('font-family');
  });
  test('takes an own style sheet after its own', async () => {
    const css = text(await book(almanac, { css: '.caption { color: teal; }' }), 'EPUB/style.css');
    expect(css.lastIndexOf('.caption { color: teal; }')).toBeGreaterThan(css.lastIndexOf('.caption {\n'));
  });
  test('has a cover of its own picture, or of its first page', async () => {
    for (const cover of ['picture', 'page']) {
      const covered = await book(almanac, { cover });
      const facts = readPackage(text(covered, 'EPUB/package.opf'));
      const item = [...facts.items.values()].find((i) => i.properties === 'cover-image')!;
      const info = await sharpPictures.info(covered.get(`EPUB/${item.href}`)!);
      expect(info.width).toBeGreaterThan(400);
    }
  });
  test('names addresses that could run a program nowhere', async () => {
    const folio = produce(
      almanac.folio,
      (d) =>
        void (d.stories['dome-feature']!.links['toSite']!.destination = { to: 'address', href: 'javascript:alert(1)', window: 'same' }),
    );
    expect([...(await book(almanac, {}, folio))].map(([, b]) => new TextDecoder().decode(b)).join('')).not.toMatch(/javascript:/);
  });
  test('of hostile text is well-formed all the same', async () => {
    const folio = tinyFolio(['<script>alert("&")</script> \u0001\uFFFE', ']]> --> <!-- ', '\u202E right to left']);
    const made = await make(asSample(folio), 'epub', SMALL);
    expect(made.ledger.filter((e) => e.check === 'contradicted' && e.subject.id !== 'p1')).toEqual([]);
    expect(await validateEpub(await made.read('book.epub'), new Set())).toEqual([]);
  });
});

describeDamage('epub', SMALL, [...DAMAGE, ...IN_TEXT, INITIAL]);

describe('reading an e-book back', () => {
  const against = (evidence: Evidence[]): string[] => evidence.filter((e) => !e.agrees).map((e) => subjectKey(e.subject));
  let almanac: Sample;
  beforeAll(async () => {
    almanac = await sample('marrowby-almanac');
  });
  test('a pinned picture that stands at other words', async () => {
    const pinned = (paragraph: string): Folio =>
      produce(
        almanac.folio,
        (d) => void (d.head.structure.pins['pin'] = { id: 'pin', item: 'map-picture', paragraph, offset: 0, as: 'after' }),
      );
    const files = await writeOnly(almanac, 'epub', SMALL, pinned('dome-feature-9'));
    expect(against(await readBack({ ...almanac, folio: pinned('dome-feature-9') }, 'epub', files, SMALL))).toEqual([]);
    expect(against(await readBack({ ...almanac, folio: pinned('dome-feature-5') }, 'epub', files, SMALL))).toContain('pin:pin:place');
  });
});
