import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { produce } from 'immer';
import { visualOrder } from '../src/compose/bidi.ts';
import type { Inline, Paragraph } from '../src/index.ts';
import { textOfLine, textOfLines } from '../src/structure/reading.ts';
import { tinyFolio } from './support/tinyFolio.ts';
import { sans, compose, lines, plain, width, TEXT, HYPHENS, withStyles } from './support/setting.ts';

describe('letters', () => {
  test('small capitals a font lacks are capitals at three quarters; what grows longer keeps its place', () => {
    const folio = tinyFolio(['Straße'], { character: { capitals: 'small' } });
    const [line] = lines(folio);
    const real = sans.changesWith('smcp', 'a', 'en');
    if (real) expect(plain(line!)).toBe('Straße');
    else {
      expect(plain(line!)).toBe('STRASSE');
      expect(line!.runs.map((r) => [r.text, r.size])).toEqual([
        ['S', 10],
        ['TRASSE', 7.5],
      ]);
      expect([...line!.runs[1]!.glyphs].map((g) => g.offset)).toEqual([1, 2, 3, 4, 4, 5]);
    }
  });
  test('letters widened and heightened scale as said', () => {
    const [line] = lines(tinyFolio(['wide'], { character: { horizontalScale: 1.5, verticalScale: 1.2 } }));
    const [run] = line!.runs;
    expect([run!.size, run!.horizontalScale]).toEqual([12, expect.closeTo(1.25, 9)]);
    expect(line!.width).toBeCloseTo(width('wide') * 1.5, 5);
  });
  test('a drop capital reaches from the first line’s capital height to the baseline of its last line', () => {
    const folio = tinyFolio([TEXT], { width: 160, height: 400, paragraph: { dropCapital: { lines: 3, characters: 1 } } });
    const set = lines(folio);
    const [cap] = set[0]!.runs;
    const capHeight = sans.capHeight / sans.unitsPerEm;
    expect([cap!.text, cap!.shift]).toEqual(['I', 24]);
    expect(cap!.size * capHeight).toBeCloseTo(24 + 10 * capHeight, 5);
    expect(set.slice(0, 4).map((l) => l.x > 1)).toEqual([true, true, true, false]);
    expect(set[0]!.x + cap!.x).toBeCloseTo(0, 5);
    expect(textOfLines(set)).toBe(TEXT);
  });
  test('a paragraph shorter than its drop capital keeps its room', () => {
    const folio = produce(tinyFolio(['It.', 'Next']), (d) => {
      (d.stories['t']!.blocks['p1'] as Paragraph).overrides = { dropCapital: { lines: 3, characters: 1 } };
    });
    const [first, next] = lines(folio);
    expect(next!.baseline - first!.baseline).toBeCloseTo(36, 5);
  });
  test('characters fall back to the families the document names for the language, in that order', () => {
    const folio = produce(tinyFolio(['aα']), (d) => void (d.head.fallbacks = { '*': ['Source Serif 4'] }));
    const families = lines(folio)[0]!.runs.map((r) => [r.text, r.font.family]);
    if (!sans.glyphFor(0x3b1))
      expect(families).toEqual([
        ['a', 'Work Sans'],
        ['α', 'Source Serif 4'],
      ]);
    else expect(families).toEqual([['aα', 'Work Sans']]);
  });
});

describe('direction (UAX 9)', () => {
  // Rule L2, worked by hand: levels of pieces and the order they are shown in.
  test.each([
    [
      [0, 1, 0],
      [0, 1, 2],
    ],
    [
      [1, 1, 0],
      [1, 0, 2],
    ],
    [
      [1, 2, 1],
      [2, 1, 0],
    ],
    [
      [0, 1, 2, 1, 0],
      [0, 3, 2, 1, 4],
    ],
    [
      [2, 2, 1, 1],
      [3, 2, 0, 1],
    ],
    [
      [0, 0],
      [0, 1],
    ],
  ])('levels %j', (levels, expected) => expect(visualOrder(levels)).toEqual(expected));

  test('Hebrew in English stands turned round, and is read in order', () => {
    const text = 'one אבג two';
    const [line] = lines(tinyFolio([text], { width: 400 }));
    const hebrew = line!.runs.find((r) => r.direction === 'rtl')!;
    const glyphs = [...hebrew.glyphs].filter((g) => g.text);
    expect(glyphs.map((g) => g.text).join('')).toBe('גבא');
    expect(textOfLine(line!)).toBe(text);
    expect(line!.runs.filter((r) => r.text.trim()).map((r) => r.direction)).toEqual(['ltr', 'rtl', 'ltr']);
  });
  test('in a right-to-left paragraph the first words stand rightmost', () => {
    const [line] = lines(tinyFolio(['אבג one דהו'], { width: 400, paragraph: { direction: 'rtl', align: 'right' } }));
    const xs = line!.runs.map((r) => r.x);
    expect(xs).toEqual([...xs].sort((a, b) => b - a));
    expect(line!.x + line!.width).toBeCloseTo(400, 5);
  });
});

describe('fields and notes', () => {
  const field = (kind: string, more = {}): Inline => ({ type: 'field', id: `f-${kind}`, field: kind, ...more }) as Inline;
  test('a reference shows the page its target came to stand on; a section’s name runs on', () => {
    const folio = produce(
      withStyles(
        [
          ['p', [{ type: 'span', text: 'See page ' }, field('reference', { target: 'p3' })]],
          ['p', [field('sectionName')]],
          ['h', 'Wheels'],
        ],
        { h: { breakBefore: 'frame' } },
        { frames: 2 },
      ),
      (d) => {
        d.head.paragraphStyles['h']!.role = { element: 'h1', startsSection: true, leaveOut: false };
        d.spreads['s']!.pages[0]!.number = 'xii';
      },
    );
    expect(lines(folio).map(textOfLine)).toEqual(['See page xii', 'Wheels']);
  });
  test('a footnote stands at the foot of the column of its reference, under a rule, numbered', () => {
    const folio = produce(
      tinyFolio(
        [
          [
            { type: 'span', text: 'Text' },
            { type: 'note', id: 'n1', kind: 'footnote', order: ['note1'] },
          ],
          'More',
        ],
        { height: 120 },
      ),
      (d) => {
        d.stories['t']!.blocks['note1'] = { kind: 'paragraph', id: 'note1', style: 'p', content: [{ type: 'span', text: 'The note.' }] };
      },
    );
    const frame = compose(folio).frames.get('f1')!;
    expect(frame.lines.map(textOfLine)).toEqual(['Text1', 'More', '1 The note.']);
    const note = frame.lines.at(-1)!;
    expect(note.baseline).toBeGreaterThan(100);
    expect(note.baseline + note.descent).toBeLessThanOrEqual(120.5);
    expect(frame.boxes.find((b) => b.kind === 'noteRule')!.box.y).toBeLessThan(note.baseline - note.ascent);
    const reference = frame.lines[0]!.runs.at(-1)!;
    expect([reference.generated, reference.size]).toEqual(['note', 6]);
  });
  test('a line whose note does not fit moves on with it', () => {
    const note = (n: number): Inline => ({ type: 'note', id: `n${n}`, kind: 'footnote', order: [`note${n}`] });
    const folio = produce(tinyFolio(['one', 'two', [{ type: 'span', text: 'three' }, note(1)]], { height: 52, frames: 2 }), (d) => {
      d.stories['t']!.blocks['note1'] = { kind: 'paragraph', id: 'note1', style: 'p', content: [{ type: 'span', text: 'A note.' }] };
    });
    const c = compose(folio);
    expect(['f1', 'f2'].map((f) => c.frames.get(f)!.lines.map((l) => l.paragraph))).toEqual([
      ['p1', 'p2'],
      ['p3', 'note1'],
    ]);
  });
  test('endnotes follow the text', () => {
    const folio = produce(
      tinyFolio([
        [
          { type: 'span', text: 'Text' },
          { type: 'note', id: 'n1', kind: 'endnote', order: ['note1'] },
        ],
        'More',
      ]),
      (d) => {
        d.stories['t']!.blocks['note1'] = { kind: 'paragraph', id: 'note1', style: 'p', content: [{ type: 'span', text: 'The note.' }] };
      },
    );
    expect(lines(folio).map(textOfLine)).toEqual(['Text1', 'More', '1 The note.']);
  });
});

describe('whatever is set', () => {
  const word = fc.constantFrom('word', 'extraordinary', 'a', 'naïve', 'Mond\u00ADschein', '日本', 'אבג', '—', '\u00A0x', 'fi', 'STOP.');
  const setting = fc.record({
    align: fc.constantFrom('left', 'right', 'centre', 'justify', 'justifyAll'),
    composer: fc.constantFrom('greedy', 'totalFit'),
    hyphenation: fc.constantFrom(null, HYPHENS),
    hangingPunctuation: fc.boolean(),
    firstLineIndent: fc.integer({ min: -5, max: 20 }),
    direction: fc.constantFrom('ltr', 'rtl'),
    letterSpace: fc.constantFrom({ least: 0, ideal: 0, most: 0 }, { least: -0.02, ideal: 0.01, most: 0.05 }),
    dropCapital: fc.constantFrom(null, { lines: 2, characters: 1 }),
    widows: fc.integer({ min: 1, max: 3 }),
  });
  test('no letter is lost or doubled, in any frame of a chain, and glyphs cover their text', () => {
    fc.assert(
      fc.property(
        fc.array(word, { minLength: 1, maxLength: 40 }),
        fc.integer({ min: 30, max: 260 }),
        setting,
        (words, measure, paragraph) => {
          const text = words.join(' ');
          const c = compose(tinyFolio([text], { width: measure, height: 60, frames: 40, paragraph }));
          const all = [...c.frames.values()].flatMap((f) => f.lines);
          const over = c.stories.get('t')!.overflow;
          const shown = all
            .map(plain)
            .join('')
            .replace(/[\s\u00AD]/g, '');
          const whole = text.replace(/[\s\u00AD]/g, '');
          if (over) expect(whole.startsWith(shown)).toBe(true);
          else expect(shown).toBe(whole);
          for (const run of all.flatMap((l) => l.runs)) {
            const glyphs = (run.direction === 'rtl' ? [...run.glyphs].reverse() : [...run.glyphs]).map((g) => g.text).join('');
            expect(glyphs.replaceAll('\u00AD', '')).toBe(run.text.replaceAll('\u00AD', ''));
            for (const g of run.glyphs) expect(Number.isFinite(g.x + g.advance)).toBe(true);
          }
        },
      ),
      { numRuns: 120 },
    );
  });
});
