import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apply } from '../../src/folio/geometry.ts';
import { readPathData, readPoints, readViewBox } from '../../src/read/odf/geometry/pathData.ts';
import { angleOf, colourOf, integerOf, lengthOf, percentOf, secondsOf } from '../../src/read/odf/lengths.ts';
import { idOf, Names } from '../../src/read/odf/names.ts';
import { decodeName } from '../../src/read/odf/styleSheet.ts';
import { readTransform } from '../../src/read/odf/transform.ts';
import { Id } from '../../src/folio/ids.ts';

describe('lengths of XSL 5.9.11, as OpenDocument 1.3 part 3, 18.3.18 takes them', () => {
  test.each([
    ['2.54cm', 72],
    ['25.4mm', 72],
    ['1in', 72],
    ['12pt', 12],
    ['1pc', 12],
    ['96px', 72],
    ['-.5in', -36],
    [' 1e1pt ', 10],
  ])('%s is %d pt', (text, points) => expect(lengthOf(text)).toBeCloseTo(points, 9));

  test.each(['', '12', 'pt', '1 cm 2', '1em', '10%', 'NaNpt', '1e999pt', '99999999in', 'auto'])('“%s” is none', (text) =>
    expect(lengthOf(text)).toBeUndefined(),
  );

  test('percentages, whole numbers, angles', () => {
    expect([percentOf('58%'), percentOf('-33%'), percentOf('58')]).toEqual([0.58, -0.33, undefined]);
    expect([integerOf(' 12 '), integerOf('1.5'), integerOf('99999999999')]).toEqual([12, undefined, undefined]);
    expect([angleOf('90'), angleOf('900', 'tenths'), angleOf('100grad'), angleOf('45deg', 'tenths')]).toEqual([90, 90, 90, 45]);
    expect(angleOf('3.14159265rad')).toBeCloseTo(180, 5);
  });

  // XML Schema part 2, 3.2.6, and clock values with units of SMIL 3.0, 5.4.3.
  test.each([
    ['PT1M30.5S', 90.5],
    ['PT00H00M02S', 2],
    ['P1DT1S', 86401],
    ['1.5s', 1.5],
    ['200ms', 0.2],
    ['2min', 120],
    ['soon', undefined],
    ['P', undefined],
  ])('%s is %p seconds', (text, seconds) => expect(secondsOf(text)).toBe(seconds));

  test('colours of six digits, and nothing else', () => {
    expect(colourOf('#ff8000')).toEqual({ space: 'rgb', r: 1, g: 128 / 255, b: 0 });
    expect([colourOf('red'), colourOf('#fff'), colourOf(undefined)]).toEqual([undefined, undefined, undefined]);
  });
});

describe('draw:transform (19.228)', () => {
  const at = (text: string, x: number, y: number): [number, number] => {
    const p = apply(readTransform(text)!, { x, y });
    return [+p.x.toFixed(6) + 0, +p.y.toFixed(6) + 0];
  };
  // Worked by hand: y points down, so a turn against the clock takes what points right to what points up.
  test('turns against the clock, in radians', () => expect(at('rotate (1.5707963267949)', 10, 0)).toEqual([0, -10]));
  test('functions take effect in their order, unlike in SVG', () => {
    expect(at('rotate (1.5707963267949) translate (1in 2in)', 10, 0)).toEqual([72, 134]);
    expect(at('translate (1in 2in) rotate (1.5707963267949)', 0, 0)).toEqual([144, -72]);
  });
  test('scale, skew and matrix', () => {
    expect(at('scale (2 3)', 1, 1)).toEqual([2, 3]);
    expect(at('matrix (1 0 0 1 1in 0in)', 5, 5)).toEqual([77, 5]);
    expect(at('skewX (-0.785398163397448)', 0, 10)).toEqual([10, 10]);
  });
  test('what is no transform is none', () => {
    expect([readTransform(undefined), readTransform(''), readTransform('turn(3)'), readTransform('rotate(x)')]).toEqual([
      null,
      null,
      null,
      null,
    ]);
  });
});

describe('path data (SVG 1.1, 8.3) and points', () => {
  test('lines, their short forms and relative ones', () => {
    expect(readPathData('M0 0h10v5l-10 0z')).toEqual([['M', 0, 0], ['L', 10, 0], ['L', 10, 5], ['L', 0, 5], ['Z']]);
  });
  test('a quadratic curve is the cubic that is the same', () => {
    expect(readPathData('M0 0Q30 60 60 0')).toEqual([
      ['M', 0, 0],
      ['C', 20, 40, 40, 40, 60, 0],
    ]);
  });
  test('an arc ends where it says', () => {
    const path = readPathData('M0 0A50 50 0 0 1 100 0')!;
    expect((path.at(-1) as number[]).slice(5).map((n) => Math.round(n) + 0)).toEqual([100, 0]);
  });
  test('a smooth curve mirrors the handle before it', () => {
    expect(readPathData('M0 0C0 10 10 10 10 0S20 -10 20 0')!.at(-1)).toEqual(['C', 10, -10, 20, -10, 20, 0]);
  });
  test('rubbish is none', () => {
    expect([readPathData('hello'), readPoints('1,2', true), readPoints('1,a 2,3', false)]).toEqual([null, null, null]);
    expect([readViewBox('0 0 0 5'), readViewBox('0 0 5'), readViewBox(undefined)]).toEqual([null, null, null]);
    expect(readViewBox('0 0 21600 21600')).toEqual({ x: 0, y: 0, width: 21600, height: 21600 });
  });
  test('points are joined, and closed where they are a polygon', () => {
    expect(readPoints('0,0 10,0 10,10', true)).toEqual([['M', 0, 0], ['L', 10, 0], ['L', 10, 10], ['Z']]);
  });
  test('nothing that is typed is read as something that is not finite', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'MLCQAZhvz0123456789.-e, '.split('')), maxLength: 60 }), (d) => {
        const path = readPathData(d);
        expect(path === null || path.every((s) => s.slice(1).every((n) => Number.isFinite(n)))).toBe(true);
      }),
    );
  });
});

describe('names', () => {
  test('a name of the original’s becomes an id where it can; twice the same is counted', () => {
    const names = new Names();
    expect([
      names.free('x', 'Überschrift 1'),
      names.free('x', 'Überschrift 1'),
      names.free('x'),
      names.free('x'),
      names.free('x', '漢字'),
    ]).toEqual(['Uberschrift-1', 'Uberschrift-1-2', 'x-1', 'x-2', 'x-3']);
  });
  test('whatever the name, the id is one', () => {
    fc.assert(
      fc.property(fc.array(fc.string(), { maxLength: 12 }), (all) => {
        const names = new Names();
        const ids = all.map((name) => names.free('item', name));
        for (const id of ids) expect(Id.safeParse(id).success).toBe(true);
        expect(new Set(ids).size).toBe(ids.length);
      }),
    );
    expect(idOf('---')).toBe('');
  });
  // 19.498: names as XML names.
  test('style names are written with codes for what no XML name may hold', () => {
    expect(decodeName('Default_20_Drawing_20_Style')).toBe('Default Drawing Style');
    expect(decodeName('a_b')).toBe('a_b');
  });
});
