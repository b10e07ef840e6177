import { z } from 'zod';
import { solidHex } from '../folio/colour.ts';
import type { Head } from '../folio/head.ts';
import type { Spread } from '../folio/spread.ts';
import { itemBounds } from '../folio/traverse.ts';

/** A page in a few boxes, to be shown while the rest of its document is still being read. */
export const PageSketch = z.object({
  number: z.number().int(),
  width: z.number(),
  height: z.number(),
  paper: z.string().optional(),
  boxes: z.array(
    z.object({
      kind: z.enum(['text', 'picture', 'shape']),
      x: z.number(),
      y: z.number(),
      width: z.number(),
      height: z.number(),
      fill: z.string().optional(),
    }),
  ),
});
export type PageSketch = z.infer<typeof PageSketch>;

/** More boxes than this tell no more of a page. */
const MOST = 60;

/** The first page of a spread as a sketch. */
export function sketchOf(spread: Spread, number: number, swatches: Head['swatches']): PageSketch {
  const { box, background } = spread.pages[0]!;
  const round = (n: number): number => Math.round(n * 10) / 10;
  const colour = (paint: typeof background): string | undefined =>
    paint.type === 'none'
      ? undefined
      : paint.type === 'gradient'
        ? solidHex(paint.gradient.stops[0]!.paint, swatches)
        : solidHex(paint, swatches);
  const paper = colour(background);
  const boxes = spread.order.slice(0, MOST).flatMap((id): PageSketch['boxes'] => {
    const item = spread.items[id];
    if (!item) return [];
    const b = itemBounds(spread.items, item);
    const fill = item.fill && colour(item.fill);
    const kind = item.kind === 'textFrame' ? 'text' : item.kind === 'picture' ? 'picture' : 'shape';
    return [{ kind, x: round(b.x), y: round(b.y), width: round(b.width), height: round(b.height), ...(fill !== undefined && { fill }) }];
  });
  return { number, width: round(box.width), height: round(box.height), ...(paper !== undefined && { paper }), boxes };
}
