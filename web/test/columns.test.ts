import { describe, expect, test } from '@jest/globals';
import { Folio } from '@elastic-folio/core';
import type { LedgerEntry } from '@elastic-folio/core/ledger';
import { aspectName, columnsOf, entriesOn, subjectName } from '../src/outputs/score.ts';

const book = (pages: number): Folio =>
  Folio.parse({
    head: {
      formatVersion: 1,
      id: 'doc',
      metadata: { title: 'Doc' },
      layers: { l: { id: 'l', name: 'Printer’s notes' } },
      layerOrder: ['l'],
      paragraphStyles: { p: { id: 'p', name: 'P' } },
      spreadOrder: Array.from({ length: pages }, (_, i) => `s${i + 1}`),
      storyOrder: ['t'],
    },
    spreads: Object.fromEntries(
      Array.from({ length: pages }, (_, i) => [
        `s${i + 1}`,
        { id: `s${i + 1}`, pages: [{ id: `p${i + 1}`, box: { x: 0, y: 0, width: 100, height: 100 } }] },
      ]),
    ),
    stories: {
      t: {
        id: 't',
        order: ['w'],
        blocks: {
          w: {
            kind: 'paragraph',
            id: 'w',
            style: 'p',
            content: [{ type: 'span', text: 'A rather long beginning of a text that goes on and on' }],
          },
        },
      },
    },
  });
const entry = (kind: string, id: string, pages: string[] = []): LedgerEntry =>
  ({ subject: { kind, id, aspect: 'text' }, pages, outcome: 'kept', code: 'kept', values: {}, check: 'confirmed' }) as LedgerEntry;

describe('columns of the score', () => {
  test.each([
    [1, ['1']],
    [24, Array.from({ length: 24 }, (_, i) => String(i + 1))],
  ])('one a page for %i pages', (pages, labels) => expect(columnsOf(book(pages)).map((c) => c.label)).toEqual(labels));
  test.each([25, 100, 500])('gathered beyond that: %i pages in no more than 24 columns, each page in one', (pages) => {
    const columns = columnsOf(book(pages));
    expect(columns.length).toBeLessThanOrEqual(24);
    expect(columns.flatMap((c) => c.numbers)).toEqual(Array.from({ length: pages }, (_, i) => i + 1));
    expect(columns[0]!.label).toMatch(/^1–\d+$/);
  });
  test('a cell has the entries of its pages', () => {
    const ledger = {
      output: 'pdf',
      valid: true,
      counts: {},
      entries: [entry('page', 'p1', ['p1']), entry('page', 'p2', ['p2']), entry('document', 'doc')],
    };
    expect(entriesOn(ledger, ['p2', 'p3']).map((e) => e.subject.id)).toEqual(['p2']);
  });
});

describe('what an entry speaks of', () => {
  const folio = book(3);
  test.each([
    ['page', 'p2', 'Page 2'],
    ['layer', 'l', 'Layer “Printer’s notes”'],
    ['document', 'doc', 'The document'],
    ['paragraph', 'w', '“A rather long beginning of a text that goe…”'],
    ['link', 'w/l1', '“A rather long beginning of a text that goe…”'],
    ['item', 'gone', 'gone'],
  ])('%s %s is called %s', (kind, id, name) => expect(subjectName(entry(kind, id), folio)).toBe(name));
  test('aspects have words, short enough for their column; one without keeps its own', () => {
    expect([aspectName('role'), aspectName('fit'), aspectName('effect.innerShadow')]).toEqual(['meaning', 'fit', 'inner shadow']);
    expect(aspectName('of tomorrow')).toBe('of tomorrow');
  });
});
