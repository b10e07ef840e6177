import type { Folio } from '../folio/folio.ts';
import type { Head } from '../folio/head.ts';
import { contentsOf } from './contents.ts';
import type { Surface } from './contents.ts';
import { NAMED } from '../folio/headKinds.ts';
import { matchItems } from './matchItems.ts';
import { matchPages } from './matchPages.ts';
import { matchTexts } from './matchTexts.ts';

/** What a person said is the same: older id by newer id, for pages and items. */
export type Chosen = ReadonlyMap<string, string>;

/** What is the same in an older and a newer version of a document: the older one's id by the newer one's. */
export function matchDocuments(older: Folio, newer: Folio, chosen: Chosen): Map<string, string> {
  const found = new Map<string, string>();
  const [o, n] = [contentsOf(older), contentsOf(newer)];
  matchHeads(older.head, newer.head, found);
  const votes = new Map<string, Map<string, number>>();
  const surface = (a: Surface, b: Surface): void => {
    for (const [id, was] of matchItems(a, b)) pair(id, was);
  };
  const pair = (id: string, was: string): void => {
    if (found.has(id)) return;
    found.set(id, was);
    const [mine, theirs] = [o.storyOf.get(was), n.storyOf.get(id)];
    if (mine === undefined || theirs === undefined) return;
    const of = votes.get(theirs) ?? votes.set(theirs, new Map<string, number>()).get(theirs)!;
    of.set(mine, (of.get(mine) ?? 0) + 1);
  };
  // What a person chose goes before all that is guessed.
  for (const [id, was] of chosen) pair(id, was);
  const chosenHere = new Set(chosen.values());
  const open = <S extends Surface>(s: S, closed: { has(id: string): boolean }): S => ({
    ...s,
    items: s.items.filter((l) => !closed.has(l.item.id)),
  });
  for (const m of n.masters) {
    const was = o.masters.find((x) => found.get(m.id) === x.id);
    if (was) surface(open(was, chosenHere), open(m, chosen));
  }
  const pages = matchPages(o.pages, n.pages, chosen);
  for (const [b, a] of pages) {
    const [was, now] = [o.pages[a]!, n.pages[b]!];
    found.set(now.id, was.id);
    found.set(now.spread, was.spread);
    if (now.page.notes !== undefined && was.page.notes !== undefined) vote(votes, now.page.notes, was.page.notes);
    surface(open(was, chosenHere), open(now, chosen));
  }
  matchMoved(o.pages, n.pages, found, pair);
  matchStories(older, newer, votes, found);
  return found;
}

const vote = (votes: Map<string, Map<string, number>>, id: string, was: string): void => void votes.set(id, new Map([[was, 1]]));

/** Items that went to another page, known by what they say or show where nothing else says or shows the same. */
function matchMoved(
  older: readonly Surface[],
  newer: readonly Surface[],
  found: Map<string, string>,
  pair: (id: string, was: string) => void,
): void {
  const taken = new Set(found.values());
  const keyed = (surfaces: readonly Surface[], open: (id: string) => boolean): Map<string, string | null> => {
    const out = new Map<string, string | null>();
    for (const s of surfaces)
      for (const l of s.items) {
        const says = l.text.trim().length >= 12 ? l.text : l.picture;
        if (!says || !open(l.item.id)) continue;
        const key = `${l.item.kind}|${says}`;
        out.set(key, out.has(key) ? null : l.item.id);
      }
    return out;
  };
  const left = keyed(older, (id) => !taken.has(id));
  for (const [key, id] of keyed(newer, (x) => !found.has(x))) {
    const was = left.get(key);
    if (id && was) pair(id, was);
  }
}

/** Stories whose frames are the same; each older one once, the most frames first. */
function matchStories(
  older: Folio,
  newer: Folio,
  votes: ReadonlyMap<string, ReadonlyMap<string, number>>,
  found: Map<string, string>,
): void {
  const ballots = [...votes].flatMap(([id, of]) => [...of].map(([was, n]) => ({ id, was, n })));
  const taken = new Set<string>();
  for (const { id, was } of ballots.sort((x, y) => y.n - x.n)) {
    const [mine, theirs] = [older.stories[was], newer.stories[id]];
    if (!mine || !theirs || found.has(id) || taken.has(was)) continue;
    found.set(id, was);
    taken.add(was);
    for (const [block, before] of matchTexts(mine, theirs)) found.set(block, before);
  }
}

/** Styles, layers and masters by their names, media by their bytes, fonts by what they are. */
function matchHeads(older: Head, newer: Head, found: Map<string, string>): void {
  const by = <T extends { id: string }>(mine: Record<string, T>, theirs: Record<string, T>, keyOf: (thing: T) => string): void => {
    const known = new Map(Object.values(mine).map((x) => [keyOf(x), x.id]));
    for (const x of Object.values(theirs)) {
      const was = known.get(keyOf(x));
      if (was === undefined) continue;
      found.set(x.id, was);
      known.delete(keyOf(x));
    }
  };
  found.set(newer.id, older.id);
  for (const kind of NAMED) by<{ id: string; name: string }>(older[kind], newer[kind], (x) => x.name);
  by(older.media, newer.media, (m) => m.sha256);
  by(older.fonts, newer.fonts, (f) => `${f.family}|${f.weight}|${f.style}|${f.sha256 ?? ''}`);
}
