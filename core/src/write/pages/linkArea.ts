import type { Item } from '../../folio/items.ts';
import { IDENTITY } from '../../folio/geometry.ts';
import { itemBounds, placeOfPage, printedNumber } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { boxStyle } from '../../paint/html/paintItem.ts';
import { attrs } from '../../paint/svg/markup.ts';
import { linkCueOf } from '../../structure/pageTargets.ts';
import { textOfLines } from '../../structure/reading.ts';
import type { HtmlPageContext } from './paintPage.ts';

/** Over an item on which a press leads somewhere: a link as large as the item. Empty where there is none. */
export function linkArea(place: PagePlace, item: Item, z: number, c: HtmlPageContext): string {
  const pressed = linkCueOf(item);
  const target = pressed && c.scope.targets.of(pressed.destination, place.page.id);
  if (!target) return '';
  const isPage = 'page' in target;
  const said = saidOf(item, c);
  return `<a${attrs({
    class: 'i',
    href: isPage ? c.addressOf(target.page) : target.href,
    'aria-label': said || (isPage ? `Page ${printedNumber(placeOfPage(c.folio, target.page)!)}` : target.href),
    ...(!isPage && target.newWindow && { target: '_blank', rel: 'noopener' }),
    style: areaStyle(place, item, z),
  })}></a>`;
}

/** A box over an item that can be pressed. */
export function areaStyle(place: PagePlace, item: Item, z: number): string {
  const upright = item.kind === 'group' || item.kind === 'shape';
  const [transform, box] = upright
    ? [IDENTITY, itemBounds(place.spread.items, item)]
    : [item.transform, { x: 0, y: 0, ...(item as { size: { width: number; height: number } }).size }];
  return boxStyle(transform, box, { z, origin: place.page.box });
}

/** What is said of an item that can be pressed: its alt text, or its own words. */
export const saidOf = (item: Item, c: Pick<HtmlPageContext, 'composition'>): string =>
  item.alt || textOfLines(c.composition.frames.get(item.id)?.lines ?? []).trim();
