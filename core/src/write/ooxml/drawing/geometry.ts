import type { Path, Rect } from '../../../folio/geometry.ts';
import { emu } from '../lengths.ts';
import type { Xml } from '../../assets/xml.ts';
import { el } from '../../assets/xml.ts';

/** How near points must be, in points, to make one of the format's own shapes. */
const NEAR = 0.02;
const near = (a: number, b: number): boolean => Math.abs(a - b) <= NEAR;

const preset = (prst: string, adjust?: number): Xml =>
  el('a:prstGeom', { prst }, el('a:avLst', {}, adjust !== undefined && el('a:gd', { name: 'adj', fmla: `val ${adjust}` })));

/** A box with round corners by one of the format's own shapes: their radius as a share of its shorter side (20.1.10.56, roundRect). */
export const roundRectangle = ({ width, height }: { width: number; height: number }, radius: number): Xml =>
  preset('roundRect', Math.round((Math.min(radius, width / 2, height / 2) / Math.min(width, height)) * 100_000));

export const rectangle = (): Xml => preset('rect');

/** An outline in its box: one of the format's own shapes where it is one, else a path (ISO/IEC 29500-1, 20.1.9.8). */
export function geometryXml(path: Path, box: Rect): Xml {
  if (isRectangle(path, box)) return rectangle();
  if (isEllipse(path, box)) return preset('ellipse');
  const point = (x: number, y: number): Xml => el('a:pt', { x: emu(x - box.x), y: emu(y - box.y) });
  const steps = path.map((s): Xml => {
    switch (s[0]) {
      case 'M':
        return el('a:moveTo', {}, point(s[1], s[2]));
      case 'L':
        return el('a:lnTo', {}, point(s[1], s[2]));
      case 'C':
        return el('a:cubicBezTo', {}, point(s[1], s[2]), point(s[3], s[4]), point(s[5], s[6]));
      case 'Z':
        return el('a:close');
    }
  });
  return el(
    'a:custGeom',
    {},
    el('a:avLst'),
    el('a:gdLst'),
    el('a:ahLst'),
    el('a:cxnLst'),
    el('a:rect', { l: 0, t: 0, r: 'r', b: 'b' }),
    el('a:pathLst', {}, el('a:path', { w: emu(box.width), h: emu(box.height) }, steps)),
  );
}

const isClosed = (path: Path): boolean => path[path.length - 1]?.[0] === 'Z';

/** Four corners of its box, one after another. */
function isRectangle(path: Path, box: Rect): boolean {
  const points = path.flatMap((s) => (s[0] === 'M' || s[0] === 'L' ? [{ x: s[1], y: s[2] }] : []));
  if (!isClosed(path) || path.some((s) => s[0] === 'C') || path.filter((s) => s[0] === 'M').length !== 1) return false;
  if (points.length === 5 && near(points[0]!.x, points[4]!.x) && near(points[0]!.y, points[4]!.y)) points.pop();
  if (points.length !== 4) return false;
  const isCorner = (p: { x: number; y: number }): boolean =>
    (near(p.x, box.x) || near(p.x, box.x + box.width)) && (near(p.y, box.y) || near(p.y, box.y + box.height));
  // Neighbours share one side: a bow tie has the same corners.
  const alongSide = points.every((p, i) => {
    const q = points[(i + 1) % 4]!;
    return near(p.x, q.x) !== near(p.y, q.y);
  });
  return points.every(isCorner) && alongSide;
}

/** How far handles of a quarter of a circle are from its ends, as a share of the radius (the usual constant). */
const HANDLE = 0.5522847498;

/** Four quarters around the middle of its box, the handles where those of an ellipse are. */
function isEllipse(path: Path, box: Rect): boolean {
  const curves = path.filter((s) => s[0] === 'C');
  if (!isClosed(path) || curves.length !== 4 || path[0]?.[0] !== 'M' || path.length !== 6) return false;
  const [cx, cy, rx, ry] = [box.x + box.width / 2, box.y + box.height / 2, box.width / 2, box.height / 2];
  const give = 0.01 * Math.max(rx, ry) + NEAR;
  let from = { x: path[0][1], y: path[0][2] };
  return curves.every((s) => {
    const [, ax, ay, bx, by, x, y] = s;
    const onAxis = (p: { x: number; y: number }): boolean =>
      (Math.abs(Math.abs(p.x - cx) - rx) < give && Math.abs(p.y - cy) < give) ||
      (Math.abs(Math.abs(p.y - cy) - ry) < give && Math.abs(p.x - cx) < give);
    const isSide = Math.abs(from.y - cy) < give;
    const first = isSide ? { x: from.x, y: from.y + (y - cy) * HANDLE } : { x: from.x + (x - cx) * HANDLE, y: from.y };
    const second = isSide ? { x: x + (from.x - cx) * HANDLE, y } : { x, y: y + (from.y - cy) * HANDLE };
    const fits =
      onAxis(from) &&
      onAxis({ x, y }) &&
      Math.hypot(ax - first.x, ay - first.y) < 3 * give &&
      Math.hypot(bx - second.x, by - second.y) < 3 * give;
    from = { x, y };
    return fits;
  });
}
