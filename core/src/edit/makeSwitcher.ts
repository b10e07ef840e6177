import type { Folio } from '../folio/folio.ts';
import { overlap, union } from '../folio/geometry.ts';
import type { Rect } from '../folio/geometry.ts';
import { Item } from '../folio/items.ts';
import type { Spread } from '../folio/spread.ts';
import { heldItems, itemBounds } from '../folio/traverse.ts';
import { movedItem, withHeld } from './movedItem.ts';
import { TextEditError } from './place.ts';

/** What stands no further apart than this, in points, belongs on one card: a picture and the words below it. */
const TOGETHER = 8;

/** Which of some items share a card: what touches or nearly does. Where all of it does, they lie on one another: a card each. */
export function cardsOf(spread: Pick<Spread, 'items'>, ids: readonly string[]): string[][] {
  const boxes = new Map(ids.flatMap((id) => (spread.items[id] ? [[id, itemBounds(spread.items, spread.items[id])] as const] : [])));
  const near = (a: Rect, b: Rect): boolean =>
    overlap({ x: a.x - TOGETHER, y: a.y - TOGETHER, width: a.width + 2 * TOGETHER, height: a.height + 2 * TOGETHER }, b) > 0;
  let cards: string[][] = [];
  for (const [id, box] of boxes) {
    const touching = cards.filter((card) => card.some((other) => near(boxes.get(other)!, box)));
    cards = [...cards.filter((c) => !touching.includes(c)), [...touching.flat(), id]];
  }
  if (cards.length === 1) cards = cards[0]!.map((id) => [id]);
  const place = (card: string[]): Rect => union(card.map((id) => boxes.get(id)!));
  // Row by row, as far as rows can be told from one another, and in a row from left to right.
  return cards
    .map((card) => ({ card, box: place(card) }))
    .sort((a, b) =>
      a.box.y + a.box.height <= b.box.y || b.box.y + b.box.height <= a.box.y ? a.box.y - b.box.y : a.box.x - b.box.x || a.box.y - b.box.y,
    )
    .map((e) => e.card);
}

/**
 * Makes a switcher of items that stand on a spread: each card's things are moved, together, to the middle of the largest, where
 * they then take turns. It takes the place of the last of them in the order from back to front, and of the first in the path.
 */
export function makeSwitcher(
  draft: Folio,
  spread: Spread,
  made: { id: string; name: string; cards: { id: string; name: string; items: string[] }[] },
): void {
  const ids = made.cards.flatMap((c) => c.items);
  const held = heldItems(spread);
  if (new Set(ids).size !== ids.length) throw new TextEditError('Each thing can stand on one card only.');
  for (const id of ids) {
    if (!spread.items[id]) throw new TextEditError('What is to stand on a card is not in the document any more.');
    if (held.has(id)) throw new TextEditError('What stands in a group or on a card already cannot be put on another card by itself.');
  }
  const boxes = made.cards.map((c) => union(c.items.map((id) => itemBounds(spread.items, spread.items[id]!))));
  const size = { width: Math.max(...boxes.map((b) => b.width)), height: Math.max(...boxes.map((b) => b.height)) };
  const origin = { x: boxes[0]!.x, y: boxes[0]!.y };
  made.cards.forEach((card, i) => {
    const box = boxes[i]!;
    const dx = origin.x + (size.width - box.width) / 2 - box.x;
    const dy = origin.y + (size.height - box.height) / 2 - box.y;
    if (dx || dy) for (const id of withHeld(spread, card.items)) spread.items[id] = movedItem(spread.items[id]!, dx, dy);
  });
  const last = Math.max(...ids.map((id) => spread.order.indexOf(id)));
  spread.order.splice(last + 1, 0, made.id);
  spread.order = spread.order.filter((id) => !ids.includes(id));
  spread.items[made.id] = Item.parse({
    kind: 'switcher',
    id: made.id,
    name: made.name,
    layer: spread.items[ids[0]!]!.layer,
    transform: [1, 0, 0, 1, origin.x, origin.y],
    size,
    cards: made.cards,
  });
  for (const { entries } of draft.head.structure.strands) {
    const first = entries.findIndex((e) => e.spread === spread.id && ids.includes(e.item));
    if (first >= 0) entries.splice(first, 0, { spread: spread.id, item: made.id });
  }
}
