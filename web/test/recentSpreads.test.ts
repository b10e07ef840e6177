import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { RecentSpreads } from '../src/document/recentSpreads.ts';

describe('spreads that were shown last', () => {
  test('the one that was out of sight longest is let go first', () => {
    const recent = new RecentSpreads(3);
    expect(recent.show(['a', 'b'])).toEqual([]);
    expect(recent.show(['c'])).toEqual([]);
    expect(recent.show(['a'])).toEqual([]);
    expect(recent.show(['d'])).toEqual(['b']);
    expect(['a', 'b', 'c', 'd'].map((id) => recent.has(id))).toEqual([true, false, true, true]);
  });

  test('what is shown at once is never let go, however much it is', () => {
    const recent = new RecentSpreads(2);
    expect(recent.show(['a', 'b', 'c', 'd'])).toEqual([]);
    expect(recent.show(['e'])).toEqual(['a', 'b', 'c']);
  });

  test('two that hear the same keep the same, and no more than they may', () => {
    fc.assert(
      fc.property(fc.array(fc.uniqueArray(fc.integer({ min: 0, max: 30 }).map(String), { maxLength: 6 }), { maxLength: 40 }), (shown) => {
        const [one, other] = [new RecentSpreads(8), new RecentSpreads(8)];
        for (const ids of shown) {
          expect(one.show(ids)).toEqual(other.show(ids));
          for (const id of ids) expect(one.has(id)).toBe(true);
        }
        expect(Array.from({ length: 31 }, (_, i) => one.has(String(i))).filter(Boolean).length).toBeLessThanOrEqual(8);
      }),
    );
  });
});
