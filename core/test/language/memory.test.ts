import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  analyse,
  bandOf,
  ChoiceOfTexts,
  costOf,
  editDistance,
  fromReadable,
  goesOut,
  LEAST_FUZZY,
  Memory,
  memoryKey,
  percentAlike,
  Rates,
  sumOf,
  tokensOf,
  wordsOf,
} from '../../src/language/index.ts';
import type { MemoryUnit } from '../../src/language/index.ts';
import { sample } from '../support/samples.ts';
import { codedFolio } from './support/codedFolio.ts';

const words = (text: string): string[] => tokensOf(text);
const unit = (source: string, target: string, more: Partial<MemoryUnit> = {}): MemoryUnit => ({
  source: fromReadable(source),
  target: fromReadable(target),
  ...more,
});

describe('edit distance', () => {
  // “kitten” → “sitting” is the example that textbooks give (three steps); the others are worked by hand.
  test.each([
    ['k i t t e n', 's i t t i n g', 3],
    ['s a t u r d a y', 's u n d a y', 3],
    ['the dome turns', 'the dome turns', 0],
    ['the dome turns', 'the old dome turns', 1],
    ['the dome turns slowly', 'the dome ticks', 2],
    ['', 'one two', 2],
    ['a b c d', 'd c b a', 4],
  ])('“%s” to “%s” takes %i', (a, b, steps) => expect(editDistance(words(a), words(b))).toBe(steps));

  test.each([
    // One of four words is another: 75 %. One more of five: 80 %. One of ten: 90 %.
    ['the old dome turns', 'the old dome ticks', 75],
    ['the dome turns today', 'the old dome turns today', 80],
    ['a b c d e f g h i j', 'a b c d e f g h i k', 90],
    ['空を見る', '空を見た', 75],
  ])('“%s” and “%s” are alike by %i %%', (a, b, percent) => expect(percentAlike(words(a), words(b))).toBe(percent));

  test('is a metric, and the same with a limit that it keeps', () => {
    const list = fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 9 });
    fc.assert(
      fc.property(list, list, list, (a, b, c) => {
        const d = editDistance(a, b);
        expect(editDistance(b, a)).toBe(d);
        expect(d === 0).toBe(a.join() === b.join());
        expect(editDistance(a, c)).toBeLessThanOrEqual(d + editDistance(b, c));
        expect(editDistance(a, b, d)).toBe(d);
        if (d > 0) expect(editDistance(a, b, d - 1)).toBeGreaterThan(d - 1);
      }),
    );
  });
});

describe('a memory', () => {
  const memory = new Memory([
    unit('The dome turns.', 'Die Kuppel dreht sich.', { before: memoryKey(fromReadable('Look up.')), after: '' }),
    unit('The dome turns.', 'Die Kuppel dreht.', { before: 'x', after: 'y' }),
    unit('The {1}old{/1} dome turns slowly at night.', 'Die {1}alte{/1} Kuppel dreht sich nachts langsam.'),
  ]);

  test('in the same place first, then the same, then alike', () => {
    const found = memory.find(fromReadable('The dome turns.'), { before: memoryKey(fromReadable('Look up.')), after: '' });
    expect(found.map((m) => [m.kind, m.percent, wordsOf(m.unit.target)])).toEqual([
      ['inContext', 100, 'Die Kuppel dreht sich.'],
      ['exact', 100, 'Die Kuppel dreht.'],
    ]);
    expect(memory.find(fromReadable('The dome turns.'), { before: 'elsewhere', after: '' })[0]!.kind).toBe('exact');
    // One of eight tokens, the full stop among them, is another: 7/8 = 87 %.
    expect(memory.find(fromReadable('The {1}new{/1} dome turns slowly at night.'))[0]).toMatchObject({ kind: 'fuzzy', percent: 87 });
  });

  test('the same words with other codes are never “the same”', () => {
    expect(memory.find(fromReadable('The old dome turns slowly at night.'))[0]).toMatchObject({ kind: 'fuzzy', percent: 99 });
    expect(memory.find(fromReadable('The {4}old{/4} dome turns slowly at night.'))[0]).toMatchObject({ kind: 'exact', percent: 100 });
  });

  test('finds by its index what comparing with all finds', async () => {
    const { folio } = await sample('observers-handbook');
    const sources = goesOut(folio, ChoiceOfTexts.parse({ cut: 'sentences' })).units.flatMap((u) => u.segments.map((s) => s.source));
    const kept = sources.filter((_, i) => i % 2);
    const asked = sources.filter((_, i) => !(i % 2)).filter((_, i) => i % 4 === 0);
    const large = new Memory(kept.map((source) => ({ source, target: source })));
    const tokens = kept.map((s) => tokensOf(wordsOf(s)));
    let there = 0;
    let missed = 0;
    for (const source of asked) {
      const own = tokensOf(wordsOf(source));
      const best = Math.max(0, ...tokens.map((t) => percentAlike(own, t, LEAST_FUZZY)).filter((p) => p >= LEAST_FUZZY));
      if (best < 60) continue;
      there++;
      const found = large.find(source)[0];
      if (!found || found.percent < Math.min(best, 99) - 2) missed++;
    }
    expect(there).toBeGreaterThan(15);
    expect(missed).toBe(0);
  });
});

describe('an analysis', () => {
  const folio = codedFolio(['The dome turns.', 'The dome turns.', 'The old dome turns today.', 'Nothing like it at all']);
  const { units } = goesOut(folio, ChoiceOfTexts.parse({ metadata: 'out' }));

  test('counts words and characters by bands; what stood before is repeated', () => {
    const [plain] = analyse([units], new Memory());
    expect(plain!.total).toEqual({ segments: 4, words: 16, characters: 13 + 13 + 21 + 18 });
    expect(plain!.bands.repeated).toEqual({ segments: 1, words: 3, characters: 13 });
    expect(plain!.bands.new.segments).toBe(3);
    // “The old dome turns” against “The old dome turns today.”: five of six tokens, 83 %.
    const [known] = analyse(
      [units],
      new Memory([unit('The old dome turns.', 'x'), unit('The dome turns.', 'y', { before: 'z', after: 'z' })]),
    );
    expect(known!.bands['75-84'].segments).toBe(1);
    expect(known!.bands.exact.segments).toBe(1);
    expect(known!.bands.repeated.segments).toBe(1);
  });

  test('several documents are one set: what stood in the first is repeated in the second', () => {
    const both = analyse([units, units], new Memory());
    expect(both[1]!.bands.new.segments).toBe(0);
    expect(both[1]!.bands.repeated.segments).toBe(4);
    expect(sumOf(both).total.segments).toBe(8);
  });

  test('costs and days by the rate of each band', () => {
    const [plain] = analyse([units], new Memory());
    // 13 new words in full and three at a tenth: 13.3 words at 0.10.
    expect(costOf(plain!, Rates.parse({ perWord: 0.1, wordsADay: 133 }))).toEqual({ cost: 1.33, days: 0.1 });
  });

  test.each([
    [100, '95-99'],
    [95, '95-99'],
    [94, '85-94'],
    [85, '85-94'],
    [84, '75-84'],
    [75, '75-84'],
    [74, '50-74'],
    [50, '50-74'],
    [49, 'new'],
  ] as const)('%i %% is in band %s', (percent, band) => expect(bandOf(percent)).toBe(band));
});
