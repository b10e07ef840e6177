import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { hyphenPoints } from '../src/compose/hyphenate.ts';
import type { Inline } from '../src/index.ts';
import { textOfLine, textOfLines } from '../src/structure/reading.ts';
import { tinyFolio } from './support/tinyFolio.ts';
import { sans, compose, lines, plain, width, TEXT, HYPHENS, withStyles } from './support/setting.ts';

describe('hyphenation', () => {
  // Liang's own example and words of The TeXbook, appendix H; the German ones from the Duden (from memory).
  test.each([
    ['en', 'hyphenation', 'hy-phen-ation'],
    ['en', 'concatenation', 'con-cate-na-tion'],
    ['en', 'supercalifragilisticexpialidocious', 'su-per-cal-ifrag-ilis-tic-ex-pi-ali-do-cious'],
    ['en', 'university', 'uni-ver-sity'],
    ['en', 'table', 'ta-ble'],
    ['de', 'Silbentrennung', 'Sil-ben-tren-nung'],
    ['de', 'Donaudampfschiff', 'Do-nau-dampf-schiff'],
    ['fr', 'typographie', 'ty-po-gra-phie'],
    ['es', 'tipografía', 'ti-po-gra-fía'],
  ])('%s: %s', (language, word, expected) => {
    const points = hyphenPoints(word, 0, word.length, language, { before: 2, after: 3, inARow: 0, capitals: true });
    const divided = [0, ...points].map((p, i) => word.slice(p, points[i] ?? word.length)).join('-');
    // Patterns of other sources may know more places; all of the handbook's that keep the limits must be among them.
    const wanted = expected
      .split('-')
      .reduce<number[]>((at, part) => [...at, (at[at.length - 1] ?? 0) + part.length], [])
      .slice(0, -1);
    expect([divided, wanted.filter((p) => p >= 2 && word.length - p >= 3 && !points.includes(p))]).toEqual([divided, []]);
  });

  // The exceptions that hyphen.tex lists after Liang's patterns: words the patterns alone would divide elsewhere.
  test.each([
    'as-so-ciate',
    'as-so-ciates',
    'dec-li-na-tion',
    'oblig-a-tory',
    'phil-an-thropic',
    'present',
    'presents',
    'project',
    'projects',
    'reci-procity',
    're-cog-ni-zance',
    'ref-or-ma-tion',
    'ret-ri-bu-tion',
    'ta-ble',
    'Project',
  ])('hyphen.tex: %s', (expected) => {
    const word = expected.replaceAll('-', '');
    const points = hyphenPoints(word, 0, word.length, 'en', { before: 2, after: 3, inARow: 0, capitals: true });
    expect([0, ...points].map((p, i) => word.slice(p, points[i] ?? word.length)).join('-')).toBe(expected);
  });

  // The exceptions of the British and Dutch pattern files (hyph-utf8), as their sources list them; from memory.
  test.each([
    ['en-GB', 'uni-ver-sity'],
    ['en-GB', 'how-ever'],
    ['en-GB', 'ma-nu-script'],
    ['en-GB', 're-ci-pro-city'],
    ['en-GB', 'through-out'],
    ['en-GB', 'some-thing'],
    ['nl', 'wa-ter-staats-in-ge-ni-eur'],
  ])('%s: %s', (language, expected) => {
    const word = expected.replaceAll('-', '');
    const points = hyphenPoints(word, 0, word.length, language, { before: 2, after: 3, inARow: 0, capitals: true });
    expect([0, ...points].map((p, i) => word.slice(p, points[i] ?? word.length)).join('-')).toBe(expected);
  });

  test('limits: least letters before and after, none in capitals, none where a soft hyphen says otherwise', () => {
    const at = (word: string, limits: object): number[] =>
      hyphenPoints(word, 0, word.length, 'en', { ...HYPHENS, before: 1, after: 1, ...limits });
    expect(at('hyphenation', {}).length).toBeGreaterThan(1);
    expect(at('hyphenation', { before: 5 }).every((p) => p >= 5)).toBe(true);
    expect(at('hyphenation', { after: 6 }).every((p) => p <= 5)).toBe(true);
    expect(at('HYPHENATION', {})).toEqual([]);
    expect(at('HYPHENATION', { capitals: true }).length).toBeGreaterThan(0);
    expect(at('hyphen\u00ADation', {})).toEqual([]);
    expect(hyphenPoints('word', 0, 4, 'tlh', HYPHENS)).toEqual([]);
  });

  test('a divided word ends with a hyphen that is seen but is no text', () => {
    const set = lines(tinyFolio([TEXT], { width: 110, paragraph: { align: 'justify', composer: 'totalFit', hyphenation: HYPHENS } }));
    const divided = set.filter((l) => plain(l).endsWith('\u00AD'));
    expect(divided.length).toBeGreaterThan(0);
    for (const line of divided) {
      const last = [...line.runs.at(-1)!.glyphs].at(-1)!;
      expect([last.text, [0x2010, 0x2d].map((c) => sans.glyphFor(c)).includes(last.gid)]).toEqual(['\u00AD', true]);
      expect(line.spaceAtEnd).toBe(false);
    }
    expect(textOfLines(set)).toBe(TEXT);
    let run = 0;
    for (const line of set) expect((run = plain(line).endsWith('\u00AD') ? run + 1 : 0)).toBeLessThanOrEqual(2);
  });

  test('a soft hyphen divides where it stands, and is not seen elsewhere', () => {
    const word = 'Mond\u00ADfinsternis';
    expect(lines(tinyFolio([word], { width: width('Mond-') + 0.5 })).map(plain)[0]).toBe('Mond\u00AD\u00AD');
    const [whole] = lines(tinyFolio([word], { width: 400 }));
    expect(whole!.width).toBeCloseTo(width('Mondfinsternis'), 1);
    expect(textOfLine(whole!)).toBe('Mondfinsternis');
  });

  test('a passage that must not be broken is not, neither at spaces nor in words', () => {
    const text: Inline[] = [
      { type: 'span', text: 'Call ' },
      { type: 'span', text: 'extraordinary 01 23', overrides: { noBreak: true } },
      { type: 'span', text: ' at night' },
    ];
    const set = lines(tinyFolio([text], { width: width('extraordinary 01 23') + 1, paragraph: { hyphenation: HYPHENS } }));
    expect(set.map(plain)).toContain('extraordinary 01 23');
  });
});

describe('justification', () => {
  test.each(['greedy', 'totalFit'] as const)('%s: lines end at the measure, and the text is whole', (composer) => {
    for (const measure of [90, 130, 200, 320]) {
      const set = lines(
        tinyFolio([TEXT], { width: measure, height: 2000, paragraph: { align: 'justify', composer, hyphenation: HYPHENS } }),
      );
      for (const line of set.slice(0, -1)) if (plain(line).includes(' ')) expect(line.width).toBeCloseTo(measure, 5);
      expect(textOfLines(set)).toBe(TEXT);
    }
  });

  test('total fit is never worse than first fit, by the demerits of spaces (The TeXbook, chapter 14)', () => {
    const demerits = (composer: 'greedy' | 'totalFit', measure: number): number => {
      const set = lines(tinyFolio([TEXT], { width: measure, height: 2000, paragraph: { align: 'justify', composer } }));
      const space = width(' ');
      return set.slice(0, -1).reduce((sum, l) => {
        const added = l.runs.find((r) => r.text.includes(' '))?.wordSpace ?? 0;
        const ratio = added >= 0 ? added / (0.33 * space) : added / (0.2 * space);
        return sum + (1 + 100 * Math.abs(ratio) ** 3) ** 2;
      }, 0);
    };
    for (const measure of [150, 180, 220, 260, 300])
      expect(demerits('totalFit', measure)).toBeLessThanOrEqual(demerits('greedy', measure) * 1.000001);
  });

  test('letters and glyphs give way within their limits, spaces take the rest', () => {
    const set = lines(
      tinyFolio([TEXT], {
        width: 150,
        height: 900,
        paragraph: {
          align: 'justify',
          letterSpace: { least: -0.01, ideal: 0, most: 0.02 },
          glyphWidth: { least: 0.98, ideal: 1, most: 1.03 },
        },
      }),
    );
    for (const line of set.slice(0, -1)) {
      expect(line.width).toBeCloseTo(150, 5);
      for (const run of line.runs) {
        expect(run.letterSpace).toBeGreaterThanOrEqual(-0.1 - 1e-9);
        expect(run.letterSpace).toBeLessThanOrEqual(0.2 + 1e-9);
        expect(run.horizontalScale).toBeGreaterThanOrEqual(0.98 - 1e-9);
        expect(run.horizontalScale).toBeLessThanOrEqual(1.03 + 1e-9);
      }
    }
    expect(set.some((l) => l.runs[0]!.letterSpace !== 0)).toBe(true);
  });

  test('ragged total fit shrinks nothing and leaves no line longer than its measure', () => {
    const set = lines(tinyFolio([TEXT], { width: 140, height: 900, paragraph: { composer: 'totalFit' } }));
    for (const line of set) {
      expect(line.runs.every((r) => r.wordSpace === 0)).toBe(true);
      expect(line.width).toBeLessThanOrEqual(140.01);
    }
  });

  test('a line of ideographs stretches between them and ends at the measure', () => {
    const folio = tinyFolio(['月の満ち欠けを観察する会にようこそ。'.repeat(3)], {
      width: 95,
      height: 900,
      paragraph: { align: 'justify' },
    });
    const set = lines(folio);
    expect(set.length).toBeGreaterThan(2);
    for (const line of set.slice(0, -1)) expect(line.width).toBeCloseTo(95, 5);
  });

  test('hanging punctuation stands beyond the edge by its share', () => {
    const text = 'Stop. Look, wait. Listen, go. Halt. Night, day. Moon, star. Dusk. Dawn, noon.';
    const hung = lines(tinyFolio([text], { width: 62, height: 900, paragraph: { align: 'justify', hangingPunctuation: true } }));
    const ends = hung.slice(0, -1).filter((l) => /[.,]$/.test(plain(l)));
    expect(ends.length).toBeGreaterThan(0);
    for (const line of ends) expect(line.x + line.width - 62).toBeCloseTo(0.7 * width(plain(line).at(-1)!), 1);
  });
});

describe('what stays together', () => {
  const ten = Array.from({ length: 10 }, () => 'word word').join(' ');
  /** Lines in each of two frames that hold six lines each. */
  const split = (paragraphs: [string, string][], styles: Record<string, object>): number[][] => {
    const folio = withStyles(paragraphs, styles, { width: width('word word word') + 0.5, height: 6 * 12 + 1, frames: 3 });
    const c = compose(folio);
    return ['f1', 'f2', 'f3'].map((f) =>
      paragraphs.map((_, i) => c.frames.get(f)!.lines.filter((l) => l.paragraph === `p${i + 1}`).length),
    );
  };
  const three = 'word word word word word word word word word';

  /** Lines of a paragraph of three and of one of ten, in the first two frames. */
  test.each([
    ['two and two where nothing else is asked', {}, [3, 3], [0, 4]],
    ['five at least in the next frame', { widows: 5 }, [3, 2], [0, 5]],
    ['four at least before it, which have no room', { orphans: 4 }, [3, 0], [0, 6]],
  ])('widows and orphans: %s', (_, q, first, second) => {
    const paragraphs: [string, string][] = [
      ['p', three],
      ['q', ten],
    ];
    expect(split(paragraphs, { q }).slice(0, 2)).toEqual([first, second]);
  });

  test('lines kept together move on whole; where they fill a column from its top they are cut all the same', () => {
    expect(
      split(
        [
          ['p', three],
          ['q', `${three} ${three}`],
        ],
        { q: { keepLines: true } },
      ).slice(0, 2),
    ).toEqual([
      [3, 0],
      [0, 6],
    ]);
    expect(split([['q', ten]], { q: { keepLines: true } }).slice(0, 2)).toEqual([[6], [1]]);
  });
  test('a heading stays with the first lines of what follows, and a chain of headings with it', () => {
    const styles = { h: { keepWithNext: 2 } };
    expect(
      split(
        [
          ['p', `${three} word word word`],
          ['h', 'Head'],
          ['p', three],
        ],
        styles,
      ).slice(0, 2),
    ).toEqual([
      [4, 0, 0],
      [0, 1, 3],
    ]);
    expect(
      split(
        [
          ['p', three],
          ['h', 'Head'],
          ['h', 'Sub'],
          ['p', three],
        ],
        styles,
      ).slice(0, 2),
    ).toEqual([
      [3, 0, 0, 0],
      [0, 1, 1, 3],
    ]);
    expect(
      split(
        [
          ['p', 'word'],
          ['h', 'Head'],
          ['p', three],
        ],
        styles,
      )[0],
    ).toEqual([1, 1, 3]);
  });
  test('headings that would fill a column alone are let go', () => {
    expect(
      split(
        [
          ['h', `${three} ${three}`],
          ['p', three],
        ],
        { h: { keepWithNext: 1 } },
      ).slice(0, 2),
    ).toEqual([
      [6, 0],
      [0, 3],
    ]);
  });
  test.each([
    [
      'column',
      [
        [1, 0],
        [0, 1],
        [0, 0],
      ],
    ],
    [
      'frame',
      [
        [1, 0],
        [0, 1],
        [0, 0],
      ],
    ],
  ])('a paragraph that begins in a new %s', (rule, expected) => {
    expect(
      split(
        [
          ['p', 'one'],
          ['q', 'two'],
        ],
        { q: { breakBefore: rule } },
      ),
    ).toEqual(expected);
    expect(split([['q', 'two']], { q: { breakBefore: rule } })[0]).toEqual([1]);
  });
  test('a paragraph that begins on a new page passes over frames of this one', () => {
    const folio = produce(
      withStyles(
        [
          ['p', 'one'],
          ['q', 'two'],
        ],
        { q: { breakBefore: 'page' } },
        { frames: 3, height: 100 },
      ),
      (d) => {
        d.spreads['s']!.pages.push({ ...d.spreads['s']!.pages[0]!, id: 'pg2', box: { x: 595, y: 0, width: 595, height: 842 } });
        d.spreads['s']!.items['f3']!.transform = [1, 0, 0, 1, 700, 10];
      },
    );
    const c = compose(folio);
    expect(['f1', 'f2', 'f3'].map((f) => c.frames.get(f)!.lines.map((l) => l.paragraph))).toEqual([['p1'], [], ['p2']]);
  });
});
