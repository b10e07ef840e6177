import type { FrameBox } from '../compose/marks.ts';
import type { Stroke } from '../folio/appearance.ts';
import type { Item } from '../folio/items.ts';
import type { Path } from '../folio/geometry.ts';
import { rectPath } from '../folio/geometry.ts';

/** The outline that an item's fill and stroke follow, in the item's own space; corners shaped. */
export function outlineOf(item: Item): Path {
  if (item.kind === 'shape') return item.path;
  if (item.kind === 'group') return [];
  const { width: w, height: h } = item.size;
  const r = Math.min(item.corner?.radius ?? 0, w / 2, h / 2);
  if (!item.corner || r <= 0) return rectPath({ x: 0, y: 0, width: w, height: h });
  // A round corner bulges to the outside (k towards the corner), an inverse one to the inside.
  const k = item.corner.kind === 'round' ? 0.4477152502 : 0;
  const bend = (x0: number, y0: number, cx: number, cy: number, x1: number, y1: number): Path => {
    if (item.corner!.kind === 'bevel') return [['L', x1, y1]];
    if (item.corner!.kind === 'inverse') {
      const [ix, iy] = [x0 + x1 - cx, y0 + y1 - cy];
      const q = 0.5522847498;
      return [['C', x0 + (ix - x0) * q, y0 + (iy - y0) * q, x1 + (ix - x1) * q, y1 + (iy - y1) * q, x1, y1]];
    }
    return [['C', cx + (x0 - cx) * k, cy + (y0 - cy) * k, cx + (x1 - cx) * k, cy + (y1 - cy) * k, x1, y1]];
  };
  return [
    ['M', r, 0],
    ['L', w - r, 0],
    ...bend(w - r, 0, w, 0, w, r),
    ['L', w, h - r],
    ...bend(w, h - r, w, h, w - r, h),
    ['L', r, h],
    ...bend(r, h, 0, h, 0, h - r),
    ['L', 0, r],
    ...bend(0, r, 0, 0, r, 0),
    ['Z'],
  ];
}

/** The stroke around a box of a text: plain, with its dashes. */
export const boxStroke = ({ stroke }: FrameBox): Stroke | null =>
  stroke
    ? { ...stroke, dashes: stroke.dashes ?? [], cap: 'butt', join: 'miter', miterLimit: 4, startMarker: 'none', endMarker: 'none' }
    : null;
