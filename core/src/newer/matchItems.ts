import type { Rect } from '../folio/geometry.ts';
import { overlap } from '../folio/geometry.ts';
import type { ItemLook, Surface } from './contents.ts';
import { textLikeness } from '../alignment/likeness.ts';

/** Items less alike than this are not the same one changed. */
const LEAST = 0.45;
/** Where a page has more pairs than this, only what is the same is matched. */
const MOST_PAIRS = 400_000;

/** Items of an older and a newer page that are the same: older id by newer id. */
export function matchItems(older: Surface, newer: Surface): Map<string, string> {
  const found = new Map<string, string>();
  const left = new Map(older.items.map((l) => [l.item.id, l]));
  const open = new Map(newer.items.map((l) => [l.item.id, l]));
  const take = (o: ItemLook, n: ItemLook): void => {
    found.set(n.item.id, o.item.id);
    left.delete(o.item.id);
    open.delete(n.item.id);
  };
  byKey(left, open, (l) => l.key, take);
  // A name that the designer gave, where it is given once on both.
  byKey(left, open, (l) => (l.item.name ? `${l.item.kind}|${l.item.name}` : ''), take);
  byKey(left, open, (l) => (l.text.trim() || l.picture ? `${l.item.kind}|${l.text}|${l.picture}` : ''), take);
  if (left.size * open.size <= MOST_PAIRS) {
    const pairs: { o: ItemLook; n: ItemLook; score: number }[] = [];
    for (const o of left.values())
      for (const n of open.values()) {
        const score = itemLikeness(o, n);
        if (score >= LEAST) pairs.push({ o, n, score });
      }
    pairs.sort((x, y) => y.score - x.score);
    for (const { o, n } of pairs) if (left.has(o.item.id) && open.has(n.item.id)) take(o, n);
  }
  return found;
}

/** Takes pairs whose key stands equally often on both sides, in their order. */
function byKey(
  left: ReadonlyMap<string, ItemLook>,
  open: ReadonlyMap<string, ItemLook>,
  keyOf: (look: ItemLook) => string,
  take: (o: ItemLook, n: ItemLook) => void,
): void {
  const group = (looks: Iterable<ItemLook>): Map<string, ItemLook[]> => {
    const out = new Map<string, ItemLook[]>();
    for (const l of looks) {
      const key = keyOf(l);
      if (key) (out.get(key) ?? out.set(key, []).get(key)!).push(l);
    }
    return out;
  };
  const there = group(open.values());
  for (const [key, mine] of group(left.values())) {
    const others = there.get(key);
    if (others?.length === mine.length) mine.forEach((o, i) => take(o, others[i]!));
  }
}

/** How alike two items are: in kind, in what they say or show, in their place. */
function itemLikeness(o: ItemLook, n: ItemLook): number {
  if (o.item.kind !== n.item.kind) return 0;
  const place = placeLikeness(o.box, n.box);
  if (o.picture || n.picture) return o.picture === n.picture ? 0.6 + 0.4 * place : 0.75 * place;
  if (o.text.trim() || n.text.trim()) {
    const text = textLikeness(o.text, n.text);
    return Math.max(0.65 * text + 0.35 * place, place > 0.9 ? 0.5 : 0);
  }
  return place * (o.item.kind === 'group' ? 0.8 : 1);
}

/** How much two boxes cover each other; small ones that stand close count for something too. */
function placeLikeness(a: Rect, b: Rect): number {
  const grown = (r: Rect): Rect => ({ x: r.x - 1, y: r.y - 1, width: r.width + 2, height: r.height + 2 });
  const [x, y] = [grown(a), grown(b)];
  const both = overlap(x, y);
  return both / (x.width * x.height + y.width * y.height - both);
}
