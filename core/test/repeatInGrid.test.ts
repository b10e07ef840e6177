import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { applyEdit, applyLogged, countedOn, Folio, incoherences, Item, readText } from '../src/index.ts';
import type { Grid } from '../src/index.ts';
import { fieldNames } from '../src/motion/fieldNames.ts';
import { tinyFolio } from './support/tinyFolio.ts';

/** A box to tick, its field and its label: “Night 01”. */
const folio = Folio.parse(
  produce(tinyFolio(['Night 01'], { width: 60, height: 12 }), (d) => {
    const s = d.spreads['s']!;
    s.items['box'] = Item.parse({
      kind: 'shape',
      id: 'box',
      layer: 'l',
      transform: [1, 0, 0, 1, 0, 10],
      path: [['M', 0, 0], ['L', 8, 0], ['L', 8, 8], ['Z']],
    });
    s.items['tick'] = Item.parse({
      kind: 'field',
      id: 'tick',
      layer: 'l',
      transform: [1, 0, 0, 1, 0, 10],
      size: { width: 8, height: 8 },
      control: { type: 'checkBox' },
      fieldName: 'seen',
      label: 'Night 01',
    });
    s.order.push('box', 'tick');
    d.head.structure.decorations = ['box'];
    d.head.structure.strands = [
      {
        id: 'all',
        name: 'All',
        entries: [
          { spread: 's', item: 'tick' },
          { spread: 's', item: 'f1' },
        ],
      },
    ];
  }),
);
const grid = (more: Partial<Grid> = {}): Grid => ({ id: 'g', seeds: ['box', 'tick', 'f1'], rows: 3, columns: 4, dx: 80, dy: 20, ...more });
const laid = (of: Folio, more: Partial<Grid> = {}) => applyEdit(of, { kind: 'grid.set', args: { spread: 's', grid: grid(more) } });
const at = (f: Folio, id: string): number[] => f.spreads['s']!.items[id]!.transform.slice(4);
const words = (f: Folio): string[] =>
  f.head.storyOrder.map((id) =>
    Object.values(f.stories[id]!.blocks)
      .map((b) => (b.kind === 'paragraph' ? readText(b) : ''))
      .join(),
  );

test('numbers count on and keep their width; a name without one gets one', () => {
  expect([
    countedOn('Night 01', 9),
    countedOn('3 of 12', 1),
    countedOn('Coat', 4),
    countedOn('coat', 4, true),
    countedOn('box-1', 1, true),
  ]).toEqual(['Night 10', '3 of 13', 'Coat', 'coat-5', 'box-2']);
});

describe('a grid', () => {
  const { folio: done, inverse } = laid(folio);

  test('of three rows and four columns has twelve of each, where its distances say', () => {
    const items = Object.keys(done.spreads['s']!.items);
    expect(items).toHaveLength(36);
    expect([at(done, 'tick'), at(done, 'tick.g-0-3'), at(done, 'tick.g-2-1')]).toEqual([
      [0, 10],
      [240, 10],
      [80, 50],
    ]);
    expect(incoherences(done)).toEqual([]);
  });
  test('counts on row by row: names of fields, their labels, and the words', () => {
    const names = [...fieldNames(done).values()].sort();
    expect(names).toEqual(['seen', ...Array.from({ length: 11 }, (_, i) => `seen-${i + 2}`)].sort());
    const last = done.spreads['s']!.items['tick.g-2-3']!;
    expect(last.kind === 'field' && [last.label, last.control]).toEqual(['Night 12', { type: 'checkBox', on: false, value: 'yes' }]);
    expect(words(done)).toEqual(Array.from({ length: 12 }, (_, i) => `Night ${String(i + 1).padStart(2, '0')}`));
  });
  test('is read where what it repeats is read, and decoration stays decoration', () => {
    const { strands, decorations } = done.head.structure;
    expect(strands[0]!.entries.slice(0, 3).map((e) => e.item)).toEqual(['tick', 'tick.g-0-1', 'tick.g-0-2']);
    expect(strands[0]!.entries).toHaveLength(24);
    expect(decorations).toHaveLength(12);
  });
  test('has its spacing changed as one; what was changed of a copy stays', () => {
    const renamed = produce(done, (d) => void ((d.spreads['s']!.items['tick.g-1-1'] as { label: string }).label = 'The comet'));
    const { folio: wider } = laid(renamed, { dx: 100, dy: 30 });
    expect([at(wider, 'tick.g-1-1'), at(wider, 'f1.g-2-3')]).toEqual([
      [100, 40],
      [310, 70],
    ]);
    expect((wider.spreads['s']!.items['tick.g-1-1'] as { label: string }).label).toBe('The comet');
    expect(Object.keys(wider.spreads['s']!.items)).toHaveLength(36);
  });
  test('grows and shrinks; what goes takes its texts along', () => {
    const { folio: smaller } = laid(done, { rows: 1, columns: 2 });
    expect(Object.keys(smaller.spreads['s']!.items)).toHaveLength(6);
    expect(words(smaller)).toEqual(['Night 01', 'Night 02']);
    expect(smaller.head.structure.strands[0]!.entries).toHaveLength(4);
    expect(incoherences(smaller)).toEqual([]);
    const { folio: none } = applyEdit(done, { kind: 'grid.remove', args: { spread: 's', grid: 'g' } });
    expect(none).toEqual(folio);
  });
  test('is one step that can be taken back', () => expect(applyLogged(done, inverse)).toEqual(folio));
});

describe('what cannot be repeated', () => {
  test('a text that flows on, or has more than words in it', () => {
    const chained = tinyFolio(['One'], { frames: 2 });
    expect(() => laid(chained, { seeds: ['f1'] })).toThrow(/flows on/);
    const noted = tinyFolio([[{ type: 'field', id: 'n', field: 'pageNumber' }]]);
    expect(() => laid(noted, { seeds: ['f1'] })).toThrow(/references/);
  });
  test('what is gone, and more than four hundred places', () => {
    expect(() => laid(folio, { seeds: ['gone'] })).toThrow(/not in the document/);
    expect(() => laid(folio, { rows: 21, columns: 20 })).toThrow();
  });
});
