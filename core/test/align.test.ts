import { describe, expect, test } from '@jest/globals';
import { align, unlikeness } from '../src/ledger/align.ts';
import { mergeShapes } from '../src/ledger/mergeShapes.ts';

const pairs = (a: string[], b: string[]): string =>
  align(a.length, b.length, (i, j) => unlikeness(a[i]!, b[j]!))
    .map((p) => `${p.expected === null ? '–' : a[p.expected]}${p.observed === null ? '–' : b[p.observed]}`)
    .join(' ');

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
