import { describe, expect, test } from '@jest/globals';
import type { LedgerEntry } from '@elastic-folio/core/ledger';
import { byWeight, sentenceOf, worstOf } from '../src/outputs/score.ts';

const entry = (outcome: LedgerEntry['outcome'], check: LedgerEntry['check'] = 'confirmed', id = outcome as string): LedgerEntry => ({
  subject: { kind: 'item', id, aspect: 'look' },
  pages: ['p'],
  outcome,
  code: 'c',
  values: { n: 3 },
  check,
});

describe('the score', () => {
  test('shows the worst of a page; what was left out on purpose is not bad', () => {
    expect(worstOf([entry('kept'), entry('adapted'), entry('excluded')])).toBe('adapted');
    expect(worstOf([entry('kept'), entry('dropped'), entry('adapted')])).toBe('dropped');
    expect(worstOf([entry('kept'), entry('excluded')])).toBe('kept');
    expect(worstOf([entry('excluded')])).toBe('excluded');
    expect(worstOf([])).toBe('none');
  });
  test('puts first what most wants looking at', () => {
    const list = [entry('kept'), entry('excluded'), entry('adapted'), entry('dropped'), entry('kept', 'contradicted', 'wrong')];
    expect(byWeight(list).map((e) => e.subject.id)).toEqual(['wrong', 'dropped', 'adapted', 'excluded', 'kept']);
  });
  test('puts values into sentences', () => {
    expect(sentenceOf(entry('dropped'), { c: '{n} of {m} letters' })).toBe('3 of  letters');
    expect(sentenceOf(entry('dropped'), {})).toBe('c');
  });
});
