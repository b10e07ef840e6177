import { apply, invert } from '../../../folio/geometry.ts';
import type { Matrix, Point, Rect } from '../../../folio/geometry.ts';
import { hex, solidColour, toRgb } from '../../../folio/colour.ts';
import type { Gradient, Paint, Rgb, SolidPaint, Swatch } from '../../../folio/colour.ts';
import { angle60000, thousandths } from '../lengths.ts';
import type { Xml } from '../../assets/xml.ts';
import { el } from '../../assets/xml.ts';

type Swatches = Record<string, Swatch>;

/** What a paint is laid on: the box of the shape in its own space, before it is turned. */
export interface Ground {
  swatches: Swatches;
  opacity: number;
  box: Rect;
}

const colourOf = (rgb: Rgb, opacity: number): Xml =>
  el('a:srgbClr', { val: hex(rgb).slice(1).toUpperCase() }, opacity < 1 && el('a:alpha', { val: thousandths(opacity) }));

/** A colour of RGB; others become such by the plain formula. */
export function solidColourXml(paint: SolidPaint, swatches: Swatches, opacity = 1): Xml {
  const { colour, tint } = solidColour(paint, swatches);
  return colourOf(toRgb(colour, tint), opacity);
}

/** A fill (ISO/IEC 29500-1, 20.1.8). */
export function fillXml(paint: Paint, ground: Ground): Xml {
  if (paint.type === 'none') return el('a:noFill');
  if (paint.type !== 'gradient') return el('a:solidFill', {}, solidColourXml(paint, ground.swatches, ground.opacity));
  return gradientXml(paint.gradient, ground);
}

interface Stop {
  at: number;
  rgb: Rgb;
  opacity: number;
}

/**
 * The format’s gradients reach over the whole box, ours from point to point: stops are moved to where they are on that way, with
 * the colours of the ends where the box goes on.
 */
function gradientXml({ kind, stops, transform }: Gradient, { swatches, opacity, box }: Ground): Xml {
  const own = stops
    .map((s): Stop => {
      const { colour, tint } = solidColour(s.paint, swatches);
      return { at: s.offset, rgb: toRgb(colour, tint), opacity: s.opacity * opacity };
    })
    .sort((a, b) => a.at - b.at);
  const back = invert(transform);
  const corners = [
    { x: box.x, y: box.y },
    { x: box.x + box.width, y: box.y },
    { x: box.x + box.width, y: box.y + box.height },
    { x: box.x, y: box.y + box.height },
  ];
  const along = back ? corners.map((c) => measureAlong(kind, apply(back, c))) : [0, 1];
  const [from, to] = kind === 'linear' ? [Math.min(...along), Math.max(...along)] : [0, Math.max(...along)];
  const list = el(
    'a:gsLst',
    {},
    within(own, from, to).map((s) => el('a:gs', { pos: thousandths(s.at) }, colourOf(s.rgb, s.opacity))),
  );
  return el(
    'a:gradFill',
    { rotWithShape: 1 },
    list,
    kind === 'linear' ? el('a:lin', { ang: angle60000(directionOf(transform)), scaled: 0 }) : radial(transform, box),
  );
}

const measureAlong = (kind: Gradient['kind'], p: Point): number => (kind === 'linear' ? p.x : Math.hypot(p.x, p.y));

/** The direction in which a linear gradient runs: at right angles to its lines of one colour, whatever the matrix does to them. */
function directionOf([a, b, c, d]: Matrix): number {
  // Lines of one colour run along (c, d); the way across them points to where (a, b) does.
  const across = { x: d, y: -c };
  const sign = across.x * a + across.y * b < 0 ? -1 : 1;
  return (Math.atan2(across.y * sign, across.x * sign) * 180) / Math.PI;
}

/** Round about the middle of the gradient, out to the corner that is farthest from it. */
function radial(transform: Matrix, box: Rect): Xml {
  const share = (n: number, from: number, size: number): number =>
    thousandths(size > 0 ? Math.min(1, Math.max(0, (n - from) / size)) : 0.5);
  const [x, y] = [share(transform[4], box.x, box.width), share(transform[5], box.y, box.height)];
  return el('a:path', { path: 'circle' }, el('a:fillToRect', { l: x, t: y, r: 100_000 - x, b: 100_000 - y }));
}

/** Stops between two places of a gradient, told from 0 to 1 on the way between these. */
function within(stops: readonly Stop[], from: number, to: number): Stop[] {
  const span = to - from || 1;
  const inside = stops.filter((s) => s.at > from && s.at < to).map((s) => ({ ...s, at: (s.at - from) / span }));
  return [{ ...at(stops, from), at: 0 }, ...inside, { ...at(stops, to), at: 1 }];
}

function at(stops: readonly Stop[], where: number): Stop {
  const next = stops.findIndex((s) => s.at >= where);
  if (next === 0) return stops[0]!;
  if (next < 0) return stops[stops.length - 1]!;
  const [a, b] = [stops[next - 1]!, stops[next]!];
  const t = (where - a.at) / (b.at - a.at || 1);
  const mix = (of: (s: Stop) => number): number => of(a) + (of(b) - of(a)) * t;
  return { at: where, rgb: { r: mix((s) => s.rgb.r), g: mix((s) => s.rgb.g), b: mix((s) => s.rgb.b) }, opacity: mix((s) => s.opacity) };
}
