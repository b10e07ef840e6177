import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import { pagesOf } from '../../src/index.ts';
import type { Folio, Item, TextFrame } from '../../src/index.ts';
import { isMasterInstance } from '../../src/folio/masters.ts';
import type { Sample } from '@elastic-folio/demo';
import { observeLaidOdt } from '../../src/ledger/odf/observeLaidOdt.ts';
import { redrawOdt } from '../../src/preview/opendocument/redrawOdf.ts';
import { sharpPictures } from '../../src/ports/node.ts';
import { changedDocx, corrections } from '../support/changedDocx.ts';
import { DAMAGE, IN_TEXT, INITIAL, ON_PAGES } from '../support/damage.ts';
import { describeDamage } from '../support/describeDamage.ts';
import { handMadeOdf, style } from '../support/handMadeOdf.ts';
import { lookPage, square } from '../support/looks.ts';
import { faultsOfOdf } from '../support/odfRules.ts';
import { pressable } from '../support/pressable.ts';
import { against, asSample, make, SAMPLES, sample, writeOnly } from '../support/samples.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { ofToday } from '../support/ofToday.ts';

/** Text documents of OpenDocument page by page as laid out (OASIS OpenDocument 1.3, part 3; numbers of sections by memory). */
const LAID = { way: 'laid', resolution: 36 };
const partOf = (bytes: Uint8Array, path = 'content.xml'): string => new TextDecoder().decode(unzipSync(bytes)[path]);
const written = async (folio: Folio, settings: object = {}): Promise<Uint8Array> =>
  (await make(asSample(folio), 'odt', { ...LAID, ...settings })).read('document.odt');

let almanac: Sample;
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
});

describe.each(ofToday(SAMPLES, 1))('%s as laid out', (id) => {
  test('keeps the rules of the standard, is read back as its ledger says, and brings nothing back that nobody changed', async () => {
    const s = await sample(id);
    const made = await make(s, 'odt', LAID);
    const bytes = await made.read('document.odt');
    expect(faultsOfOdf(bytes)).toEqual([]);
    expect(against(made)).toEqual([]);
    expect(await corrections(s.folio, bytes)).toEqual({ corrections: [], added: [], gone: [] });
  });
});

const SETTINGS: Record<string, unknown>[] = [
  { masters: 'page' },
  { linked: 'apart' },
  { crops: 'cut' },
  { pictures: 'none' },
  { pictures: 'beside' },
  { effects: 'drawn', blends: 'drawn' },
  { effects: 'none' },
  { hiddenLayers: 'in', fields: 'text' },
  { pages: '2-5, 8', template: true },
  { template: true, words: 'prompts' },
];
test.each(ofToday(SETTINGS, 2).map((s) => [JSON.stringify(s), s] as const))('the Almanac as laid out, %s', async (_, settings) => {
  const made = await make(almanac, 'odt', { ...LAID, ...settings });
  expect(faultsOfOdf(await made.read(made.paths.find((p) => p.startsWith('document.'))!))).toEqual([]);
  expect(against(made)).toEqual([]);
});

describeDamage('odt', LAID, [...DAMAGE, ...IN_TEXT, ...ON_PAGES, INITIAL]);

describe('places, worked by hand', () => {
  const ON_PAGE = /style:horizontal-pos="from-left" style:horizontal-rel="page" style:vertical-pos="from-top" style:vertical-rel="page"/;
  test('a frame of text stands where it does on its page, anchored to the paragraph that begins it', async () => {
    const bytes = await written(tinyFolio(['Words'], { width: 200, height: 300 }));
    const xml = partOf(bytes);
    // At 10 and 10 points, 200 by 300; A4 of 595 by 842 points.
    expect(xml).toMatch(
      /<draw:frame draw:name="Text 1.1" text:anchor-type="paragraph"[^>]* svg:width="200pt" svg:height="300pt" svg:x="10pt" svg:y="10pt">/,
    );
    expect(xml).toMatch(ON_PAGE);
    expect(partOf(bytes, 'styles.xml')).toContain('fo:page-width="595pt" fo:page-height="842pt" fo:margin="0pt"');
    // Frames of text have a parent style; what has none is taken for a drawing (common practice of programs).
    const name = /draw:name="Text 1.1"[^>]* draw:style-name="(\w+)"/.exec(xml)![1];
    expect(xml).toContain(`<style:style style:name="${name}" style:family="graphic" style:parent-style-name="Frame">`);
    expect(partOf(bytes, 'styles.xml')).toContain('<style:style style:name="Frame" style:family="graphic">');
  });
  test('a turned frame is a drawing with its matrix: by 90 degrees about its corner at (10, 10), lengths in points (19.228)', async () => {
    const turned = produce(
      tinyFolio(['Words'], { width: 200, height: 100 }),
      (d) => void ((d.spreads['s']!.items['f1'] as TextFrame).transform = [0, 1, -1, 0, 300, 40]),
    );
    const made = await make(asSample(turned), 'odt', LAID);
    const xml = partOf(await made.read('document.odt'));
    expect(xml).toContain('draw:transform="matrix(0 1 -1 0 300pt 40pt)"');
    const name = /draw:name="Text 1.1"[^>]* draw:style-name="(\w+)"/.exec(xml)![1];
    expect(xml).toMatch(new RegExp(`<style:style style:name="${name}" style:family="graphic">`));
    expect(against(made)).toEqual([]);
  });
  test('what lies over something has more depth, wherever it is read (19.231)', async () => {
    const folio = lookPage([square('low', 10, 10), square('high', 30, 30)]);
    const xml = partOf(await written(folio));
    const depth = (id: string): number => Number(new RegExp(`draw:z-index="(\\d+)" xml:id="${id}"`).exec(xml)?.[1]);
    expect(depth('high')).toBeGreaterThan(depth('low'));
  });
  test('a page stands on its ground, with what bleeds', async () => {
    const blue = produce(lookPage([square('s', 0, 0)]), (d) => {
      const page = d.spreads['s']!.pages[0]!;
      page.background = { type: 'colour', colour: { space: 'rgb', r: 0, g: 0, b: 1 } } as typeof page.background;
      page.bleed = 9;
    });
    const made = await make(asSample(blue), 'odt', LAID);
    const { width, height } = blue.spreads['s']!.pages[0]!.box;
    const xml = partOf(await made.read('document.odt'));
    expect(xml).toContain(`draw:z-index="0" `);
    expect(xml).toContain(`svg:width="${width + 18}pt" svg:height="${height + 18}pt" svg:x="-9pt" svg:y="-9pt"`);
    expect(against(made)).toEqual([]);
  });
  test('pictures have their lines above them and their grounds below: programs draw neither as the layout does', async () => {
    const stroke = {
      paint: { type: 'colour', colour: { space: 'rgb', r: 1, g: 0, b: 0 } },
      weight: 3,
      dashes: [],
      cap: 'butt',
      join: 'miter',
      miterLimit: 4,
      startMarker: 'none',
      endMarker: 'none',
    };
    const isPicture = (i: Item): boolean => i.kind === 'picture' && i.media !== null && !isMasterInstance(i.id);
    let id = '';
    const framed = produce(almanac.folio, (d) => {
      const item = Object.values(d.spreads)
        .flatMap((s) => Object.values(s.items))
        .find((i) => isPicture(i as Item) && !i.corner && i.blend === 'normal')!;
      id = item.id;
      Object.assign(item, { stroke, fill: stroke.paint });
    });
    const made = await make({ ...almanac, folio: framed }, 'odt', LAID);
    const xml = partOf(await made.read('document.odt'));
    const at = xml.indexOf(`xml:id="${id}"`);
    const [ground, picture, line] = [xml.lastIndexOf('<draw:', at), xml.indexOf('<draw:image', at), xml.indexOf('<draw:path', at)];
    expect(xml.slice(ground, ground + 10)).toBe('<draw:path');
    expect(line).toBeGreaterThan(picture);
    expect(against(made)).toEqual([]);
  });
  test('everything in the Almanac stands within a twentieth of a point of its place', async () => {
    const made = await make(almanac, 'odt', LAID);
    const placed = made.ledger.filter(
      (e) => e.subject.kind === 'item' && e.subject.aspect === 'place' && e.outcome === 'kept' && e.check === 'confirmed',
    );
    expect(placed.length).toBeGreaterThan(60);
    const xml = partOf(await made.read('document.odt'));
    expect(xml.match(/<text:bookmark text:name="pg_/g)).toHaveLength(pagesOf(almanac.folio).length);
  });
});

describe('texts over several boxes', () => {
  const LONG = Array.from(
    { length: 12 },
    (_, i) => `Paragraph ${i + 1} of a text that goes on and on, so that it fills more than one frame of this page.`,
  );
  const chained = tinyFolio(LONG, { width: 200, height: 120, frames: 3 });
  test('the first has all of the text and names the next, which is empty (10.4.3)', async () => {
    const xml = partOf(await written(chained));
    const boxes = [...xml.matchAll(/<draw:frame draw:name="([^"]+)"[^>]*><draw:text-box(?: draw:chain-next-name="([^"]+)")?(\/?)>/g)];
    expect(boxes.map((m) => m.slice(1))).toEqual([
      ['Text 1.1', 'Text 1.2', ''],
      ['Text 1.2', 'Text 1.3', '/'],
      ['Text 1.3', undefined, '/'],
    ]);
    for (const n of [1, 5, 9]) expect(xml.match(new RegExp(`Paragraph ${n} of`, 'g'))).toHaveLength(1);
  });
  test('apart, every box has its own words, and none is lost or said twice', async () => {
    const made = await make(asSample(chained), 'odt', { ...LAID, linked: 'apart' });
    const xml = partOf(await made.read('document.odt'));
    expect(xml).not.toContain('draw:chain-next-name');
    const words = xml.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');
    for (const n of [1, 2, 3, 4, 5]) expect(words.split(`Paragraph ${n} of`)).toHaveLength(2);
    expect(against(made)).toEqual([]);
  });
  test('what a colleague changes in a text of several boxes comes back', async () => {
    const bytes = changedDocx(
      await written(chained),
      (xml) => xml.replace('Paragraph 7 of a text', 'Paragraph 7 of a story'),
      'content.xml',
    );
    expect((await corrections(chained, bytes)).corrections).toMatchObject([{ paragraph: 'p7', after: LONG[6]!.replace('text', 'story') }]);
  });
  test('a box that goes on somewhere else is seen', async () => {
    const made = await writeOnly(asSample(chained), 'odt', LAID, chained);
    const cut = async (): Promise<string[]> => {
      const bytes = changedDocx(
        made.get('document.odt')!,
        (xml) => xml.replace('draw:name="Text 1.3"', 'draw:name="Elsewhere"'),
        'content.xml',
      );
      const seen = await observeLaidOdt(bytes, { pictures: sharpPictures, beside: async () => undefined });
      return seen.flow.problems.map((p) => p.says);
    };
    expect(await cut()).toEqual(['a text goes on in “Text 1.3”, which is not there']);
  });
});

describe('what repeats on pages', () => {
  test('stands in the headers of master pages, one for all pages that look and say the same, with the number as a field', async () => {
    const handbook = await sample('observers-handbook');
    const bytes = await (await make(handbook, 'odt', LAID)).read('document.odt');
    const styles = partOf(bytes, 'styles.xml');
    const masters = styles.match(/<style:master-page /g)!.length;
    expect(masters).toBeGreaterThan(1);
    expect(masters).toBeLessThan(pagesOf(handbook.folio).length / 2);
    expect(styles).toContain('<text:page-number');
    // Where its pages begin to count anew, a paragraph says so (20.340).
    expect(partOf(bytes)).toMatch(/style:page-number="1"/);
  });
});

describe('links', () => {
  test('those of items are around them, to pages and out of the document; what could run a program is none (10.4.12)', async () => {
    const made = await make(asSample(pressable()), 'odt', LAID);
    const bytes = await made.read('document.odt');
    const xml = partOf(bytes);
    const around = [...xml.matchAll(/<draw:a xlink:type="simple" xlink:href="([^"]+)"/g)];
    expect(around.map((m) => m[1])).toEqual(['#pg_two', 'https://marrowby.example/', '#pg_two']);
    expect(xml).toContain('<text:bookmark text:name="pg_two"/>');
    expect(xml).not.toContain('presentation:event-listener');
    expect(faultsOfOdf(bytes)).toEqual([]);
    expect(against(made)).toEqual([]);
  });
});

describe('read and drawn from a file made by hand', () => {
  const PAGE =
    '<style:master-page style:name="M" style:page-layout-name="PL"><style:header><text:p><draw:frame text:anchor-type="paragraph" draw:z-index="1" svg:x="1cm" svg:y="1cm" svg:width="2cm" svg:height="1cm"><draw:text-box><text:p>Head <text:page-number>9</text:page-number></text:p></draw:text-box></draw:frame></text:p></style:header></style:master-page>';
  const begins = (name: string, more = ''): string =>
    `<style:style style:name="${name}" style:family="paragraph" style:master-page-name="M"><style:paragraph-properties ${more}/></style:style>`;
  const box = (name: string, y: string, inside: string, next = ''): string =>
    `<draw:frame draw:name="${name}" draw:style-name="G" text:anchor-type="paragraph" draw:z-index="5" svg:x="1in" svg:y="${y}" svg:width="2in" svg:height="36pt"><draw:text-box${next && ` draw:chain-next-name="${next}"`}>${inside}</draw:text-box></draw:frame>`;
  const parts = {
    automatic:
      begins('B1', 'style:page-number="7"') + begins('B2') + style('G', 'graphic', '<style:graphic-properties fo:padding-left="3pt"/>'),
    masters: PAGE,
    body:
      `<text:p text:style-name="B1"><text:bookmark text:name="one"/>${box('a', '1in', '<text:p>First and longest</text:p>', 'b')}` +
      `<draw:a xlink:href="#two"><draw:path draw:style-name="S" text:anchor-type="paragraph" draw:z-index="2" svg:x="0pt" svg:y="0pt" svg:width="10pt" svg:height="10pt" svg:viewBox="0 0 10 10" svg:d="M0 0L10 0 10 10Z"/></draw:a></text:p>` +
      `<text:p text:style-name="B2"><text:bookmark text:name="two"/>${box('b', '2in', '')}</text:p><text:p>Between</text:p>`,
  };
  test('pages are what paragraphs begin; numbers count on; boxes, links and headers are where they are said to be', async () => {
    const { pages, flow } = await observeLaidOdt(handMadeOdf(parts), { pictures: sharpPictures, beside: async () => undefined });
    expect(pages).toHaveLength(2);
    // 10 cm and 5 inches in points.
    expect(pages[0]!.width).toBeCloseTo((100 / 25.4) * 72, 6);
    expect(pages[0]!.height).toBeCloseTo(360, 6);
    expect(pages.map((p) => p.loose.map((l) => l.text))).toEqual([['Head 7'], ['Head 8']]);
    expect(pages[0]!.areas).toEqual([{ box: { x: 0, y: 0, width: 10, height: 10 }, target: 'page:2' }]);
    expect(flow.blocks.map((b) => b.text)).toEqual(['First and longest']);
    // The box of the header, then that of the text, without its room on the left.
    expect(pages[0]!.boxes![1]).toEqual({ x: 75, y: 72, width: 141, height: 36 });
    expect(pages[1]!.boxes![1]).toMatchObject({ y: 144, height: 36 });
  });
  test('drawn, a text goes on where the boxes before it end', async () => {
    const draw = (page: number) =>
      redrawOdt(handMadeOdf(parts), page, { beside: async () => undefined, faces: [], sizeOf: (b) => sharpPictures.info(b) });
    expect(await draw(1)).toMatch(/margin-top:0pt.*First and longest/s);
    expect(await draw(2)).toMatch(/margin-top:-36pt.*First and longest/s);
    expect(await draw(2)).toContain('Head');
    expect(await draw(3)).not.toContain('First');
  });
});

test('notes follow the text that refers to them, with their numbers', async () => {
  const noted = tinyFolio([
    [
      { type: 'span', text: 'Words' },
      { type: 'note', id: 'n', kind: 'footnote', order: ['np'] },
    ] as never,
  ]);
  const folio = produce(noted, (d) => {
    const story = d.stories['t']!;
    story.blocks['np'] = { ...(story.blocks['p1'] as object), id: 'np', content: [{ type: 'span', text: 'The note.' }] } as never;
  });
  const made = await make(asSample(folio), 'odt', LAID);
  const xml = partOf(await made.read('document.odt'));
  expect(xml).not.toContain('<text:note');
  expect(xml).toMatch(
    /Words<text:bookmark-start text:name="for_n"\/><text:span[^>]*>1<\/text:span><text:bookmark-end text:name="for_n"\/>.*<text:bookmark-start text:name="sign_np"\/><text:span>1 <\/text:span><text:bookmark-end text:name="sign_np"\/>The note\./s,
  );
  expect(made.ledger.find((e) => e.subject.kind === 'note')).toMatchObject({ code: 'note.afterBox' });
});
