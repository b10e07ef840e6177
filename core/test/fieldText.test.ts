import { describe, expect, test } from '@jest/globals';
import { fieldText } from '../src/compose/fieldText.ts';
import type { FieldSources } from '../src/compose/fieldText.ts';
import type { Inline } from '../src/index.ts';
import { tinyFolio } from './support/tinyFolio.ts';

type Field = Inline & { type: 'field' };
const folio = tinyFolio(['A text.']);
const sources: FieldSources = {
  page: 'pg',
  pageOf: (id) => (id === 'p1' ? '12' : undefined),
  labelOf: (id) => (id === 'p1' ? 'Figure 3' : undefined),
  sectionOn: (page) => (page === 'pg' ? 'The dome' : undefined),
};
const shown = (field: Field['field'], more: Partial<Field> = {}, from: FieldSources = sources): string =>
  fieldText(folio, { type: 'field', id: 'f', field, ...more }, from);

describe('what a field shows', () => {
  test.each([
    ['pageNumber', {}, '1'],
    ['pageCount', {}, '1'],
    ['title', {}, 'Tiny'],
    ['sectionName', {}, 'The dome'],
    ['reference', { target: 'p1' }, '12'],
    // A word and its number stay together (UAX 14: no break at U+00A0).
    ['label', { target: 'p1' }, 'Figure\u00A03'],
    ['date', { text: '6 March' }, '6 March'],
  ] as const)('%s', (field, more, text) => {
    expect(shown(field, more)).toBe(text);
  });
  test('what is not known is shown as it was last, or not at all', () => {
    expect(shown('reference', { target: 'gone', text: '7' })).toBe('7');
    expect(shown('label', { target: 'gone' })).toBe('');
    const nowhere = { ...sources, page: null };
    expect(shown('pageNumber', { text: '9' }, nowhere)).toBe('9');
    expect(shown('sectionName', { text: 'Before' }, nowhere)).toBe('Before');
  });
});
