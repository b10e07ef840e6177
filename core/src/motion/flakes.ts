import { flattenPath, rectPath } from '../folio/geometry.ts';
import type { Path, Point, Rect } from '../folio/geometry.ts';
import type { Veil } from '../folio/items.ts';
import { PT_PER_PX } from '../folio/units.ts';

/** Pages are shown at this part of their size at least, without the player's help (a page of A4 on a phone: 320 of 595 px). */
const SMALLEST_SCALE = 0.5;

/**
 * The least overlap of flakes, in points, at which no seam between them lets through what lies below, down to a scale. A
 * pixel of the screen is covered where one flake covers all of it: two flakes that overlap by a whole pixel leave none
 * between them. In half size that is 2 px (common practice: squares of 36 px, 34 px apart).
 */
export const leastOverlap = (scale = SMALLEST_SCALE): number => PT_PER_PX / scale;

export interface FlakeGrid {
  /** Side of a flake and how far apart they begin, in points. */
  size: number;
  pitch: number;
  /** The columns of the flakes that are needed, row by row. */
  rows: number[][];
}

/** More flakes than this slow a page down: then they are larger. */
const MOST_FLAKES = 1600;

/** The area that a veil covers, in its own space. */
export const areaOf = (veil: Pick<Veil, 'size' | 'outline'>): Path => veil.outline ?? rectPath({ x: 0, y: 0, ...veil.size });

/** Which flakes a veil needs, from its top left: those that touch its area. */
export function flakeGrid(veil: Pick<Veil, 'size' | 'outline' | 'flakeSize' | 'flakeOverlap'>): FlakeGrid {
  const { width, height } = veil.size;
  const least = Math.sqrt((width * height) / MOST_FLAKES);
  const pitch = Math.max(veil.flakeSize - (veil.flakeOverlap ?? leastOverlap()), least, 1);
  const size = Math.max(veil.flakeSize, pitch + (veil.flakeOverlap ?? leastOverlap()));
  const count = (length: number): number => Math.max(1, Math.ceil((length - size) / pitch) + 1);
  const [columns, rows] = [count(width), count(height)];
  const outlines = veil.outline ? polygons(veil.outline) : null;
  const needed = (column: number, row: number): boolean => {
    // What reaches over into the next flake is covered by that one; the last of a row covers all that is left.
    const cell = {
      x: column * pitch,
      y: row * pitch,
      width: column === columns - 1 ? size : pitch,
      height: row === rows - 1 ? size : pitch,
    };
    return !outlines || touches(outlines, cell);
  };
  return {
    size,
    pitch,
    rows: Array.from({ length: rows }, (_, row) => Array.from({ length: columns }, (_, c) => c).filter((c) => needed(c, row))),
  };
}

/** The parts of a path, each as a polygon. */
function polygons(path: Path): Point[][] {
  const parts: Path[] = [];
  for (const step of path) {
    if (step[0] === 'M') parts.push([]);
    parts.at(-1)?.push(step);
  }
  return parts.map((p) => flattenPath(p, 0.5)).filter((p) => p.length > 2);
}

/** Whether some of an area (even-odd) lies in a box. */
function touches(outlines: readonly Point[][], box: Rect): boolean {
  const inBox = ({ x, y }: Point): boolean => x > box.x && x < box.x + box.width && y > box.y && y < box.y + box.height;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  if (isInside(outlines, middle)) return true;
  return outlines.some((polygon) =>
    polygon.some((a, i) => {
      const b = polygon[(i + 1) % polygon.length]!;
      return inBox(a) || crosses(a, b, box);
    }),
  );
}

/** Even-odd rule over all parts. */
function isInside(outlines: readonly Point[][], p: Point): boolean {
  let inside = false;
  for (const polygon of outlines)
    polygon.forEach((a, i) => {
      const b = polygon[(i + 1) % polygon.length]!;
      if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
    });
  return inside;
}

/** Whether a straight line goes through the inside of a box (Liang and Barsky's clipping, 1984). */
function crosses(a: Point, b: Point, box: Rect): boolean {
  let [from, to] = [0, 1];
  const sides: [number, number][] = [
    [a.x - b.x, a.x - box.x],
    [b.x - a.x, box.x + box.width - a.x],
    [a.y - b.y, a.y - box.y],
    [b.y - a.y, box.y + box.height - a.y],
  ];
  for (const [p, q] of sides) {
    if (p === 0) {
      if (q <= 0) return false;
    } else if (p < 0) from = Math.max(from, q / p);
    else to = Math.min(to, q / p);
  }
  return to - from > 1e-9;
}
