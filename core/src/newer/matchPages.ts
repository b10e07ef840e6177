import { alignSequences, atLeast } from '../alignment/alignSequences.ts';
import type { Contents, Surface } from './contents.ts';
import { shared, textLikeness } from '../alignment/likeness.ts';

type PageOf = Contents['pages'][number];

/** Pages less alike than this are not the same page changed, unless they carry the same name between the same neighbours. */
const LEAST = 0.3;
/** A page that moved to elsewhere is known again only if it is very alike. */
const MOVED = 0.6;

/** Pages of an older and a newer document that are the same: older page by newer page, as positions. */
export function matchPages(older: readonly PageOf[], newer: readonly PageOf[], chosen: ReadonlyMap<string, string>): Map<number, number> {
  const found = new Map<number, number>();
  const [freeA, freeB] = [new Set(older.keys()), new Set(newer.keys())];
  const take = (a: number, b: number): void => {
    if (!freeA.has(a) || !freeB.has(b)) return;
    found.set(b, a);
    freeA.delete(a);
    freeB.delete(b);
  };
  newer.forEach((n, b) => {
    const wanted = chosen.get(n.id);
    if (wanted !== undefined)
      take(
        older.findIndex((o) => o.id === wanted),
        b,
      );
  });
  const [a, b] = [older.filter((_, i) => freeA.has(i)), newer.filter((_, i) => freeB.has(i))];
  const at = (list: readonly PageOf[], page: PageOf): number => list.indexOf(page);
  const keys = [a.map((p) => p.key), b.map((p) => p.key)] as const;
  const worth = (i: number, j: number): number => atLeast(LEAST, pageLikeness(a[i]!, b[j]!));
  for (const [i, j] of alignSequences({ lengths: [a.length, b.length], keys, worth })) take(at(older, a[i]!), at(newer, b[j]!));
  // One made anew in the old one's place, under its name.
  for (const j of [...freeB]) {
    const i = [...freeA].find((k) => older[k]!.id === newer[j]!.id);
    if (i !== undefined && found.get(j - 1) === (i > 0 ? i - 1 : undefined)) take(i, j);
  }
  const moved = [...freeA].flatMap((i) => [...freeB].map((j) => ({ i, j, score: pageLikeness(older[i]!, newer[j]!) })));
  for (const { i, j } of moved.filter((m) => m.score >= MOVED).sort((x, y) => y.score - x.score)) take(i, j);
  return found;
}

/** How alike two pages are: what they say, what they show, where things stand. */
function pageLikeness(o: Surface & { id: string }, n: Surface & { id: string }): number {
  const parts: [number, number | null][] = [
    [0.6, o.text.trim() || n.text.trim() ? textLikeness(o.text, n.text) : null],
    [0.25, shared(o.pictures, n.pictures)],
    [0.15, shared(placesOf(o), placesOf(n))],
  ];
  let [sum, weights] = [0, 0];
  for (const [weight, value] of parts) {
    if (value === null) continue;
    sum += weight * value;
    weights += weight;
  }
  // Two empty pages are alike; a name that both carry is a small sign more.
  return Math.min(1, (weights ? sum / weights : 1) * 0.95 + (o.id === n.id ? 0.05 : 0));
}

const places = new WeakMap<Surface, Set<string>>();
function placesOf(s: Surface): Set<string> {
  let set = places.get(s);
  if (!set) {
    const near = (n: number): number => Math.round(n / 8);
    set = new Set(s.items.map((l) => `${l.item.kind} ${near(l.box.x)} ${near(l.box.y)} ${near(l.box.width)}`));
    places.set(s, set);
  }
  return set;
}
