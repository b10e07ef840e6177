import { boundsOfPath, ellipsePath, multiply, rectPath, rotation, transformRect, translation } from '../folio/geometry.ts';
import type { Matrix, Path, Rect } from '../folio/geometry.ts';
import { pointsOfEmu } from './emu.ts';
import { child, childrenOf, within } from './officeParts.ts';
import type { Node } from './officeParts.ts';

/** What a shape of DrawingML looks like: where it is on its page, turned as it is, and its paint. */
export interface DrawnShape {
  /** The upright box of its outline. */
  box: Rect;
  /** Its own box before it is turned, and how it is turned. */
  own: Rect;
  matrix: Matrix;
  /** `#rrggbb`, `gradient`, or null. */
  fill: string | null;
  stroke: string | null;
}

/** A shape whose own box stands at a place; `spPr` says how it is turned, and what it looks like (20.1.7.6, 20.1.9). */
export function drawnShape(spPr: Node | undefined, own: Rect): DrawnShape {
  const { rot, flipV, flipH } = child(spPr, 'a:xfrm')?.attributes ?? {};
  const [cx, cy] = [own.x + own.width / 2, own.y + own.height / 2];
  const [sx, sy] = [flipH === '1' ? -1 : 1, flipV === '1' ? -1 : 1];
  const flipped: Matrix = [sx, 0, 0, sy, cx - sx * cx, cy - sy * cy];
  const matrix = multiply(rotation(Number(rot ?? 0) / 60_000, cx, cy), flipped);
  const path = outline(child(spPr, 'a:custGeom'), own);
  const isRound = child(spPr, 'a:prstGeom')?.attributes['prst'] === 'ellipse';
  const box = path ? boundsOfPath(path, matrix) : isRound ? roundBounds(own, matrix) : transformRect(matrix, own);
  const line = child(spPr, 'a:ln');
  return { box, own, matrix, fill: paintOf(spPr), stroke: line ? paintOf(line) : null };
}

/** The upright box of an ellipse that is turned: half as wide as its matrix makes a unit circle (common knowledge). */
function roundBounds({ x, y, width, height }: Rect, m: Matrix): Rect {
  const [rx, ry] = [width / 2, height / 2];
  const middle = { x: m[0] * (x + rx) + m[2] * (y + ry) + m[4], y: m[1] * (x + rx) + m[3] * (y + ry) + m[5] };
  const [hx, hy] = [Math.hypot(m[0] * rx, m[2] * ry), Math.hypot(m[1] * rx, m[3] * ry)];
  return { x: middle.x - hx, y: middle.y - hy, width: 2 * hx, height: 2 * hy };
}

/** A path in the box of its shape: its own numbers go from 0 to the width and height that it names. */
function outline(geometry: Node | undefined, own: Rect): Path | null {
  const paths = childrenOf(child(geometry, 'a:pathLst'), 'a:path');
  if (!paths.length) return null;
  return paths.flatMap((path): Path => {
    const [w, h] = [Number(path.attributes['w'] ?? 0), Number(path.attributes['h'] ?? 0)];
    const to = multiply(translation(own.x, own.y), [
      w ? own.width / w : pointsOfEmu('1'),
      0,
      0,
      h ? own.height / h : pointsOfEmu('1'),
      0,
      0,
    ]);
    return path.children.map((step): Path[number] => {
      const p = childrenOf(step, 'a:pt').map(({ attributes: a }): [number, number] => {
        const [x, y] = [Number(a['x']), Number(a['y'])];
        return [to[0] * x + to[4], to[3] * y + to[5]];
      });
      if (step.name === 'a:cubicBezTo') return ['C', ...p[0]!, ...p[1]!, ...p[2]!];
      if (step.name === 'a:close') return ['Z'];
      return [step.name === 'a:moveTo' ? 'M' : 'L', ...p[0]!];
    });
  });
}

/** The outline of a shape in its own box. */
export function outlineIn(spPr: Node | undefined, own: Rect): Path {
  const path = outline(child(spPr, 'a:custGeom'), own);
  if (path) return path;
  const preset = child(spPr, 'a:prstGeom');
  const { x, y, width, height } = own;
  if (preset?.attributes['prst'] === 'ellipse') return ellipsePath(x + width / 2, y + height / 2, width / 2, height / 2);
  if (preset?.attributes['prst'] !== 'roundRect') return rectPath(own);
  const adjust = Number(/(\d+)/.exec(childrenOf(child(preset, 'a:avLst'), 'a:gd')[0]?.attributes['fmla'] ?? '')?.[1] ?? 16_667);
  const r = (adjust / 100_000) * Math.min(width, height);
  // Handles of a quarter of a circle (the usual constant).
  const k = r * (1 - 0.5522847498);
  const [right, bottom] = [x + width, y + height];
  return [
    ['M', x + r, y],
    ['L', right - r, y],
    ['C', right - k, y, right, y + k, right, y + r],
    ['L', right, bottom - r],
    ['C', right, bottom - k, right - k, bottom, right - r, bottom],
    ['L', x + r, bottom],
    ['C', x + k, bottom, x, bottom - k, x, bottom - r],
    ['L', x, y + r],
    ['C', x, y + k, x + k, y, x + r, y],
    ['Z'],
  ];
}

function paintOf(around: Node | undefined): string | null {
  if (child(around, 'a:gradFill')) return 'gradient';
  const colour = child(child(around, 'a:solidFill'), 'a:srgbClr')?.attributes['val'];
  return colour === undefined ? null : `#${colour.toLowerCase()}`;
}

/** An anchor’s own box on its page; null where it is anchored to something else. */
export function anchorBox(anchor: Node): Rect | null {
  const at = (axis: string): number | null => {
    const position = child(anchor, axis);
    const offset = child(position, 'wp:posOffset')?.text;
    return position?.attributes['relativeFrom'] === 'page' && offset !== undefined ? pointsOfEmu(offset) : null;
  };
  const [x, y] = [at('wp:positionH'), at('wp:positionV')];
  const size = child(anchor, 'wp:extent')?.attributes;
  return x === null || y === null ? null : { x, y, width: pointsOfEmu(size?.['cx']), height: pointsOfEmu(size?.['cy']) };
}

/** The box of the whole of a picture of which a part is shown (20.1.8.55, srcRect: thousandths of a per cent). */
export function wholePicture(own: Rect, blipFill: Node | undefined): Rect {
  const a = child(blipFill, 'a:srcRect')?.attributes ?? {};
  const share = (side: string): number => Number(a[side] ?? 0) / 100_000;
  const [l, t, r, b] = [share('l'), share('t'), share('r'), share('b')];
  const [width, height] = [own.width / (1 - l - r), own.height / (1 - t - b)];
  return { x: own.x - l * width, y: own.y - t * height, width, height };
}

export const isDecorative = (docPr: Node | undefined): boolean =>
  docPr !== undefined && [...within(docPr)].some((n) => n.name === 'adec:decorative' && n.attributes['val'] === '1');

/** Drawings that are anchored in a paragraph: those of today’s programs, where there are older ones beside them. */
export function anchorsIn(node: Node): Node[] {
  if (node.name === 'wp:anchor') return [node];
  return node.children.flatMap((c) => (c.name === 'mc:Fallback' ? [] : anchorsIn(c)));
}
