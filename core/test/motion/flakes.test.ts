import { describe, expect, test } from '@jest/globals';
import { ellipsePath, PT_PER_PX } from '../../src/index.ts';
import type { Path } from '../../src/index.ts';
import { flakeGrid, leastOverlap } from '../../src/motion/flakes.ts';

const px = (points: number): number => points / PT_PER_PX;
const veil = (width: number, height: number, flakeSize: number, flakeOverlap: number, outline?: Path) => ({
  size: { width, height },
  flakeSize,
  flakeOverlap,
  ...(outline && { outline }),
});

describe('how far flakes overlap', () => {
  test('in half size by two pixels: squares of 36 px stand 34 px apart (common practice)', () => {
    expect(px(leastOverlap(0.5))).toBeCloseTo(2, 9);
    const { size, pitch } = flakeGrid({ size: { width: 300, height: 300 }, flakeSize: 36 * PT_PER_PX });
    expect([px(size), px(pitch)]).toEqual([36, 34]);
  });

  /** How much of each pixel of a row is covered where two flakes meet, each drawn with soft edges over the other. */
  const seam = (pitch: number, size: number, scale: number): number => {
    let least = 1;
    for (let n = 0; n < 40; n++) {
      let uncovered = 1;
      for (let f = 0; f < 40; f++) {
        const [from, to] = [f * pitch * scale, (f * pitch + size) * scale];
        uncovered *= 1 - Math.max(0, Math.min(to, n + 1) - Math.max(from, n));
      }
      least = Math.min(least, 1 - uncovered);
    }
    return least;
  };
  test('flakes that just touch leave hairlines at most scales; with the least overlap there is none down to half size', () => {
    expect(seam(34, 34, 0.77)).toBeLessThan(0.95);
    for (const scale of [0.5, 0.55, 0.613, 0.77, 0.9, 1, 1.3]) expect(seam(34, 36, scale)).toBeCloseTo(1, 9);
  });
});

describe('which flakes are needed', () => {
  test('of a box, as many as cover it to its last point', () => {
    // By hand: 10 + 3 × 8 = 34 reaches over 30, so four columns; 10 + 8 = 18 over 18, so two rows.
    expect(flakeGrid(veil(30, 18, 10, 2)).rows).toEqual([
      [0, 1, 2, 3],
      [0, 1, 2, 3],
    ]);
    expect(flakeGrid(veil(5, 5, 10, 2)).rows).toEqual([[0]]);
  });

  test('of a triangle, those that it touches: worked out by hand', () => {
    // A right angle at the lower left, sides of 40: of row r (from the top, 10 high) the triangle has the first r + 1 columns.
    const triangle: Path = [['M', 0, 0], ['L', 0, 40], ['L', 40, 40], ['Z']];
    expect(flakeGrid(veil(40, 40, 10, 0, triangle)).rows).toEqual([[0], [0, 1], [0, 1, 2], [0, 1, 2, 3]]);
  });

  test('a ring needs none in its middle (even-odd)', () => {
    const ring = [...ellipsePath(50, 50, 50, 50), ...ellipsePath(50, 50, 30, 30)];
    const { rows } = flakeGrid(veil(100, 100, 10, 0, ring));
    expect([rows[5]!.includes(5), rows[4]!.includes(4), rows[5]!.includes(0)]).toEqual([false, false, true]);
    // The corners of the box are outside.
    expect([rows[0]!.includes(0), rows[9]!.includes(9)]).toEqual([false, false]);
  });

  test('a circle of 100 in flakes of 12, 10.5 apart, is covered: no point of it lies under none', () => {
    const { rows, pitch, size } = flakeGrid(veil(100, 100, 12, 1.5, ellipsePath(50, 50, 50, 50)));
    for (let a = 0; a < 360; a += 3)
      for (let r = 0; r < 49.9; r += 2.3) {
        const [x, y] = [50 + r * Math.cos(a), 50 + r * Math.sin(a)];
        const under = rows.some(
          (columns, row) => y >= row * pitch && y <= row * pitch + size && columns.some((c) => x >= c * pitch && x <= c * pitch + size),
        );
        expect([x, y, under]).toEqual([x, y, true]);
      }
  });

  test('flakes are never so small that a page would be slowed down', () =>
    expect(flakeGrid(veil(600, 800, 1, 0.5)).rows.flat().length).toBeLessThanOrEqual(1700));
});
