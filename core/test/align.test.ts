import { describe, expect, test } from '@jest/globals';
import { alignedPairs, alignSequences, worthOfCost } from '../src/alignment/alignSequences.ts';
import { unlikeness } from '../src/alignment/likeness.ts';
import { mergeShapes } from '../src/ledger/mergeShapes.ts';

const pairs = (a: string[], b: string[]): string =>
  alignedPairs({ lengths: [a.length, b.length], keys: [a, b], worth: (i, j) => worthOfCost(unlikeness(a[i]!, b[j]!)) })
    .map((p) => `${p.expected === null ? '–' : a[p.expected]}${p.observed === null ? '–' : b[p.observed]}`)
    .join(' ');

describe('long stretches', () => {
  const counted = (n: number, word: string): string[] =>
    Array.from({ length: n }, (_, i) => `${word} ${i} of many, each with words of its own`);
  test('in which everything is changed ask for a bounded number of comparisons', () => {
    let asked = 0;
    const [a, b] = [counted(600, 'one'), counted(600, 'other')];
    const pairs = alignSequences({ lengths: [600, 600], keys: [a, b], worth: () => (asked++, 0.5) });
    expect(asked).toBeLessThanOrEqual(90_000);
    expect(pairs).toEqual([]);
    expect(alignSequences({ lengths: [3000, 3000], worth: () => (asked++, 0.5) })).toHaveLength(3000);
    expect(asked).toBeLessThanOrEqual(4_000_000);
  });
  test('of equal members pair all of them, wherever something new stands between', () => {
    const a = counted(500, 'same');
    const b = a.flatMap((text, i) => (i % 7 ? [text] : ['new', text]));
    expect(alignSequences({ lengths: [a.length, b.length], keys: [a, b], worth: () => 0 })).toHaveLength(500);
  });
});

describe('pairing what should be with what is', () => {
  test('equal lists pair one to one', () => expect(pairs(['aa', 'bb'], ['aa', 'bb'])).toBe('aaaa bbbb'));
  test('what is gone and what is too much stand alone', () => {
    expect(pairs(['aa', 'bb', 'cc'], ['aa', 'cc'])).toBe('aaaa bb– cccc');
    expect(pairs(['aa', 'cc'], ['aa', 'xx', 'cc'])).toBe('aaaa –xx cccc');
  });
  test('texts that are nearly alike are still a pair', () =>
    expect(unlikeness('the quick brown fox', 'the quick brown fix')).toBeLessThan(0.2));
  test('a fill and the stroke that follows it are one shape', () => {
    const box = { x: 0, y: 0, width: 5, height: 5 };
    expect(
      mergeShapes([
        { box, fill: '#111111', stroke: null },
        { box, fill: null, stroke: '#222222' },
        { box, fill: '#333333', stroke: null },
      ]),
    ).toHaveLength(2);
  });
});
