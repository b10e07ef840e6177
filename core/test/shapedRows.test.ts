import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import * as hb from 'harfbuzzjs';
import { GlyphWriter } from '../src/compose/glyphRow.ts';
import { hyphenPoints } from '../src/compose/hyphenate.ts';
import { LineRow } from '../src/compose/shapedRow.ts';
import type { ShapedRow } from '../src/compose/shapedRow.ts';
import { UnitSums } from '../src/compose/unitSums.ts';
import { compose, HYPHENS, plain, sans, TEXT } from './support/setting.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const SHAPING = { features: {}, language: 'en', script: 'Latn', direction: 'ltr' } as const;
type Glyph = [gid: number, cluster: number, advance: number, dx: number, dy: number, unsafe: boolean];
const glyphsOf = (row: ShapedRow): Glyph[] =>
  Array.from({ length: row.count }, (_, i) => [row.gid(i), row.cluster(i), row.advance(i), row.dx(i), row.dy(i), row.unsafeToBreak(i)]);

/** HarfBuzz alone, by its package: all of the text given, a stretch of it shaped. */
function alone(text: string, start: number, end: number): Glyph[] {
  const font = new hb.Font(new hb.Face(new hb.Blob(sans.bytes.slice()), 0));
  const buffer = new hb.Buffer();
  buffer.addText(text, start, end - start);
  buffer.setDirection(hb.Direction.LTR);
  buffer.setScript('Latn');
  buffer.setLanguage('en');
  hb.shape(font, buffer, []);
  const positions = buffer.getGlyphPositions();
  return buffer.getGlyphInfos().map((g, i) => {
    const { xAdvance, xOffset, yOffset } = positions[i]!;
    return [g.codepoint, g.cluster, xAdvance, xOffset, yOffset, (g.flags & hb.GlyphFlag.UNSAFE_TO_BREAK) !== 0];
  });
}

describe('glyphs as shaped', () => {
  test('are those of HarfBuzz alone, wherever in a long text a stretch stands', () => {
    const long = `${TEXT} AVATAR office Tofu fjord. `.repeat(30);
    const stretch = fc.tuple(fc.integer({ min: 0, max: long.length - 1 }), fc.integer({ min: 1, max: 60 }));
    fc.assert(
      fc.property(stretch, ([start, length]) => {
        const end = Math.min(long.length, start + length);
        expect(glyphsOf(sans.shape(long, start, end, SHAPING))).toEqual(alone(long, start, end));
      }),
      { numRuns: 60 },
    );
  });

  test('of short texts are remembered for each language, script and direction, and stay what they were', () => {
    const first = sans.shapeBrief('AV', SHAPING);
    const before = glyphsOf(first);
    for (let i = 0; i < 4000; i++) sans.shape(TEXT, 0, 40, SHAPING);
    expect(sans.shapeBrief('AV', SHAPING)).toBe(first);
    expect(glyphsOf(first)).toEqual(before);
    expect(before).toEqual(alone('AV', 0, 2));
    expect(sans.shapeBrief('AV', { ...SHAPING, language: 'de' })).not.toBe(first);
    expect(glyphsOf(sans.shapeBrief('AV', { ...SHAPING, direction: 'rtl' })).map((g) => g[1])).toEqual([1, 0]);
  });

  test('are put together from parts of rows, however many', () => {
    const row = sans.shape(TEXT, 0, TEXT.length, SHAPING);
    const all = glyphsOf(row);
    const part = fc.tuple(
      fc.integer({ min: 0, max: all.length }),
      fc.integer({ min: 0, max: all.length }),
      fc.integer({ min: 0, max: 900 }),
    );
    const line = new LineRow();
    fc.assert(
      fc.property(fc.array(part, { maxLength: 12 }), (parts) => {
        line.clear();
        const wanted: Glyph[] = [];
        for (const [a, b, shift] of parts) {
          const [from, to] = [Math.min(a, b), Math.max(a, b)];
          line.append(row, from, to, shift);
          wanted.push(...all.slice(from, to).map(([gid, cluster, ...rest]): Glyph => [gid, cluster + shift, ...rest]));
        }
        expect(glyphsOf(line)).toEqual(wanted);
      }),
      { numRuns: 40 },
    );
  });

  test('of runs lie in blocks: rows of any length come out as they went in', () => {
    const glyph = fc.record({
      gid: fc.nat(60_000),
      advance: fc.integer({ min: 0, max: 40 }),
      dx: fc.integer({ min: -3, max: 3 }),
      dy: fc.constantFrom(0, 0, 2),
    });
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.array(glyph, { maxLength: 40 }), fc.integer({ min: 1, max: 60 })), { maxLength: 8 }), (runs) => {
        const writer = new GlyphWriter();
        const rows = runs.map(([glyphs, times]) => {
          const many = Array.from({ length: times }, () => glyphs).flat();
          many.forEach((g, i) => writer.add(g.gid, g.advance, g.dx, g.dy, i, 1));
          return { many, row: writer.take('x'.repeat(many.length), 100) };
        });
        for (const { many, row } of rows) {
          let x = 0;
          const wanted = many.map(({ gid, advance, dx, dy }, i) => {
            const at = { gid, x, advance, dx, dy, offset: 100 + i, text: 'x' };
            x += advance;
            return at;
          });
          expect([...row]).toEqual(wanted);
          expect(row.length).toBe(many.length);
        }
      }),
      { numRuns: 30 },
    );
  });
});

test('sums over units are kept apart, paragraph by paragraph', () => {
  fc.assert(
    fc.property(fc.array(fc.array(fc.integer({ min: 0, max: 20 }), { maxLength: 3000 }), { maxLength: 8 }), (texts) => {
      const all = texts.map((widths) => {
        const sums = new UnitSums(widths.length);
        widths.forEach((w, i) => (sums.widen(i, w), sums.setUnsafe(i, w % 3 === 0)));
        return sums;
      });
      all.forEach((sums, t) => texts[t]!.forEach((_, i) => sums.sum(i, sums.widthOf(i), 2, 1)));
      all.forEach((sums, t) => {
        const widths = texts[t]!;
        const total = widths.reduce((a, b) => a + b, 0);
        expect([sums.edge(0), sums.edge(widths.length), sums.stretch(widths.length), sums.shrink(widths.length)]).toEqual([
          0,
          total,
          2 * widths.length,
          widths.length,
        ]);
        expect(widths.map((_, i) => sums.unsafe(i))).toEqual(widths.map((w) => w % 3 === 0));
      });
    }),
    { numRuns: 30 },
  );
});

describe('words', () => {
  test('are divided alike however they are found: letters with what may stand within them (Unicode, general categories)', () => {
    const words = fc.constantFrom(
      'observatory',
      'Sternwarte',
      'naïve',
      'o’clock',
      'été',
      'NASA',
      'hyphenation',
      '42',
      '—',
      '“',
      'don’t',
      'e\u0301toile',
      'Wörter',
      ' ',
    );
    fc.assert(
      fc.property(fc.array(words, { maxLength: 12 }), fc.constantFrom(' ', '', '-', '. '), (list, gap) => {
        const text = list.join(gap);
        const wanted: number[] = [];
        for (const m of text.matchAll(/\p{L}[\p{L}\p{M}’']*/gu))
          wanted.push(...hyphenPoints(m[0], 0, m[0].length, 'en', HYPHENS).map((p) => p + m.index));
        expect(hyphenPoints(text, 0, text.length, 'en', HYPHENS)).toEqual(wanted);
      }),
    );
  });

  test('too long for their line are cut where the measure ends: no line would hold one letter more', () => {
    const letters = fc.array(fc.constantFrom(...'iWAVo'), { minLength: 30, maxLength: 300 }).map((l) => l.join(''));
    fc.assert(
      fc.property(letters, fc.integer({ min: 40, max: 90 }), (word, width) => {
        const lines = compose(tinyFolio([word], { width, height: 4000 })).frames.get('f1')!.lines;
        expect(lines.map(plain).join('')).toBe(word);
        lines.forEach((line, i) => {
          expect(line.width).toBeLessThanOrEqual(width + 0.01);
          const next = lines[i + 1];
          if (!next) return;
          const more = plain(line) + plain(next)[0]!;
          expect((sans.shape(more, 0, more.length, SHAPING).width * 10) / sans.unitsPerEm).toBeGreaterThan(width - 0.01);
        });
      }),
      { numRuns: 40 },
    );
  });

  test('that fit in one line are set alike by total fit and by first fit', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), fc.constantFrom('left', 'right', 'centre', 'justify'), (count, align) => {
        const text = TEXT.split(' ').slice(0, count).join(' ');
        const [best, first] = (['totalFit', 'greedy'] as const).map((composer) =>
          compose(tinyFolio([text], { width: 400, paragraph: { composer, align } }))
            .frames.get('f1')!
            .lines.map((l) => [plain(l), l.x, l.width]),
        );
        expect(best).toEqual(first);
        expect(best).toHaveLength(1);
      }),
    );
  });
});
