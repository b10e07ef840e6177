import { apply } from '../../../folio/geometry.ts';
import type { Matrix, Rect } from '../../../folio/geometry.ts';
import { angle60000, emu } from '../lengths.ts';
import type { Xml } from '../../assets/xml.ts';
import { el } from '../../assets/xml.ts';

/** Where a box stands before it is turned about its middle, in points; turned clockwise, turned over first (ISO/IEC 29500-1, 20.1.7.6). */
export interface Placement {
  x: number;
  y: number;
  width: number;
  height: number;
  /** Degrees. */
  rotation: number;
  flipV: boolean;
}

/** How square the axes of a matrix must be to count as such. */
const SQUARE = 1e-4;

/** A box under a matrix as the format places it; null where it is slanted, which the format cannot say. */
export function placementOf(m: Matrix, box: Rect): Placement | null {
  const [a, b, c, d] = m;
  const [sx, sy] = [Math.hypot(a, b), Math.hypot(c, d)];
  if (Math.abs(a * c + b * d) > SQUARE * sx * sy) return null;
  const middle = apply(m, { x: box.x + box.width / 2, y: box.y + box.height / 2 });
  const [width, height] = [box.width * sx, box.height * sy];
  const rotation = sx > 0 ? (Math.atan2(b, a) * 180) / Math.PI : 0;
  return { x: middle.x - width / 2, y: middle.y - height / 2, width, height, rotation, flipV: a * d - b * c < 0 };
}

/** `xfrm` of a shape; `at` moves it, as in a part whose places are told elsewhere. */
export const transformXml = (
  name: 'a:xfrm' | 'p:xfrm',
  { x, y, width, height, rotation, flipV }: Placement,
  at?: { x: number; y: number },
): Xml =>
  el(
    name,
    { rot: angle60000(rotation) || undefined, flipV: flipV ? 1 : undefined },
    el('a:off', { x: emu(at?.x ?? x), y: emu(at?.y ?? y) }),
    el('a:ext', { cx: emu(width), cy: emu(height) }),
  );
