import { describe, expect, test } from '@jest/globals';
import { animationFrames, cardFrames, flakesAlong, sideOf, transitionFrames } from '../src/index.ts';
import type { Transition } from '../src/index.ts';

const t = (more: Partial<Transition>): Transition => ({
  style: 'fade',
  seconds: 1,
  direction: 0,
  axis: 'horizontal',
  motion: 'inward',
  ...more,
});

describe('transitions', () => {
  // ISO 32000-1, table 162, Di: degrees counterclockwise from left to right; 90 bottom to top, 180 right to left, 270 top to bottom.
  test.each([
    [0, 'left'],
    [90, 'below'],
    [180, 'right'],
    [270, 'above'],
    [360, 'left'],
    [-90, 'above'],
  ])('a movement of %i degrees comes from %s', (direction, side) => expect(sideOf(direction)).toBe(side));

  test('each style begins unseen or apart and ends as the page is', () => {
    const styles = ['split', 'blinds', 'box', 'wipe', 'dissolve', 'glitter', 'fly', 'push', 'cover', 'uncover', 'fade'] as const;
    for (const style of styles) {
      const [first, last] = transitionFrames(t({ style }));
      expect(first).not.toEqual(last);
      for (const [property, end] of Object.entries({ opacity: '1', transform: 'none', clipPath: 'inset(0)' }))
        if (last![property] !== undefined) expect(last![property]).toBe(end);
    }
  });
  test('a wipe from the right is closed from its left', () =>
    expect(transitionFrames(t({ style: 'wipe', direction: 180 }))[0]).toEqual({ clipPath: 'inset(0 0 0 100%)' }));
  test('a split opens along its line', () =>
    expect(transitionFrames(t({ style: 'split', axis: 'vertical', motion: 'outward' }))[0]).toEqual({ clipPath: 'inset(0 50%)' }));
});

describe('cards', () => {
  test('slide out on one side and in from the other; back is the other way round', () => {
    const slide = { kind: 'slide', direction: 'left' };
    expect(cardFrames(slide, true)).toEqual({
      old: [{ transform: 'none' }, { transform: 'translate(-100%,0%)' }],
      young: [{ transform: 'translate(100%,0%)' }, { transform: 'none' }],
    });
    expect(cardFrames(slide, false)!.old[1]).toEqual({ transform: 'translate(100%,0%)' });
  });
  test('a cut moves nothing', () => expect(cardFrames({ kind: 'cut', direction: 'left' }, true)).toBeNull());
});

test('what moves in comes from its side', () =>
  expect(animationFrames({ kind: 'moveIn', from: 'below' })[0]).toEqual({ translate: '0 100vh' }));

test('a fast stroke lifts every flake on its way, by hand: along a row, and down a slope', () => {
  expect(flakesAlong({ pitch: 10 }, { x: 5, y: 5 }, { x: 45, y: 5 })).toEqual(['0,0', '1,0', '2,0', '3,0', '4,0']);
  expect(flakesAlong({ pitch: 10 }, { x: 5, y: 5 }, { x: 25, y: 25 })).toEqual(['0,0', '1,1', '2,2']);
  expect(flakesAlong({ pitch: 10 }, { x: 5, y: 5 }, { x: 5, y: 5 })).toEqual(['0,0']);
});
