import { IDENTITY, multiply, translation } from '../../folio/geometry.ts';
import type { Matrix } from '../../folio/geometry.ts';
import { lengthOf } from './lengths.ts';

/**
 * `draw:transform` (OpenDocument 1.3 part 3, 19.228) as a matrix, lengths in points. Unlike in SVG the functions take effect in
 * the order in which they are written, and a positive angle, in radians, turns against the clock.
 */
export function readTransform(text: string | undefined): Matrix | null {
  if (text === undefined || !text.trim()) return null;
  let out: Matrix = IDENTITY;
  for (const [, name, inside] of text.matchAll(/(?<![A-Za-z])([A-Za-z]+)\s*\(([^()]*)\)/g)) {
    const parts = inside!.trim().split(/[\s,]+/);
    const n = parts.map(Number);
    const length = (i: number): number => (parts[i] === undefined ? 0 : (lengthOf(parts[i]) ?? (Number(parts[i]) || 0)));
    const next = functionOf(name!, n, length);
    if (!next?.every(Number.isFinite)) return null;
    out = multiply(next, out);
  }
  return out;
}

function functionOf(name: string, n: readonly number[], length: (i: number) => number): Matrix | null {
  switch (name) {
    case 'rotate': {
      const [c, s] = [Math.cos(-n[0]!), Math.sin(-n[0]!)];
      return [c, s, -s, c, 0, 0];
    }
    case 'translate':
      return translation(length(0), length(1));
    case 'scale':
      return [n[0]!, 0, 0, n[1] ?? n[0]!, 0, 0];
    case 'skewX':
      return [1, 0, Math.tan(-n[0]!), 1, 0, 0];
    case 'skewY':
      return [1, Math.tan(-n[0]!), 0, 1, 0, 0];
    case 'matrix':
      return [n[0]!, n[1]!, n[2]!, n[3]!, length(4), length(5)];
    default:
      return null;
  }
}
