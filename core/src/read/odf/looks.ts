import { hex } from '../../folio/colour.ts';
import type { Gradient, Paint, SolidPaint } from '../../folio/colour.ts';
import type { Effects as EffectsSchema, Stroke } from '../../folio/appearance.ts';
import type { z } from 'zod';

import { multiply, rotation } from '../../folio/geometry.ts';
import type { Matrix, Rect } from '../../folio/geometry.ts';
import { angleOf, colourOf, lengthOf, percentOf } from './lengths.ts';
import type { NotTakenList } from '../../intake/notTaken.ts';
import { onceEach } from './onceEach.ts';
import { decodeName } from './styleSheet.ts';
import type { Definitions } from './styleSheet.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

type Attributes = Record<string, string>;

/** A fill as our items can have it, or a picture that stands in for one that only a picture can show. */
export interface FillLook {
  paint: Paint;
  /** How much of the fill is seen. */
  opacity: number;
  /** A picture by the name of its fill image, or a hatch with the colour of its lines and of what is behind them. */
  image:
    | { kind: 'picture'; name: string; repeats: boolean }
    | { kind: 'hatch'; hatch: XmlElement | undefined; ink: string; back: string | null }
    | null;
}

const NONE: Paint = { type: 'none' };
const solid = (colour: NonNullable<ReturnType<typeof colourOf>>): SolidPaint => ({ type: 'colour', colour });

/** The fill that graphic properties ask for (OpenDocument 1.3 part 3, 16.29: draw:fill), in a box of the item's own space. */
export function fillOf(a: Attributes, definitions: Definitions, box: Rect, list: NotTakenList): FillLook {
  if (a['draw:fill'] === undefined || a['draw:fill'] === 'none') return NO_FILL;
  const { opacity, colour } = plainFill(a);
  const veil = a['draw:opacity-name'] === undefined ? undefined : definitions.opacities.get(a['draw:opacity-name']);
  switch (a['draw:fill']) {
    case 'solid':
      if (veil) return { paint: gradientPaint(veil, box, () => solid(colour), veilStops(veil)), opacity: 1, image: null };
      return { paint: solid(colour), opacity, image: null };
    case 'gradient': {
      const gradient = definitions.gradients.get(a['draw:fill-gradient-name'] ?? '');
      if (!gradient) return { paint: solid(colour), opacity, image: null };
      if (veil) list.add('changed', 'Gradient that fades', 'its colours are taken over, its transparency is not');
      if (['square', 'rectangular'].includes(gradient.attributes['draw:style'] ?? ''))
        list.add('changed', 'Gradient in the form of a square', 'it is shown as a round one');
      return { paint: gradientPaint(gradient, box, (share) => mix(gradient, share), null), opacity, image: null };
    }
    case 'hatch': {
      const hatch = definitions.hatches.get(a['draw:fill-hatch-name'] ?? '');
      const ink = hex(colourOf(hatch?.attributes['draw:color']) ?? colour);
      const back = a['draw:fill-hatch-solid'] === 'true' ? hex(colour) : null;
      return { paint: NONE, opacity, image: { kind: 'hatch', hatch, ink, back } };
    }
    case 'bitmap': {
      const name = a['draw:fill-image-name'] ?? '';
      const repeats = a['style:repeat'] !== 'stretch' && a['style:repeat'] !== 'no-repeat';
      return { paint: NONE, opacity, image: definitions.fillImages.has(name) ? { kind: 'picture', name, repeats } : null };
    }
    default:
      return NO_FILL;
  }
}
const NO_FILL: FillLook = { paint: NONE, opacity: 1, image: null };
const plainFill = onceEach((a: Attributes) => ({
  opacity: percentOf(a['draw:opacity']) ?? 1,
  colour: colourOf(a['draw:fill-color']) ?? { space: 'rgb' as const, r: 0.45, g: 0.62, b: 0.81 },
}));

/** Colours of a gradient from its outer edge (0) to its inner one (1). */
function mix(gradient: XmlElement, share: number): SolidPaint {
  const a = gradient.attributes;
  const from = intensity(colourOf(a['draw:start-color']), percentOf(a['draw:start-intensity']));
  const to = intensity(colourOf(a['draw:end-color']), percentOf(a['draw:end-intensity']));
  const between = (x: number, y: number): number => Math.min(1, Math.max(0, x + (y - x) * share));
  return solid({ space: 'rgb', r: between(from.r, to.r), g: between(from.g, to.g), b: between(from.b, to.b) });
}
const intensity = (colour: ReturnType<typeof colourOf>, share = 1): { r: number; g: number; b: number } => {
  const { r, g, b } = colour ?? { r: 0, g: 0, b: 0 };
  return { r: r * share, g: g * share, b: b * share };
};

/** How opaque a transparency gradient is at its start and its end (14.9 draw:opacity). */
const veilStops = (veil: XmlElement): [number, number] => [
  percentOf(veil.attributes['draw:start']) ?? 1,
  percentOf(veil.attributes['draw:end']) ?? 1,
];

/**
 * A gradient of ours for `draw:gradient` or `draw:opacity` (14.6, 14.9). Linear ones run from the top down before they are
 * turned, against the clock, about the box's middle, over a length that covers the turned box; radial ones run from the
 * outside in, and their circle goes through the box's corners.
 */
function gradientPaint(element: XmlElement, box: Rect, colourAt: (share: number) => SolidPaint, veil: [number, number] | null): Paint {
  const a = element.attributes;
  const border = Math.min(0.99, Math.max(0, percentOf(a['draw:border']) ?? 0));
  const opacityAt = (share: number): number => (veil ? veil[0] + (veil[1] - veil[0]) * share : 1);
  const stop = (offset: number, share: number): Gradient['stops'][number] => ({
    offset,
    paint: colourAt(share),
    opacity: opacityAt(share),
  });
  const angle = angleOf(a['draw:angle'], 'tenths') ?? 0;
  const [width, height] = [Math.max(box.width, 0.01), Math.max(box.height, 0.01)];
  const style = a['draw:style'] ?? 'linear';
  if (style === 'linear' || style === 'axial') {
    const r = (angle * Math.PI) / 180;
    const length = Math.abs(height * Math.cos(r)) + Math.abs(width * Math.sin(r));
    const [cx, cy] = [box.x + width / 2, box.y + height / 2];
    // From (0, 0)–(1, 0) to a line from the top down through the middle, then turned.
    const upright: Matrix = [0, length, -1, 0, cx, cy - length / 2];
    const stops = style === 'linear' ? [stop(border, 0), stop(1, 1)] : [stop(border / 2, 0), stop(0.5, 1), stop(1 - border / 2, 0)];
    return { type: 'gradient', gradient: { kind: 'linear', stops, transform: multiply(rotation(-angle, cx, cy), upright) } };
  }
  const [cx, cy] = [box.x + width * (percentOf(a['draw:cx']) ?? 0.5), box.y + height * (percentOf(a['draw:cy']) ?? 0.5)];
  const round = style === 'radial' || style === 'square';
  const radius = Math.hypot(width, height) / 2;
  const [rx, ry] = round ? [radius, radius] : [width / Math.SQRT2, height / Math.SQRT2];
  const turned = multiply(rotation(-angle, cx, cy), [rx, 0, 0, ry, cx, cy]);
  return { type: 'gradient', gradient: { kind: 'radial', stops: [stop(0, 1), stop(1 - border, 0)], transform: turned } };
}

const MARKERS: [RegExp, Stroke['startMarker']][] = [
  [/circle|round|dot|kreis/i, 'circle'],
  [/dimension|bar|line[ _]?short|strich/i, 'bar'],
];
const JOINS: Record<string, Stroke['join']> = { round: 'round', bevel: 'bevel', miter: 'miter', middle: 'miter', none: 'bevel' };

/** The stroke that graphic properties ask for; null where there is none. */
export function strokeOf(a: Attributes, definitions: Definitions): Stroke | null {
  if (a['draw:stroke'] === undefined || a['draw:stroke'] === 'none') return null;
  const colour = colourOf(a['svg:stroke-color']) ?? { space: 'rgb' as const, r: 0, g: 0, b: 0 };
  // A width of nothing is a hairline: the thinnest line a device can draw (common practice: a quarter point on paper).
  const weight = Math.min(1000, lengthOf(a['svg:stroke-width']) || HAIRLINE);
  return {
    paint: solid(colour),
    weight,
    dashes: a['draw:stroke'] === 'dash' ? dashesOf(definitions.dashes.get(a['draw:stroke-dash'] ?? ''), weight) : [],
    cap: a['svg:stroke-linecap'] === 'round' ? 'round' : a['svg:stroke-linecap'] === 'square' ? 'square' : 'butt',
    join: JOINS[a['draw:stroke-linejoin'] ?? 'miter'] ?? 'miter',
    miterLimit: 4,
    startMarker: markerOf(a['draw:marker-start']),
    endMarker: markerOf(a['draw:marker-end']),
  };
}
const HAIRLINE = 0.25;

/**
 * How much of a line is seen. Files of the standard's first years say 0 % of lines that are drawn in full, as their own
 * pictures show: a line of which nothing is seen is nobody's.
 */
export const strokeOpacityOf = (a: Attributes): number =>
  a['draw:stroke'] === undefined || a['draw:stroke'] === 'none'
    ? 1
    : Math.min(1, Math.max(0, percentOf(a['svg:stroke-opacity']) ?? 1)) || 1;

/** Lists a line that shows through where the item that has it cannot. */
export function listTransparentLine(a: Attributes, list: NotTakenList): void {
  if (strokeOpacityOf(a) < 0.995) list.add('changed', 'Transparent line', 'it is shown opaque');
}

function markerOf(name: string | undefined): Stroke['startMarker'] {
  if (!name) return 'none';
  return MARKERS.find(([pattern]) => pattern.test(decodeName(name)))?.[1] ?? 'arrow';
}

/** Lengths of dashes and gaps of `draw:stroke-dash` (14.8): percentages are of the line's weight. */
function dashesOf(dash: XmlElement | undefined, weight: number): number[] {
  if (!dash) return [];
  const a = dash.attributes;
  const length = (text: string | undefined): number => lengthOf(text) ?? (percentOf(text) ?? 1) * weight;
  const gap = Math.max(0.01, length(a['draw:distance']));
  const out: number[] = [];
  for (const n of ['1', '2']) {
    const count = Math.min(20, Number(a[`draw:dots${n}`] ?? 0) || 0);
    for (let i = 0; i < count; i++) out.push(Math.max(0, length(a[`draw:dots${n}-length`])), gap);
  }
  return out;
}

/** The shadow that graphic properties ask for. */
export const shadowOf = onceEach((a: Attributes): z.infer<typeof EffectsSchema> => {
  if (a['draw:shadow'] !== 'visible') return {};
  const colour = colourOf(a['draw:shadow-color']) ?? { space: 'rgb' as const, r: 0.5, g: 0.5, b: 0.5 };
  const blur = Object.entries(a).find(([name]) => name.endsWith(':shadow-blur'))?.[1];
  return {
    outerShadow: {
      paint: solid(colour),
      opacity: Math.min(1, Math.max(0, percentOf(a['draw:shadow-opacity']) ?? 1)),
      blur: Math.max(0, lengthOf(blur) ?? 0),
      dx: lengthOf(a['draw:shadow-offset-x']) ?? 0,
      dy: lengthOf(a['draw:shadow-offset-y']) ?? 0,
    },
  };
});
