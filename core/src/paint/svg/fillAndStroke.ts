import type { Paint, Swatch } from '../../folio/colour.ts';
import { solidHex } from '../../folio/colour.ts';
import type { Stroke } from '../../folio/appearance.ts';
import { pathData } from '../../folio/geometry.ts';
import type { Path } from '../../folio/geometry.ts';
import { markedLine } from '../lineEnds.ts';
import { attrs, num } from './markup.ts';
import type { Attributes } from './markup.ts';

type Swatches = Record<string, Swatch>;

/** SVG attributes for a fill or stroke paint, with the gradient definition it may need. */
function paintAttribute(paint: Paint, swatches: Swatches, gradientId: string): { value: string; defs: string } {
  if (paint.type === 'none') return { value: 'none', defs: '' };
  if (paint.type !== 'gradient') return { value: solidHex(paint, swatches), defs: '' };
  const { kind, stops, transform } = paint.gradient;
  const inner = stops
    .map(
      (s) =>
        `<stop${attrs({ offset: s.offset, 'stop-color': solidHex(s.paint, swatches), 'stop-opacity': s.opacity === 1 ? undefined : s.opacity })}/>`,
    )
    .join('');
  const common = {
    id: gradientId,
    gradientUnits: 'userSpaceOnUse',
    gradientTransform: `matrix(${transform.map((n) => num(n, 5)).join(' ')})`,
  };
  const defs =
    kind === 'linear'
      ? `<linearGradient${attrs({ ...common, x1: 0, y1: 0, x2: 1, y2: 0 })}>${inner}</linearGradient>`
      : `<radialGradient${attrs({ ...common, cx: 0, cy: 0, r: 1 })}>${inner}</radialGradient>`;
  return { value: `url(#${gradientId})`, defs };
}

function strokeAttributes(stroke: Stroke, swatches: Swatches, gradientId: string): { attributes: Attributes; defs: string } {
  const { value, defs } = paintAttribute(stroke.paint, swatches, gradientId);
  return {
    defs,
    attributes: {
      stroke: value,
      'stroke-width': stroke.weight,
      'stroke-dasharray': stroke.dashes.length ? stroke.dashes.map((d) => num(d)).join(' ') : undefined,
      'stroke-linecap': stroke.cap === 'butt' ? undefined : stroke.cap,
      'stroke-linejoin': stroke.join === 'miter' ? undefined : stroke.join,
      'stroke-miterlimit': stroke.join === 'miter' && stroke.miterLimit !== 4 ? stroke.miterLimit : undefined,
    },
  };
}

/** One `<path>` for an outline with its fill and stroke, empty where neither shows. */
export function pathElement(
  id: string,
  path: Path,
  fill: Paint,
  stroke: Stroke | null,
  swatches: Swatches,
  fillRule: 'nonzero' | 'evenodd' = 'nonzero',
): string {
  const inked = stroke && stroke.weight > 0 && stroke.paint.type !== 'none' ? stroke : null;
  if (fill.type === 'none' && !inked) return '';
  const f = paintAttribute(fill, swatches, `${id}-fill`);
  const s = inked ? strokeAttributes(inked, swatches, `${id}-stroke`) : { attributes: {}, defs: '' };
  const defs = f.defs + s.defs;
  const { line, ends } = inked ? markedLine(path, inked) : { line: path, ends: [] };
  const rule = fillRule === 'evenodd' ? 'evenodd' : undefined;
  // A line that is cut back for its ends is no longer the outline of the fill.
  const elements =
    line !== path && fill.type !== 'none'
      ? `<path${attrs({ d: pathData(path), fill: f.value, 'fill-rule': rule })}/><path${attrs({ d: pathData(line), fill: 'none', ...s.attributes })}/>`
      : `<path${attrs({ d: pathData(line), fill: f.value, 'fill-rule': rule, ...s.attributes })}/>`;
  const marks = ends.length ? `<path${attrs({ d: pathData(ends), fill: s.attributes.stroke })}/>` : '';
  return `${defs ? `<defs>${defs}</defs>` : ''}${elements}${marks}`;
}
