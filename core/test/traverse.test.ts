import { describe, expect, test } from '@jest/globals';
import {
  countWords,
  incoherences,
  itemBounds,
  Item,
  pageOfItem,
  pagesOf,
  paintOrder,
  paragraphRole,
  paragraphsOf,
  printedNumber,
  resolveParagraph,
  resolveSpan,
  leadingOf,
  Spread,
  storyOfFrame,
} from '../src/index.ts';
import type { Folio } from '../src/index.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const shape = (id: string, x: number, y: number, w: number, h: number, layer = 'l'): Item =>
  Item.parse({
    kind: 'shape',
    id,
    layer,
    transform: [1, 0, 0, 1, 0, 0],
    path: [['M', x, y], ['L', x + w, y], ['L', x + w, y + h], ['L', x, y + h], ['Z']],
  });
const spread = (...items: Item[]): Spread =>
  Spread.parse({
    id: 's',
    pages: [
      { id: 'left', box: { x: 0, y: 0, width: 100, height: 100 } },
      { id: 'right', box: { x: 100, y: 0, width: 100, height: 100 } },
    ],
    items: Object.fromEntries(items.map((i) => [i.id, i])),
    order: items.map((i) => i.id),
  });

describe('which page an item belongs to', () => {
  test('the one it covers most, though it reaches over', () => expect(pageOfItem(spread(), shape('a', 70, 0, 50, 10)).id).toBe('left'));
  test('also where it is a line without area', () => expect(pageOfItem(spread(), shape('a', 120, 50, 60, 0)).id).toBe('right'));
  test('the nearest where it lies outside all pages', () => expect(pageOfItem(spread(), shape('a', 230, 10, 5, 5)).id).toBe('right'));
  test('a group lies where its members lie', () => {
    const group = Item.parse({ kind: 'group', id: 'g', layer: 'l', transform: [1, 0, 0, 1, 0, 0], members: ['a', 'b'] });
    const s = spread(shape('a', 110, 10, 20, 20), shape('b', 150, 40, 30, 10), group);
    expect(itemBounds(s.items, group)).toEqual({ x: 110, y: 10, width: 70, height: 40 });
    expect(pageOfItem(s, group).id).toBe('right');
  });
  test('a group that holds itself ends', () => {
    const group = Item.parse({ kind: 'group', id: 'g', layer: 'l', transform: [1, 0, 0, 1, 0, 0], members: ['g'] });
    expect(itemBounds({ g: group }, group).width).toBe(0);
  });
});

describe('painting order', () => {
  test('layer by layer, then the spread’s own list; members come with their group', () => {
    const group = Item.parse({ kind: 'group', id: 'g', layer: 'l', transform: [1, 0, 0, 1, 0, 0], members: ['c'] });
    const s = spread(shape('a', 0, 0, 1, 1, 'top'), shape('b', 0, 0, 1, 1), shape('c', 0, 0, 1, 1), group);
    const folio = tinyFolio(['x']);
    const head = {
      ...folio.head,
      layers: { ...folio.head.layers, top: { id: 'top', name: 'Top', visible: true, printing: true, locked: false } },
      layerOrder: ['l', 'top'],
    };
    expect(paintOrder({ ...folio, head }, s).map((i) => i.id)).toEqual(['b', 'g', 'a']);
  });
});

describe('pages and stories', () => {
  test('are counted in document order; a printed number of its own is kept', () => {
    const folio = tinyFolio(['x']);
    const second = Spread.parse({
      id: 's2',
      pages: [
        { id: 'p2', box: { x: 0, y: 0, width: 10, height: 10 }, number: 'iv' },
        { id: 'p3', box: { x: 10, y: 0, width: 10, height: 10 } },
      ],
    });
    const pages = pagesOf({ ...folio, spreads: { ...folio.spreads, s2: second }, head: { ...folio.head, spreadOrder: ['s', 's2'] } });
    expect(pages.map((p) => [p.page.id, p.number, printedNumber(p)])).toEqual([
      ['pg', 1, '1'],
      ['p2', 2, 'iv'],
      ['p3', 3, '3'],
    ]);
  });
  test('a frame leads to its story; notes and cells are read where they stand', () => {
    const folio = tinyFolio(['one', [{ type: 'note', id: 'n', kind: 'footnote', order: ['np'] }]]);
    folio.stories['t']!.blocks['np'] = { kind: 'paragraph', id: 'np', style: 'p', content: [] };
    expect(storyOfFrame(folio).get('f1')).toBe('t');
    expect([...paragraphsOf(folio.stories['t']!)].map((p) => p.id)).toEqual(['p1', 'p2', 'np']);
  });
  test.each([
    ['One, two; three-four.', 4],
    ['', 0],
    ['don’t 3.5 km', 3],
  ])('words of %j', (text, n) => expect(countWords(text)).toBe(n));
});

describe('styles', () => {
  const styled = (): Folio => {
    const folio = tinyFolio(['x']);
    folio.head.paragraphStyles['child'] = {
      id: 'child',
      name: 'Child',
      basedOn: 'p',
      paragraph: { align: 'right' },
      character: { size: 20 },
    };
    folio.head.characterStyles['loud'] = { id: 'loud', name: 'Loud', character: { fontWeight: 700 } };
    return folio;
  };
  test('inherit, and hand formatting lies on top', () => {
    const { head } = styled();
    const resolved = resolveParagraph(head, { kind: 'paragraph', id: 'x', style: 'child', overrides: { spaceAfter: 3 }, content: [] });
    expect(resolved.paragraph).toMatchObject({ align: 'right', spaceAfter: 3 });
    expect(resolved.character).toMatchObject({ size: 20, leading: 12, fontFamily: 'Work Sans' });
    expect(resolveSpan(head, resolved.character, { style: 'loud', overrides: { size: 8 } })).toMatchObject({ fontWeight: 700, size: 8 });
    expect(leadingOf({ ...resolved.character, leading: 'auto' })).toBe(24);
  });
  test('a style that inherits from itself, or from nothing, still resolves', () => {
    const { head } = styled();
    head.paragraphStyles['p']!.basedOn = 'child';
    expect(resolveParagraph(head, { kind: 'paragraph', id: 'x', style: 'child', content: [] }).character.size).toBe(20);
    expect(resolveParagraph(head, { kind: 'paragraph', id: 'x', style: 'gone', content: [] }).character.size).toBe(10);
  });
  test('a role is the nearest in the inheritance, else a paragraph', () => {
    const { head } = styled();
    expect(paragraphRole(head, 'child').element).toBe('p');
    head.paragraphStyles['p']!.role = { element: 'h2', startsSection: true, leaveOut: false };
    expect(paragraphRole(head, 'child').element).toBe('h2');
  });
});

describe('what no schema can say is checked too', () => {
  test.each([
    ['a layer that is not there', (f: Folio) => void (f.spreads['s']!.items['f1']!.layer = 'x'), /layer "x", which does not exist/],
    ['a style that is not there', (f: Folio) => void ((f.stories['t']!.blocks['p1'] as { style: string }).style = 'x'), /uses style "x"/],
    [
      'an id used twice',
      (f: Folio) => void (f.stories['t']!.blocks['f1'] = { kind: 'paragraph', id: 'f1', style: 'p', content: [] }),
      /stands in .* already/,
    ],
    ['an item under another’s name', (f: Folio) => void (f.spreads['s']!.items['f1']!.id = 'x'), /calls itself "x"/],
    ['an order that names nothing', (f: Folio) => void f.stories['t']!.order.push('x'), /order names "x"/],
    [
      'a picture without its file',
      (f: Folio) =>
        void (f.spreads['s']!.items['pic'] = Item.parse({
          kind: 'picture',
          id: 'pic',
          layer: 'l',
          transform: [1, 0, 0, 1, 0, 0],
          size: { width: 1, height: 1 },
          media: 'm',
          placement: [1, 0, 0, 1, 0, 0],
        })),
      /shows "m"/,
    ],
    [
      'a group that holds itself',
      (f: Folio) =>
        void (f.spreads['s']!.items['g'] = Item.parse({
          kind: 'group',
          id: 'g',
          layer: 'l',
          transform: [1, 0, 0, 1, 0, 0],
          members: ['g'],
        })),
      /contains itself/,
    ],
  ])('%s', (_what, spoil, says) => {
    const folio = tinyFolio(['x']);
    expect(incoherences(folio)).toEqual([]);
    spoil(folio);
    expect(
      incoherences(folio)
        .map((i) => i.says)
        .join('\n'),
    ).toMatch(says);
  });
});
