import svgpath from 'svgpath';
import type { Path } from '../../../folio/geometry.ts';

/** More steps than this are no drawing but an attack, or a picture that somebody traced: they would take minutes to paint. */
const MOST_STEPS = 200_000;

/** SVG path data (SVG 1.1, 8.3) as a path of lines and cubic curves; null where it is not path data. */
export function readPathData(d: string): Path | null {
  // What its types leave out: an error instead of segments.
  const parsed = svgpath(d) as ReturnType<typeof svgpath> & { err: string; segments: unknown[] };
  if (parsed.err || parsed.segments.length > MOST_STEPS) return null;
  const out: Path = [];
  parsed
    .abs()
    .unshort()
    .unarc()
    .iterate((segment, _, x, y) => {
      const [kind, ...n] = segment as [string, ...number[]];
      switch (kind) {
        case 'M':
          out.push(['M', n[0]!, n[1]!]);
          break;
        case 'L':
          out.push(['L', n[0]!, n[1]!]);
          break;
        case 'H':
          out.push(['L', n[0]!, y]);
          break;
        case 'V':
          out.push(['L', x, n[0]!]);
          break;
        case 'C':
          out.push(['C', n[0]!, n[1]!, n[2]!, n[3]!, n[4]!, n[5]!]);
          break;
        case 'Q':
          // A quadratic curve as the cubic that is the same (degree elevation).
          out.push([
            'C',
            x + (2 / 3) * (n[0]! - x),
            y + (2 / 3) * (n[1]! - y),
            n[2]! + (2 / 3) * (n[0]! - n[2]!),
            n[3]! + (2 / 3) * (n[1]! - n[3]!),
            n[2]!,
            n[3]!,
          ]);
          break;
        case 'Z':
        case 'z':
          out.push(['Z']);
          break;
      }
    });
  return out.every((step) => step.slice(1).every((n) => Number.isFinite(n))) ? out : null;
}

/** No outline reaches further, in points: what seems to is nonsense, and would break what is worked out from it. */
const FURTHEST = 1e6;
export const isDrawable = (path: Path): boolean => path.every((step) => step.slice(1).every((n) => Math.abs(n as number) <= FURTHEST));

/** The points of `draw:points` (19.237: pairs of integers), joined by lines. */
export function readPoints(points: string, closed: boolean): Path | null {
  const numbers = points
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (numbers.length < 4 || numbers.length > 2 * MOST_STEPS || numbers.some((n) => !Number.isFinite(n))) return null;
  const out: Path = [];
  for (let i = 0; i + 1 < numbers.length; i += 2) out.push([i ? 'L' : 'M', numbers[i]!, numbers[i + 1]!]);
  if (closed) out.push(['Z']);
  return out;
}

/** `svg:viewBox` (19.570): origin and size in the path's own units. */
export function readViewBox(text: string | undefined): { x: number; y: number; width: number; height: number } | null {
  const n = (text ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (n.length !== 4 || n.some((v) => !Number.isFinite(v)) || n[2]! <= 0 || n[3]! <= 0) return null;
  return { x: n[0]!, y: n[1]!, width: n[2]!, height: n[3]! };
}
