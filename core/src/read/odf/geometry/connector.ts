import { boundsOfPath } from '../../../folio/geometry.ts';
import type { Path, Rect } from '../../../folio/geometry.ts';
import { isDrawable, readPathData } from './pathData.ts';

/** Points in a hundredth of a millimetre. */
const HUNDREDTH = 72 / 2540;

/**
 * A connector's curve as it was saved (19.571 svg:d), in points of the page: it begins and ends at the connector's own ends,
 * and is counted in hundredths of a millimetre. Null where it cannot be read or does not lead from one end to the other.
 */
export function connectorPath(d: string, from: { x: number; y: number }, to: { x: number; y: number }): Path | null {
  const path = readPathData(d);
  const first = path?.[0];
  if (!path || first?.[0] !== 'M' || path.length < 2) return null;
  const [dx, dy] = [from.x - first[1] * HUNDREDTH, from.y - first[2] * HUNDREDTH];
  const placed = path.map((step) =>
    step[0] === 'Z' ? step : ([step[0], ...step.slice(1).map((n, i) => (n as number) * HUNDREDTH + (i % 2 ? dy : dx))] as Path[number]),
  );
  if (!isDrawable(placed)) return null;
  const last = placed.findLast((s) => s[0] !== 'Z')!;
  const end = { x: last[last.length - 2] as number, y: last[last.length - 1] as number };
  const box: Rect = boundsOfPath(placed);
  return Math.hypot(end.x - to.x, end.y - to.y) < 2 + 0.02 * Math.hypot(box.width, box.height) ? placed : null;
}
