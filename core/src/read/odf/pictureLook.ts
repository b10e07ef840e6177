import { multiply } from '../../folio/geometry.ts';
import type { Matrix } from '../../folio/geometry.ts';
import { lengthOf } from './lengths.ts';

type Attributes = Record<string, string>;

/** The unit square's way to the frame: the part that `fo:clip` leaves fills it, `style:mirror` turns it over. */
export function placementOf(graphic: Attributes, width: number, height: number, natural: { width: number; height: number }): Matrix {
  const cut = /^rect\(([^)]*)\)$/.exec((graphic['fo:clip'] ?? '').trim())?.[1];
  const [top = 0, right = 0, bottom = 0, left = 0] = (cut ?? '')
    .split(/[,\s]+/)
    .filter(Boolean)
    .map((l) => lengthOf(l) ?? 0);
  const [w, h] = [natural.width - left - right, natural.height - top - bottom];
  let out: Matrix = [width, 0, 0, height, 0, 0];
  if (cut !== undefined && w > 0.1 && h > 0.1) {
    const [sx, sy] = [width / w, height / h];
    out = [natural.width * sx, 0, 0, natural.height * sy, -left * sx, -top * sy];
  }
  const mirror = graphic['style:mirror'] ?? '';
  if (mirror.includes('horizontal')) out = multiply([-1, 0, 0, 1, width, 0], out);
  if (mirror.includes('vertical')) out = multiply([1, 0, 0, -1, 0, height], out);
  return out;
}
