import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { produce } from 'immer';
import { Composer } from '../src/compose/index.ts';
import type { ComposedFrame, Composition, FontSet } from '../src/compose/index.ts';
import { columnWidths } from '../src/compose/table.ts';
import { coveredBetween, freeIntervals, obstaclesFor } from '../src/compose/wrap.ts';
import { boundsOfPath, ellipsePath, flattenPath, Item } from '../src/index.ts';
import type { Folio, TextFrame } from '../src/index.ts';
import { fontsOf } from './support/samples.ts';
import { grid, tableFolio } from './support/tableFolio.ts';
import type { CellInput } from './support/tableFolio.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let fonts: FontSet;
beforeAll(async () => {
  fonts = await fontsOf(tinyFolio(['x']));
});
const compose = (folio: Folio): Composition => new Composer(fonts).compose(folio);
const frame = (folio: Folio, id = 'f1'): ComposedFrame => compose(folio).frames.get(id)!;

const box = (f: ComposedFrame, cell: string) => f.boxes.find((b) => b.subject === cell)!.box;
const textsOf = (f: ComposedFrame): string[] => f.lines.map((l) => l.runs.map((r) => r.text).join(''));
const pt = (width: number) => ({ width, unit: 'pt' });
const share = (width: number) => ({ width, unit: 'share' });
/** A line of this test's style: 12 pt leading; its ascent and descent come from the font. */
const lineHeight = (): number => {
  const f = fonts.match({ fontFamily: 'Work Sans', fontWeight: 400, fontStyle: 'normal', fontStretch: 100 });
  return ((f.ascent + f.descent) / f.unitsPerEm) * 10;
};

describe('tables', () => {
  // Worked by hand.
  test.each([
    [[pt(50), pt(30)], 200, [50, 30]],
    [[pt(50), share(1), share(2)], 200, [50, 50, 100]],
    [[share(1), share(1)], 90, [45, 45]],
    [[pt(150), share(1)], 100, [150, 0]],
    [[share(0), share(0)], 100, [0, 0]],
  ])('columns %j in %i pt', (columns, room, expected) => expect(columnWidths(columns as never, room)).toEqual(expected));

  test('rows are as high as their highest cell with its insets, or their least, or exactly what they say', () => {
    const f = frame(tableFolio([pt(60), pt(60)], [{}, { height: 50 }, { height: 10, exact: true }], grid(3, 2)));
    expect(box(f, 'c0')).toEqual({ x: 0, y: 0, width: 60, height: expect.closeTo(lineHeight() + 8, 6) });
    expect([box(f, 'c2').height, box(f, 'c4').height]).toEqual([50, 10]);
    expect(box(f, 'c3').x).toBe(60);
    expect(box(f, 'c4').y).toBeCloseTo(lineHeight() + 8 + 50, 6);
    expect(textsOf(f)).toEqual(['r0c0', 'r0c1', 'r1c0', 'r1c1', 'r2c0', 'r2c1']);
  });

  test('cells that span columns and rows are as wide and high as what they span', () => {
    const cells: CellInput[] = [
      { row: 0, column: 0, columns: 2, text: 'wide' },
      { row: 1, column: 0, rows: 2, text: 'tall' },
      { row: 1, column: 1, text: 'a' },
      { row: 2, column: 1, text: 'b' },
    ];
    const f = frame(tableFolio([pt(40), pt(60)], [{ height: 20 }, { height: 30 }, { height: 40 }], cells));
    expect(box(f, 'c0')).toMatchObject({ width: 100, height: expect.closeTo(Math.max(20, lineHeight() + 8), 6) });
    expect(box(f, 'c1')).toMatchObject({ width: 40, height: 70 });
  });

  test.each([
    ['top', 0],
    ['centre', 0.5],
    ['bottom', 1],
  ])('text stands at the %s of its cell', (verticalAlign, at) => {
    const f = frame(tableFolio([pt(60)], [{ height: 80 }], [{ row: 0, column: 0, text: 'x', verticalAlign }]));
    const [line] = f.lines;
    expect(line!.baseline - line!.ascent).toBeCloseTo(4 + (80 - 8 - lineHeight()) * at, 5);
  });

  test('styles give fills and strokes by row: header, body, alternating', () => {
    const grey = (value: number) => ({ type: 'colour', colour: { space: 'grey', value } });
    const folio = produce(tableFolio([pt(50)], [{}, {}, {}, {}], grid(4, 1), { headerRows: 1, style: 'ts' }), (d) => {
      const stroke = {
        paint: grey(0),
        weight: 0.5,
        dashes: [],
        cap: 'butt',
        join: 'miter',
        miterLimit: 4,
        startMarker: 'none',
        endMarker: 'none',
      };
      d.head.cellStyles = {
        head: { id: 'head', name: 'Head', fill: grey(0.2) },
        body: { id: 'body', name: 'Body', stroke, inset: 6 },
        odd: { id: 'odd', name: 'Odd', basedOn: 'body', fill: grey(0.9) },
      } as never;
      d.head.tableStyles = { ts: { id: 'ts', name: 'Table', body: 'body', header: 'head', alternate: { every: 1, style: 'odd' } } };
    });
    const boxes = frame(folio).boxes;
    expect(boxes.map((b) => (b.fill as { colour: { value: number } } | undefined)?.colour.value)).toEqual([0.2, undefined, 0.9, undefined]);
    expect(boxes.map((b) => b.stroke?.weight)).toEqual([undefined, 0.5, 0.5, 0.5]);
    expect(boxes[1]!.box.height).toBeCloseTo(lineHeight() + 12, 6);
  });

  test('lines on single sides are drawn on the cell’s edges; room may differ by side', () => {
    const ink = { type: 'colour' as const, colour: { space: 'grey' as const, value: 0 } };
    const line = (weight: number, dashes: number[] = []) =>
      ({ paint: ink, weight, dashes, cap: 'butt', join: 'miter', miterLimit: 4, startMarker: 'none', endMarker: 'none' }) as const;
    const folio = produce(tableFolio([pt(50)], [{ height: 30 }], grid(1, 1), {}), (d) => {
      const table = Object.values(d.stories['t']!.blocks).find((b) => b.kind === 'table')!;
      if (table.kind !== 'table') throw new Error('no table');
      for (const cell of Object.values(table.cells)) {
        cell.sides = { bottom: line(2), left: line(1, [6, 4]), top: null };
        cell.inset = [5, 0, 0, 12];
      }
    });
    const f = frame(folio);
    const [cell, ...rules] = f.boxes;
    const { x, y, width, height } = cell!.box;
    expect(rules.map((r) => r.box)).toEqual([
      { x, y: y + height - 1, width, height: 2 },
      { x: x - 0.5, y, width: 1, height: 6 },
      { x: x - 0.5, y: y + 10, width: 1, height: 6 },
      { x: x - 0.5, y: y + 20, width: 1, height: 6 },
    ]);
    expect([f.lines[0]!.x - x, f.lines[0]!.baseline - f.lines[0]!.ascent - y]).toEqual([12, 5]);
  });

  test('a table goes on in the next frame with its header above and its footer below', () => {
    const rows = Array.from({ length: 8 }, () => ({ height: 20, exact: true }));
    const folio = tableFolio([pt(80)], rows, grid(8, 1), { headerRows: 1, footerRows: 1 }, { height: 101, frames: 3 });
    const c = compose(folio);
    expect(['f1', 'f2', 'f3'].map((id) => textsOf(c.frames.get(id)!))).toEqual([
      ['r0c0', 'r1c0', 'r2c0', 'r3c0', 'r7c0'],
      ['r0c0', 'r4c0', 'r5c0', 'r6c0', 'r7c0'],
      [],
    ]);
    expect(c.stories.get('t')!.overflow).toBeNull();
  });

  // Heights worked by hand: rows of exactly 20 pt.
  test.each([
    [5, 85, [3, 2]],
    [6, 105, [4, 2]],
    [4, 65, [2, 2]],
    // Three rows where two fit: one of them must stand alone, and it is the last.
    [3, 45, [2, 1]],
    [6, 125, [6]],
  ])('of %i rows in frames of %i pt, the last is not left alone where another can go with it', (count, height, expected) => {
    const rows = Array.from({ length: count }, () => ({ height: 20, exact: true }));
    const c = compose(tableFolio([pt(80)], rows, grid(count, 1), {}, { height, frames: 2 }));
    expect([...c.frames.values()].map((f) => f.lines.length).filter(Boolean)).toEqual(expected);
  });

  test('a table does not begin with one row at a foot of a column, but goes on whole', () => {
    const rows = Array.from({ length: 4 }, () => ({ height: 20, exact: true }));
    const at = (height: number): number[] => {
      const folio = produce(tableFolio([pt(80)], rows, grid(4, 1), {}, { height, frames: 3 }), (d) => {
        d.stories['t']!.blocks['above'] = {
          kind: 'paragraph',
          id: 'above',
          style: 'p',
          content: [{ type: 'span', text: 'Above' }],
        } as never;
        d.stories['t']!.order.unshift('above');
      });
      return [...compose(folio).frames.values()].map((f) => f.lines.length);
    };
    // The line above takes 12 to 15 pt; what is left is room for one row, or for two.
    expect(at(40)).toEqual([1, 2, 2]);
    expect(at(60)).toEqual([3, 2, 0]);
  });

  test('rows that a cell spans are not torn apart', () => {
    const cells = [...grid(4, 2).filter((c) => !(c.row === 2 && c.column === 0)), { row: 1, column: 0, rows: 2, text: 'tall' }].filter(
      (c, i, all) => i === all.length - 1 || !(c.row === 1 && c.column === 0),
    );
    const rows = Array.from({ length: 4 }, () => ({ height: 20, exact: true }));
    const c = compose(tableFolio([pt(40), pt(40)], rows, cells, {}, { height: 45, frames: 3 }));
    expect(c.frames.get('f1')!.boxes).toHaveLength(2);
    expect(c.frames.get('f2')!.boxes).toHaveLength(3);
  });

  test('a table wider than its frame, and a row higher than any, are set or reported, and nothing hangs', () => {
    expect(box(frame(tableFolio([pt(500)], [{}], grid(1, 1))), 'c0').width).toBe(500);
    const c = compose(tableFolio([pt(40)], [{}, { height: 900 }], grid(2, 1), {}, { height: 60, frames: 2 }));
    expect(c.stories.get('t')!.overflow).toMatchObject({ lines: 1, characters: 4 });
  });

  test('whatever the table: every text of a cell stands in it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 6 }),
        fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 24, maxLength: 24 }),
        (columns, rows, heights) => {
          const cells = grid(rows, columns).map((c, i) => ({ ...c, text: 'word '.repeat(1 + (heights[i]! % 5)).trim() }));
          const f = frame(
            tableFolio(
              Array.from({ length: columns }, (_, i) => (i % 2 ? pt(30 + heights[i]!) : share(1 + i))),
              heights.slice(0, rows).map((height) => ({ height })),
              cells,
              {},
              { height: 5000 },
            ),
          );
          cells.forEach((_, i) => {
            const b = box(f, `c${i}`);
            for (const l of f.lines.filter((line) => line.paragraph === `q${i}`)) {
              expect(l.x).toBeGreaterThanOrEqual(b.x);
              expect(l.baseline - l.ascent).toBeGreaterThanOrEqual(b.y);
              expect(l.baseline + l.descent).toBeLessThanOrEqual(b.y + b.height + 0.01);
            }
          });
        },
      ),
      { numRuns: 40 },
    );
  });
});

const obstacle = (over: object): Item => Item.parse({ id: 'o', layer: 'l', transform: [1, 0, 0, 1, 0, 0], ...over });
const withObstacle = (over: object, o: Parameters<typeof tinyFolio>[1] = {}): Folio =>
  produce(tinyFolio(['word '.repeat(120).trim()], { width: 200, height: 300, ...o }), (d) => {
    d.spreads['s']!.items['o'] = obstacle(over);
    d.spreads['s']!.order.push('o');
  });
const rectangle = (x: number, y: number, w: number, h: number) => [
  ['M', x, y],
  ['L', x + w, y],
  ['L', x + w, y + h],
  ['L', x, y + h],
  ['Z'],
];

describe('text keeps clear of other items', () => {
  test('what a polygon covers between two heights, worked by hand on a triangle', () => {
    const triangle = [
      { x: 0, y: 0 },
      { x: 10, y: 10 },
      { x: -10, y: 10 },
    ];
    expect(coveredBetween(triangle, 4, 5)).toEqual([-5, 5]);
    expect(coveredBetween(triangle, 9, 20)).toEqual([-10, 10]);
    expect(coveredBetween(triangle, 11, 20)).toBeNull();
  });
  test('a circle of chords lies within a quarter point of the circle', () => {
    for (const p of flattenPath(ellipsePath(0, 0, 50, 50), 0.25)) expect(Math.abs(Math.hypot(p.x, p.y) - 50)).toBeLessThan(0.3);
    expect(boundsOfPath(ellipsePath(0, 0, 50, 50)).width).toBeCloseTo(100, 6);
  });

  // The frame stands at (10, 10), is 200 wide; the rectangle covers x 90–130 in it, y 40–80, with 5 around.
  const item = (wrap: object) => ({
    kind: 'shape',
    path: rectangle(100, 50, 40, 40),
    wrap: { kind: 'box', side: 'both', offset: 5, ...wrap },
  });
  test.each([
    [
      'both',
      [
        { x: 0, width: 85 },
        { x: 135, width: 65 },
      ],
    ],
    ['left', [{ x: 0, width: 85 }]],
    ['right', [{ x: 135, width: 65 }]],
    ['largest', [{ x: 0, width: 85 }]],
  ])('beside a box, on the side: %s', (side, expected) => {
    const folio = withObstacle(item({ side }));
    const obstacles = obstaclesFor(folio, folio.spreads['s']!, folio.spreads['s']!.items['f1'] as TextFrame);
    expect(freeIntervals(obstacles, 0, 200, 50, 62)).toEqual(expected);
    expect(freeIntervals(obstacles, 0, 200, 90, 99)).toEqual([{ x: 0, width: 200 }]);
  });

  test('lines stand in what is free, on both sides at one height; none touches the item', () => {
    const f = frame(withObstacle(item({})));
    const beside = f.lines.filter((l) => l.baseline + l.descent > 35 && l.baseline - l.ascent < 85);
    expect(new Set(beside.map((l) => l.baseline)).size).toBeLessThan(beside.length);
    for (const l of beside) expect(l.x + l.width <= 85.01 || l.x >= 134.99).toBe(true);
    expect(f.lines.map((l) => l.runs.map((r) => r.text).join('')).join(' ')).toBe('word '.repeat(120).trim());
  });

  test('over an item that text jumps, it goes on below', () => {
    const f = frame(withObstacle(item({ kind: 'jump' })));
    for (const l of f.lines) expect(l.baseline + l.descent <= 35.01 || l.baseline - l.ascent >= 84.99).toBe(true);
    expect(f.lines.some((l) => l.baseline > 85)).toBe(true);
  });

  test('along a shape, lines are as long as it leaves them', () => {
    const f = frame(withObstacle({ kind: 'shape', path: ellipsePath(10, 100, 80, 80), wrap: { kind: 'shape', side: 'both', offset: 4 } }));
    const lefts = f.lines.filter((l) => l.baseline > 20 && l.baseline < 160).map((l) => l.x);
    expect(Math.max(...lefts)).toBeGreaterThan(75);
    for (const l of f.lines) {
      const [top, bottom] = [l.baseline - l.ascent, l.baseline + l.descent];
      for (const y of [top, (top + bottom) / 2, bottom]) {
        const reach = 84 ** 2 - (y - 90) ** 2;
        if (reach > 0) expect(l.x).toBeGreaterThanOrEqual(Math.sqrt(reach) - 4.5);
      }
    }
  });

  test('items on hidden layers and items elsewhere have no say', () => {
    const far = withObstacle({ kind: 'shape', path: rectangle(400, 50, 40, 40), wrap: { kind: 'box', side: 'both', offset: 5 } });
    const hidden = produce(withObstacle(item({})), (d) => {
      d.head.layers['h'] = { id: 'h', name: 'H', visible: false, printing: true, locked: false };
      d.head.layerOrder.push('h');
      d.spreads['s']!.items['o']!.layer = 'h';
    });
    for (const folio of [far, hidden])
      expect(obstaclesFor(folio, folio.spreads['s']!, folio.spreads['s']!.items['f1'] as TextFrame)).toEqual([]);
  });

  test('a frame that is wholly covered leaves its text over, and ends', () => {
    const c = compose(withObstacle({ kind: 'shape', path: rectangle(0, 0, 400, 400), wrap: { kind: 'box', side: 'both', offset: 0 } }));
    expect(c.stories.get('t')!.overflow!.words).toBe(120);
  });
});
