import type { Folio } from '../folio/folio.ts';
import type { Item } from '../folio/items.ts';
import type { Spread } from '../folio/spread.ts';
import { isMasterInstance } from '../folio/masters.ts';
import { paragraphRole } from '../folio/resolve.ts';
import { heldItems, isOnHiddenLayer, itemBounds, onCard, pageOfItem, paintOrder, paragraphsOf, storyOfFrame } from '../folio/traverse.ts';
import { fixedFirst, pageOrder } from './pageOrder.ts';
import type { Placed } from './pageOrder.ts';

const FIGURES = new Set<Item['kind']>(['picture', 'media', 'switcher', 'veil', 'embed', 'field', 'tableFrame']);

/** Whether an item speaks for itself; plain shapes do so only with an alt text. */
export function isFigure(folio: Folio, item: Item): boolean {
  return !isUnread(folio, item.id) && (FIGURES.has(item.kind) || (item.kind === 'shape' && !!item.alt));
}

/** Whether an item is seen and not read: it repeats from page to page, is decoration, or was left out. */
export function isUnread(folio: Folio, id: string): boolean {
  const { decorations, leftOut } = unreadOf(folio.head.structure);
  return isMasterInstance(id) || decorations.has(id) || leftOut.has(id);
}

const unreadCache = new WeakMap<object, { decorations: ReadonlySet<string>; leftOut: ReadonlySet<string> }>();
function unreadOf(structure: Folio['head']['structure']): { decorations: ReadonlySet<string>; leftOut: ReadonlySet<string> } {
  let sets = unreadCache.get(structure);
  if (!sets) unreadCache.set(structure, (sets = { decorations: new Set(structure.decorations), leftOut: new Set(structure.leftOut) }));
  return sets;
}

/** Items of a spread in the order of the reading path; what the path does not name is read where it was worked out to be. */
export function readingItems(folio: Folio, spread: Spread): Item[] {
  const worked = workedOrder(folio, spread);
  const named = new Set<string>();
  for (const { entries } of folio.head.structure.strands)
    for (const e of entries)
      if (e.spread === spread.id && spread.items[e.item])
        for (const leaf of leaves(folio, spread, spread.items[e.item]!)) named.add(leaf.id);
  if (!named.size) return worked;
  const order = fixedFirst(
    [...named],
    worked.map((i) => i.id),
  );
  return cardByCard(spread, order).map((id) => spread.items[id]!);
}

/** What stands on cards is read with its switcher, one card after another: no path takes them apart. */
function cardByCard({ items }: Spread, order: readonly string[]): string[] {
  const home = new Map<string, { switcher: string; card: number }>();
  for (const id of order) {
    const item = items[id]!;
    if (item.kind === 'switcher')
      item.cards.forEach((c, card) => onCard(items, c).forEach((held) => home.set(held, { switcher: id, card })));
  }
  if (!home.size) return [...order];
  const withCards = (id: string, depth: number): string[] => {
    const held = order.filter((other) => home.get(other)?.switcher === id).sort((a, b) => home.get(a)!.card - home.get(b)!.card);
    return [id, ...(depth < 32 ? held.flatMap((h) => withCards(h, depth + 1)) : [])];
  };
  return order.flatMap((id) => (home.has(id) ? [] : withCards(id, 0)));
}

/** What of a spread is read as it is seen: without what lies on hidden layers. */
export const pathOf = (folio: Folio, spread: Spread): Item[] =>
  readingItems(folio, spread).filter((i) => isRead(folio, i) && !isOnHiddenLayer(folio, i));

/** The order that the layout itself suggests, page by page; what is only seen comes last. */
export function workedOrder(folio: Folio, spread: Spread): Item[] {
  const held = heldItems(spread);
  const tops = paintOrder(folio, spread).filter((i) => !held.has(i.id));
  const byPage = new Map<string, Item[]>(spread.pages.map((p) => [p.id, []]));
  for (const item of tops) byPage.get(pageOfItem(spread, item).id)!.push(item);
  const out = [...byPage.values()].flatMap((items) => inOrder(folio, spread, items).flatMap((i) => leaves(folio, spread, i)));
  return [...out.filter((i) => isRead(folio, i)), ...out.filter((i) => !isRead(folio, i))];
}

/** Whether an item is read: a text that is not left out, or anything else that speaks for itself. */
const isRead = (folio: Folio, item: Item): boolean =>
  item.kind === 'textFrame' ? !isUnread(folio, item.id) && storyOfFrame(folio).has(item.id) : isFigure(folio, item);

/** A group's members as they are read, groups in groups unfolded; of a switcher, it and its cards, one after another. */
export function leaves(folio: Folio, spread: Spread, item: Item, depth = 0): Item[] {
  const inside = (ids: readonly string[]): Item[] =>
    inOrder(
      folio,
      spread,
      ids.flatMap((id) => spread.items[id] ?? []),
    ).flatMap((i) => leaves(folio, spread, i, depth + 1));
  if (depth > 32) return [item];
  if (item.kind === 'switcher') return [item, ...item.cards.flatMap((card) => inside(card.items))];
  return item.kind === 'group' ? inside(item.members) : [item];
}

/** Items that stand beside one another, in the order in which they are read; what is only seen comes last. */
function inOrder(folio: Folio, spread: Spread, items: readonly Item[]): Item[] {
  if (items.length === 1) return [...items];
  const read = items.filter((i) => i.kind === 'group' || isRead(folio, i));
  const order = pageOrder(read.map((i) => placedOf(folio, spread, i)));
  return [...order.map((id) => spread.items[id]!), ...items.filter((i) => i.kind !== 'group' && !isRead(folio, i))];
}

function placedOf(folio: Folio, spread: Spread, item: Item): Placed {
  const box = itemBounds(spread.items, item);
  if (item.kind === 'group') {
    const text = item.members.some((id) => spread.items[id]?.kind === 'textFrame' && storyOfFrame(folio).has(id));
    return { id: item.id, box, kind: text ? 'text' : 'figure' };
  }
  if (item.kind !== 'textFrame') return { id: item.id, box, kind: 'figure' };
  const story = folio.stories[storyOfFrame(folio).get(item.id) ?? ''];
  if (!story) return { id: item.id, box, kind: 'text' };
  const chain = story.frames.length > 1 ? { story: story.id, at: story.frames.findIndex((f) => f.item === item.id) } : undefined;
  const captionOf = folio.head.structure.captions[item.id];
  return { id: item.id, box, kind: 'text', as: chain ? undefined : meaningOf(folio, story.id), captionOf, chain };
}

/** What a text in one frame is to others, by the role of what it begins with. */
function meaningOf(folio: Folio, story: string): Placed['as'] {
  for (const paragraph of paragraphsOf(folio.stories[story]!)) {
    if (!paragraph.content.length) continue;
    const { element } = paragraphRole(folio.head, paragraph.style);
    return element === 'figcaption' ? 'caption' : element === 'aside' ? 'aside' : undefined;
  }
  return undefined;
}
