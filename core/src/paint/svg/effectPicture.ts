import type { Composition } from '../../compose/marks.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Item } from '../../folio/items.ts';
import type { Rect } from '../../folio/geometry.ts';
import type { Spread } from '../../folio/spread.ts';
import { itemBounds } from '../../folio/traverse.ts';
import { effectFilter, effectReach, reachedBy, unturned } from '../effects.ts';
import type { EffectPart } from '../effects.ts';
import { GlyphOutlines } from './glyphs.ts';
import { attrs, num } from './markup.ts';
import { paintItem } from './paintSpread.ts';
import type { SvgOptions } from './paintSpread.ts';

export interface EffectPicture {
  svg: string;
  /** Where it lies, in spread coordinates. */
  box: Rect;
}

/**
 * What lies under or over an item by its effects alone, or how far they leave it covered, as an SVG of its own: for
 * outputs that have no effects, and for groups, whose members some outputs place one by one.
 */
export function effectPicture(
  folio: Folio,
  composition: Composition,
  spread: Spread,
  item: Item,
  part: Exclude<EffectPart, 'all'>,
  options: Omit<SvgOptions, 'outlines'> & { pxPerPt: number },
): EffectPicture {
  const box = reachedBy(itemBounds(spread.items, item), effectReach(item.effects));
  const outlines = new GlyphOutlines(`${item.id}-${part}-g`);
  const id = `${item.id}-${part}`;
  const filter = effectFilter(id, item.effects, part, { region: box, scale: 1, shift: unturned }, folio.head.swatches);
  const bare = { ...item, effects: {}, opacity: 1, blend: 'normal' as const };
  const body = paintItem(folio, composition, spread, bare, { ...options, outlines });
  const size = { width: num(box.width * options.pxPerPt, 2), height: num(box.height * options.pxPerPt, 2) };
  const viewBox = [box.x, box.y, box.width, box.height].map((n) => num(n, 3)).join(' ');
  return {
    box,
    svg: `<svg xmlns="http://www.w3.org/2000/svg"${attrs({ ...size, viewBox })}><defs>${outlines.take()}${filter}</defs><g filter="url(#${id})">${body}</g></svg>`,
  };
}
