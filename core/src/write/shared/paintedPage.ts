import type { Folio } from '../../folio/folio.ts';
import type { Item } from '../../folio/items.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { itemBounds, pageOfItem, paintOrder } from '../../folio/traverse.ts';
import { overlap } from '../../folio/geometry.ts';
import type { Scope } from './scope.ts';

export type PaintedLeaf = Exclude<Item, { kind: 'group' }>;

/** A single item of a page as it is painted, with what the groups around it add. */
export interface PageItem {
  item: PaintedLeaf;
  opacity: number;
  /** False where the item belongs to a neighbouring page and only reaches over. */
  own: boolean;
}

/** Items of one page from back to front, groups unfolded, items that only reach over included. */
export function itemsOfPage(folio: Folio, place: PagePlace, scope: Scope): PageItem[] {
  const { spread, page } = place;
  const out: PageItem[] = [];
  const visit = (item: Item, opacity: number, depth: number): void => {
    if (!scope.shown(item) || depth > 32) return;
    if (item.kind === 'group') {
      for (const id of item.members) if (spread.items[id]) visit(spread.items[id], opacity * item.opacity, depth + 1);
      return;
    }
    const own = pageOfItem(spread, item).id === page.id;
    const box = itemBounds(spread.items, item);
    if (own || overlap(box, page.box) > 0.01) out.push({ item, opacity: opacity * item.opacity, own });
  };
  for (const item of paintOrder(folio, spread)) visit(item, 1, 0);
  return out;
}
