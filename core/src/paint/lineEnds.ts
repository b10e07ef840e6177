import type { Stroke } from '../folio/appearance.ts';
import type { Path, PathStep, Point } from '../folio/geometry.ts';
import { ellipsePath } from '../folio/geometry.ts';

/** Sizes of what stands at the ends of a line, in widths of the line. */
const ARROW = { length: 4, width: 3 };
const CIRCLE_RADIUS = 1.75;
const BAR = { length: 5, width: 1 };

type Marker = Stroke['startMarker'];
export interface MarkedLine {
  /** The line to stroke: cut back where an arrow head stands, so that its blunt end does not show beside the tip. */
  line: Path;
  /** Outlines at its ends, to be filled with the stroke's paint. */
  ends: Path;
}

/** What a stroke with arrow heads, circles or bars at its ends consists of. Closed outlines have no ends. */
export function markedLine(path: Path, stroke: Stroke): MarkedLine {
  const { startMarker, endMarker, weight } = stroke;
  if (startMarker === 'none' && endMarker === 'none') return { line: path, ends: [] };
  const line: Path = [];
  const ends: Path = [];
  for (const part of openParts(path)) {
    if (part.closed) {
      line.push(...part.steps);
      continue;
    }
    let { steps } = part;
    const mark = (marker: Marker): void => {
      if (marker === 'none' || steps.length < 2) return;
      const cut = marker === 'arrow' ? ARROW.length * weight : 0;
      const { tip, back, rest } = endOf(steps, cut);
      ends.push(...outline(marker, tip, back, weight));
      if (cut) steps = rest;
    };
    mark(endMarker);
    steps = reversed(steps);
    mark(startMarker);
    line.push(...reversed(steps));
  }
  return { line, ends };
}

/** A path's parts, each from a move on. */
function openParts(path: Path): { steps: Path; closed: boolean }[] {
  const parts: { steps: Path; closed: boolean }[] = [];
  for (const step of path) {
    if (step[0] === 'M' || !parts.length) parts.push({ steps: [], closed: false });
    const part = parts[parts.length - 1]!;
    part.steps.push(step);
    part.closed ||= step[0] === 'Z';
  }
  return parts;
}

const pointOf = (step: PathStep): Point =>
  step[0] === 'C' ? { x: step[5], y: step[6] } : step[0] === 'Z' ? { x: 0, y: 0 } : { x: step[1], y: step[2] };

/** The same line drawn from its end to its start. */
function reversed(steps: Path): Path {
  const out: Path = [];
  for (let i = steps.length - 1; i >= 0; i--) {
    const [step, to] = [steps[i]!, steps[i - 1]];
    const at = pointOf(step);
    if (!out.length) out.push(['M', at.x, at.y]);
    if (!to) break;
    const before = pointOf(to);
    if (step[0] === 'C') out.push(['C', step[3], step[4], step[1], step[2], before.x, before.y]);
    else out.push(['L', before.x, before.y]);
  }
  return out;
}

/** A line's last point, the point `distance` before it along its last step, and the line up to there. */
function endOf(steps: Path, distance: number): { tip: Point; back: Point; rest: Path } {
  const last = steps[steps.length - 1]!;
  const [from, tip] = [pointOf(steps[steps.length - 2]!), pointOf(last)];
  const before = steps.slice(0, -1);
  if (last[0] !== 'C') {
    const length = Math.hypot(tip.x - from.x, tip.y - from.y);
    // Shorter than its own head: a hair of the line stays, to give the head its direction.
    const t = length ? Math.max(0.02, 1 - (distance * 0.9) / length) : 0;
    const cut = { x: from.x + (tip.x - from.x) * t, y: from.y + (tip.y - from.y) * t };
    return { tip, back: distance ? cut : from, rest: [...before, ['L', cut.x, cut.y]] };
  }
  const [p1, p2] = [
    { x: last[1], y: last[2] },
    { x: last[3], y: last[4] },
  ];
  let [low, high] = [0, 1];
  for (let i = 0; i < 30; i++) {
    const t = (low + high) / 2;
    const at = split(from, p1, p2, tip, t).at;
    if (Math.hypot(tip.x - at.x, tip.y - at.y) > Math.max(distance * 0.9, 1e-3)) low = t;
    else high = t;
  }
  const { a, b, at } = split(from, p1, p2, tip, Math.max(0.02, low));
  return { tip, back: at, rest: [...before, ['C', a.x, a.y, b.x, b.y, at.x, at.y]] };
}

/** The handles and the end of the first part of a cubic curve divided at `t` (de Casteljau). */
function split(p0: Point, p1: Point, p2: Point, p3: Point, t: number): { a: Point; b: Point; at: Point } {
  const mix = (p: Point, q: Point): Point => ({ x: p.x + (q.x - p.x) * t, y: p.y + (q.y - p.y) * t });
  const [a, m, c] = [mix(p0, p1), mix(p1, p2), mix(p2, p3)];
  const b = mix(a, m);
  return { a, b, at: mix(b, mix(m, c)) };
}

function outline(marker: Exclude<Marker, 'none'>, tip: Point, back: Point, weight: number): Path {
  if (marker === 'circle') return ellipsePath(tip.x, tip.y, CIRCLE_RADIUS * weight, CIRCLE_RADIUS * weight);
  const length = Math.hypot(tip.x - back.x, tip.y - back.y) || 1;
  const [dx, dy] = [(tip.x - back.x) / length, (tip.y - back.y) / length];
  /** A point `along` the line beyond its tip and `across` it, in widths of the line. */
  const at = (along: number, across: number): [number, number] => [
    tip.x + (dx * along - dy * across) * weight,
    tip.y + (dy * along + dx * across) * weight,
  ];
  const corners: [number, number][] =
    marker === 'arrow'
      ? [at(0, 0), at(-ARROW.length, ARROW.width / 2), at(-ARROW.length, -ARROW.width / 2)]
      : [
          at(BAR.width / 2, BAR.length / 2),
          at(BAR.width / 2, -BAR.length / 2),
          at(-BAR.width / 2, -BAR.length / 2),
          at(-BAR.width / 2, BAR.length / 2),
        ];
  return [...corners.map(([x, y], i): PathStep => [i ? 'L' : 'M', x, y]), ['Z']];
}
