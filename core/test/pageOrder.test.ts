import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { produce } from 'immer';
import type { Folio } from '../src/index.ts';
import { fixedFirst, pageOrder } from '../src/structure/pageOrder.ts';
import type { Placed } from '../src/structure/pageOrder.ts';
import { pathOf, readingItems, workedOrder } from '../src/structure/readingOrder.ts';
import { sample } from './support/samples.ts';

const text = (id: string, x: number, y: number, width: number, height: number, more: Partial<Placed> = {}): Placed => ({
  id,
  box: { x, y, width, height },
  kind: 'text',
  ...more,
});
const figure = (id: string, x: number, y: number, width: number, height: number): Placed => ({
  ...text(id, x, y, width, height),
  kind: 'figure',
});

/** Orders written down by hand, as a reader of the trade’s common layouts takes them. */
describe('a page is read', () => {
  test('by its heading, then column by column', () => {
    const page = [text('right', 310, 120, 250, 600), text('left', 40, 120, 250, 600), text('heading', 40, 40, 520, 60)];
    expect(pageOrder(page)).toEqual(['heading', 'left', 'right']);
  });
  test('band by band where pictures part the columns', () => {
    const page = [
      text('a', 40, 40, 250, 200),
      text('b', 310, 40, 250, 200),
      figure('wide', 40, 270, 520, 150),
      text('c', 40, 450, 250, 200),
      text('d', 310, 450, 250, 200),
    ];
    expect(pageOrder(page.toReversed())).toEqual(['a', 'b', 'wide', 'c', 'd']);
  });
  test('across, where a grid is as wide apart as it is high', () => {
    const cells = [0, 1, 2].flatMap((row) => [0, 1].map((column) => text(`${row}${column}`, column * 110, row * 110, 100, 100)));
    expect(pageOrder(cells.toReversed())).toEqual(['00', '01', '10', '11', '20', '21']);
  });
  test('down, where its columns stand further apart than its rows', () => {
    const cells = [0, 1, 2].flatMap((row) => [0, 1].map((column) => text(`${row}${column}`, column * 140, row * 110, 100, 100)));
    expect(pageOrder(cells)).toEqual(['00', '10', '20', '01', '11', '21']);
  });
  test('by the picture that text lies on, then by the text', () => {
    const page = [text('low', 60, 600, 300, 100), text('high', 60, 80, 400, 90), figure('ground', 0, 0, 595, 842)];
    expect(pageOrder(page)).toEqual(['ground', 'high', 'low']);
  });
  test('with every caption after its picture, wherever it stands', () => {
    const page = [
      text('above', 40, 30, 200, 14, { as: 'caption' }),
      figure('one', 40, 50, 200, 150),
      figure('two', 260, 50, 200, 150),
      text('below', 260, 205, 200, 20, { as: 'caption' }),
      text('body', 40, 260, 420, 400),
    ];
    expect(pageOrder(page)).toEqual(['one', 'above', 'two', 'below', 'body']);
  });
  test('a caption far from any picture stays where it is', () => {
    const page = [figure('one', 40, 50, 200, 150), text('body', 40, 220, 420, 300), text('far', 40, 560, 200, 20, { as: 'caption' })];
    expect(pageOrder(page)).toEqual(['one', 'body', 'far']);
  });
  test('a chain in its own order, whatever its frames’ places', () => {
    const chain = (at: number): Partial<Placed> => ({ chain: { story: 's', at } });
    const page = [text('f2', 40, 40, 250, 300, chain(1)), text('x', 40, 360, 250, 60), text('f1', 40, 440, 250, 300, chain(0))];
    expect(pageOrder(page)).toEqual(['f1', 'x', 'f2']);
  });
  test('a note in the outer margin after the text that it stands beside', () => {
    const page = [text('aside', 20, 200, 80, 100, { as: 'aside' }), text('body', 120, 40, 400, 700)];
    expect(pageOrder(page)).toEqual(['body', 'aside']);
  });
  test('frames that touch or overlap by a hair are side by side all the same', () => {
    expect(pageOrder([text('right', 298, 40, 250, 300), text('left', 50, 40, 250, 300)])).toEqual(['left', 'right']);
  });
  test('and thousands of things on one page do not take long', () => {
    const many = Array.from({ length: 10_000 }, (_, i) => text(`t${i}`, (i % 100) * 6, Math.floor(i / 100) * 8, 5, 7));
    expect(pageOrder(many).slice(0, 3)).toEqual(['t0', 't1', 't2']);
  });
});

const box = fc.record({
  x: fc.integer({ min: 0, max: 500 }),
  y: fc.integer({ min: 0, max: 700 }),
  width: fc.integer({ min: 1, max: 300 }),
  height: fc.integer({ min: 1, max: 300 }),
});
const anyPage = fc
  .array(
    fc.record({
      box,
      kind: fc.constantFrom('text' as const, 'figure' as const),
      as: fc.constantFrom(undefined, 'caption' as const, 'aside' as const),
      at: fc.option(fc.integer({ min: 0, max: 9 })),
    }),
    { maxLength: 30 },
  )
  .map((list) =>
    list.map(({ at, as, ...p }, i): Placed => ({
      ...p,
      id: `i${i}`,
      as: p.kind === 'text' ? as : undefined,
      ...(at !== null && p.kind === 'text' && !as && { chain: { story: 's', at: at * 100 + i } }),
    })),
  );

test('whatever stands on a page is read once, and chains in their order', () => {
  fc.assert(
    fc.property(anyPage, (placed) => {
      const order = pageOrder(placed);
      expect([...order].sort()).toEqual(placed.map((p) => p.id).sort());
      const chained = order.map((id) => placed.find((p) => p.id === id)!).filter((p) => p.chain);
      const places = chained.map((p) => p.chain!.at);
      expect(places).toEqual([...places].sort((a, b) => a - b));
    }),
    { numRuns: 300 },
  );
});

test('what a person fixed keeps its order, and everything else its neighbour', () => {
  expect(fixedFirst(['c', 'a'], ['a', 'b', 'c', 'd'])).toEqual(['c', 'd', 'a', 'b']);
  expect(fixedFirst(['b'], ['a', 'b'])).toEqual(['a', 'b']);
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer()), fc.func(fc.boolean()), (ids, isFixed) => {
      const worked = ids.map(String);
      const fixed = worked.filter((id) => isFixed(id)).reverse();
      const order = fixedFirst(fixed, worked);
      expect(order.filter((id) => fixed.includes(id))).toEqual(fixed);
      expect([...order].sort()).toEqual([...worked].sort());
    }),
  );
});

test('the path as it is seen has nothing of hidden layers, and all of what is read', async () => {
  const { folio } = await sample('marrowby-almanac');
  const seen = pathOf(folio, folio.spreads['s3']!).map((i) => i.id);
  expect(seen.every((id) => folio.head.layers[folio.spreads['s3']!.items[id]!.layer]!.visible)).toBe(true);
  expect(seen).toEqual(expect.arrayContaining(['map-picture', 'moon-a', 'moon-b', 'moon-c']));
  const shown = produce(folio, (d) => void (d.head.layers['notes']!.visible = true));
  expect(pathOf(shown, shown.spreads['s3']!).length).toBeGreaterThan(seen.length);
});

describe('worked out from the samples’ pages alone', () => {
  let folio: Folio;
  beforeAll(async () => {
    const { folio: made } = await sample('marrowby-almanac');
    folio = produce(made, (d) => void (d.head.structure.strands = []));
  });
  const texts = (spread: string): string[] =>
    workedOrder(folio, folio.spreads[spread]!)
      .filter((i) => i.kind === 'textFrame' && !i.id.includes('/'))
      .map((i) => i.id);
  const fixedTexts = async (spread: string): Promise<string[]> => {
    const { folio: made } = await sample('marrowby-almanac');
    const named = made.head.structure.strands.flatMap((s) => s.entries.filter((e) => e.spread === spread).map((e) => e.item));
    return readingItems(made, made.spreads[spread]!)
      .filter((i) => i.kind === 'textFrame' && named.includes(i.id))
      .map((i) => i.id);
  };
  // On these two the maker chose to have pictures read later, or earlier, than they stand.
  const CHOSEN_OTHERWISE = ['s4', 's6'];
  test('is the order that their maker wrote down by hand, but where that was chosen against the layout', async () => {
    const wrong: string[] = [];
    for (const spread of folio.head.spreadOrder) {
      const byHand = await fixedTexts(spread);
      const worked = texts(spread).filter((id) => byHand.includes(id));
      if (JSON.stringify(worked) !== JSON.stringify(byHand)) wrong.push(spread);
    }
    expect(wrong).toEqual(CHOSEN_OTHERWISE);
  });
});
