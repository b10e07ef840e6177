import { describe, expect, test } from '@jest/globals';
import { contrast, flatRgb } from '../src/folio/colour.ts';
import { Stroke } from '../src/folio/appearance.ts';
import { produce } from 'immer';
import type { CellStyle } from '../src/folio/styles.ts';
import { cellRule } from '../src/write/reflow/cellRule.ts';
import { asSample, make } from './support/samples.ts';
import { tableFolio } from './support/tableFolio.ts';

const rgb = (r: number, g: number, b: number) => ({ type: 'colour' as const, colour: { space: 'rgb' as const, r, g, b } });
const line = (more: object = {}): Stroke => Stroke.parse({ paint: rgb(0, 0, 0), weight: 0.5, ...more });
const rule = (look: Partial<CellStyle>, text?: string) => cellRule({}, look, text, 10);

describe('a cell of running text', () => {
  test('has the room of its style, or 4 points, in sizes of the reader’s text of 10', () => {
    expect(rule({})).toEqual({ border: 'none', padding: '0.4em 0.4em 0.4em 0.4em' });
    expect(rule({ inset: [0, 2, 4, 10] })['padding']).toBe('0 0.2em 0.4em 1em');
  });
  // WCAG 2.2, failure F24: a ground without a colour on it.
  test('with a ground has a colour on it: its text’s, or what is seen best', () => {
    expect(rule({ fill: rgb(0, 0.2, 0.4) })).toMatchObject({ 'background-color': '#003366', color: '#ffffff' });
    expect(rule({ fill: rgb(0.9, 0.9, 0.8) })).toMatchObject({ color: '#000000' });
    expect(rule({ fill: rgb(0.1, 0.2, 0.3) }, '#ffee88')).toMatchObject({ color: '#ffee88' });
    expect(rule({ fill: { type: 'none' } }, '#ffee88')).not.toHaveProperty('color');
  });
  test('has lines all around, or on sides of their own; in ink they are the reader’s', () => {
    expect(rule({ stroke: line() })['border']).toBe('0.05em solid currentcolor');
    expect(rule({ stroke: line({ paint: rgb(0.8, 0.2, 0) }) })['border']).toBe('0.05em solid #cc3300');
    expect(rule({ stroke: line({ dashes: [3, 2] }) })['border']).toBe('0.05em dashed currentcolor');
    expect(rule({ stroke: line({ dashes: [0.5, 2] }) })['border']).toBe('0.05em dotted currentcolor');
    expect(rule({ stroke: line(), sides: { top: null, bottom: line({ weight: 2 }) } })).toMatchObject({
      // As on the page: a side without a line of its own has the one all around.
      'border-top': '0.05em solid currentcolor',
      'border-right': '0.05em solid currentcolor',
      'border-bottom': '0.2em solid currentcolor',
    });
    // On a ground of the document's own the line is the document's as well.
    expect(rule({ stroke: line(), fill: rgb(0.9, 0.9, 0.8) })['border']).toBe('0.05em solid #000000');
  });
});

test('contrast is that of WCAG 2.2: black on white 21, #767676 on white 4.54 (the usual example), whichever comes first', () => {
  const grey = { r: 0x76 / 255, g: 0x76 / 255, b: 0x76 / 255 };
  const [black, white] = [
    { r: 0, g: 0, b: 0 },
    { r: 1, g: 1, b: 1 },
  ];
  expect(contrast(black, white)).toBeCloseTo(21, 5);
  expect(contrast(white, grey)).toBeCloseTo(4.54, 2);
  expect(contrast(grey, white)).toBe(contrast(white, grey));
});

describe('a table of running text', () => {
  const gradient = {
    type: 'gradient' as const,
    gradient: {
      kind: 'linear' as const,
      stops: [
        { offset: 0, paint: rgb(1, 0, 0), opacity: 1 },
        { offset: 1, paint: rgb(0, 0, 1), opacity: 1 },
      ],
      transform: [1, 0, 0, 1, 0, 0] as [number, number, number, number, number, number],
    },
  };
  const folio = produce(
    tableFolio(
      [
        { width: 100, unit: 'pt' },
        { width: 1, unit: 'share' },
      ],
      [{}, {}],
      [
        { row: 0, column: 0, text: 'Night', style: 'dark' },
        { row: 0, column: 1, text: 'Dawn', fill: gradient },
        { row: 1, column: 0, text: 'Plain' },
        { row: 1, column: 1, text: 'Own', style: 'dark', sides: { bottom: line() } },
      ],
    ),
    (d) => {
      d.head.cellStyles['dark'] = { id: 'dark', name: 'Dark night', fill: rgb(0.1, 0.1, 0.2) };
      d.head.paragraphStyles['p']!.character.fill = rgb(1, 1, 1);
    },
  );
  test('names classes after cell styles, and has columns by their shares where it is as wide as the text', async () => {
    const made = await make(asSample(folio), 'article', {});
    const html = new TextDecoder().decode(await made.read('index.html'));
    expect([...html.matchAll(/<td class="([^"]+)"/g)].map((m) => m[1])).toEqual([
      'dark-night',
      'by-hand-1',
      'by-hand-2',
      'dark-night by-hand-3',
    ]);
    const shares = [...html.matchAll(/<col class="width-(\d+)">/g)].map((m) => Number(m[1]));
    expect(shares.length).toBe(2);
    expect(shares[0]! + shares[1]!).toBe(100);
    expect(made.ledger.filter((e) => e.check === 'contradicted').map((e) => e.subject)).toEqual([]);
    const outcome = (cell: string): string => made.ledger.find((e) => e.subject.kind === 'cell' && e.subject.id === cell)!.outcome;
    expect(['c0', 'c1', 'c2', 'c3'].map(outcome)).toEqual(['kept', 'adapted', 'kept', 'kept']);
  });
  test('keeps white text on a dark ground; on the reader’s own paper it would not be seen', async () => {
    const made = await make(asSample(folio), 'epub', { cover: 'none' });
    const look = (id: string) =>
      made.ledger.find((e) => e.subject.kind === 'paragraph' && e.subject.id === id && e.subject.aspect === 'look')!;
    expect([look('q0'), look('q2')].map((e) => [e.outcome, e.check])).toEqual([
      ['kept', 'confirmed'],
      ['adapted', 'confirmed'],
    ]);
  });
  test('a gradient is one colour there: the mean of its stops', () => {
    expect(flatRgb(gradient, {})).toEqual({ r: 0.5, g: 0, b: 0.5 });
    expect(flatRgb({ type: 'none' }, {})).toBeNull();
  });
});
