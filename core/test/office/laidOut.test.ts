import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import { pagesOf } from '../../src/index.ts';
import type { Folio, TextFrame } from '../../src/index.ts';
import type { Sample } from '@elastic-folio/demo';
import { subjectKey } from '../../src/ledger/index.ts';
import { DAMAGE, IN_TEXT, ON_PAGES } from '../support/damage.ts';
import { describeDamage } from '../support/describeDamage.ts';
import { lookPage, square } from '../support/looks.ts';
import { against, asSample, make, SAMPLES, sample } from '../support/samples.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { faultsOfDocx } from '../support/wordSchema.ts';
import { ofToday } from '../support/ofToday.ts';

const LAID = { way: 'laid', resolution: 36 };
const xmlOf = (bytes: Uint8Array, path = 'word/document.xml'): string => new TextDecoder().decode(unzipSync(bytes)[path]);
const written = async (folio: Folio, settings: object = {}): Promise<Uint8Array> =>
  (await make(asSample(folio), 'docx', { ...LAID, ...settings })).read('document.docx');
/** The newer form of what is anchored, without that for older programs. */
const newest = (xml: string): string => xml.replace(/<mc:Fallback>.*?<\/mc:Fallback>/gs, '');

let almanac: Sample;
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
});

describe.each(ofToday(SAMPLES, 1))('%s as laid out', (id) => {
  test('keeps the rules of the standard, and is read back as its ledger says', async () => {
    const made = await make(await sample(id), 'docx', LAID);
    expect(faultsOfDocx(await made.read('document.docx'))).toEqual([]);
    expect(against(made)).toEqual([]);
  });
});

const SETTINGS: Record<string, unknown>[] = [
  { masters: 'page' },
  { linked: 'apart' },
  { crops: 'cut' },
  { pictures: 'none' },
  { pictures: 'beside' },
  { styles: 'none', tables: 'exact' },
  { fonts: 'names', replacements: 'Work Sans = Arial' },
  { hiddenLayers: 'in', fields: 'text' },
  { pages: '2-5, 8', template: true },
];
test.each(ofToday(SETTINGS, 2).map((s) => [JSON.stringify(s), s] as const))('the Almanac as laid out, %s', async (_, settings) => {
  const made = await make(almanac, 'docx', { ...LAID, ...settings });
  expect(faultsOfDocx(await made.read(made.paths.find((p) => p.startsWith('document.'))!))).toEqual([]);
  expect(against(made)).toEqual([]);
});

describeDamage('docx', LAID, [...DAMAGE, ...IN_TEXT, ...ON_PAGES]);

describe('places, worked by hand: 12,700 EMU to the point (20.1.2.1)', () => {
  test('a frame of text stands where it does on its page, and is as large', async () => {
    const xml = newest(xmlOf(await written(tinyFolio(['Words'], { width: 200, height: 300 }))));
    // At 10 and 10 points, 200 by 300.
    expect(xml).toMatch(
      /<wp:positionH relativeFrom="page"><wp:posOffset>127000<\/wp:posOffset><\/wp:positionH><wp:positionV relativeFrom="page"><wp:posOffset>127000<\/wp:posOffset><\/wp:positionV><wp:extent cx="2540000" cy="3810000"\/>/,
    );
    // A4 of 595 by 842 points in twentieths.
    expect(xml).toContain('<w:pgSz w:w="11900" w:h="16840"/>');
  });
  test('a turned square keeps its own size and middle, and reaches beyond it (20.4.2.6)', async () => {
    const c = Math.SQRT1_2;
    const folio = lookPage([square('s', 0, 0, { transform: [c, c, -c, c, 200, 50] })]);
    const xml = newest(xmlOf(await written(folio)));
    // 100 points turned by 45 degrees about its corner at (200, 50): its middle is 70.7 points below.
    const left = Math.round((200 - 50) * 12_700);
    const top = Math.round((50 + 100 * c - 50) * 12_700);
    expect(xml).toContain(`<wp:posOffset>${left}</wp:posOffset>`);
    expect(xml).toContain(`<wp:posOffset>${top}</wp:posOffset>`);
    expect(xml).toContain('<a:xfrm rot="2700000">');
    // 141.4 points across: 20.7 more on each side.
    expect(xml).toContain(`<wp:effectExtent l="${Math.round(((Math.SQRT2 - 1) / 2) * 100 * 12_700)}"`);
  });
  test('a slanted outline has its slant in its path, which ends where it does', async () => {
    const folio = lookPage([square('s', 0, 0, { transform: [1, 0, 0.5, 1, 20, 30] })]);
    const made = await make(asSample(folio), 'docx', LAID);
    expect(newest(xmlOf(await made.read('document.docx')))).toMatch(/<wp:extent cx="1905000" cy="1270000"\/>.*<a:custGeom>/);
    expect(against(made)).toEqual([]);
  });
  test('everything anchored in the Almanac stands within a twentieth of a point of its place', async () => {
    const made = await make(almanac, 'docx', LAID);
    const placed = made.ledger.filter(
      (e) => e.subject.kind === 'item' && e.subject.aspect === 'place' && e.outcome === 'kept' && e.check === 'confirmed',
    );
    expect(placed.length).toBeGreaterThan(60);
    const xml = xmlOf(await made.read('document.docx'));
    // Sections are pages: one each, of their sizes.
    expect(xml.match(/<w:sectPr>/g)).toHaveLength(pagesOf(almanac.folio).length);
  });
});

describe('texts over several boxes', () => {
  const LONG = Array.from(
    { length: 12 },
    (_, i) => `Paragraph ${i + 1} of a text that goes on and on, so that it fills more than one frame of this page.`,
  );
  const chained = tinyFolio(LONG, { width: 200, height: 120, frames: 3 });
  test('the first has all of the text, the others go on with it, in their order', async () => {
    const xml = newest(xmlOf(await written(chained)));
    expect(xml.match(/<wps:txbx id="1">/g)).toHaveLength(1);
    expect([...xml.matchAll(/<wps:linkedTxbx id="1" seq="(\d)"\/>/g)].map((m) => m[1])).toEqual(['1', '2']);
    expect(xml.indexOf('<wps:txbx id="1">')).toBeLessThan(xml.indexOf('<wps:linkedTxbx'));
    for (const n of [1, 5, 9]) expect(xml.match(new RegExp(`Paragraph ${n} of`, 'g'))).toHaveLength(1);
  });
  test('older programs get boxes that name the next one', async () => {
    const xml = xmlOf(await written(chained));
    const older = xml.match(/<mc:Fallback>.*?<\/mc:Fallback>/gs)!.join('');
    expect(older).toMatch(/<v:rect id="chain1_0"[^>]*>.*\w+-next-textbox:#chain1_1/s);
    expect(older).toMatch(/<v:rect id="chain1_2"/);
    expect(older).not.toContain('w:bookmarkStart');
  });
  test('apart, every box has its own words, and none is lost or said twice', async () => {
    const made = await make(asSample(chained), 'docx', { ...LAID, linked: 'apart' });
    const xml = newest(xmlOf(await made.read('document.docx')));
    expect(xml).not.toContain('linkedTxbx');
    const words = [...xml.matchAll(/<w:t [^>]*>([^<]*)<\/w:t>/g)]
      .map((m) => m[1])
      .join(' ')
      .replace(/\s+/g, ' ');
    for (const n of [1, 2, 3, 4, 5]) expect(words.split(`Paragraph ${n} of`)).toHaveLength(2);
    expect(against(made)).toEqual([]);
  });
  test('columns of a frame are boxes of one chain: the format has none in boxes', async () => {
    const columns = produce(
      tinyFolio(LONG, { width: 420, height: 160 }),
      (d) => void ((d.spreads['s']!.items['f1'] as TextFrame).columns = 2),
    );
    const made = await make(asSample(columns), 'docx', LAID);
    expect(newest(xmlOf(await made.read('document.docx')))).toMatch(/<wps:txbx id="1">.*<wps:linkedTxbx id="1" seq="1"\/>/s);
    expect(against(made)).toEqual([]);
  });
  test('a text that runs around something stands in boxes beside it, and no box covers it', async () => {
    const round = produce(tinyFolio(LONG, { width: 300, height: 400 }), (d) => {
      d.spreads['s']!.items['stone'] = {
        ...(lookPage([square('stone', 200, 60)]).spreads['s']!.items['stone'] as Folio['spreads'][string]['items'][string]),
        wrap: { kind: 'box', side: 'both', offset: 0 },
      };
      d.spreads['s']!.order.push('stone');
    });
    const made = await make(asSample(round), 'docx', LAID);
    const xml = newest(xmlOf(await made.read('document.docx')));
    const boxes = [
      ...xml.matchAll(
        /<wp:posOffset>(\d+)<\/wp:posOffset><\/wp:positionH>.*?<wp:posOffset>(\d+)<.*?<wp:extent cx="(\d+)" cy="(\d+)"\/>.*?<wps:cNvSpPr([^>]*)\/>/gs,
      ),
    ]
      .filter((m) => m[5]!.includes('txBox'))
      .map((m) => m.slice(1, 5).map((n) => Number(n) / 12_700) as [number, number, number, number]);
    expect(boxes.length).toBeGreaterThanOrEqual(3);
    for (const [x, y, w, h] of boxes) {
      const across = Math.min(x + w, 300) - Math.max(x, 200);
      const down = Math.min(y + h, 160) - Math.max(y, 60);
      // A box may end with the letters of a line whose room is free.
      expect(across > 1 && down > 14).toBe(false);
    }
    expect(made.ledger.find((e) => subjectKey(e.subject) === 'item:stone:wrap')).toMatchObject({ outcome: 'adapted', code: 'wrap.boxes' });
  });
});

describe('what repeats on pages', () => {
  test('stands in headers, one for all pages that look and say the same, with the number of the page as a field', async () => {
    const handbook = await sample('observers-handbook');
    const bytes = await (await make(handbook, 'docx', LAID)).read('document.docx');
    const headers = Object.keys(unzipSync(bytes)).filter((p) => /word\/header[1-9]\d*\.xml/.test(p));
    expect(headers.length).toBeGreaterThan(1);
    expect(headers.length).toBeLessThan(pagesOf(handbook.folio).length / 2);
    expect(headers.some((h) => xmlOf(bytes, h).includes('> PAGE </w:instrText>'))).toBe(true);
  });
  test('paper larger than 22 inches is cut to that, and the ledger says so', async () => {
    const poster = produce(tinyFolio(['Poster']), (d) => void (d.spreads['s']!.pages[0]!.box = { x: 0, y: 0, width: 2400, height: 1000 }));
    const made = await make(asSample(poster), 'docx', LAID);
    expect(xmlOf(await made.read('document.docx'))).toContain('<w:pgSz w:w="31680" w:h="20000" w:orient="landscape"/>');
    expect(made.ledger.find((e) => subjectKey(e.subject) === 'page:pg:size')).toMatchObject({
      outcome: 'adapted',
      code: 'page.clipped',
      check: 'confirmed',
    });
  });
});
