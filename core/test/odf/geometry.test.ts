import { describe, expect, test } from '@jest/globals';
import { boundsOfPath } from '../../src/folio/geometry.ts';
import type { Path } from '../../src/folio/geometry.ts';
import { arcSteps, pointAt } from '../../src/read/odf/geometry/arcs.ts';
import { connectorPath } from '../../src/read/odf/geometry/connector.ts';
import { drawGeometry } from '../../src/read/odf/geometry/enhancedGeometry.ts';
import type { EnhancedGeometry } from '../../src/read/odf/geometry/enhancedGeometry.ts';
import { evaluate, FormulaError } from '../../src/read/odf/geometry/formula.ts';
import { pathOf } from '../../src/read/odf/shapePaths.ts';

const names = (equations: Record<string, number> = {}, modifiers: number[] = []) => ({
  constant: (name: string) => ({ pi: Math.PI, left: 0, right: 21600, width: 21600 })[name],
  equation: (name: string) => equations[name]!,
  modifier: (i: number) => modifiers[i] ?? 0,
});

describe('formulas (OpenDocument 1.3 part 3, 19.171)', () => {
  test.each([
    ['1+2*3', 7],
    ['(1+2)*3', 9],
    ['10-4-3', 3],
    ['8/2/2', 2],
    ['-3+-2', -5],
    ['2*-3', -6],
    ['abs(-7)', 7],
    ['sqrt(16)', 4],
    ['min(3,2)+max(3,2)', 5],
    ['if(1,10,20)', 10],
    ['if(0,10,20)', 20],
    ['if(-1,10,20)', 20],
    ['cos(pi)', -1],
    ['atan2(0,-1)', Math.PI],
    ['$0*2', 10800],
    ['?f0+right', 21700],
    ['21600-$0 ', 16200],
    ['1e2+.5', 100.5],
  ])('%s = %d', (text, value) => expect(evaluate(text, names({ f0: 100 }, [5400]))).toBeCloseTo(value, 9));

  test.each(['', '1+', '(1', '1)', 'max(1)', 'max(1,2', 'hello', 'fly(1)', '1 2', '#'])('“%s” is none', (text) =>
    expect(() => evaluate(text, names())).toThrow(FormulaError),
  );
  test('brackets without end are refused, not followed', () => {
    expect(() => evaluate('('.repeat(5000) + '1' + ')'.repeat(5000), names())).toThrow(FormulaError);
  });
});

const geometry = (path: string, more: Partial<EnhancedGeometry> = {}): EnhancedGeometry => ({
  viewBox: { x: 0, y: 0, width: 100, height: 100 },
  path,
  equations: new Map(),
  modifiers: [],
  textAreas: undefined,
  mirror: { horizontal: false, vertical: false },
  stretch: undefined,
  hasStroke: true,
  hasFill: true,
  ...more,
});
const draw = (path: string, more: Partial<EnhancedGeometry> = {}, w = 100, h = 100) => drawGeometry(geometry(path, more), w, h);
const rounded = (path: Path): Path =>
  path.map((s) => [s[0], ...s.slice(1).map((n) => Math.round((n as number) * 100) / 100)] as Path[number]);
const ends = (path: Path): [number, number][] =>
  path.filter((s) => s[0] !== 'Z').map((s) => [Math.round(s.at(-2) as number), Math.round(s.at(-1) as number)]);

describe('enhanced paths (19.145), worked by hand', () => {
  test('lines in the view box’s units come to the shape’s size', () => {
    expect(draw('M 0 0 L 100 0 100 100 Z N', {}, 50, 200).parts).toEqual([
      { path: [['M', 0, 0], ['L', 50, 0], ['L', 50, 200], ['Z']], filled: true, stroked: true },
    ]);
  });
  test('more than one pair after M is drawn to; letters may touch numbers', () => {
    expect(draw('M0 0 10 0 10 10ZN').parts[0]!.path).toEqual([['M', 0, 0], ['L', 10, 0], ['L', 10, 10], ['Z']]);
  });
  test('N ends a part; F and S take fill and stroke from it', () => {
    const { parts } = draw('M 0 0 L 10 0 10 10 Z S N M 0 0 L 5 5 F N');
    expect(parts.map((p) => [p.filled, p.stroked])).toEqual([
      [true, false],
      [false, true],
    ]);
  });
  test('U: a whole ellipse from its right-hand point round', () => {
    const [part] = draw('U 50 50 50 25 0 360 Z N').parts;
    expect(ends(part!.path)).toEqual([
      [100, 50],
      [50, 75],
      [0, 50],
      [50, 25],
      [100, 50],
    ]);
    const b = boundsOfPath(part!.path);
    expect([b.x, b.y, b.width, b.height].map((n) => Math.round(n * 10) / 10)).toEqual([0, 25, 100, 50]);
  });
  test('T: a line leads to where the arc begins', () => {
    expect(ends(draw('M 0 0 T 50 50 50 50 270 360 N').parts[0]!.path)).toEqual([
      [0, 0],
      [50, 0],
      [100, 50],
    ]);
  });
  // Points of 19.145's box (0,0)–(100,100): from its top to its right is a quarter clockwise, three quarters the other way.
  test('W and V run with the clock, A and B against it', () => {
    expect(ends(draw('V 0 0 100 100 50 0 100 50 N').parts[0]!.path)).toEqual([
      [50, 0],
      [100, 50],
    ]);
    expect(ends(draw('B 0 0 100 100 50 0 100 50 N').parts[0]!.path)).toEqual([
      [50, 0],
      [0, 50],
      [50, 100],
      [100, 50],
    ]);
    expect(ends(draw('M 0 0 W 0 0 100 100 50 0 100 50 N').parts[0]!.path)).toEqual([
      [0, 0],
      [50, 0],
      [100, 50],
    ]);
    expect(ends(draw('M 0 0 A 0 0 100 100 100 50 50 0 N').parts[0]!.path)).toEqual([
      [0, 0],
      [100, 50],
      [50, 0],
    ]);
  });
  test('X leaves along the x axis, Y along the y axis, and more pairs take turns', () => {
    expect(rounded(draw('M 0 10 Y 10 0 N').parts[0]!.path)[1]).toEqual(['C', 0, 4.48, 4.48, 0, 10, 0]);
    expect(rounded(draw('M 0 0 X 10 10 N').parts[0]!.path)[1]).toEqual(['C', 5.52, 0, 10, 4.48, 10, 10]);
    const two = rounded(draw('M 0 0 X 10 10 0 20 N').parts[0]!.path);
    expect(two[2]).toEqual(['C', 10, 15.52, 5.52, 20, 0, 20]);
  });
  test('equations and modifiers: a rounded rectangle’s corner is where its handle says', () => {
    const { parts, text } = draw(
      'M ?f0 0 X 0 ?f0 L 0 ?f1 Y ?f0 bottom L ?f2 bottom X right ?f1 L right ?f0 Y ?f2 0 Z N',
      {
        equations: new Map([
          ['f0', '$0'],
          ['f1', 'bottom-?f0'],
          ['f2', 'right-?f0'],
          ['f3', '?f0*3/10'],
          ['f4', 'right-?f3'],
        ]),
        modifiers: [20],
        textAreas: '?f3 ?f3 ?f4 ?f4',
      },
      200,
      100,
    );
    expect(ends(parts[0]!.path).slice(0, 4)).toEqual([
      [40, 0],
      [0, 20],
      [0, 80],
      [40, 100],
    ]);
    expect(text).toEqual({ x: 12, y: 6, width: 176, height: 88 });
  });
  test('mirrored shapes, and a view box of no size that stands for hundredths of a millimetre', () => {
    expect(draw('M 0 0 L 30 0 N', { mirror: { horizontal: true, vertical: false } }).parts[0]!.path).toEqual([
      ['M', 100, 0],
      ['L', 70, 0],
    ]);
    const [part] = draw('M 0 0 L 2540 2540 N', { viewBox: { x: 0, y: 0, width: 0, height: 0 } }, 72, 72).parts;
    expect(ends(part!.path)).toEqual([
      [0, 0],
      [72, 72],
    ]);
  });
});

const element = (name: string, attributes: Record<string, string>) => ({ name, attributes, children: [], path: '' });

describe('shapes that cannot be worked out', () => {
  test('an equation that needs itself is named, and counts as nothing', () => {
    const { problems, parts } = draw('M ?f0 0 L 10 10 N', {
      equations: new Map([
        ['f0', '?f1'],
        ['f1', '?f0+1'],
      ]),
    });
    expect(problems.join()).toContain('needs itself');
    expect(parts[0]!.path.flat().every((n) => typeof n === 'string' || Number.isFinite(n))).toBe(true);
  });
  test('division by nothing, unknown names and unknown commands', () => {
    expect(draw('M ?f0 0 L 10 10 N', { equations: new Map([['f0', '1/0']]) }).problems).toEqual([
      '“1/0” has no value (it divides by nothing, say)',
    ]);
    expect(draw('M ?none 0 L 10 10 N').problems.join()).toContain('no equation “none”');
    expect(draw('M 0 0 K 1 2 3 L 10 10 N').problems.join()).toContain('“K”');
  });
  test('a row of ten thousand equations, each of which needs the next, ends', () => {
    const equations = new Map(Array.from({ length: 10_000 }, (_, i) => [`f${i}`, `?f${i + 1}+1`] as const));
    expect(draw('M ?f0 0 L 10 10 N', { equations }).problems.length).toBeGreaterThan(0);
  });
  test('numbers beyond all measure draw nothing, and are said', () => {
    const { parts, problems } = draw('M $0 0 L 10 10 Z N M 0 0 L 5 5 N', { modifiers: [1e308] });
    expect([parts.length, problems]).toEqual([1, ['a part of the shape lies beyond any page']]);
    expect(pathOf(element('draw:path', { 'svg:d': 'M0 0L1e300 5', 'svg:viewBox': '0 0 1 1' }), 100, 100)).toBeNull();
    expect(connectorPath('M0 0L1e300 1e300', { x: 0, y: 0 }, { x: 1, y: 1 })).toBeNull();
  });
  test('a command without its numbers draws nothing', () => {
    expect(draw('M 0 L').parts).toEqual([]);
    expect(draw('').parts).toEqual([]);
  });
});

describe('other outlines (10.3)', () => {
  test('a polygon’s points come to the size of its box', () => {
    expect(pathOf(element('draw:polygon', { 'draw:points': '0,0 10,0 10,20', 'svg:viewBox': '0 0 10 20' }), 100, 100)).toEqual([
      ['M', 0, 0],
      ['L', 100, 0],
      ['L', 100, 100],
      ['Z'],
    ]);
  });
  test('a slice of an ellipse, against the clock from its right-hand side', () => {
    const path = pathOf(element('draw:ellipse', { 'draw:kind': 'section', 'draw:start-angle': '0', 'draw:end-angle': '90' }), 100, 100)!;
    expect(ends(path)).toEqual([
      [50, 50],
      [100, 50],
      [50, 0],
    ]);
    expect(
      ends(pathOf(element('draw:circle', { 'draw:kind': 'arc', 'draw:start-angle': '90', 'draw:end-angle': '270' }), 100, 100)!),
    ).toEqual([
      [50, 0],
      [0, 50],
      [50, 100],
    ]);
  });
  test('a regular polygon has its first corner at the top; a star twice as many', () => {
    expect(ends(pathOf(element('draw:regular-polygon', { 'draw:corners': '4' }), 100, 100)!)).toEqual([
      [50, 0],
      [100, 50],
      [50, 100],
      [0, 50],
    ]);
    const star = pathOf(
      element('draw:regular-polygon', { 'draw:corners': '5', 'draw:concave': 'true', 'draw:sharpness': '50%' }),
      100,
      100,
    )!;
    expect(star).toHaveLength(11);
    expect(Math.hypot((star[1]![1] as number) - 50, (star[1]![2] as number) - 50)).toBeCloseTo(25, 6);
  });
  test('arcs keep to their ellipse within a thousandth of its radius', () => {
    for (const step of arcSteps(0, 0, 100, 100, 10, 250)) {
      expect(Math.hypot(step[5] as number, step[6] as number)).toBeCloseTo(100, 9);
      expect(Math.hypot(step[1] as number, step[2] as number)).toBeGreaterThan(100);
    }
    expect(pointAt(0, 0, 2, 1, 90).map((n) => +n.toFixed(9))).toEqual([0, 1]);
  });
  test('a connector’s curve is in hundredths of a millimetre and begins and ends at its ends', () => {
    const path = connectorPath('M1000 1000h1540v2540', { x: 100, y: 100 }, { x: 100 + (1540 * 72) / 2540, y: 172 })!;
    expect(ends(path)).toEqual([
      [100, 100],
      [144, 100],
      [144, 172],
    ]);
    expect(connectorPath('M0 0L10 10', { x: 0, y: 0 }, { x: 500, y: 500 })).toBeNull();
  });
});
