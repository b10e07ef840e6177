import { boundsOfPath, ellipsePath, rectPath } from '../../folio/geometry.ts';
import type { Path, Rect } from '../../folio/geometry.ts';
import { arcSteps, pointAt } from './geometry/arcs.ts';
import { isDrawable, readPathData, readPoints, readViewBox } from './geometry/pathData.ts';
import { angleOf, integerOf, percentOf } from './lengths.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** The outline of a drawing element in its own space, from its box's top left (OpenDocument 1.3 part 3, 10.3); null: it has none. */
export function pathOf(element: XmlElement, width: number, height: number): Path | null {
  const a = element.attributes;
  switch (element.name) {
    case 'draw:rect':
      return rectPath({ x: 0, y: 0, width, height });
    case 'draw:ellipse':
    case 'draw:circle':
      return ellipseOf(a, width, height);
    case 'draw:polyline':
    case 'draw:polygon':
      return fitted(readPoints(a['draw:points'] ?? '', element.name === 'draw:polygon'), readViewBox(a['svg:viewBox']), width, height);
    case 'draw:path':
      return fitted(readPathData(a['svg:d'] ?? ''), readViewBox(a['svg:viewBox']), width, height);
    case 'draw:regular-polygon':
      return regularPolygon(a, width, height);
    default:
      return null;
  }
}

/** A path in the units of its view box, brought to a size. A box without height or width leaves that direction as it is. */
function fitted(path: Path | null, viewBox: Rect | null, width: number, height: number): Path | null {
  if (!path) return null;
  const box = viewBox ?? boundsOfPath(path);
  const [sx, sy] = [box.width > 0 ? width / box.width : 1, box.height > 0 ? height / box.height : 1];
  const placed = path.map((step) =>
    step[0] === 'Z'
      ? step
      : ([step[0], ...step.slice(1).map((n, i) => (i % 2 ? ((n as number) - box.y) * sy : ((n as number) - box.x) * sx))] as Path[number]),
  );
  return isDrawable(placed) ? placed : null;
}

/** A whole ellipse, or a part of one: a slice, what a chord cuts off, or the curve alone. Angles run against the clock. */
function ellipseOf(a: Record<string, string>, width: number, height: number): Path {
  const [rx, ry] = [width / 2, height / 2];
  const kind = a['draw:kind'] ?? 'full';
  const [start, end] = [angleOf(a['draw:start-angle']) ?? 0, angleOf(a['draw:end-angle']) ?? 360];
  if (kind === 'full') return ellipsePath(rx, ry, rx, ry);
  let sweep = (((end - start) % 360) + 360) % 360;
  if (sweep === 0) sweep = 360;
  const from = -start;
  const [x, y] = pointAt(rx, ry, rx, ry, from);
  const curve = arcSteps(rx, ry, rx, ry, from, from - sweep);
  if (kind === 'arc') return [['M', x, y], ...curve];
  if (kind === 'cut') return [['M', x, y], ...curve, ['Z']];
  return [['M', rx, ry], ['L', x, y], ...curve, ['Z']];
}

/** Corners on the ellipse in the box, the first at its top; a star has as many again further in (19.136, 19.212). */
function regularPolygon(a: Record<string, string>, width: number, height: number): Path {
  const corners = Math.min(1000, Math.max(3, integerOf(a['draw:corners']) ?? 3));
  const star = a['draw:concave'] === 'true';
  const inner = 1 - Math.min(1, Math.max(0, percentOf(a['draw:sharpness']) ?? 0));
  const count = star ? 2 * corners : corners;
  const path: Path = [];
  for (let i = 0; i < count; i++) {
    const share = star && i % 2 ? inner : 1;
    const [x, y] = pointAt(width / 2, height / 2, (width / 2) * share, (height / 2) * share, (360 * i) / count - 90);
    path.push([i ? 'L' : 'M', x, y]);
  }
  return [...path, ['Z']];
}
