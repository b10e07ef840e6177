import { multiply } from '../../folio/geometry.ts';
import type { Matrix, Path, Rect } from '../../folio/geometry.ts';
import type { Node } from '../../packages/officeParts.ts';
import { pointsOf } from './odfStyles.ts';

/** Where a shape stands: by its corner, or by a matrix (part 3, 19.228). */
export function placeOf(node: Node, around: Matrix): { width: number; height: number; matrix: Matrix } {
  const a = node.attributes;
  const size = { width: pointsOf(a['svg:width']), height: pointsOf(a['svg:height']) };
  const numbers = /^matrix\(([^)]*)\)$/.exec(a['draw:transform'] ?? '')?.[1]?.split(/\s+/);
  if (!numbers) return { ...size, matrix: multiply(around, [1, 0, 0, 1, pointsOf(a['svg:x']), pointsOf(a['svg:y'])]) };
  const [p, q, r, s] = numbers.slice(0, 4).map(Number) as [number, number, number, number];
  return { ...size, matrix: multiply(around, [p, q, r, s, pointsOf(numbers[4]), pointsOf(numbers[5])]) };
}

/** The outline of a path in its box: its numbers go from those of its view box to its size (19.552, 19.530). */
export function pathOf(node: Node, { width, height }: Rect): Path | null {
  const [vx = 0, vy = 0, vw = 1, vh = 1] = (node.attributes['svg:viewBox'] ?? '').split(/\s+/).map(Number);
  const x = (n: number): number => ((n - vx) / vw) * width;
  const y = (n: number): number => ((n - vy) / vh) * height;
  const out: Path = [];
  for (const [, letter, rest = ''] of (node.attributes['svg:d'] ?? '').matchAll(/([MLCZ])([^A-Za-z]*)/g)) {
    const n = rest
      .trim()
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number);
    if (letter === 'Z') out.push(['Z']);
    else if (letter === 'C' && n.length === 6) out.push(['C', x(n[0]!), y(n[1]!), x(n[2]!), y(n[3]!), x(n[4]!), y(n[5]!)]);
    else if (n.length === 2) out.push([letter as 'M' | 'L', x(n[0]!), y(n[1]!)]);
    else return null;
  }
  return out.length ? out : null;
}

/** What of a picture is cut away: top, right, bottom, left, counted at 96 pixels to the inch (20.179). */
export const clipOf = (clip: string | undefined): [number, number, number, number] => {
  const [t = 0, r = 0, b = 0, l = 0] = (/^rect\((.*)\)$/.exec(clip ?? '')?.[1] ?? '').split(',').map((x) => pointsOf(x.trim()));
  return [t, r, b, l];
};
