import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { produce } from 'immer';
import { Composer } from '../src/compose/index.ts';
import type { Composition, FontFace, FontSet, SetLine } from '../src/compose/index.ts';
import { hyphenPoints } from '../src/compose/hyphenate.ts';
import { formatNumber } from '../src/compose/listLabels.ts';
import { visualOrder } from '../src/compose/bidi.ts';
import type { Folio, Inline, Paragraph } from '../src/index.ts';
import { textOfLine, textOfLines } from '../src/structure/reading.ts';
import { fontsOf } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let fonts: FontSet;
let sans: FontFace;
beforeAll(async () => {
  fonts = await fontsOf(tinyFolio(['x']));
  sans = fonts.match({ fontFamily: 'Work Sans', fontWeight: 400, fontStyle: 'normal', fontStretch: 100 });
});

const compose = (folio: Folio): Composition => new Composer(fonts).compose(folio);
const lines = (folio: Folio, frame = 'f1'): SetLine[] => compose(folio).frames.get(frame)!.lines;
const plain = (line: SetLine): string => line.runs.map((r) => r.text).join('');
const width = (text: string, size = 10): number =>
  (sans
    .shape({ text, start: 0, end: text.length, features: {}, language: 'en', script: 'Latn', direction: 'ltr' })
    .reduce((n, g) => n + g.advance, 0) *
    size) /
  sans.unitsPerEm;
const TEXT =
  'It begins as a hum under the floor, climbs the iron stair, and then the whole roof of the room sets off, slowly and with considerable dignity, to look at another part of the sky. Extraordinary observations notwithstanding, nobody misunderstands.';
const HYPHENS = { before: 2, after: 3, inARow: 2, capitals: false };
const withStyles = (
  paragraphs: [style: string, text: string | Inline[]][],
  styles: Record<string, object>,
  o: Parameters<typeof tinyFolio>[1] = {},
): Folio =>
  produce(
    tinyFolio(
      paragraphs.map(([, t]) => t),
      o,
    ),
    (d) => {
      for (const [id, paragraph] of Object.entries(styles))
        d.head.paragraphStyles[id] = { ...d.head.paragraphStyles['p']!, id, basedOn: 'p', paragraph };
      paragraphs.forEach(([style], i) => ((d.stories['t']!.blocks[`p${i + 1}`] as Paragraph).style = style));
    },
  );

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

describe('tabs', () => {
  const tabbed = (tabs: object[], text = 'a\tbb', o = {}): SetLine =>
    lines(
      tinyFolio(
        [
          text
            .split('\t')
            .flatMap((t, i): Inline[] => [...(i ? [{ type: 'tab' } as Inline] : []), ...(t ? [{ type: 'span', text: t } as Inline] : [])]),
        ],
        { width: 200, paragraph: { tabs }, ...o },
      ),
    )[0]!;
  // Worked by hand: the text after the tab begins, ends, is centred, or has its point, at the stop.
  test.each([
    ['left', {}, 'bb', 100, 0],
    ['right', {}, 'bb', 100, 1],
    ['centre', {}, 'bb', 100, 0.5],
  ] as const)('%s', (align, more, text, at, share) => {
    const run = tabbed([{ at, align, ...more }]).runs.at(-1)!;
    expect(run.x).toBeCloseTo(at - width(text) * share, 5);
    expect(run.joint).toBe('tab');
  });
  test('at a character', () => {
    const run = tabbed([{ at: 100, align: 'character', character: ',' }], 'a\t12,5').runs.at(-1)!;
    expect(run.x).toBeCloseTo(100 - width('12'), 1);
  });
  test('a leader fills the gap with whole repeats, in step from line to line, and is not read', () => {
    const [one, two] = ['a\t7', 'Longer words\t12'].map((t) => tabbed([{ at: 180, align: 'right', leader: '. ' }], t)) as [
      SetLine,
      SetLine,
    ];
    const dots = (l: SetLine) => l.runs.find((r) => r.decoration)!;
    const unit = width('. ');
    for (const line of [one, two]) {
      const run = dots(line);
      expect(run.width / unit).toBeCloseTo(Math.round(run.width / unit), 5);
      expect(textOfLine(line)).not.toContain('.');
    }
    expect(textOfLine(two)).toBe('Longer words 12');
  });
  test('a right stop beyond the frame stands at its edge', () => {
    const line = tabbed([{ at: 900, align: 'right' }]);
    expect(line.runs.at(-1)!.x + line.runs.at(-1)!.width).toBeCloseTo(200, 5);
  });
  test('stops of its own come before the default ones, half an inch apart', () => {
    expect(tabbed([]).runs.at(-1)!.x).toBeCloseTo(36, 5);
  });
});

describe('lists', () => {
  test.each([
    [1, 'decimal', '1'],
    [26, 'lowerAlpha', 'z'],
    [27, 'lowerAlpha', 'aa'],
    [703, 'upperAlpha', 'AAA'],
    [1994, 'upperRoman', 'MCMXCIV'],
    [4, 'lowerRoman', 'iv'],
    [4000, 'lowerRoman', '4000'],
    [0, 'lowerAlpha', '0'],
  ] as const)('%i as %s is %s', (n, format, expected) => expect(formatNumber(n, format)).toBe(expected));

  const list = (levels: object[], items: [level: number, more?: object][]): Folio =>
    produce(tinyFolio(items.map((_, i) => `item ${i}`)), (d) => {
      d.head.listStyles['ls'] = { id: 'ls', name: 'List', levels } as never;
      items.forEach(
        ([level, more], i) => ((d.stories['t']!.blocks[`p${i + 1}`] as Paragraph).overrides = { list: { style: 'ls', level, ...more } }),
      );
    });
  const level = (text: string, more = {}) => ({ kind: 'number', text, texts: {}, format: 'decimal', indent: 18, ...more });

  test('numbers count by level, start anew below a higher one, and restart by hand', () => {
    const folio = list([level('{n}.'), level('{1}.{n}', { format: 'lowerAlpha' })], [[0], [1], [1], [0], [1], [0, { restart: 9 }], [0]]);
    expect(lines(folio).map((l) => l.runs[0]!.text)).toEqual(['1.', '1.a', '1.b', '2.', '2.a', '9.', '10.']);
  });
  test('the label hangs in the room of its level; turned lines align with the text', () => {
    const folio = list([level('{n}.')], [[0]]);
    const wide = produce(folio, (d) => {
      (d.stories['t']!.blocks['p1'] as Paragraph).content = [{ type: 'span', text: TEXT }];
    });
    const [first, second] = lines(wide);
    expect([first!.x, first!.runs[1]!.x, second!.x]).toEqual([0, expect.closeTo(18, 6), expect.closeTo(18, 6)]);
    expect([first!.runs[0]!.generated, first!.start]).toEqual(['label', 0]);
    expect(textOfLine(first!)).toMatch(/^1\. It begins/);
  });
  test('a label’s words belong to the language of the paragraph', () => {
    const folio = produce(list([level('Figure {n}', { texts: { de: 'Abbildung {n}' }, indent: 0 })], [[0], [0]]), (d) => {
      (d.stories['t']!.blocks['p2'] as Paragraph).character = { language: 'de-AT' };
    });
    expect(lines(folio).map((l) => l.runs[0]!.text)).toEqual(['Figure 1', 'Abbildung 2']);
  });
  test('a bullet is what its level says', () => {
    expect(lines(list([{ ...level('•'), kind: 'bullet' }], [[0]]))[0]!.runs[0]!.text).toBe('•');
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

  test('widows and orphans', () => {
    expect(
      split(
        [
          ['p', three],
          ['q', ten],
        ],
        { q: {} },
      ).slice(0, 2),
    ).toEqual([
      [3, 3],
      [0, 4],
    ]);
    expect(
      split(
        [
          ['p', three],
          ['q', ten],
        ],
        { q: { widows: 5 } },
      ).slice(0, 2),
    ).toEqual([
      [3, 2],
      [0, 5],
    ]);
    expect(
      split(
        [
          ['p', three],
          ['q', ten],
        ],
        { q: { orphans: 4 } },
      ).slice(0, 2),
    ).toEqual([
      [3, 0],
      [0, 6],
    ]);
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

describe('rules, shading, borders and the grid', () => {
  const colour = { type: 'colour' as const, colour: { space: 'grey' as const, value: 0.5 } };
  test('stand where they are told to, and not at a cut', () => {
    const paragraph = {
      startIndent: 10,
      endIndent: 20,
      ruleAbove: { weight: 1, offset: 12, paint: colour, width: 'column' },
      ruleBelow: { weight: 2, offset: 5, paint: colour, width: 'text' },
      shading: { paint: colour, offset: 3 },
    };
    const folio = tinyFolio(['one two three four five six'], { width: 90, height: 26, frames: 2, paragraph });
    const { frames } = compose(folio);
    const [first, second] = [frames.get('f1')!, frames.get('f2')!];
    const top = first.lines[0]!;
    const above = first.boxes.find((b) => b.kind === 'rule')!;
    expect(above.box).toEqual({ x: 10, y: expect.closeTo(top.baseline - 12 - 0.5, 6), width: 60, height: 1 });
    expect(first.boxes.filter((b) => b.kind === 'rule')).toHaveLength(1);
    const below = second.boxes.find((b) => b.kind === 'rule')!;
    const last = second.lines.at(-1)!;
    expect([below.box.y, below.box.width]).toEqual([expect.closeTo(last.baseline + 5 - 1, 6), expect.closeTo(last.width, 6)]);
    const shade = first.boxes.find((b) => b.kind === 'shading')!.box;
    expect([shade.x, shade.width, shade.y]).toEqual([7, 66, expect.closeTo(top.baseline - top.ascent - 3, 6)]);
  });
  test('baselines snap to the document’s grid, whatever stands between', () => {
    const folio = produce(tinyFolio(['a', 'b', 'c'], { paragraph: { alignToGrid: true, spaceAfter: 3 } }), (d) => {
      d.head.baselineGrid = { start: 40, step: 14 };
    });
    const top = folio.spreads['s']!.items['f1']!.transform[5];
    for (const line of lines(folio)) expect(((line.baseline + top - 40) / 14) % 1).toBeCloseTo(0, 5);
  });
  test('balanced columns are as low as can be and differ by one line at most', () => {
    const folio = produce(tinyFolio([TEXT], { width: 300, height: 400 }), (d) => {
      Object.assign(d.spreads['s']!.items['f1']!, { columns: 3, gutter: 10, balance: true });
    });
    const counts = [0, 1, 2].map((c) => lines(folio).filter((l) => l.column === c).length);
    expect(Math.max(...counts) - Math.min(...counts)).toBeLessThanOrEqual(1);
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
