import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { Composer } from '../../src/compose/index.ts';
import { pagesOf } from '../../src/index.ts';
import type { Folio } from '../../src/index.ts';
import { textPieces } from '../../src/structure/textPieces.ts';
import { effectsOnPage } from '../../src/write/pptx/cueEffects.ts';
import { countsPage, decksOf, fillsSlide, offsetOf } from '../../src/write/pptx/deck.ts';
import { filledOf } from '../../src/write/pptx/placeholders.ts';
import { lookPage, square } from '../support/looks.ts';
import { fontsOf, sample } from '../support/samples.ts';
import { tinyFolio } from '../support/tinyFolio.ts';

/** Pages one below the other, with a size and what is printed on each. */
const pages = (...list: { width: number; height: number; number?: string }[]): Folio =>
  produce(tinyFolio(['x']), (d) => {
    const [first] = d.spreads['s']!.pages;
    d.head.spreadOrder = list.map((_, i) => `s${i}`);
    list.forEach(({ width, height, number }, i) => {
      const page = { ...first!, id: `p${i}`, box: { x: 0, y: 0, width, height }, ...(number && { number }) };
      d.spreads[`s${i}`] = { ...d.spreads['s']!, id: `s${i}`, pages: [page], items: {}, order: [] };
    });
    delete d.spreads['s'];
  });
const ONE = { sizes: 'one', template: false } as const;

describe('files of slides', () => {
  test('one is as wide as the widest page and as high as the highest; others lie in the middle', () => {
    const [deck, ...more] = decksOf(pagesOf(pages({ width: 400, height: 300 }, { width: 200, height: 500 })), ONE);
    expect(more).toEqual([]);
    expect(deck!.size).toEqual({ width: 400, height: 500 });
    expect(deck!.pages.map((p) => offsetOf(deck!, p.page))).toEqual([
      { dx: 0, dy: 100 },
      { dx: 100, dy: 0 },
    ]);
    expect(deck!.pages.map((p) => fillsSlide(deck!, p.page))).toEqual([false, false]);
  });
  test('no slide is smaller than an inch or larger than 56 (19.7.37)', () => {
    expect(decksOf(pagesOf(pages({ width: 20, height: 9000 })), ONE)[0]!.size).toEqual({ width: 72, height: 4032 });
  });
  test('a file for each size, in the order in which they come', () => {
    const list = pagesOf(pages({ width: 400, height: 300 }, { width: 200, height: 500 }, { width: 400, height: 300 }));
    expect(decksOf(list, { sizes: 'each', template: true }).map((d) => [d.path, d.pages.length])).toEqual([
      ['document.potx', 2],
      ['document-200x500.potx', 1],
    ]);
  });
  test('slides are counted so that most of them have the number that is printed', () => {
    const numbered = (...numbers: string[]): Folio => pages(...numbers.map((number) => ({ width: 9, height: 9, number })));
    const counted = (...numbers: string[]): [number, boolean[]] => {
      const [deck] = decksOf(pagesOf(numbered(...numbers)), ONE);
      return [deck!.first, deck!.pages.map((_, i) => countsPage(deck!, i))];
    };
    expect(counted('12', '13', '14')).toEqual([12, [true, true, true]]);
    expect(counted('a', '5', '6', '7')).toEqual([4, [false, true, true, true]]);
    expect(counted('i', 'ii')).toEqual([1, [false, false]]);
  });
});

test('the heading of a page is the title of its slide, a long text its body', async () => {
  const { folio } = await sample('marrowby-almanac');
  const composition = new Composer(await fontsOf(folio)).compose(folio);
  const all = pagesOf(folio);
  const pieces = textPieces(folio, composition, { pages: all, shown: () => true });
  const filled = all.map((place) => filledOf(folio, place, pieces));
  const words = (p: (typeof filled)[number]['title']): string =>
    (p?.blocks ?? [])
      .map(({ block }) => (block.kind === 'paragraph' ? block.content.map((n) => (n.type === 'span' ? n.text : '')).join('') : ''))
      .join(' ');
  expect(filled.filter((f) => words(f.title).trim()).length).toBeGreaterThan(2);
  for (const { title, body } of filled) {
    expect(title === null || title !== body).toBe(true);
    expect(words(title).length).toBeLessThan(120);
    if (body) expect(words(body).length).toBeGreaterThanOrEqual(60);
  }
});

describe('what cues become', () => {
  const on = (cue: object, more: Record<string, unknown> = {}): Folio =>
    lookPage([square('a', 0, 0, { cues: { c: { id: 'c', ...cue } } }), square('b', 150, 0, more)]);
  const effects = (folio: Folio) => effectsOnPage(folio, folio.spreads['s']!, folio.spreads['s']!.pages[0]!, () => true);
  const step = (more: object): object => ({ after: 0, ...more });
  test('an animation after a wait begins that much later, by itself', () => {
    const folio = on({
      trigger: { when: 'delay', seconds: 2 },
      steps: [step({ do: 'animate', items: ['b'], kind: 'moveIn', from: 'below', seconds: 1, after: 0.5 })],
    });
    expect(effects(folio)).toMatchObject([
      { press: null, left: 0, effects: [{ item: 'b', after: 2.5, do: 'enter', how: 'moveIn', from: 'below', seconds: 1 }] },
    ]);
  });
  test('what is there from the start need not come; what is hidden does, and what is shown can go', () => {
    const show = { trigger: { when: 'press' }, steps: [step({ do: 'show', items: ['b'] }), step({ do: 'hide', items: ['b'], after: 1 })] };
    expect(effects(on(show))).toMatchObject([{ press: 'a', left: 1, effects: [{ do: 'leave', after: 1 }] }]);
    expect(effects(on(show, { startsHidden: true }))).toMatchObject([
      { left: 0, effects: [{ do: 'enter', how: 'appear' }, { do: 'leave' }] },
    ]);
  });
  test('links are none, and neither is what slides cannot do', () => {
    expect(effects(on({ trigger: { when: 'press' }, steps: [step({ do: 'go', destination: { to: 'next' } })] }))).toEqual([]);
    expect(effects(on({ trigger: { when: 'press' }, steps: [step({ do: 'print' })] }))).toEqual([]);
    expect(effects(on({ trigger: { when: 'pointerOver' }, steps: [step({ do: 'hide', items: ['b'] })] }))).toEqual([]);
  });
});
