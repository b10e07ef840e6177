import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import { parseOfficeAsync } from 'officeparser';
import { pagesOf, readText } from '../../src/index.ts';
import type { Folio, TextFrame } from '../../src/index.ts';
import type { Sample } from '@elastic-folio/demo';
import { subjectKey } from '../../src/ledger/index.ts';
import { DAMAGE, IN_TEXT, ON_PAGES } from '../support/damage.ts';
import { describeDamage } from '../support/describeDamage.ts';
import type { Damage } from '../support/damage.ts';
import { lookPage, square } from '../support/looks.ts';
import { against, asSample, make, SAMPLES, sample } from '../support/samples.ts';
import type { Made } from '../support/samples.ts';
import { faultsOfPptx } from '../support/slideSchema.ts';
import { grid, tableFolio } from '../support/tableFolio.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { ofToday } from '../support/ofToday.ts';

const SMALL = { resolution: 36 };
const xmlOf = (bytes: Uint8Array, path = 'ppt/slides/slide1.xml'): string => new TextDecoder().decode(unzipSync(bytes)[path]);
const partsOf = (bytes: Uint8Array, folder: string): string[] =>
  Object.keys(unzipSync(bytes)).filter((p) => p.startsWith(`ppt/${folder}/`) && !p.includes('_rels'));
const written = async (folio: Folio, settings: object = {}): Promise<Uint8Array> =>
  (await make(asSample(folio), 'pptx', { ...SMALL, ...settings })).read('document.pptx');
const entry = (made: Pick<Made, 'ledger'>, key: string) => made.ledger.find((e) => subjectKey(e.subject) === key);

let almanac: Sample;
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
});

describe.each(ofToday(SAMPLES, 1))('%s as slides', (id) => {
  test('keeps the rules of the standard, and is read back as its ledger says', async () => {
    const made = await make(await sample(id), 'pptx', SMALL);
    expect(faultsOfPptx(await made.read('document.pptx'))).toEqual([]);
    expect(against(made)).toEqual([]);
  });
});

const SETTINGS: Record<string, unknown>[] = [
  { masters: 'slides' },
  { spreads: 'together' },
  { spreads: 'together', masters: 'slides', sizes: 'each', pages: '1-4' },
  { sizes: 'each', fit: 'grows' },
  { crops: 'cut' },
  { pictures: 'none' },
  { pictures: 'beside', fit: 'shrinks' },
  { replacements: 'Work Sans = Arial' },
  { hiddenLayers: 'in', fields: 'text' },
  { pages: '2-5, 8', template: true },
  { transitions: false, animations: false, notes: false, media: 'still' },
  { leading: 'opening' },
];
test.each(SETTINGS.map((s) => [JSON.stringify(s), s] as const))('the Almanac as slides, %s', async (_, settings) => {
  const made = await make(almanac, 'pptx', { ...SMALL, ...settings });
  for (const path of made.paths.filter((p) => /\.po?[pt]tx$/.test(p))) expect(faultsOfPptx(await made.read(path))).toEqual([]);
  expect(against(made)).toEqual([]);
});

/** Slides know no roles, and are read as their things lie on one another. */
const NOT_TOLD = new Set([
  'a heading loses its meaning',
  'a heading is of another level',
  'two texts are read in the wrong order',
  // A smaller page lies in the middle of the same slide: what stands on it is found elsewhere.
  'a page is another size',
]);
const ON_SLIDES: Damage[] = [
  [
    'all slides are higher',
    (d) => Object.values(d.spreads).forEach((s) => s.pages.forEach((p) => (p.box.height += 20))),
    'page:page-1:size',
  ],
  [
    'a page comes otherwise',
    (d) => (d.spreads['s2']!.pages[0]!.transition = { style: 'split', seconds: 1, direction: 0 }),
    'page:page-2:transition',
  ],
  [
    'an animation is gone',
    (d) =>
      Object.values(d.spreads).forEach((s) =>
        Object.values(s.items).forEach((i) => Object.values(i.cues).forEach((c) => (c.steps = c.steps.filter((x) => x.do !== 'play')))),
      ),
    'cue:ring-cue:motion',
  ],
  ['text lies over what covered it', (d) => void d.spreads['s2']!.order.reverse(), 'document:marrowby-almanac:order'],
];
describeDamage(
  'pptx',
  SMALL,
  [...DAMAGE, ...IN_TEXT, ...ON_PAGES, ...ON_SLIDES].filter(([what]) => !NOT_TOLD.has(what)),
);

describe('places, worked by hand: 12,700 EMU to the point (20.1.2.1)', () => {
  test('a frame of text is one thing with its text, where it is and as large; its slide is as large as its page', async () => {
    const bytes = await written(tinyFolio(['Words'], { width: 200, height: 300 }));
    const xml = xmlOf(bytes);
    expect(xml).toContain('<a:off x="127000" y="127000"/><a:ext cx="2540000" cy="3810000"/>');
    expect(xml.match(/<p:sp>/g)).toHaveLength(1);
    // A4 of 595 by 842 points.
    expect(xmlOf(bytes, 'ppt/presentation.xml')).toContain('<p:sldSz cx="7556500" cy="10693400"/>');
  });
  test('room inside a frame is room in its box', async () => {
    const folio = produce(tinyFolio(['Words']), (d) => void ((d.spreads['s']!.items['f1'] as TextFrame).inset = [1, 2, 3, 4]));
    expect(xmlOf(await written(folio))).toContain('lIns="50800" tIns="12700" rIns="25400" bIns="38100"');
  });
  test('sizes, spacing, distances of lines: hundredths of a point (20.1.10.74, 21.1.2.2.12)', async () => {
    const folio = tinyFolio(['Words'], { character: { size: 11.5, leading: 14.25, tracking: 100 } });
    const xml = xmlOf(await written(folio));
    expect(xml).toContain('sz="1150"');
    // 100 thousandths of 11.5 points.
    expect(xml).toContain('spc="115"');
    expect(xml).toContain('<a:lnSpc><a:spcPts val="1425"/></a:lnSpc>');
  });
  test('things of a group stand where they do, and together', async () => {
    const folio = lookPage([
      square('a', 10, 20),
      square('b', 150, 40),
      { kind: 'group', id: 'g', transform: [1, 0, 0, 1, 0, 0], members: ['a', 'b'] },
    ]);
    folio.spreads['s']!.order = ['g'];
    const xml = xmlOf(await written(folio));
    // From (10, 20) to (250, 140).
    expect(xml).toMatch(
      /<p:grpSp>.*<a:xfrm><a:off x="127000" y="254000"\/><a:ext cx="3048000" cy="1524000"\/><a:chOff x="127000" y="254000"\/><a:chExt cx="3048000" cy="1524000"\/>/,
    );
    expect(xml).toContain('<a:off x="1905000" y="508000"/>');
  });
});

describe('pages of several sizes', () => {
  const two = produce(tinyFolio(['First']), (d) => {
    d.spreads['s2'] = {
      ...lookPage([square('q', 0, 0)]).spreads['s']!,
      id: 's2',
      pages: [{ ...d.spreads['s']!.pages[0]!, id: 'small', box: { x: 0, y: 0, width: 300, height: 200 } }],
    };
    d.head.spreadOrder.push('s2');
  });
  test('one deck is as large as the largest; smaller ones lie in the middle, and the ledger says so', async () => {
    const made = await make(asSample(two), 'pptx', SMALL);
    const xml = xmlOf(await made.read('document.pptx'), 'ppt/slides/slide2.xml');
    // (595 − 300) / 2 and (842 − 200) / 2 points.
    expect(xml).toContain(`<a:off x="${147.5 * 12_700}" y="${321 * 12_700}"/>`);
    expect(entry(made, 'page:small:size')).toMatchObject({ outcome: 'adapted', code: 'page.centred', check: 'confirmed' });
    expect(entry(made, 'page:pg:size')).toMatchObject({ outcome: 'kept' });
    expect(against(made)).toEqual([]);
  });
  test('or each size has a file of its own', async () => {
    const made = await make(asSample(two), 'pptx', { ...SMALL, sizes: 'each' });
    expect(made.paths.filter((p) => p.endsWith('.pptx')).sort()).toEqual(['document-300x200.pptx', 'document.pptx']);
    expect(xmlOf(await made.read('document-300x200.pptx'), 'ppt/presentation.xml')).toContain(
      `<p:sldSz cx="${300 * 12_700}" cy="${200 * 12_700}"/>`,
    );
    expect(against(made)).toEqual([]);
  });
  test('a page beyond 56 inches is cut to that', async () => {
    const poster = produce(tinyFolio(['Poster']), (d) => void (d.spreads['s']!.pages[0]!.box = { x: 0, y: 0, width: 5000, height: 1000 }));
    const made = await make(asSample(poster), 'pptx', SMALL);
    expect(xmlOf(await made.read('document.pptx'), 'ppt/presentation.xml')).toContain('cx="51206400"');
    expect(entry(made, 'page:pg:size')).toMatchObject({ outcome: 'adapted', code: 'page.cut', check: 'confirmed' });
  });
});

describe('text of frames', () => {
  const LONG = Array.from(
    { length: 12 },
    (_, i) => `Paragraph ${i + 1} of a text that goes on and on, so that it fills more than one frame of this page.`,
  );
  test('ends with each frame: every word is there once, in its frame', async () => {
    const made = await make(asSample(tinyFolio(LONG, { width: 200, height: 120, frames: 3 })), 'pptx', SMALL);
    const xml = xmlOf(await made.read('document.pptx'));
    expect(xml.match(/<p:txBody>/g)).toHaveLength(3);
    for (const n of [1, 3, 5]) expect(xml.match(new RegExp(`Paragraph ${n} of`, 'g'))).toHaveLength(1);
    expect(against(made)).toEqual([]);
  });
  test('in columns that fill one another is one box of as many columns; balanced ones are boxes of their own', async () => {
    const columns = (balance: boolean): Folio =>
      produce(
        tinyFolio(LONG, { width: 420, height: 160 }),
        (d) => void Object.assign(d.spreads['s']!.items['f1']!, { columns: 2, gutter: 20, balance }),
      );
    const filled = xmlOf(await written(columns(false)));
    expect(filled).toContain('numCol="2" spcCol="254000"');
    expect(filled.match(/<p:txBody>/g)).toHaveLength(1);
    const balanced = xmlOf(await written(columns(true)));
    expect(balanced.match(/<p:txBody>/g)!.length).toBeGreaterThanOrEqual(2);
  });
  test('lists are counted by the program, from the number that they have in the frame', async () => {
    const made = await make(almanac, 'pptx', SMALL);
    const slides = partsOf(await made.read('document.pptx'), 'slides');
    expect(slides).toHaveLength(pagesOf(almanac.folio).length);
    const handbook = await make(await sample('observers-handbook'), 'pptx', SMALL);
    const bytes = await handbook.read('document.pptx');
    const all = partsOf(bytes, 'slides').map((p) => xmlOf(bytes, p));
    expect(all.some((x) => x.includes('<a:buAutoNum ') || x.includes('<a:buChar '))).toBe(true);
  });
});

describe('what repeats on pages', () => {
  test('stands on layouts by the names of master pages, one for all slides that look and say the same', async () => {
    const bytes = await (await make(almanac, 'pptx', SMALL)).read('document.pptx');
    const layouts = partsOf(bytes, 'slideLayouts').map((p) => xmlOf(bytes, p));
    expect(layouts.length).toBeGreaterThan(1);
    expect(layouts.length).toBeLessThan(pagesOf(almanac.folio).length);
    const names = Object.values(almanac.folio.head.masterPages).map((m) => m.name);
    expect(layouts.some((x) => names.some((n) => x.includes(`<p:cSld name="${n}`)))).toBe(true);
    expect(layouts.some((x) => x.includes('type="slidenum"'))).toBe(true);
  });
  test('the heading of a page is the title of its slide, and its longest text the body', async () => {
    const bytes = await (await make(almanac, 'pptx', SMALL)).read('document.pptx');
    const slides = partsOf(bytes, 'slides').map((p) => xmlOf(bytes, p));
    expect(slides.filter((x) => x.includes('<p:ph type="title"/>')).length).toBeGreaterThan(2);
    for (const x of slides) expect(x.match(/<p:ph type="title"\/>/g)?.length ?? 0).toBeLessThanOrEqual(1);
  });
});

describe('how slides come and move', () => {
  const TRANSITIONS: [string, object, string][] = [
    ['a push to the right', { style: 'push', seconds: 0.3, direction: 0 }, '<p:transition spd="fast"><p:push dir="r"/></p:transition>'],
    ['a cover upwards', { style: 'cover', seconds: 0.5, direction: 90 }, '<p:transition spd="med"><p:cover dir="u"/></p:transition>'],
    ['an opening', { style: 'split', seconds: 1, direction: 0, axis: 'vertical', motion: 'outward' }, '<p:split orient="vert" dir="out"/>'],
    ['a fade', { style: 'fade', seconds: 2, direction: 0 }, '<p:transition spd="slow"><p:fade/></p:transition>'],
  ];
  test.each(TRANSITIONS)('%s (19.7.39, three speeds)', async (_, transition, xml) => {
    const folio = produce(tinyFolio(['Words']), (d) => void Object.assign(d.spreads['s']!.pages[0]!, { transition }));
    expect(xmlOf(await written(folio))).toContain(xml);
  });
  test('a page that goes on by itself does so, in thousandths of a second', async () => {
    const folio = produce(tinyFolio(['Words']), (d) => void (d.spreads['s']!.pages[0]!.advanceAfter = 2.5));
    expect(xmlOf(await written(folio))).toContain('<p:transition advTm="2500"/>');
  });
  test('what a cue lets fade in by a press on another thing is an animation that waits for that', async () => {
    const folio = lookPage([
      square('button', 0, 0, {
        cues: {
          c: { id: 'c', trigger: { when: 'press' }, steps: [{ do: 'animate', items: ['seen'], kind: 'fade', seconds: 0.5, after: 0.2 }] },
        },
      }),
      square('seen', 150, 50),
    ]);
    const made = await make(asSample(folio), 'pptx', SMALL);
    const bytes = await made.read('document.pptx');
    const xml = xmlOf(bytes);
    expect(faultsOfPptx(bytes)).toEqual([]);
    const [button, seen] = [...xml.matchAll(/<p:cNvPr id="(\d+)" name="shape"/g)].map((m) => m[1]!);
    expect(xml).toMatch(
      new RegExp(`nodeType="interactiveSeq"><p:stCondLst><p:cond evt="onClick" delay="0"><p:tgtEl><p:spTgt spid="${button}"/>`),
    );
    expect(xml).toMatch(
      new RegExp(
        `<p:cond delay="200"/>.*<p:animEffect transition="in" filter="fade"><p:cBhvr><p:cTn id="\\d+" dur="500"/><p:tgtEl><p:spTgt spid="${seen}"/>`,
      ),
    );
    expect(entry(made, 'cue:button/c:motion') ?? made.ledger.find((e) => e.code === 'cue.animation')).toMatchObject({
      code: 'cue.animation',
    });
  });
  test('films and sounds are in the file, and can be played', async () => {
    const bytes = await (await make(almanac, 'pptx', SMALL)).read('document.pptx');
    const media = partsOf(bytes, 'media').filter((p) => /\.(mp4|webm|mp3|wav|ogg|m4a)$/.test(p));
    expect(media.length).toBeGreaterThan(0);
    const slides = partsOf(bytes, 'slides').map((p) => xmlOf(bytes, p));
    expect(slides.some((x) => /<a:(video|audio)File r:link="rId\d+"\/>/.test(x) && x.includes('<p:cMediaNode'))).toBe(true);
  });
});

describe('what is hard to hold', () => {
  test('a table of 300 columns is several side by side', async () => {
    const wide = produce(tinyFolio(['Before']), (d) => {
      const story = d.stories['t']!;
      const cells = Object.fromEntries(
        Array.from({ length: 300 }, (_, i) => [
          `c${i}`,
          { id: `c${i}`, row: 0, column: i, rows: 1, columns: 1, verticalAlign: 'top' as const, header: false, order: [`w${i}`] },
        ]),
      );
      for (let i = 0; i < 300; i++)
        story.blocks[`w${i}`] = { kind: 'paragraph', id: `w${i}`, style: 'p', content: [{ type: 'span', text: 'x' }] };
      story.blocks['table'] = {
        kind: 'table',
        id: 'table',
        columns: Array.from({ length: 300 }, () => ({ width: 1, unit: 'share' as const })),
        rows: [{ height: 10, exact: false }],
        headerRows: 0,
        footerRows: 0,
        cells,
      };
      story.order.push('table');
    });
    const made = await make(asSample(wide), 'pptx', SMALL);
    const bytes = await made.read('document.pptx');
    expect(faultsOfPptx(bytes)).toEqual([]);
    expect(xmlOf(bytes).match(/<a:tbl>/g)).toHaveLength(4);
    expect(entry(made, 'table:table:structure')).toMatchObject({ code: 'table.sideBySide' });
    expect(against(made)).toEqual([]);
  });
  test('a table in a turned frame lies upright, and the ledger says so', async () => {
    const folio = produce(
      tableFolio([{ width: 60, unit: 'pt' }], [{ height: 20 }], grid(1, 1)),
      (d) => void (d.spreads['s']!.items['f1']!.transform = [0, 1, -1, 0, 300, 50]),
    );
    const made = await make(asSample(folio), 'pptx', SMALL);
    expect(entry(made, 'table:tb:structure')).toMatchObject({ outcome: 'adapted', code: 'table.upright' });
    expect(against(made)).toEqual([]);
  });
  test('control characters are left out, and text of nothing but those is no fault', async () => {
    const bytes = await written(tinyFolio(['A\u0001B\u000bC', '\u0002']));
    expect(faultsOfPptx(bytes)).toEqual([]);
    expect(xmlOf(bytes)).toContain('<a:t>ABC</a:t>');
  });
  test('the same document makes the same bytes', async () => {
    const folio = tinyFolio(['Words']);
    expect(Buffer.from(await written(folio)).equals(Buffer.from(await written(folio)))).toBe(true);
  });
});

test('officeparser, which had no part in making it, finds the words of every slide, and its notes', async () => {
  const made = await make(almanac, 'pptx', SMALL);
  const dense = (text: string): string => text.replace(/[\s\u00A0\u00AD\uFFFC]+/g, '');
  const all = dense(await parseOfficeAsync(Buffer.from(await made.read('document.pptx'))));
  const read = made.ledger.filter((e) => e.subject.kind === 'paragraph' && e.subject.aspect === 'text' && e.outcome === 'kept');
  let found = 0;
  for (const { subject } of read) {
    const block = Object.values(almanac.folio.stories).flatMap((s) => (s.blocks[subject.id] ? [s.blocks[subject.id]!] : []))[0];
    const text = block?.kind === 'paragraph' ? dense(readText(block)) : '';
    if (text.length < 30 || block?.kind !== 'paragraph' || block.content.some((n) => n.type !== 'span')) continue;
    // A paragraph may be cut where its frame ends: its beginning is in one place.
    expect([subject.id, all.includes(text.slice(0, 20))]).toEqual([subject.id, true]);
    found++;
  }
  expect(found).toBeGreaterThan(60);
});
