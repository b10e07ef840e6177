import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readFile } from 'node:fs/promises';
import { columnsOf, Composer, FontError, FontFace, FontSet } from '../src/compose/index.ts';
import type { SetLine } from '../src/compose/index.ts';
import { applyEdit } from '../src/index.ts';
import type { Folio } from '../src/index.ts';
import { shippedFonts } from '../src/ports/node.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let fonts: FontSet;
let sans: FontFace;
let bytes: Uint8Array;
beforeAll(async () => {
  const faces = [];
  for (const f of await shippedFonts()) {
    const b = new Uint8Array(await readFile(f.path));
    faces.push(new FontFace(f.key, f.family, f.weight, f.style, b));
    if (f.family === 'Work Sans' && f.weight === 400 && f.style === 'normal') [sans, bytes] = [faces[faces.length - 1]!, b];
  }
  fonts = new FontSet(faces);
});

const lines = (folio: Folio, frame = 'f1'): SetLine[] => new Composer(fonts).compose(folio).frames.get(frame)!.lines;
const textOf = (line: SetLine): string => line.runs.map((r) => r.text).join('');
const shape = (text: string, features = {}) =>
  sans.shape(text, 0, text.length, { features, language: 'en', script: 'Latn', direction: 'ltr' });
const width = (text: string, size = 10): number => shape(text).width * (size / sans.unitsPerEm);

describe('shaping', () => {
  test('a line’s advances are HarfBuzz’s own, kerning and ligatures included', () => {
    for (const text of ['AVATAR Tofu office', 'The efficient, fluffy waffle']) {
      const [line] = lines(tinyFolio([text], { width: 1000 }));
      const glyphs = line!.runs.flatMap((r) => [...r.glyphs]);
      const own = shape(text);
      expect(glyphs.map((g) => g.gid)).toEqual(Array.from({ length: own.count }, (_, i) => own.gid(i)));
      glyphs.forEach((g, i) => expect(g.advance).toBeCloseTo((own.advance(i) * 10) / sans.unitsPerEm, 5));
    }
  });
  test('spaced-out letters are not tied into ligatures (CSS Text 4, 8.2) and every letter gets its tracking', () => {
    const [line] = lines(tinyFolio(['office'], { width: 1000, character: { tracking: 100 } }));
    const plain = shape('office', { liga: 0, clig: 0 }).width * (10 / sans.unitsPerEm);
    expect(line!.width).toBeCloseTo(plain + 6 * 1, 5);
  });
  test('a character no font has is reported with its place, once, and the rest is set', () => {
    const composition = new Composer(fonts).compose(tinyFolio(['ab\u{13000}c']));
    expect(composition.stories.get('t')!.missingGlyphs).toEqual([
      { paragraph: 'p1', offset: 2, character: '\u{13000}', family: 'Work Sans' },
    ]);
    expect(textOf(composition.frames.get('f1')!.lines[0]!)).toBe('ab\u{13000}c');
  });
});

describe('breaking and filling', () => {
  test('greedy lines equal a worked example: as many words as fit, no more', () => {
    const words = 'the quick brown fox jumps over the lazy dog'.split(' ');
    const measure = width('the quick brown fox');
    const expected: string[] = [];
    // Worked with HarfBuzz's widths alone: first fit, word by word.
    for (const word of words) {
      const last = expected[expected.length - 1];
      if (last !== undefined && width(`${last} ${word}`) <= measure + 1e-6) expected[expected.length - 1] = `${last} ${word}`;
      else expected.push(word);
    }
    expect(expected[0]).toBe('the quick brown fox');
    expect(lines(tinyFolio([words.join(' ')], { width: measure })).map(textOf)).toEqual(expected);
  });

  // UAX 14: LB13 (no break before a full stop), LB25 (numbers), LB21 (after a hyphen), GL (no-break space).
  test.each([
    ['end. Next', ['end.', 'Next']],
    ['well-known', ['well-', 'known']],
    ['10\u00A0km', ['10\u00A0km']],
    ['日本語', ['日', '本', '語']],
  ])('UAX 14 on %j', (text, expected) => {
    expect(
      lines(tinyFolio([text], { width: 1, height: 900 }))
        .map(textOf)
        .join('|')
        .replace(/\|/g, ''),
    ).toBe(expected.join(''));
    const wide = Math.max(...expected.map((e) => width(e)));
    if (text !== '日本語') expect(lines(tinyFolio([text], { width: wide + 0.01, height: 900 })).map(textOf)).toEqual(expected);
  });

  test('justified lines end exactly at the measure, the last one does not stretch', () => {
    const text = 'It begins as a hum under the floor, climbs the iron stair, and then the whole roof of the room sets off.';
    const set = lines(tinyFolio([text], { width: 160, paragraph: { align: 'justify' } }));
    expect(set.length).toBeGreaterThan(2);
    for (const line of set.slice(0, -1)) expect(line.width).toBeCloseTo(160, 5);
    expect(set[set.length - 1]!.width).toBeLessThan(159);
  });

  test.each([
    ['right', 1],
    ['centre', 0.5],
    ['left', 0],
  ] as const)('%s-aligned text shares out what is free', (align, share) => {
    const [line] = lines(tinyFolio(['word'], { width: 200, paragraph: { align } }));
    expect(line!.x).toBeCloseTo((200 - width('word')) * share, 5);
  });

  test('baselines follow the leading; space between paragraphs adds up; none at the top', () => {
    const set = lines(tinyFolio(['a', 'b', 'c'], { paragraph: { spaceBefore: 3, spaceAfter: 4 } }));
    const ascent = (sans.ascent / sans.unitsPerEm) * 10;
    expect(set.map((l) => l.baseline)).toEqual([expect.closeTo(ascent, 6), expect.closeTo(ascent + 19, 6), expect.closeTo(ascent + 38, 6)]);
  });

  test('columns share what insets and gutters leave; text fills them one after another', () => {
    const folio = tinyFolio(['one two three four five six seven eight'], { width: 130, height: 44 });
    Object.assign(folio.spreads['s']!.items['f1']!, { columns: 2, gutter: 10, inset: [4, 10, 4, 10] });
    const set = lines(folio);
    // Worked by hand: (130 − 20 − 10) / 2 = 50 wide; the second column begins at 10 + 50 + 10.
    expect(columnsOf(folio.spreads['s']!.items['f1'] as never).map((c) => [c.x, c.top, c.width, c.height])).toEqual([
      [10, 4, 50, 36],
      [70, 4, 50, 36],
    ]);
    expect([...new Set(set.map((l) => [l.column, l.x].join()))]).toEqual(['0,10', '1,70']);
    expect(set.map(textOf).join(' ')).toBe('one two three four five six seven eight');
  });

  test.each([
    ['top', 0],
    ['centre', 0.5],
    ['bottom', 1],
  ] as const)('vertical alignment %s', (verticalAlign, share) => {
    const folio = tinyFolio(['a', 'b'], { height: 100 });
    Object.assign(folio.spreads['s']!.items['f1']!, { verticalAlign });
    const [first, second] = lines(folio);
    const ascent = (sans.ascent / sans.unitsPerEm) * 10;
    const descent = (sans.descent / sans.unitsPerEm) * 10;
    const free = 100 - (ascent + 12 + descent);
    expect(first!.baseline).toBeCloseTo(ascent + free * share, 5);
    expect(second!.baseline - first!.baseline).toBeCloseTo(12, 5);
  });

  test('vertically justified lines reach from top to bottom', () => {
    const folio = tinyFolio(['a', 'b', 'c'], { height: 100 });
    Object.assign(folio.spreads['s']!.items['f1']!, { verticalAlign: 'justify' });
    const set = lines(folio);
    expect(set[2]!.baseline + set[2]!.descent).toBeCloseTo(100, 5);
    expect(set[1]!.baseline - set[0]!.baseline).toBeCloseTo(set[2]!.baseline - set[1]!.baseline, 5);
  });

  test('text flows on through threaded frames; what is left over is counted', () => {
    const folio = tinyFolio(['one two three four five six'], { width: 30, height: 30, frames: 2 });
    const composition = new Composer(fonts).compose(folio);
    const shown = ['f1', 'f2'].map((f) => composition.frames.get(f)!.lines.map(textOf));
    expect(shown[0]!.length).toBe(2);
    expect(shown[1]!.length).toBe(2);
    expect(composition.stories.get('t')!.overflow).toEqual({ lines: 2, characters: 8, words: 2 });
  });

  test('no letter is lost or doubled between text and lines, whatever the measure; no line is wider than it', () => {
    const letters = fc.array(fc.constantFrom('word', 'supercalifragilistic', 'a', 'naïve', '日本', '—', '\u00A0x', 'fi'), {
      minLength: 1,
      maxLength: 30,
    });
    fc.assert(
      fc.property(letters, fc.integer({ min: 12, max: 300 }), fc.constantFrom('left', 'justify', 'centre'), (words, measure, align) => {
        const text = words.join(' ');
        const set = lines(tinyFolio([text], { width: measure, height: 100_000, paragraph: { align } }));
        expect(set.map(textOf).join('').replace(/\s/g, '')).toBe(text.replace(/\s/g, ''));
        for (const line of set) expect(line.width <= measure + 0.001 || [...textOf(line)].length <= 2).toBe(true);
      }),
      { numRuns: 60 },
    );
  });

  test('setting after an edit gives the same marks as setting from scratch', () => {
    const folio = tinyFolio(['one two three', 'four five six seven'], { width: 60, paragraph: { align: 'justify' } });
    const kept = new Composer(fonts);
    kept.compose(folio);
    const { folio: after } = applyEdit(folio, {
      kind: 'text.replace',
      args: {
        story: 't',
        from: { paragraphId: 'p1', offset: 3 },
        to: { paragraphId: 'p1', offset: 3 },
        content: [[{ type: 'span', text: ' more words' }]],
        newIds: [],
      },
    });
    expect(JSON.stringify(marks(kept.compose(after)))).toBe(JSON.stringify(marks(new Composer(fonts).compose(after))));
  });

  test('a million-letter word, an empty text and a frame without size end quietly', () => {
    expect(lines(tinyFolio(['x'.repeat(20_000)], { height: 50 })).length).toBeGreaterThan(0);
    expect(lines(tinyFolio(['']))[0]!.runs).toEqual([]);
    const composition = new Composer(fonts).compose(tinyFolio(['text'], { width: 0, height: 0 }));
    expect(composition.stories.get('t')!.overflow!.characters).toBe(4);
  });
});

const marks = (c: ReturnType<Composer['compose']>) =>
  [...c.frames.values()].map((f) =>
    f.lines.map((l) => ({ ...l, runs: l.runs.map((r) => ({ ...r, font: r.font.key, glyphs: [...r.glyphs] })) })),
  );

describe('fonts', () => {
  test('a missing family is replaced and said so, once', () => {
    const set = new FontSet([sans]);
    set.match({ fontFamily: 'Nowhere', fontWeight: 400, fontStyle: 'normal', fontStretch: 100 });
    set.match({ fontFamily: 'Nowhere', fontWeight: 400, fontStyle: 'normal', fontStretch: 100 });
    expect(set.asked.filter((a) => a.standsIn).map((a) => a.family)).toEqual(['Nowhere']);
  });
  test.each([
    ['nothing', () => new Uint8Array(0)],
    ['text', () => new TextEncoder().encode('this is no font at all, but long enough to look')],
    ['a cut file', () => bytes.slice(0, 400)],
    ['a table that lies outside', () => Uint8Array.from(bytes, (b, i) => (i >= 20 && i < 24 ? 0xff : b))],
  ])('%s is refused, not shaped with', (_, broken) => {
    expect(() => new FontFace('k', 'F', 400, 'normal', broken())).toThrow(FontError);
  });
});
