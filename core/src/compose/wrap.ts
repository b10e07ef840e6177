import type { Folio } from '../folio/folio.ts';
import type { Item, TextFrame } from '../folio/items.ts';
import type { Spread } from '../folio/spread.ts';
import { apply, boundsOfPoints, flattenPath, invert, multiply, rectPath } from '../folio/geometry.ts';
import type { Path, Point } from '../folio/geometry.ts';
import { isOnHiddenLayer, itemBounds } from '../folio/traverse.ts';

/** Something that text of a frame keeps clear of, as a polygon in the frame's space. */
export interface Obstacle {
  polygon: Point[];
  top: number;
  bottom: number;
  kind: 'box' | 'shape' | 'jump';
  side: Item['wrap']['side'];
  offset: number;
}

/** Text is not set into gaps narrower than this, in points (common practice: about two ems). */
const NARROWEST = 20;
/** How far a flattened curve may lie from the curve, in points. */
const FLATNESS = 0.25;

const outlineFor = (spread: Spread, item: Item): Path => {
  if (item.wrap.kind === 'shape' && item.kind === 'shape') return item.path;
  if (item.wrap.kind === 'shape' && item.kind === 'picture' && item.clip) return item.clip;
  if (item.kind === 'shape' || item.kind === 'group') return rectPath(itemBounds(spread.items, { ...item, transform: [1, 0, 0, 1, 0, 0] }));
  return rectPath({ x: 0, y: 0, ...item.size });
};

/** What the text of a frame keeps clear of: items of its spread that ask for it and are shown. */
export function obstaclesFor(folio: Folio, spread: Spread, frame: TextFrame): Obstacle[] {
  const back = invert(frame.transform);
  if (!back) return [];
  const out: Obstacle[] = [];
  for (const item of Object.values(spread.items)) {
    if (item.wrap.kind === 'none' || item.id === frame.id || isOnHiddenLayer(folio, item)) continue;
    const matrix = item.kind === 'group' ? back : multiply(back, item.transform);
    const polygon = flattenPath(outlineFor(spread, item), FLATNESS).map((p) => apply(matrix, p));
    const box = boundsOfPoints(polygon);
    const { offset } = item.wrap;
    if (
      box.x - offset > frame.size.width ||
      box.x + box.width + offset < 0 ||
      box.y - offset > frame.size.height ||
      box.y + box.height + offset < 0
    )
      continue;
    out.push({ polygon, top: box.y - offset, bottom: box.y + box.height + offset, kind: item.wrap.kind, side: item.wrap.side, offset });
  }
  return out;
}

/** The stretch of x that a polygon covers between two heights, or null where it lies outside them. */
export function coveredBetween(polygon: readonly Point[], top: number, bottom: number): [number, number] | null {
  let [least, most] = [Infinity, -Infinity];
  const take = (x: number): void => {
    least = Math.min(least, x);
    most = Math.max(most, x);
  };
  polygon.forEach((a, i) => {
    const b = polygon[(i + 1) % polygon.length]!;
    if (Math.max(a.y, b.y) < top || Math.min(a.y, b.y) > bottom) return;
    for (const y of [top, bottom])
      if (a.y !== b.y && y >= Math.min(a.y, b.y) && y <= Math.max(a.y, b.y)) take(a.x + ((b.x - a.x) * (y - a.y)) / (b.y - a.y));
    for (const p of [a, b]) if (p.y >= top && p.y <= bottom) take(p.x);
  });
  return least <= most ? [least, most] : null;
}

/** Where a line between two heights may stand in a column from `left` to `right`; empty where nothing is left. */
export function freeIntervals(
  obstacles: readonly Obstacle[],
  left: number,
  right: number,
  top: number,
  bottom: number,
): { x: number; width: number }[] {
  let free: [number, number][] = [[left, right]];
  for (const o of obstacles) {
    if (bottom <= o.top || top >= o.bottom) continue;
    if (o.kind === 'jump') return [];
    const covered = coveredBetween(o.polygon, top - o.offset, bottom + o.offset);
    if (!covered) continue;
    const [from, to] = [covered[0] - o.offset, covered[1] + o.offset];
    free = free.flatMap(([a, b]): [number, number][] => {
      if (to <= a || from >= b) return [[a, b]];
      const before: [number, number] = [a, Math.max(a, from)];
      const after: [number, number] = [Math.min(b, to), b];
      if (o.side === 'left') return [before];
      if (o.side === 'right') return [after];
      if (o.side === 'largest') return [before[1] - before[0] >= after[1] - after[0] ? before : after];
      return [before, after];
    });
  }
  return free.filter(([a, b]) => b - a >= NARROWEST).map(([a, b]) => ({ x: a - left, width: b - a }));
}
