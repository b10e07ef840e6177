import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import type { SetLine } from '../src/compose/index.ts';
import { formatNumber } from '../src/compose/listLabels.ts';
import type { Folio, Inline, Paragraph } from '../src/index.ts';
import { textOfLine } from '../src/structure/reading.ts';
import { tinyFolio } from './support/tinyFolio.ts';
import { compose, lines, width, TEXT } from './support/setting.ts';

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
