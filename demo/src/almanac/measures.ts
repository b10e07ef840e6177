import type { Path } from '@elastic-folio/core';

/** The Almanac's page and margins, and one of its two columns, in points. */
export const [W, H, M] = [595.276, 765.354, 46];
export const COLUMN = (W - 2 * M - 18) / 2;

/** A star with many points, between two radii. */
export function starburst(cx: number, cy: number, outer: number, inner: number, points: number): Path {
  const path: Path = [];
  for (let i = 0; i < points * 2; i++) {
    const r = i % 2 ? inner : outer;
    const a = (i * Math.PI) / points - Math.PI / 2;
    path.push([i ? 'L' : 'M', cx + Math.cos(a) * r, cy + Math.sin(a) * r] as Path[number]);
  }
  return [...path, ['Z']];
}
