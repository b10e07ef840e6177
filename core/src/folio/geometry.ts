import { z } from 'zod';

/** No number of a schema may be infinite, or none: Zod refuses both. */
const Finite = z.number();

/** `[a b c d e f]`, mapping (x, y) to (a·x + c·y + e, b·x + d·y + f), as in SVG and PDF; y points down. */
export const Matrix = z.tuple([Finite, Finite, Finite, Finite, Finite, Finite]);
export type Matrix = z.infer<typeof Matrix>;

export const Rect = z.object({ x: Finite, y: Finite, width: Finite, height: Finite });
export type Rect = z.infer<typeof Rect>;

export const Size = z.object({ width: Finite.min(0).max(1e6), height: Finite.min(0).max(1e6) });
export type Size = z.infer<typeof Size>;

export interface Point {
  x: number;
  y: number;
}

/** One step of a path, in the item's own space. Curves are cubic. */
export const PathStep = z.union([
  // The commonest first: an alternative that does not hold costs as much as one that does.
  z.tuple([z.enum(['L', 'M']), Finite, Finite]),
  z.tuple([z.literal('C'), Finite, Finite, Finite, Finite, Finite, Finite]),
  z.tuple([z.literal('Z')]),
]);
export type PathStep = z.infer<typeof PathStep>;
export const Path = z.array(PathStep);
export type Path = z.infer<typeof Path>;

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];
export const translation = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];

/** A clockwise turn in degrees about (cx, cy); clockwise because y points down. */
export function rotation(degrees: number, cx = 0, cy = 0): Matrix {
  const r = (degrees * Math.PI) / 180;
  const [c, s] = [Math.cos(r), Math.sin(r)];
  return [c, s, -s, c, cx - c * cx + s * cy, cy - s * cx - c * cy];
}

/** The matrix that applies `inner` first and `outer` second. */
export function multiply(outer: Matrix, inner: Matrix): Matrix {
  const [a, b, c, d, e, f] = outer;
  const [g, h, i, j, k, l] = inner;
  return [a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f];
}

export function invert(m: Matrix): Matrix | null {
  const [a, b, c, d, e, f] = m;
  const det = a * d - b * c;
  if (Math.abs(det) < 1e-12) return null;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

export const apply = (m: Matrix, p: Point): Point => ({
  x: m[0] * p.x + m[2] * p.y + m[4],
  y: m[1] * p.x + m[3] * p.y + m[5],
});

export function boundsOfPoints(points: readonly Point[]): Rect {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const p of points) {
    x0 = Math.min(x0, p.x);
    y0 = Math.min(y0, p.y);
    x1 = Math.max(x1, p.x);
    y1 = Math.max(y1, p.y);
  }
  return points.length ? { x: x0, y: y0, width: x1 - x0, height: y1 - y0 } : { x: 0, y: 0, width: 0, height: 0 };
}

const corners = (r: Rect): Point[] => [
  { x: r.x, y: r.y },
  { x: r.x + r.width, y: r.y },
  { x: r.x + r.width, y: r.y + r.height },
  { x: r.x, y: r.y + r.height },
];

/** The upright box around a transformed rectangle. */
export const transformRect = (m: Matrix, r: Rect): Rect => boundsOfPoints(corners(r).map((p) => apply(m, p)));

/** The upright box around a path; curves are bounded exactly, at the zeros of their derivative. */
export function boundsOfPath(path: Path, m: Matrix = IDENTITY): Rect {
  const points: Point[] = [];
  let at: Point = { x: 0, y: 0 };
  for (const step of path) {
    if (step[0] === 'Z') continue;
    if (step[0] === 'C') {
      const [p1, p2, p3] = [
        apply(m, { x: step[1], y: step[2] }),
        apply(m, { x: step[3], y: step[4] }),
        apply(m, { x: step[5], y: step[6] }),
      ];
      for (const t of [...extremes(at.x, p1.x, p2.x, p3.x), ...extremes(at.y, p1.y, p2.y, p3.y)])
        points.push({ x: cubicAt(at.x, p1.x, p2.x, p3.x, t), y: cubicAt(at.y, p1.y, p2.y, p3.y, t) });
      points.push(p3);
      at = p3;
    } else {
      at = apply(m, { x: step[1], y: step[2] });
      points.push(at);
    }
  }
  return boundsOfPoints(points);
}

/** An outline with a matrix worked into it. */
export const transformPath = (path: Path, m: Matrix): Path =>
  path.map((s): PathStep => {
    const at = (x: number, y: number): [number, number] => {
      const p = apply(m, { x, y });
      return [p.x, p.y];
    };
    if (s[0] === 'Z') return s;
    if (s[0] === 'C') return ['C', ...at(s[1], s[2]), ...at(s[3], s[4]), ...at(s[5], s[6])];
    return [s[0], ...at(s[1], s[2])];
  });

/** The corners of a path with its curves turned into chords no further than `flatness` from them; parts run on into each other. */
export function flattenPath(path: Path, flatness: number): Point[] {
  const out: Point[] = [];
  let at: Point = { x: 0, y: 0 };
  for (const step of path) {
    if (step[0] === 'Z') continue;
    if (step[0] === 'C') {
      const [, ax, ay, bx, by, x, y] = step;
      // The chords' number follows from the second differences of the handles (Wang's bound).
      const bend = Math.max(Math.hypot(at.x - 2 * ax + bx, at.y - 2 * ay + by), Math.hypot(ax - 2 * bx + x, ay - 2 * by + y));
      const chords = Math.min(200, Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / flatness))));
      for (let i = 1; i <= chords; i++) out.push({ x: cubicAt(at.x, ax, bx, x, i / chords), y: cubicAt(at.y, ay, by, y, i / chords) });
      at = { x, y };
    } else {
      at = { x: step[1], y: step[2] };
      out.push(at);
    }
  }
  return out;
}

const cubicAt = (a: number, b: number, c: number, d: number, t: number): number => {
  const u = 1 - t;
  return u * u * u * a + 3 * u * u * t * b + 3 * u * t * t * c + t * t * t * d;
};

function extremes(p0: number, p1: number, p2: number, p3: number): number[] {
  const a = -p0 + 3 * p1 - 3 * p2 + p3;
  const b = 2 * (p0 - 2 * p1 + p2);
  const c = p1 - p0;
  const inside = (t: number): boolean => t > 0 && t < 1;
  if (Math.abs(a) < 1e-12) return Math.abs(b) < 1e-12 ? [] : [-c / b].filter(inside);
  const disc = b * b - 4 * a * c;
  if (disc < 0) return [];
  return [(-b + Math.sqrt(disc)) / (2 * a), (-b - Math.sqrt(disc)) / (2 * a)].filter(inside);
}

export function union(rects: readonly Rect[]): Rect {
  return boundsOfPoints(rects.flatMap(corners));
}

/** Area shared by two rectangles, in square points. */
export function overlap(a: Rect, b: Rect): number {
  const w = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const h = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return w > 0 && h > 0 ? w * h : 0;
}

/** Degrees clockwise and the two scale factors of a matrix, for showing to people. */
export const angleOf = (m: Matrix): number => (Math.atan2(m[1], m[0]) * 180) / Math.PI;
export const isUpright = (m: Matrix): boolean => m[0] === 1 && m[1] === 0 && m[2] === 0 && m[3] === 1;

/** Path data of SVG 2 (section 9.3) for a path, rounded to `decimals`. */
export const pathData = (path: Path, decimals = 3): string =>
  path
    .map(
      (s) =>
        s[0] +
        s
          .slice(1)
          .map((n) => +(n as number).toFixed(decimals))
          .join(' '),
    )
    .join('');

export const rectPath = (r: Rect): Path => [
  ['M', r.x, r.y],
  ['L', r.x + r.width, r.y],
  ['L', r.x + r.width, r.y + r.height],
  ['L', r.x, r.y + r.height],
  ['Z'],
];

/** An ellipse of four cubic curves; 0.5523 is the usual constant for a quarter circle. */
export function ellipsePath(cx: number, cy: number, rx: number, ry: number): Path {
  const k = 0.5522847498;
  return [
    ['M', cx + rx, cy],
    ['C', cx + rx, cy + k * ry, cx + k * rx, cy + ry, cx, cy + ry],
    ['C', cx - k * rx, cy + ry, cx - rx, cy + k * ry, cx - rx, cy],
    ['C', cx - rx, cy - k * ry, cx - k * rx, cy - ry, cx, cy - ry],
    ['C', cx + k * rx, cy - ry, cx + rx, cy - k * ry, cx + rx, cy],
    ['Z'],
  ];
}
