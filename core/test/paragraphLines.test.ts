import { describe, expect, test } from '@jest/globals';
import { ParagraphLines } from '../src/compose/paragraphLines.ts';
import type { BrokenLine } from '../src/compose/breakLines.ts';
import { tinyFolio } from './support/tinyFolio.ts';
import { compose, HYPHENS, lines, plain, TEXT, width } from './support/setting.ts';

const broken = (start: number): BrokenLine => ({
  start,
  end: start + 10,
  next: start + 10,
  width: 10,
  forced: false,
  hyphen: false,
  cut: false,
  tabs: [],
});

/** A paragraph of `count` lines of ten units, found three at a time; what was asked of its maker. */
function counted(count: number) {
  const asked = { stretches: 0, built: [] as number[] };
  const made = new ParagraphLines(0, {
    breakFrom(unit, before) {
      asked.stretches++;
      expect(unit).toBe(before * 10);
      const found = Array.from({ length: Math.min(3, count - before) }, (_, i) => broken((before + i) * 10));
      return { lines: found, whole: before + found.length === count };
    },
    build(line, index) {
      asked.built.push(index);
      return { start: line.start, index } as never;
    },
  });
  return { made, asked };
}

describe('lines found as far as they are asked for', () => {
  test('no stretch is broken and no line set that nobody wants', () => {
    const { made, asked } = counted(100);
    expect(asked).toEqual({ stretches: 0, built: [] });
    expect(made.line(0)).toMatchObject({ start: 0 });
    expect(made.line(4)).toMatchObject({ start: 40 });
    expect(asked).toEqual({ stretches: 2, built: [0, 4] });
    expect(made.has(5)).toBe(true);
    expect(asked.stretches).toBe(2);
  });

  test('a line is set once', () => {
    const { made, asked } = counted(4);
    expect(made.line(2)).toBe(made.line(2));
    expect(asked.built).toEqual([2]);
  });

  test('what comes after a line is counted no further than is asked', () => {
    const { made, asked } = counted(100);
    expect(made.countFrom(1, 2)).toBe(2);
    expect(asked.stretches).toBe(1);
    expect(made.countFrom(98, 5)).toBe(2);
    expect(made.countFrom(100, 5)).toBe(0);
    expect(made.countFrom(0, Infinity)).toBe(100);
  });

  test('after the last there is none, and its range is an error of the caller', () => {
    const { made } = counted(4);
    expect(made.all()).toHaveLength(4);
    expect(made.line(4)).toBeUndefined();
    expect(() => made.range(4)).toThrow(RangeError);
  });
});

describe('a paragraph over many frames', () => {
  const book = { align: 'justify', composer: 'totalFit', hyphenation: HYPHENS };

  test('stands in them as in one that is high enough, where the frames break between its lines', () => {
    const text = Array.from({ length: 40 }, () => TEXT).join(' ');
    const one = lines(tinyFolio([text], { width: 180, height: 20_000, paragraph: book }));
    const chain = [...compose(tinyFolio([text], { width: 180, height: 100, frames: 120, paragraph: book })).frames.values()];
    const many = chain.flatMap((f) => f.lines);
    expect(
      many
        .map((l) => plain(l))
        .join('')
        .replaceAll('\u00AD', ''),
    ).toBe(
      one
        .map((l) => plain(l))
        .join('')
        .replaceAll('\u00AD', ''),
    );
    // Broken anew at each frame's top, it may come out a little longer or shorter, but not by much.
    expect(Math.abs(many.length - one.length)).toBeLessThan(0.02 * one.length);
    for (const l of many) expect(l.width).toBeLessThan(180 + 8);
  });
});

describe('the last line of a paragraph', () => {
  const last = (text: string, measure: number, paragraph: object): string =>
    plain(lines(tinyFolio([text], { width: measure, height: 2000, paragraph: paragraph as never })).at(-1)!);
  const TEXTS = [
    TEXT,
    'Nobody can say how far away the stars of the Lantern Field would be if the hill were a little higher than its neighbours',
  ];

  test.each([
    ['ragged', { align: 'left', composer: 'totalFit', hyphenation: HYPHENS }],
    ['ragged, first fit', { align: 'left', composer: 'greedy', hyphenation: HYPHENS }],
  ])('is more than the end of a divided word: %s', (_, paragraph) => {
    let divided = 0;
    for (const text of TEXTS)
      for (let measure = 130; measure < 300; measure += 3) {
        const word = text.split(' ').at(-1)!;
        const end = last(text, measure, paragraph);
        expect([measure, end.endsWith(word)]).toEqual([measure, true]);
        divided += lines(tinyFolio([text], { width: measure, height: 2000, paragraph: paragraph as never })).filter((l) =>
          plain(l).endsWith('\u00AD'),
        ).length;
      }
    // Other words are divided as ever.
    expect(divided).toBeGreaterThan(20);
  });

  test('unless the word alone is wider than a line', () => {
    const word = 'incomprehensibilities';
    expect(last(`It has ${word}`, width('incomprehensibil'), { align: 'left', composer: 'totalFit', hyphenation: HYPHENS })).not.toContain(
      word,
    );
  });
});
