import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import { Folio, pagesOf } from '../../src/index.ts';
import { joinedSpreads, pagesAt, spreadInLayout } from '../../src/folio/joinedSpreads.ts';
import { pageOfItem } from '../../src/folio/traverse.ts';
import { subjectKey } from '../../src/ledger/index.ts';
import { observeSlides } from '../../src/ledger/office/observeSlides.ts';
import { redrawOdp } from '../../src/preview/opendocument/redrawOdf.ts';
import { redrawSlide } from '../../src/preview/ooxml/redrawSlide.ts';
import { sharpPictures } from '../../src/ports/node.ts';
import { faultsOfOdf } from '../support/odfRules.ts';
import { lookPage, square } from '../support/looks.ts';
import { asSample, make, sample } from '../support/samples.ts';
import type { Made } from '../support/samples.ts';
import { faultsOfPptx } from '../support/slideSchema.ts';

const rgb = (r: number, g: number, b: number) => ({ type: 'colour' as const, colour: { space: 'rgb' as const, r, g, b } });

/** A single page, then two side by side with a band over their fold and a link to the right one. */
const folio = Folio.parse(
  produce(lookPage([square('a', 10, 10)]), (d) => {
    const [page] = d.spreads['s']!.pages;
    const go = { id: 'c', trigger: { when: 'press' }, steps: [{ do: 'go', destination: { to: 'page', page: 'right' } }] };
    Object.assign(d.spreads['s']!.items['a']!, { cues: { c: go } });
    d.head.spreadOrder.push('t');
    const band = {
      ...square('band', 300, 100, { alt: 'A band.' }),
      layer: 'l',
      path: [['M', 0, 0], ['L', 200, 0], ['L', 200, 20], ['L', 0, 20], ['Z']],
    };
    d.spreads['t'] = {
      ...d.spreads['s']!,
      id: 't',
      pages: [
        { ...page!, id: 'left', background: rgb(1, 1, 0), transition: { style: 'dissolve', seconds: 1, direction: 0 } },
        { ...page!, id: 'right', box: { x: 400, y: 0, width: 400, height: 300 }, background: rgb(0, 1, 1), advanceAfter: 4 },
      ] as never,
      items: { band, b: { ...square('b', 650, 150), layer: 'l' } } as never,
      order: ['band', 'b'],
    };
  }),
);

test('pages of a spread are joined into one that has the name of the first; single pages stay as they are', () => {
  const [one, two, ...more] = joinedSpreads(pagesOf(folio));
  expect(more).toEqual([]);
  expect(one).toBe(pagesOf(folio)[0]);
  expect([two!.page.id, two!.page.box, two!.number]).toEqual(['left', { x: 0, y: 0, width: 800, height: 300 }, 2]);
  expect(pagesAt(two!).map((p) => p.id)).toEqual(['left', 'right']);
  expect(pageOfItem(two!.spread, two!.spread.items['b']!).id).toBe('left');
  expect(pageOfItem(spreadInLayout(two!), two!.spread.items['b']!).id).toBe('right');
});

test('a spread of which one page alone is taken stays that page', () => {
  const [, , right] = pagesOf(folio);
  expect(joinedSpreads([right!])).toEqual([right]);
});

describe('a deck of spreads', () => {
  let made: Made;
  let bytes: Uint8Array;
  beforeAll(async () => {
    made = await make(asSample(folio), 'pptx', { spreads: 'together' });
    bytes = await made.read('document.pptx');
  });
  const xml = (n: number): string => new TextDecoder().decode(unzipSync(bytes)[`ppt/slides/slide${n}.xml`]);
  const codes = (key: string): string | undefined => made.ledger.find((e) => subjectKey(e.subject) === key)?.code;

  test('has a slide for each spread, as wide as the widest', async () => {
    expect(faultsOfPptx(bytes)).toEqual([]);
    const seen = await observeSlides(bytes, { pictures: sharpPictures, beside: async () => undefined });
    expect(seen.pages.map((p) => [p.width, p.height])).toEqual([
      [800, 300],
      [800, 300],
    ]);
    expect(made.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
  });

  test('what reaches over the fold is there once, in one piece: 300 pt are 3 810 000 EMU, 200 pt 2 540 000', () => {
    expect(xml(2).match(/descr="A band\."/g)).toHaveLength(1);
    expect(xml(2)).toContain('<a:off x="3810000" y="1270000"/><a:ext cx="2540000" cy="254000"/>');
  });

  test('each page keeps its ground, beside that of the other', () => {
    expect(xml(2)).toMatch(/<a:off x="0" y="0"\/><a:ext cx="5080000" cy="3810000"\/>.{0,700}FFFF00/s);
    expect(xml(2)).toMatch(/<a:off x="5080000" y="0"\/><a:ext cx="5080000" cy="3810000"\/>.{0,700}00FFFF/s);
  });

  test('links to either page lead to the slide of both', () => {
    const relations = new TextDecoder().decode(unzipSync(bytes)['ppt/slides/_rels/slide1.xml.rels']);
    expect(relations).toContain('slide2.xml');
    expect(codes('cue:c:motion')).toBe('kept');
  });

  test('is told as it is: how the spread comes is how its first page does', () => {
    expect([codes('page:left:size'), codes('page:right:size'), codes('page:pg:size')]).toEqual([
      'page.onSpread',
      'page.onSpread',
      'page.centred',
    ]);
    expect(codes('page:left:transition')).not.toBe('transition.ofFirst');
    expect(codes('page:right:advance')).toBe('transition.ofFirst');
  });

  test('is drawn for either page of the layout', async () => {
    const drawn = async (page: number): Promise<string> => redrawSlide([bytes], async () => undefined, page);
    expect(await drawn(3)).toBe(await drawn(2));
    expect(await drawn(1)).not.toBe(await drawn(2));
  });
});

test('numbers printed on the right page of a spread are those of that page', async () => {
  const made = await make(await sample('marrowby-almanac'), 'pptx', { spreads: 'together', resolution: 36, pages: '4-5' });
  const slide = new TextDecoder().decode(unzipSync(await made.read('document.pptx'))['ppt/slides/slide1.xml']);
  const texts = [...slide.matchAll(/<a:t[^>]*>([^<]*)<\/a:t>/g)].map((m) => m[1]);
  expect(texts.filter((t) => t === '4' || t === '5').sort()).toEqual(['4', '5']);
});

describe('open slides of spreads', () => {
  let made: Made;
  let content: string;
  beforeAll(async () => {
    made = await make(asSample(folio), 'odp', { spreads: 'together' });
    const bytes = await made.read('document.odp');
    expect(faultsOfOdf(bytes)).toEqual([]);
    content = new TextDecoder().decode(unzipSync(bytes)['content.xml']);
  });

  test('have one for each spread, and what reaches over the fold once, in one piece', () => {
    expect(content.match(/<draw:page /g)).toHaveLength(2);
    expect(content.match(/A band\./g)).toHaveLength(1);
    expect(content).toMatch(/svg:width="200pt" svg:height="20pt" svg:x="300pt" svg:y="100pt"/);
    expect(made.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
  });

  test('keep the ground of each page, and say what became of each', () => {
    expect(content).toMatch(/draw:name="Page"[^>]*svg:width="400pt" svg:height="300pt" svg:x="0pt" svg:y="0pt"/);
    expect(content).toMatch(/draw:name="Page"[^>]*svg:width="400pt" svg:height="300pt" svg:x="400pt" svg:y="0pt"/);
    const code = (key: string): string | undefined => made.ledger.find((e) => subjectKey(e.subject) === key)?.code;
    expect([code('page:left:size'), code('page:right:size'), code('page:right:advance')]).toEqual([
      'page.onSpread',
      'page.onSpread',
      'transition.ofFirst',
    ]);
  });
});

test('numbers on both pages of a spread are their own in open slides, too', async () => {
  const made = await make(await sample('marrowby-almanac'), 'odp', { spreads: 'together', resolution: 36, pages: '4-5' });
  const content = new TextDecoder().decode(unzipSync(await made.read('document.odp'))['content.xml']);
  const texts = [...content.matchAll(/>(\d+)</g)].map((m) => m[1]);
  expect(texts.filter((t) => t === '4' || t === '5').sort()).toEqual(['4', '5']);
  expect(made.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
});

test('a page with a gradient for its ground has it in open slides', async () => {
  const gradient = {
    type: 'gradient',
    gradient: {
      kind: 'linear',
      stops: [
        { offset: 0, paint: rgb(1, 0, 0), opacity: 1 },
        { offset: 1, paint: rgb(0, 0, 1), opacity: 1 },
      ],
      transform: [0, 300, -300, 0, 0, 0],
    },
  };
  const shaded = Folio.parse(
    produce(lookPage([square('a', 10, 10)]), (d) => void (d.spreads['s']!.pages[0]!.background = gradient as never)),
  );
  const files = unzipSync(await (await make(asSample(shaded), 'odp', {})).read('document.odp'));
  const text = (path: string): string => new TextDecoder().decode(files[path]);
  const [, name] = /<style:drawing-page-properties draw:fill="gradient" draw:fill-gradient-name="([^"]+)"/.exec(text('content.xml'))!;
  expect(text('styles.xml')).toContain(`draw:name="${name}"`);
  expect(text('styles.xml')).toMatch(/draw:start-color="#ff0000" draw:end-color="#0000ff"/);
});

test('open slides of spreads are drawn for either of their pages', async () => {
  const bytes = await (await make(asSample(folio), 'odp', { spreads: 'together' })).read('document.odp');
  const drawn = (page: number): Promise<string> =>
    redrawOdp(bytes, page, { beside: async () => undefined, faces: [], sizeOf: (b) => sharpPictures.info(b) });
  expect(await drawn(3)).toBe(await drawn(2));
  expect(await drawn(3)).not.toBe(await drawn(1));
});
