import { describe, expect, test } from '@jest/globals';
import { applyEdit, Item, newField, newVeil } from '../../src/index.ts';
import { flakeGrid } from '../../src/motion/flakes.ts';
import { motionFolio } from '../support/motionFolio.ts';

const folio = motionFolio();
const spread = folio.spreads['s']!;
const over = (more: object): Item => Item.parse({ id: 'over', layer: 'l', transform: [1, 0, 0, 1, 50, 60], ...more });
const box = (width: number, height: number): Item =>
  over({ kind: 'picture', media: null, placement: [1, 0, 0, 1, 0, 0], size: { width, height } });

describe('a field laid over something', () => {
  test('is a check box over a small square, off to begin with, under a name that is free', () => {
    const field = newField(folio, spread, box(10, 10), 'n', 'A warm coat');
    expect(field).toMatchObject({
      fieldName: 'tick-1',
      label: 'A warm coat',
      control: { type: 'checkBox', on: false },
      transform: [1, 0, 0, 1, 50, 60],
    });
    const { folio: with1 } = applyEdit(folio, { kind: 'part.set', args: { spread: 's', item: field } });
    expect(newField(with1, with1.spreads['s']!, box(10, 10), 'm', '').fieldName).toBe('tick-2');
  });
  test('is for words over what is wide, for several lines over what is high as well', () => {
    expect(newField(folio, spread, box(120, 14), 'n', '').control).toMatchObject({ type: 'text', lines: 'one' });
    expect(newField(folio, spread, box(220, 90), 'n', '').control).toMatchObject({ type: 'text', lines: 'many' });
  });
});

describe('a veil laid over something', () => {
  test('has the outline of a shape, wherever that begins, and lies where the shape does', () => {
    const triangle = over({ kind: 'shape', path: [['M', 100, 100], ['L', 100, 140], ['L', 140, 140], ['Z']] });
    const veil = newVeil(folio, spread, triangle, 'v');
    expect(veil.outline).toEqual([['M', 0, 0], ['L', 0, 40], ['L', 40, 40], ['Z']]);
    expect([veil.transform, veil.size]).toEqual([[1, 0, 0, 1, 150, 160], { width: 40, height: 40 }]);
    // Half of the square needs flakes.
    const { rows } = flakeGrid(veil);
    expect(rows[0]!.length).toBeLessThan(rows.at(-1)!.length);
  });
  test('has an action that can be pressed, and flakes that a finger can lift', () => {
    const veil = newVeil(folio, spread, box(300, 200), 'v');
    expect(veil.action).not.toBe('');
    expect(veil.flakeSize).toBe(27);
    expect(veil.outline).toBeUndefined();
  });
});

test('a switcher that is taken off leaves what stood on its cards', () => {
  const { folio: without } = applyEdit(folio, { kind: 'part.remove', args: { spread: 's', item: 'sw' } });
  expect(without.spreads['s']!.items['sw']).toBeUndefined();
  expect(without.spreads['s']!.order).toEqual(expect.arrayContaining(['first', 'second']));
});

test('a part does not take the place of something else', () =>
  expect(() =>
    applyEdit(folio, { kind: 'part.set', args: { spread: 's', item: { ...newVeil(folio, spread, box(9, 9), 'f1') } } }),
  ).toThrow());
