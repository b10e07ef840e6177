import { multiply, translation } from '../folio/geometry.ts';
import type { Item } from '../folio/items.ts';
import type { Spread } from '../folio/spread.ts';
import { heldItems } from '../folio/traverse.ts';

/** A group has no place of its own: it is where its members are. */
export const movedItem = (item: Item, dx: number, dy: number): Item =>
  item.kind === 'group' ? item : { ...item, transform: multiply(translation(dx, dy), item.transform) };

/** Items with all that they hold, holders first: members of groups, what stands on cards, looks of fields. */
export function withHeld(spread: Pick<Spread, 'items'>, ids: readonly string[]): string[] {
  const inside = new Map<string, string[]>();
  for (const [id, holder] of heldItems(spread)) inside.set(holder, [...(inside.get(holder) ?? []), id]);
  const found = new Set<string>();
  const take = (id: string): void => {
    if (found.has(id) || !spread.items[id]) return;
    found.add(id);
    inside.get(id)?.forEach(take);
  };
  ids.forEach(take);
  return [...found];
}
