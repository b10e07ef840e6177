import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import type { Folio, Paragraph } from '../src/index.ts';
import type { CharacterOverrides, ParagraphOverrides } from '../src/folio/styles.ts';
import { FlowStyles } from '../src/write/reflow/flowStyles.ts';
import { seenAs } from '../src/write/reflow/readersInk.ts';
import { tinyFolio } from './support/tinyFolio.ts';

/** A document in 10 pt on 12 pt with one more style of each kind. */
function folioWith(more: {
  paragraph?: ParagraphOverrides;
  character?: CharacterOverrides;
  span?: CharacterOverrides;
  name?: string;
}): Folio {
  return produce(tinyFolio(['Text of the usual kind, long enough to be most of it.', 'Another.']), (d) => {
    d.head.paragraphStyles['q'] = {
      id: 'q',
      name: more.name ?? 'Other',
      basedOn: 'p',
      paragraph: more.paragraph ?? {},
      character: more.character ?? {},
    };
    d.head.characterStyles['c'] = { id: 'c', name: 'Marked', character: more.span ?? {} };
    (d.stories['t']!.blocks['p2'] as Paragraph).style = 'q';
  });
}
const USED = new Set(['p1', 'p2']);
const sheet = (folio: Folio, families: (c: { fontFamily: string }) => readonly string[] = (c) => [c.fontFamily]): FlowStyles =>
  new FlowStyles(folio, USED, families);
const paragraph = (folio: Folio, id: string): Paragraph => folio.stories['t']!.blocks[id] as Paragraph;

/** The declarations of a class, as the sheet has them. */
function rule(styles: FlowStyles, name: string): Record<string, string> {
  const body = new RegExp(`\\.${name.replace(/[-:]/g, '\\$&')} \\{([^}]*)\\}`).exec(styles.css())?.[1] ?? '';
  return Object.fromEntries(
    body.split(';').flatMap((line) =>
      line.includes(':')
        ? [
            line
              .split(/:(.*)/)
              .slice(0, 2)
              .map((p) => p.trim()) as [string, string],
          ]
        : [],
    ),
  );
}
const ofOther = (more: Parameters<typeof folioWith>[0]): Record<string, string> => {
  const folio = folioWith(more);
  const styles = sheet(folio);
  const [name] = styles.paragraph(paragraph(folio, 'p2'));
  return rule(styles, name!);
};

describe('a paragraph style as a class (CSS 2.2, CSS Text 3, CSS Fonts 4)', () => {
  test('has lengths that go with the reader’s own size of text', () => {
    // 15 pt where most text has 10; 6 pt before it are 0.4 of its own size.
    expect(
      ofOther({ character: { size: 15, leading: 18 }, paragraph: { spaceBefore: 6, spaceAfter: 3, firstLineIndent: 7.5 } }),
    ).toMatchObject({
      'font-size': '1.5em',
      'line-height': '1.2',
      'text-indent': '0.5em',
      margin: '0.4em 0 0.2em 0',
    });
  });
  test.each([
    ['left', 'left'],
    ['right', 'right'],
    ['centre', 'center'],
    ['justify', 'justify'],
    ['justifyAll', 'justify'],
  ] as const)('aligned %s', (align, css) => {
    expect(ofOther({ paragraph: { align } })['text-align']).toBe(css);
  });
  test('does not hang out further than it is set in', () => {
    expect(ofOther({ paragraph: { startIndent: 10, firstLineIndent: -20 } })['text-indent']).toBe('-1em');
    expect(ofOther({ paragraph: { firstLineIndent: -20 } })['text-indent']).toBe('0');
  });
  test('divides words where the layout does', () => {
    const hyphenation = { before: 2, after: 3, inARow: 2, capitals: false };
    expect(ofOther({ paragraph: { hyphenation } })).toMatchObject({ hyphens: 'auto', '-webkit-hyphens': 'auto' });
    expect(ofOther({})).toMatchObject({ hyphens: 'manual' });
  });
  test('keeps together what the layout keeps together', () => {
    expect(ofOther({ paragraph: { keepLines: true, keepWithNext: 2 } })).toMatchObject({ 'break-inside': 'avoid', 'break-after': 'avoid' });
  });
  test('is written from right to left where it is', () => {
    expect(ofOther({ paragraph: { direction: 'rtl' } }).direction).toBe('rtl');
  });
  test('has capitals, tracking and lines', () => {
    expect(ofOther({ character: { capitals: 'all', tracking: 50, underline: {}, strike: {} } })).toMatchObject({
      'text-transform': 'uppercase',
      'letter-spacing': '0.05em',
      'text-decoration': 'underline line-through',
    });
    expect(ofOther({ character: { capitals: 'small' } })['font-variant']).toBe('small-caps');
  });
  test('is named after the style, in letters that CSS and people can read', () => {
    const name = (style: string): string => {
      const folio = folioWith({ name: style });
      return sheet(folio).paragraph(paragraph(folio, 'p2'))[0]!;
    };
    expect(name('Überschrift 2 – groß')).toBe('uberschrift-2-gro');
    expect(name('12 Punkt')).toBe('s-12-punkt');
    expect(name('見出し')).toBe('s-style');
  });
  test('does not share its class with another of the same name', () => {
    const folio = folioWith({ name: 'text' });
    const styles = sheet(folio);
    expect(styles.paragraph(paragraph(folio, 'p1'))).toEqual(['text']);
    expect(styles.paragraph(paragraph(folio, 'p2'))).toEqual(['text-2']);
  });
  test('names a kind of typeface for readers who lack its own', () => {
    const generic = (fontFamily: string): string => ofOther({ character: { fontFamily } })['font-family']!;
    expect(generic('Source Serif 4')).toBe('"Source Serif 4", serif');
    expect(generic('Work Sans')).toBe('"Work Sans", sans-serif');
    expect(generic('Open Sans Serif')).toMatch(/sans-serif$/);
    expect(generic('Cousine')).toMatch(/monospace$/);
  });
  test('names none where readers choose', () => {
    const folio = folioWith({});
    const styles = sheet(folio, () => []);
    styles.paragraph(paragraph(folio, 'p2'));
    expect(styles.css()).not.toContain('font-family');
  });
});

describe('what is said by hand', () => {
  test('is a class of its own that changes only what was changed, and the same for the same look', () => {
    const folio = produce(folioWith({}), (d) => {
      for (const id of ['p1', 'p2']) (d.stories['t']!.blocks[id] as Paragraph).overrides = { align: 'right' };
      (d.stories['t']!.blocks['p2'] as Paragraph).style = 'p';
    });
    const styles = sheet(folio);
    expect(styles.paragraph(paragraph(folio, 'p1'))).toEqual(['text', 'by-hand-1']);
    expect(styles.paragraph(paragraph(folio, 'p2'))).toEqual(['text', 'by-hand-1']);
    expect(rule(styles, 'by-hand-1')).toEqual({ 'text-align': 'right' });
  });
  test('stands behind every style: of rules of one weight the last holds (CSS Cascade 4, section 6.4.4)', () => {
    const folio = produce(folioWith({}), (d) => {
      (d.stories['t']!.blocks['p1'] as Paragraph).overrides = { align: 'right' };
    });
    const styles = sheet(folio);
    // The second paragraph’s style comes after what was done to the first.
    for (const id of ['p1', 'p2']) styles.paragraph(paragraph(folio, id));
    const order = [...styles.css().matchAll(/^\.([\w-]+) \{/gm)].map((m) => m[1]);
    expect(order.length).toBeGreaterThan(2);
    expect(order.indexOf('by-hand-1')).toBe(order.length - 1);
  });
  test('of a span goes by the text around it', () => {
    const folio = folioWith({ character: { size: 20 } });
    const styles = sheet(folio);
    const [name] = styles.span(paragraph(folio, 'p2'), { overrides: { size: 10, fontStyle: 'italic' } });
    expect(rule(styles, name!)).toEqual({ 'font-size': '0.5em', 'font-style': 'italic' });
  });
  test('of a character style is only what it changes', () => {
    const folio = folioWith({ span: { fontWeight: 700, position: 'superscript' } });
    const styles = sheet(folio);
    expect(styles.span(paragraph(folio, 'p1'), { style: 'c' })).toEqual(['marked']);
    expect(rule(styles, 'marked')).toMatchObject({ 'font-weight': '700', 'vertical-align': 'super' });
    expect(rule(styles, 'marked')).not.toHaveProperty('font-family');
  });
  test('an initial is as high as the lines it stands before', () => {
    const folio = folioWith({ paragraph: { dropCapital: { lines: 3, characters: 1 } } });
    const styles = sheet(folio);
    expect(styles.paragraph(paragraph(folio, 'p2'))).toContain('initial');
    // Two lines of 12 pt above its own capital of 7 pt, told in its size of 10: (24 / 10) / 0.7 + 1.
    expect(rule(styles, 'initial::first-letter')).toMatchObject({ float: 'left', 'font-size': '4.43em' });
  });
});

describe('colours', () => {
  const rgb = (r: number, g: number, b: number) => ({ type: 'colour' as const, colour: { space: 'rgb' as const, r, g, b } });
  // Contrast to white by WCAG 2.2: black 21, #767676 4.54 (the usual example of a grey that passes), yellow 1.07.
  test.each([
    ['black is left to the reader', rgb(0, 0, 0), 'black'],
    ['grey that is seen is kept', rgb(0x76 / 255, 0x76 / 255, 0x76 / 255), 'itself'],
    ['yellow would not be seen on paper', rgb(1, 1, 0), 'unseen'],
    ['white would not either', rgb(1, 1, 1), 'unseen'],
  ])('%s', (_, paint, seen) => {
    expect(seenAs(paint, folioWith({}))).toBe(seen);
  });
  test('are in the sheet only where they are kept', () => {
    expect(ofOther({ character: { fill: rgb(0.6, 0.2, 0.2) } }).color).toBe('#993333');
    expect(ofOther({ character: { fill: rgb(1, 1, 1) } })).not.toHaveProperty('color');
  });
});
