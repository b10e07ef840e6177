import { describe, expect, test } from '@jest/globals';
import { eventForKey, eventForSwipe, readProgram, start, step } from '../src/index.ts';

describe('the player', () => {
  test('never leaves the publication', () => {
    let state = start(3);
    for (const type of ['next', 'next', 'next', 'next'] as const) state = step(state, { type });
    expect(state.page).toBe(2);
    expect(step(step(state, { type: 'first' }), { type: 'previous' }).page).toBe(0);
    expect(step(start(0), { type: 'last' }).page).toBe(0);
  });
  test('a state that does not change is the same object', () => {
    const state = start(3);
    expect(step(state, { type: 'seen', page: 0 })).toBe(state);
  });
  test('keys that scroll are left to the browser', () => {
    expect(eventForKey('ArrowRight')).toEqual({ type: 'next' });
    expect(['PageDown', ' ', 'ArrowDown', 'Tab'].map((k) => eventForKey(k))).toEqual([null, null, null, null]);
  });
  test('only quick, level strokes are swipes', () => {
    expect(eventForSwipe(-80, 5, 200)).toEqual({ type: 'next' });
    expect(eventForSwipe(80, 5, 200)).toEqual({ type: 'previous' });
    expect([eventForSwipe(-80, 60, 200), eventForSwipe(-30, 0, 200), eventForSwipe(-80, 0, 900)]).toEqual([null, null, null]);
  });
  test.each(['', '{', '[]', 'null', '{"version":1,"pages":[]}', '{"version":2,"pages":[1]}'])('no program in %j', (json) =>
    expect(readProgram(json)).toBeNull(),
  );
});
