import { multiply } from '../../folio/geometry.ts';
import type { Matrix } from '../../folio/geometry.ts';
import { lengthOf } from './lengths.ts';
import type { NotTakenList } from './notTaken.ts';

type Attributes = Record<string, string>;

/** Ways to show a picture otherwise than it is, by their attributes. */
const CHANGES = [
  ['draw:luminance', 'brightness'],
  ['draw:contrast', 'contrast'],
  ['draw:gamma', 'gamma'],
] as const;

/** Names what a frame does to its picture that ours does not. */
export function listChanges(graphic: Attributes, notTaken: NotTakenList): void {
  const mode = graphic['draw:color-mode'];
  if (mode && mode !== 'standard') notTaken.add('changed', `Picture shown as ${mode}`, 'it is shown in its own colours');
  for (const [name, what] of CHANGES)
    if (graphic[name] && !['0%', '100%'].includes(graphic[name]))
      notTaken.add('changed', `Picture with changed ${what}`, 'it is shown unchanged');
}

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
