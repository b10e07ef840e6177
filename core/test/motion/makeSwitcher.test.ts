import { describe, expect, test } from '@jest/globals';
import { applyEdit, applyLogged, cardsOf, Folio, incoherences, Item, itemBounds, pathOf } from '../../src/index.ts';
import { tinyFolio } from '../support/tinyFolio.ts';

/** Three pictures in a row, each with its words close below; the middle one is the largest. */
function row(): Folio {
  const folio = structuredClone(tinyFolio(['Elsewhere']));
  const s = folio.spreads['s']!;
  const add = (id: string, x: number, y: number, width: number, height: number): void => {
    s.items[id] = Item.parse({
      kind: 'picture',
      id,
      layer: 'l',
      transform: [1, 0, 0, 1, x, y],
      size: { width, height },
      media: null,
      placement: [1, 0, 0, 1, 0, 0],
      alt: id,
    });
    s.order.push(id);
  };
  add('b', 200, 100, 80, 60);
  add('a', 100, 100, 50, 50);
  add('c', 320, 110, 50, 50);
  for (const [id, x, y] of [
    ['a', 100, 155],
    ['b', 200, 164],
    ['c', 320, 165],
  ] as const)
    add(`${id}-words`, x, y, 40, 10);
  return Folio.parse(folio);
}
const all = ['a', 'b', 'c', 'a-words', 'b-words', 'c-words'];
const made = (folio: Folio, cards: string[][]) =>
  applyEdit(folio, {
    kind: 'switcher.make',
    args: { spread: 's', id: 'turns', name: 'In turn', cards: cards.map((items, i) => ({ id: `turns-${i}`, name: `Card ${i}`, items })) },
  });
const at = (folio: Folio, id: string): number[] => {
  const { x, y, width, height } = itemBounds(folio.spreads['s']!.items, folio.spreads['s']!.items[id]!);
  return [x + width / 2, y + height / 2];
};

describe('cards from what is chosen', () => {
  test('what touches or nearly does shares a card; cards go from left to right', () => {
    expect(cardsOf(row().spreads['s']!, all).map((c) => c.sort())).toEqual([
      ['a', 'a-words'],
      ['b', 'b-words'],
      ['c', 'c-words'],
    ]);
  });

  test('things that lie on one another get a card each', () => {
    const folio = row();
    for (const id of ['a', 'b', 'c']) folio.spreads['s']!.items[id]!.transform = [1, 0, 0, 1, 100, 100];
    expect(cardsOf(folio.spreads['s']!, ['a', 'b', 'c'])).toHaveLength(3);
  });
});

describe('a switcher made of them', () => {
  const before = row();
  const { folio, inverse } = made(before, cardsOf(before.spreads['s']!, all));
  const spread = folio.spreads['s']!;

  test('has each card in the middle of the largest place, its things as they stood to one another', () => {
    // The largest card is b with its words: 80 wide, from 100 to 174 high: 74. The first stood at 100, 100.
    expect(spread.items['turns']).toMatchObject({ kind: 'switcher', transform: [1, 0, 0, 1, 100, 100], size: { width: 80, height: 74 } });
    for (const [id, name] of [
      ['a', 'a-words'],
      ['b', 'b-words'],
      ['c', 'c-words'],
    ] as const) {
      const moved = at(folio, id).map((v, i) => v - at(before, id)[i]!);
      expect(at(folio, name).map((v, i) => v - at(before, name)[i]!)).toEqual(moved);
    }
    // 80 − 50 is 30, half of it on each side; 74 − 65 is 9.
    expect(spread.items['c']!.transform.slice(4)).toEqual([115, 104.5]);
  });

  test('stands in the order once, holds its things, and is read card by card', () => {
    expect(spread.order.filter((id) => id === 'turns')).toHaveLength(1);
    expect(spread.order.some((id) => all.includes(id))).toBe(false);
    expect(incoherences(folio)).toEqual([]);
    const path = pathOf(folio, spread).map((i) => i.id);
    const from = path.indexOf('turns');
    expect(path.slice(from + 1, from + 7).map((id) => id[0])).toEqual(['a', 'a', 'b', 'b', 'c', 'c']);
  });

  test('is taken back whole; what is gone or held already is refused', () => {
    expect(applyLogged(folio, inverse)).toEqual(before);
    expect(() => made(before, [['a'], ['nothing']])).toThrow('not in the document');
    expect(() => made(folio, [['a'], ['b']])).toThrow('on a card already');
    expect(() => made(before, [['a'], ['a']])).toThrow('one card only');
  });
});
