import type { Folio } from '../folio/folio.ts';
import type { Strand } from '../folio/head.ts';
import { pagesOf } from '../folio/traverse.ts';
import { pathOf } from './readingOrder.ts';

/**
 * The whole path as strands, everything that is read in one of them: what was fixed by hand stays, what the layout suggests
 * joins the strand that is read before it.
 */
export function wholePath(folio: Folio): Strand[] {
  const { strands } = folio.head.structure;
  const named = new Map(strands.flatMap((s) => s.entries.map((e) => [`${e.spread}/${e.item}`, s.id] as const)));
  const out = new Map(strands.map((s) => [s.id, { ...s, entries: [] as Strand['entries'] }]));
  let last = strands[0]?.id;
  for (const spread of new Set(pagesOf(folio).map((p) => p.spread)))
    for (const item of pathOf(folio, spread)) {
      const home = named.get(`${spread.id}/${item.id}`) ?? last ?? 'strand';
      if (!out.has(home)) out.set(home, { id: home, name: 'Order of reading', entries: [] });
      out.get(home)!.entries.push({ spread: spread.id, item: item.id });
      last = home;
    }
  // Groups are named as wholes, and what is hidden or gone keeps its place for when it comes back.
  for (const strand of strands) {
    const kept = out.get(strand.id)!;
    const known = new Set(kept.entries.map((e) => e.item));
    strand.entries.forEach((e, i) => !known.has(e.item) && kept.entries.splice(Math.min(i, kept.entries.length), 0, e));
  }
  return [...out.values()];
}

/** A strand made two: from an entry on, what follows is a strand of its own, read right after it. */
export function splitStrand(strands: readonly Strand[], item: string, name: string): Strand[] {
  return strands.flatMap((strand) => {
    const at = strand.entries.findIndex((e) => e.item === item);
    if (at <= 0) return [strand];
    const made: Strand = { id: freeId(strands), name, entries: strand.entries.slice(at) };
    return [{ ...strand, entries: strand.entries.slice(0, at) }, made];
  });
}

/** A strand joined to the one before it. */
export function joinStrand(strands: readonly Strand[], id: string): Strand[] {
  const at = strands.findIndex((s) => s.id === id);
  if (at <= 0) return [...strands];
  const before = strands[at - 1]!;
  return [...strands.slice(0, at - 1), { ...before, entries: [...before.entries, ...strands[at]!.entries] }, ...strands.slice(at + 1)];
}

/** A strand moved as a whole to another place among the strands. */
export function moveStrand(strands: readonly Strand[], id: string, to: number): Strand[] {
  const moved = strands.find((s) => s.id === id);
  if (!moved) return [...strands];
  const others = strands.filter((s) => s !== moved);
  others.splice(Math.max(0, to), 0, moved);
  return others;
}

function freeId(strands: readonly Strand[]): string {
  const taken = new Set(strands.map((s) => s.id));
  for (let i = strands.length + 1; ; i++) if (!taken.has(`strand-${i}`)) return `strand-${i}`;
}
