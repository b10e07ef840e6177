import { describe, expect, test } from '@jest/globals';
import {
  boundsOfPath,
  ellipsePath,
  hex,
  invert,
  mm,
  multiply,
  pageNumbers,
  PT_PER_INCH,
  PX_PER_PT,
  rotation,
  toMm,
  toRgb,
  transformRect,
} from '../src/index.ts';

describe('lengths', () => {
  // CSS Values and Units 4, section 6.2: 1in = 2.54cm = 72pt = 96px.
  test('one inch is 72 points, 96 px, 25.4 mm', () => {
    expect(PT_PER_INCH).toBe(72);
    expect(72 * PX_PER_PT).toBe(96);
    expect(mm(25.4)).toBeCloseTo(72, 10);
    expect(toMm(mm(210))).toBeCloseTo(210, 10);
  });
});

describe('geometry', () => {
  test('a clockwise quarter turn takes the x axis to the y axis, since y points down', () => {
    const [a, b] = rotation(90);
    expect(a).toBeCloseTo(0);
    expect(b).toBeCloseTo(1);
  });
  test('a matrix and its inverse give the identity', () => {
    const m = multiply(rotation(33, 10, 20), [2, 0, 0.3, 1.5, 7, -4]);
    multiply(m, invert(m)!).forEach((v, i) => expect(v).toBeCloseTo([1, 0, 0, 1, 0, 0][i]!, 10));
    expect(invert([1, 2, 2, 4, 0, 0])).toBeNull();
  });
  test('the box of a turned square is wider by the square root of two', () => {
    expect(transformRect(rotation(45, 5, 5), { x: 0, y: 0, width: 10, height: 10 }).width).toBeCloseTo(10 * Math.SQRT2);
  });
  test('curves are bounded by their extremes, not by their handles', () => {
    const box = boundsOfPath([
      ['M', 0, 0],
      ['C', 0, 40, 100, 40, 100, 0],
    ]);
    // Worked by hand: y(t) = 120 t (1 − t), at its most 30 for t = 1/2.
    expect(box).toEqual({ x: 0, y: 0, width: 100, height: 30 });
    const ellipse = boundsOfPath(ellipsePath(50, 50, 30, 20));
    expect(ellipse.width).toBeCloseTo(60);
    expect(ellipse.height).toBeCloseTo(40);
  });
});

describe('colour', () => {
  // ISO 32000-1, 10.3.5: red = 1 − min(1, cyan + black).
  test('CMYK becomes RGB by the plain formula', () => {
    expect(toRgb({ space: 'cmyk', c: 0.2, m: 0.4, y: 0.9, k: 0.3 })).toEqual({ r: 0.5, g: expect.closeTo(0.3), b: 0 });
  });
  test('a tint of 0 is paper, a spot colour shows its alternate', () => {
    expect(hex(toRgb({ space: 'rgb', r: 1, g: 0, b: 0 }, 0))).toBe('#ffffff');
    expect(hex(toRgb({ space: 'spot', ink: 'X', alternate: { space: 'grey', value: 0 } }, 0.5))).toBe('#808080');
  });
});

describe('page ranges', () => {
  test.each([
    ['', [1, 2, 3]],
    ['2', [2]],
    ['1-2', [1, 2]],
    [' 3 , 1 ', [3, 1]],
  ])('%j', (range, numbers) => {
    expect([...pageNumbers(range, 3)]).toEqual(numbers);
  });
  test.each(['x', '1-', '0', '4', '3-2', '1..2'])('%j is refused with a sentence', (range) => {
    expect(() => pageNumbers(range, 3)).toThrow(/range of pages|pages 1 to 3/);
  });
});
