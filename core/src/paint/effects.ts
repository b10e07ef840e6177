import type { Effects } from '../folio/appearance.ts';
import type { SolidPaint, Swatch } from '../folio/colour.ts';
import { solidHex } from '../folio/colour.ts';
import type { Matrix, Point, Rect } from '../folio/geometry.ts';
import { attrs, num } from './svg/markup.ts';

type Swatches = Record<string, Swatch>;

/** What of an item's effects a filter shows: all of them with the item, or only what lies under or over it, or where it is not faded. */
export type EffectPart = 'all' | 'under' | 'over' | 'cover';

export const hasEffects = (e: Effects): boolean => Boolean(e.outerShadow ?? e.innerShadow ?? e.glow ?? e.feather);
export const hasUnder = (e: Effects): boolean => Boolean(e.outerShadow ?? e.glow);
export const hasOver = (e: Effects): boolean => Boolean(e.innerShadow);

/** A blur of this many points fades from full to nothing over about as many: its deviation is half of it (as CSS has it). */
const deviation = (blur: number): number => blur / 2;

/** How far effects reach beyond an item's own outline, in points: three deviations of a blur hold all that is seen of it. */
export function effectReach(e: Effects): number {
  const shadow = e.outerShadow ? 1.5 * e.outerShadow.blur + Math.hypot(e.outerShadow.dx, e.outerShadow.dy) : 0;
  // A faded edge reaches nowhere, but some renderers blur wrongly close to where a filter is cut off.
  return Math.max(shadow, 1.5 * (e.glow?.blur ?? 0), 1.5 * (e.feather?.width ?? 0)) + 1;
}

export interface FilterSpace {
  /** What the filter may paint on, in the user space of the element that it is put on, or in shares of its box. */
  region: Rect;
  /** Browsers misplace a region in user space on HTML elements that are zoomed: there it is told in shares of the box. */
  inBox?: boolean;
  /** Units of that space for a point. */
  scale: number;
  /** Turns a shift on the page into one in that space: shadows fall the same way whichever way an item is turned. */
  shift: (d: Point) => Point;
}

/** Shifts stay as they are where a filter works in the page's own space. */
export const unturned = (d: Point): Point => d;

/** The shift of a shadow in the space of an item that is turned, by the inverse of its matrix without its place. */
export function turnedBack(m: Matrix): (d: Point) => Point {
  const [a, b, c, d] = m;
  const det = a * d - b * c;
  return det === 0 ? unturned : ({ x, y }) => ({ x: (d * x - c * y) / det, y: (a * y - b * x) / det });
}

/**
 * An SVG filter for an item's effects (Filter Effects Module 1): shadow and glow under it, its edges faded, the
 * inner shadow over it. Empty where the part asked for has nothing to show.
 */
export function effectFilter(id: string, e: Effects, part: EffectPart, space: FilterSpace, swatches: Swatches): string {
  const { region, scale, shift } = space;
  const n = (points: number): string => num(points * scale, 4);
  const steps: string[] = [];
  const layers: string[] = [];
  const coloured = (paint: SolidPaint, opacity: number, alpha: string, result: string): void => {
    steps.push(
      `<feFlood${attrs({ 'flood-color': solidHex(paint, swatches), 'flood-opacity': opacity })} result="${result}-ink"/>` +
        `<feComposite in="${result}-ink" in2="${alpha}" operator="in" result="${result}"/>`,
    );
    layers.push(result);
  };
  const moved = (s: { dx: number; dy: number }): string => {
    const { x, y } = shift({ x: s.dx, y: s.dy });
    return `dx="${n(x)}" dy="${n(y)}"`;
  };
  const under = part === 'all' || part === 'under';
  const over = part === 'all' || part === 'over';
  if (under && e.glow) {
    steps.push(`<feGaussianBlur in="SourceAlpha" stdDeviation="${n(deviation(e.glow.blur))}" result="glow-a"/>`);
    coloured(e.glow.paint, e.glow.opacity, 'glow-a', 'glow');
  }
  if (under && e.outerShadow) {
    const s = e.outerShadow;
    steps.push(
      `<feOffset in="SourceAlpha" ${moved(s)} result="shadow-o"/><feGaussianBlur in="shadow-o" stdDeviation="${n(deviation(s.blur))}" result="shadow-a"/>`,
    );
    coloured(s.paint, s.opacity, 'shadow-a', 'shadow');
  }
  if ((part === 'all' || part === 'cover') && e.feather && e.feather.width > 0) {
    // Blurred, an edge is half there; what is more than half there, doubled, is nothing at the edge and whole within.
    steps.push(
      `<feGaussianBlur in="SourceAlpha" stdDeviation="${n(deviation(e.feather.width))}" result="blurred"/>` +
        `<feComponentTransfer in="blurred" result="soft"><feFuncA type="linear" slope="2" intercept="-1"/></feComponentTransfer>` +
        `<feComposite in="SourceGraphic" in2="soft" operator="in" result="body"/>`,
    );
    layers.push('body');
  } else if (part === 'all' || part === 'cover') layers.push('SourceGraphic');
  if (over && e.innerShadow) {
    const s = e.innerShadow;
    steps.push(
      `<feComponentTransfer in="SourceAlpha" result="outside"><feFuncA type="linear" slope="-1" intercept="1"/></feComponentTransfer>` +
        `<feOffset in="outside" ${moved(s)} result="inner-o"/><feGaussianBlur in="inner-o" stdDeviation="${n(deviation(s.blur))}" result="inner-b"/>` +
        `<feComposite in="inner-b" in2="SourceAlpha" operator="in" result="inner-a"/>`,
    );
    coloured(s.paint, s.opacity, 'inner-a', 'inner');
  }
  if (!layers.length) return '';
  const merge = layers.map((l) => `<feMergeNode in="${l}"/>`).join('');
  const box = { x: region.x, y: region.y, width: region.width, height: region.height };
  return `<filter${attrs({ id, filterUnits: space.inBox ? 'objectBoundingBox' : 'userSpaceOnUse', ...box })} color-interpolation-filters="sRGB">${steps.join('')}<feMerge>${merge}</feMerge></filter>`;
}

/** The same in shares of a box. */
export const reachedInBox = (width: number, height: number, reach: number): Rect => {
  const [w, h] = [Math.max(width, 1), Math.max(height, 1)];
  return { x: -reach / w, y: -reach / h, width: 1 + (2 * reach) / w, height: 1 + (2 * reach) / h };
};

/** A box grown by the reach of effects, so that a filter cuts nothing off. */
export const reachedBy = (box: Rect, reach: number): Rect => ({
  x: box.x - reach,
  y: box.y - reach,
  width: box.width + 2 * reach,
  height: box.height + 2 * reach,
});
