import { describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import { pagesOf } from '../../src/index.ts';
import type { Folio, Item } from '../../src/index.ts';
import { PageFacts } from '../../src/folio/pageFacts.ts';
import { subjectKey } from '../../src/ledger/index.ts';
import { changedDocx, corrections } from '../support/changedDocx.ts';
import { faultsOfOdf } from '../support/odfRules.ts';
import { against, make, readBack } from '../support/samples.ts';
import type { Made } from '../support/samples.ts';
import { flat, packed, part, readBytes } from '../odf/support/flatFile.ts';
import type { FlatParts } from '../odf/support/flatFile.ts';
import { foundFiles } from '../odf/support/foundFiles.ts';
import { ofToday } from '../support/ofToday.ts';

/** What came in as OpenDocument goes out with the original’s own elements, page by page, where nobody changed anything. */
type Came = Awaited<ReturnType<typeof readBytes>>;
const asCame = ({ folio, files, blobs }: Came) => ({ folio, files, blobs });
const odp = (came: Came, settings: Record<string, unknown> = {}, folio: Folio = came.folio): Promise<Made> =>
  make(asCame(came), 'odp', { resolution: 36, ...settings }, folio, { origin: came.origin });
const partOf = (bytes: Uint8Array, path = 'content.xml'): string => new TextDecoder().decode(unzipSync(bytes)[path]);
const contentOf = async (made: Made): Promise<string> => partOf(await made.read('document.odp'));
/** Pages all of whose facts are told as those of the original. */
const original = (made: Made, folio: Folio): string[] =>
  pagesOf(folio).flatMap(({ page }) =>
    made.ledger.some((e) => subjectKey(e.subject) === `page:${page.id}:size` && e.code === 'page.original') ? [page.id] : [],
  );

/** Faults of a package by the rules of the standard; what may stand where, originals know more of than these rules. */
const faultsIn = (bytes: Uint8Array): string[] => faultsOfOdf(bytes).filter((f) => !f.includes('may not stand in'));

const STYLES =
  `<style:default-style style:family="graphic"><style:text-properties fo:font-size="31pt" fo:color="#123456"/></style:default-style>` +
  `<style:style style:name="Base" style:family="graphic"><style:graphic-properties draw:fill="solid" draw:fill-color="#ffcc00" draw:fill-gradient-name="Sun"/></style:style>` +
  `<draw:gradient draw:name="Sun" draw:style="linear" draw:start-color="#ff0000" draw:end-color="#0000ff"/>`;
const AUTOMATIC =
  `<style:style style:name="gr1" style:family="graphic" style:parent-style-name="Base"><style:graphic-properties draw:stroke="none"/></style:style>` +
  `<style:style style:name="gr2" style:family="graphic"><style:graphic-properties draw:fill="none"/></style:style>` +
  `<style:style style:name="P1" style:family="paragraph"><style:paragraph-properties fo:text-align="center"/></style:style>`;
const page = (name: string, inside: string): string => `<draw:page draw:name="${name}" draw:master-page-name="M">${inside}</draw:page>`;
const box = (words: string, more = ''): string =>
  `<draw:frame draw:style-name="gr1" svg:x="1cm" svg:y="1cm" svg:width="8cm" svg:height="2cm"${more}><draw:text-box><text:p text:style-name="P1">${words}</text:p></draw:text-box></draw:frame>`;
/** A shape that our model has in another form, and an animation that it does not have. */
const RICH =
  `<draw:custom-shape draw:style-name="gr2" xml:id="s1" svg:x="2cm" svg:y="4cm" svg:width="3cm" svg:height="3cm"><text:p>Star</text:p><draw:enhanced-geometry draw:type="star5" svg:viewBox="0 0 21600 21600" draw:enhanced-path="M 0 0 L 21600 0 21600 21600 Z N"/></draw:custom-shape>` +
  `<anim:par presentation:node-type="timing-root"><anim:seq presentation:node-type="main-sequence"><anim:par smil:begin="next"><anim:par smil:begin="0s"><anim:par smil:begin="0s" presentation:node-type="on-click" presentation:preset-id="ooo-entrance-appear"><anim:set smil:begin="0s" smil:targetElement="s1" smil:attributeName="visibility" smil:to="visible"/></anim:par></anim:par></anim:par></anim:seq></anim:par>`;
const PARTS: FlatParts = {
  kind: 'presentation',
  styles: STYLES,
  automatic: AUTOMATIC,
  pages: page('Opening', box('First words') + RICH) + page('Second', box('Other words')) + page('Third', box('Last words')),
};
const came = (parts: Partial<FlatParts> = {}): Promise<Came> => readBytes('slides.fodp', flat({ ...PARTS, ...parts }));

describe('a presentation that nobody has changed', () => {
  test('goes out as it came: shapes with their own geometry, animations that our model has not, styles by their names', async () => {
    const source = await came();
    const made = await odp(source);
    const xml = await contentOf(made);
    expect(original(made, source.folio)).toHaveLength(3);
    expect(xml).toContain('draw:type="star5"');
    expect(xml).toContain('smil:targetElement="s1"');
    expect([...xml.matchAll(/<draw:page draw:name="([^"]+)"/g)].map((m) => m[1])).toEqual(['Opening', 'Second', 'Third']);
    const styles = partOf(await made.read('document.odp'), 'styles.xml');
    expect(styles).toContain('style:display-name="Base"');
    expect(faultsIn(await made.read('document.odp'))).toEqual([]);
    expect(against(made)).toEqual([]);
    expect(made.ledger.filter((e) => e.code === 'page.original').every((e) => e.check === 'confirmed')).toBe(true);
    await source.done();
  });

  test('what held there where no style said otherwise is in its styles: our own defaults are others (16.4)', async () => {
    const source = await came();
    const styles = partOf(await (await odp(source)).read('document.odp'), 'styles.xml');
    const base = /<style:style [^>]*style:name="o_Base".*?<\/style:style>/s.exec(styles)![0];
    expect(base).toMatch(/fo:font-size="31pt"/);
    expect(base).toMatch(/fo:color="#123456"/);
    // What is said nowhere there is as usual: here lines have a pitch where nothing is said.
    expect(base).toContain('fo:line-height="normal"');
    expect(base).toContain('draw:fill-gradient-name="o_Sun"');
    expect(styles).toContain('<draw:gradient draw:name="o_Sun"');
    await source.done();
  });

  test('read in again it is the same document', async () => {
    const source = await came();
    const again = await readBytes('again.odp', await (await odp(source)).read('document.odp'));
    const told = (folio: Folio) =>
      pagesOf(folio).map(({ spread }) =>
        Object.values(spread.items).map((i: Item) => [i.kind, i.transform.map((n) => Math.round(n * 100)), JSON.stringify(i.fill).length]),
      );
    expect(told(again.folio)).toEqual(told(source.folio));
    const words = (folio: Folio): string[] =>
      Object.values(folio.stories).flatMap((s) =>
        Object.values(s.blocks).flatMap((b) =>
          b.kind === 'paragraph' ? [b.content.map((n) => (n.type === 'span' ? n.text : '')).join('')] : [],
        ),
      );
    expect(words(again.folio)).toEqual(words(source.folio));
    await source.done();
    await again.done();
  });

  test('brings nothing back; a word that a colleague changes on such a page comes back', async () => {
    const source = await came();
    const bytes = await (await odp(source)).read('document.odp');
    expect(await corrections(source.folio, bytes)).toEqual({ corrections: [], added: [], gone: [] });
    const found = await corrections(
      source.folio,
      changedDocx(bytes, (xml) => xml.replace('Other words', 'Better words'), 'content.xml'),
    );
    expect(found.corrections).toMatchObject([{ before: 'Other words', after: 'Better words' }]);
    await source.done();
  });
});

describe('what somebody has changed is written anew', () => {
  const changed = async (alter: (d: Folio) => void, settings: Record<string, unknown> = {}): Promise<string[]> => {
    const source = await came();
    const folio = produce(source.folio, (d) => void alter(d as Folio));
    const made = await odp(source, settings, folio);
    expect(against(made)).toEqual([]);
    const ids = pagesOf(folio).map((p) => p.page.id);
    await source.done();
    return original(made, folio).map((id) => String(ids.indexOf(id) + 1));
  };
  const itemOn = (d: Folio, n: number): Item => Object.values(d.spreads[d.head.spreadOrder[n - 1]!]!.items)[0]!;

  test('a page of which something was moved, and no other', async () => {
    expect(await changed((d) => void (itemOn(d, 2).transform = [1, 0, 0, 1, 5, 5]))).toEqual(['1', '3']);
  });
  test('all pages with a style that is another now', async () => {
    const used = await changed((d) => {
      for (const style of Object.values(d.head.paragraphStyles)) style.character = { ...style.character, size: 9 };
    });
    expect(used).toEqual([]);
  });
  test('not those whose place in the document is another, or that have another printed number elsewhere', async () => {
    expect(await changed((d) => void d.head.spreadOrder.reverse())).toEqual(['1', '2', '3']);
  });
  test.each([
    { originals: 'anew' },
    { pictures: 'beside' },
    { notes: false },
    { transitions: false },
    { fields: 'text' },
    { spreads: 'together' },
    { effects: 'drawn' },
    { whiteGround: 'through' },
    { template: true, words: 'prompts' },
  ])('everything, where the recipe asks for what it has not: %j', async (settings) => {
    const source = await came();
    const made = await odp(source, settings);
    expect(original(made, source.folio)).toEqual([]);
    await source.done();
  });
  test('links between pages of both kinds lead where they did', async () => {
    const source = await came({
      pages:
        page('Opening', box('<text:a xlink:href="#Second">on</text:a>')) +
        page('Second', box('<text:a xlink:href="#Opening">back</text:a>')),
    });
    const folio = produce(source.folio, (d) => void (itemOn(d as Folio, 2).transform = [1, 0, 0, 1, 5, 5]));
    const made = await odp(source, {}, folio);
    const xml = await contentOf(made);
    expect([...xml.matchAll(/xlink:href="#([^"]+)"/g)].map((m) => m[1])).toEqual(['Second', 'Opening']);
    expect(against(made)).toEqual([]);
    await source.done();
  });
});

describe('what is not taken as it came', () => {
  test.each([
    [
      'a program that a press would run',
      box('x').replace(
        '</draw:frame>',
        '<office:event-listeners><script:event-listener script:language="ooo:script" script:event-name="dom:click" xlink:href="vnd.sun.star.script:a"/></office:event-listeners></draw:frame>',
      ),
    ],
    [
      'a picture that would be fetched from elsewhere',
      `<draw:frame svg:x="1cm" svg:y="1cm" svg:width="8cm" svg:height="2cm"><draw:image xlink:href="https://marrowby.example/x.png"/></draw:frame>`,
    ],
    ['an address that is none', box('<text:a xlink:href="javascript:alert(1)">x</text:a>')],
  ])('%s', async (_what, inside) => {
    const source = await came({ pages: page('One', inside) + page('Two', box('Words')) });
    const made = await odp(source);
    expect(original(made, source.folio)).toHaveLength(1);
    expect(await contentOf(made)).not.toMatch(/vnd\.sun|marrowby\.example|javascript:/);
    expect(against(made)).toEqual([]);
    await source.done();
  });

  test('a page that is another than in the original is seen, and so is a style that it stands on', async () => {
    const source = await came();
    const made = await odp(source);
    const files = new Map(await Promise.all(made.paths.map(async (p) => [p, await made.read(p)] as const)));
    const evidence = async (alter: (xml: string) => string, path = 'content.xml') => {
      const bytes = changedDocx(files.get('document.odp')!, alter, path);
      const all = await readBack(
        asCame(source),
        'odp',
        new Map([...files, ['document.odp', bytes]]),
        { resolution: 36 },
        { origin: source.origin },
      );
      return all.filter((e) => !e.agrees).map((e) => subjectKey(e.subject));
    };
    const pages = pagesOf(source.folio).map((p) => `page:${p.page.id}:size`);
    expect((await evidence((xml) => xml.replace('Other words', 'Wrong words'))).filter((k) => pages.includes(k))).toEqual([pages[1]]);
    expect((await evidence((xml) => xml.replace('#ffcc00', '#ffcc01'), 'styles.xml')).filter((k) => pages.includes(k))).toEqual(pages);
    expect(await evidence((xml) => xml)).toEqual([]);
    await source.done();
  });
});

test('an object keeps all of its files, listed as what they are; programs in it stay behind', async () => {
  const object = `<draw:frame svg:x="1cm" svg:y="1cm" svg:width="8cm" svg:height="5cm"><draw:object xlink:href="./Object 1"/><draw:image xlink:href="./ObjectReplacements/Object 1"/></draw:frame>`;
  const png = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64');
  const MANIFEST = `<manifest:file-entry manifest:full-path="/" manifest:media-type="application/vnd.oasis.opendocument.presentation"/><manifest:file-entry manifest:full-path="Object 1/" manifest:media-type="application/vnd.oasis.opendocument.chart"/><manifest:file-entry manifest:full-path="Object 1/content.xml" manifest:media-type="text/xml"/>`;
  const bytes = packed(
    {
      'content.xml': part(
        'document-content',
        `<office:automatic-styles>${AUTOMATIC}</office:automatic-styles><office:body><office:presentation>${page('One', object)}</office:presentation></office:body>`,
      ),
      'styles.xml': part(
        'document-styles',
        `<office:styles>${STYLES}</office:styles><office:automatic-styles><style:page-layout style:name="PL"><style:page-layout-properties fo:page-width="20cm" fo:page-height="10cm"/></style:page-layout></office:automatic-styles><office:master-styles><style:master-page style:name="M" style:page-layout-name="PL"/></office:master-styles>`,
      ),
      'Object 1/content.xml': '<chart/>',
      'Object 1/Basic/Standard/Module1.xml': '<module/>',
      'ObjectReplacements/Object 1': png,
      'META-INF/manifest.xml': `<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0">${MANIFEST}</manifest:manifest>`,
    },
    'application/vnd.oasis.opendocument.presentation',
  );
  const source = await readBytes('chart.odp', bytes);
  const made = await odp(source);
  const files = unzipSync(await made.read('document.odp'));
  expect(Object.keys(files)).toContain('Object 1/content.xml');
  expect(Object.keys(files)).toContain('ObjectReplacements/Object 1');
  expect(Object.keys(files).some((f) => f.includes('Basic'))).toBe(false);
  expect(partOf(await made.read('document.odp'), 'META-INF/manifest.xml')).toContain(
    'manifest:full-path="Object 1/" manifest:media-type="application/vnd.oasis.opendocument.chart"',
  );
  expect(against(made)).toEqual([]);
  await source.done();
});

describe('what makes a page', () => {
  test('is told by what ids were called before, and the order of keys says nothing', async () => {
    const source = await came();
    const id = pagesOf(source.folio)[0]!.page.id;
    const renamed = JSON.parse(JSON.stringify(source.folio).replaceAll(`"${id}"`, '"another"')) as Folio;
    const facts = new PageFacts(source.folio).of(id);
    expect(facts.length).toBeGreaterThan(500);
    expect(new PageFacts(renamed, (x) => (x === 'another' ? id : x)).of('another')).toBe(facts);
    const turned = JSON.parse(JSON.stringify(source.folio), (_, v: unknown) =>
      v && typeof v === 'object' && !Array.isArray(v) ? Object.fromEntries(Object.entries(v).reverse()) : v,
    ) as Folio;
    expect(new PageFacts(turned).of(id)).toBe(facts);
    expect(new PageFacts(source.folio).of('none')).toBe('');
    await source.done();
  });
});

const found = (await foundFiles()).filter((f) => /\.odp$/.test(f.name));
/** Without Debian's packages these are skipped, and counted as skipped. */
(found.length ? describe : describe.skip)('presentations by other people, from Debian’s packages', () => {
  test.each(ofToday(found.length ? found.map((f) => f.name) : ['none'], 2).map((name) => [name]))(
    '%s: every page goes out as it came',
    async (name) => {
      const { bytes } = found.find((f) => f.name === name)!;
      const source = await readBytes(name, bytes);
      const made = await odp(source);
      expect(against(made)).toEqual([]);
      expect(faultsIn(await made.read('document.odp'))).toEqual([]);
      const kept = original(made, source.folio);
      expect(kept.length).toBeGreaterThan(pagesOf(source.folio).length / 2);
      const count = (xml: string, what: RegExp): number => xml.match(what)?.length ?? 0;
      if (kept.length === pagesOf(source.folio).length)
        for (const what of [/<anim:par /g, /<draw:custom-shape/g, /<draw:connector/g, /<draw:object/g])
          expect(count(await contentOf(made), what)).toBe(count(partOf(bytes), what));
      await source.done();
    },
  );
});
