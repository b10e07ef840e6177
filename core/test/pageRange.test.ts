import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { PAGE_RANGE, pageNumbers } from '../src/folio/pageRange.ts';

describe('page ranges', () => {
  test.each([
    ['', [1, 2, 3, 4, 5]],
    ['  ', [1, 2, 3, 4, 5]],
    ['3', [3]],
    ['2-4', [2, 3, 4]],
    [' 1 , 4 - 5 ', [1, 4, 5]],
    ['5,1-2,1', [1, 2, 5]],
  ])('%j', (range, expected) => expect([...pageNumbers(range, 5)].sort((a, b) => a - b)).toEqual(expected));

  test.each(['x', '2-', '-2', '1;2', '1-2-3', '2,,3', '٣'])('%j is none, and says how to write one', (range) => {
    expect(() => pageNumbers(range, 5)).toThrow(/is no range of pages/);
  });
  test.each(['0', '6', '4-2', '1-99999999999'])('%j lies outside', (range) => {
    expect(() => pageNumbers(range, 5)).toThrow(/pages 1 to 5/);
  });
  test('whatever is written: pages of the document, or a sentence', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[0-9 ,-]{0,12}$/), fc.integer({ min: 1, max: 60 }), (range, count) => {
        if (!PAGE_RANGE.test(range)) return expect(() => pageNumbers(range, count)).toThrow();
        try {
          for (const n of pageNumbers(range, count)) expect(n >= 1 && n <= count).toBe(true);
        } catch (error) {
          expect((error as Error).message).toMatch(/pages 1 to/);
        }
      }),
    );
  });
});
