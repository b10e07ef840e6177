import type { Folio } from '../../folio/folio.ts';
import type { Field, Group, Item, Switcher } from '../../folio/items.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { itemBounds, pageOfItem, paintOrder } from '../../folio/traverse.ts';
import { overlap } from '../../folio/geometry.ts';
import { hasEffects } from '../../paint/effects.ts';
import type { Scope } from '../scope.ts';

export type PaintedLeaf = Exclude<Item, { kind: 'group' }>;

/** One of a switcher's cards, of which a page shows one at a time. */
export interface CardOf {
  kind: 'card';
  id: string;
  switcher: Switcher;
  index: number;
}

/** An item to paint on a page. */
export interface PageItem {
  item: PaintedLeaf;
  opacity: number;
  /** Groups shown as one and cards that it stands in, from the outside in. */
  within: readonly (Group | CardOf)[];
  /** False where the item belongs to a neighbouring page and only reaches over. */
  own: boolean;
  /** Drawn only later: the look of a field that is not on, for one. */
  unseen?: boolean;
}

/** Whether a group is more than its members one by one: it is painted as one picture and then laid on the page. */
export const isShownAsOne = (group: Group): boolean => group.opacity !== 1 || group.blend !== 'normal' || hasEffects(group.effects);

/**
 * Items of one page from back to front, groups unfolded, items that only reach over included. A group for which
 * `apart` holds gives its transparency to its members instead of being shown as one.
 */
export function itemsOfPage(folio: Folio, place: PagePlace, scope: Scope, apart: (group: Group) => boolean = () => false): PageItem[] {
  const { spread, page } = place;
  const out: PageItem[] = [];
  const visit = (item: Item, opacity: number, within: PageItem['within'], unseen?: true): void => {
    if (!scope.shown(item) || within.includes(item as Group)) return;
    if (item.kind === 'group') {
      const one = isShownAsOne(item) && !apart(item);
      const inside = one ? [...within, item] : within;
      if (inside.length > 32) return;
      for (const id of item.members)
        if (spread.items[id] && id !== item.id) visit(spread.items[id], one ? opacity : opacity * item.opacity, inside);
      return;
    }
    const own = pageOfItem(spread, item).id === page.id;
    const box = itemBounds(spread.items, item);
    if (own || overlap(box, page.box) > 0.01) out.push({ item, opacity: opacity * item.opacity, own, within, ...(unseen && { unseen }) });
    if (item.kind === 'switcher' && within.length < 32)
      for (const [index, { id, items }] of item.cards.entries()) {
        const inside = [...within, { kind: 'card' as const, id, switcher: item, index }];
        for (const held of items) if (spread.items[held]) visit(spread.items[held], opacity, inside);
      }
    if (item.kind === 'field')
      for (const [look, isOn] of [
        [item.onLook, true],
        [item.offLook, false],
      ] as const) {
        const isSeen = isTicked(item) === isOn;
        if (look !== undefined && spread.items[look]) visit(spread.items[look], opacity, within, isSeen ? undefined : true);
      }
  };
  for (const item of paintOrder(folio, spread)) visit(item, 1, []);
  return out;
}

/** Whether a box or a choice of several is on from the start. */
const isTicked = ({ control }: Field): boolean => (control.type === 'checkBox' || control.type === 'radio') && control.on;

/** How many of the groups an item stands in go on from the item painted before it. */
export function sharedGroups(before: PageItem | undefined, now: PageItem | undefined): number {
  let shared = 0;
  while (before && now && shared < now.within.length && before.within[shared] === now.within[shared]) shared++;
  return shared;
}
