import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { firstIndex } from '../src/compose/bisect.ts';

test('the first index that holds is found as by looking at each (property), with few questions', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 50 }), { maxLength: 200 }), fc.integer({ min: -1, max: 51 }), (values, limit) => {
      const sorted = [...values].sort((a, b) => a - b);
      let asked = 0;
      const found = firstIndex(sorted.length, (i) => (asked++, sorted[i]! > limit));
      const plain = sorted.findIndex((v) => v > limit);
      expect(found).toBe(plain < 0 ? sorted.length : plain);
      expect(asked).toBeLessThanOrEqual(Math.ceil(Math.log2(sorted.length + 1)) + 1);
    }),
  );
  expect(firstIndex(0, () => true)).toBe(0);
});
