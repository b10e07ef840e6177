import type { Folio } from '../folio/folio.ts';
import type { Item } from '../folio/items.ts';
import type { Inline } from '../folio/story.ts';
import { plainText } from '../folio/text.ts';
import { contentsOf } from './contents.ts';
import type { Contents, ItemLook } from './contents.ts';
import { decisionsAbout } from './decisions.ts';
import type { DocumentClash } from './mergeDocuments.ts';
import type { Clashing, NewerReport, Unmatched } from './report.ts';
import { same } from '../folio/same.ts';

interface Compared {
  was: Folio;
  here: Folio;
  /** The newer source with its own ids, and with ours. */
  there: Folio;
  mapped: Folio;
  ids: ReadonlyMap<string, string>;
  found: ReadonlyMap<string, string>;
  clashes: readonly DocumentClash[];
}

/** No longer lists than this are shown to a person. */
const MOST = 400;
/** Words of an item or a page that are shown to know it by. */
const SHOWN = 90;

/** What a newer version brings: how much is the same, what clashes, what is only in one of the two. */
export function reportOn(c: Compared): NewerReport {
  const { was, there, mapped, found } = c;
  const [o, n] = [contentsOf(was), contentsOf(there)];
  const back = new Set(found.values());
  const decided = decisionsAbout(was, c.here);
  const older: Unmatched[] = [];
  const newer: Unmatched[] = [];
  o.pages.forEach((p, i) => {
    const about = p.items.map((l) => ({ l, decisions: decided(p.spread, l.item.id) })).filter((d) => d.decisions.length);
    if (!back.has(p.id))
      older.push({ id: p.id, kind: 'page', page: i + 1, says: shown(p.text), decided: [...new Set(about.flatMap((d) => d.decisions))] });
    for (const { l, decisions } of about)
      if (!back.has(l.item.id))
        older.push({ id: l.item.id, kind: 'item', of: l.item.kind, page: i + 1, says: saysOf(was, l), decided: decisions });
  });
  const kinds = new Set(older.map((u) => u.of));
  n.pages.forEach((p, i) => {
    if (!found.has(p.id)) newer.push({ id: p.id, kind: 'page', page: i + 1, says: shown(p.text), decided: [] });
    for (const l of p.items)
      if (!found.has(l.item.id) && kinds.has(l.item.kind))
        newer.push({ id: l.item.id, kind: 'item', of: l.item.kind, page: i + 1, says: saysOf(there, l), decided: [] });
  });
  const items = (f: Folio): Map<string, Item> => new Map(Object.values(f.spreads).flatMap((s) => Object.entries(s.items)));
  const blocks = (f: Folio) => new Map(Object.values(f.stories).flatMap((s) => Object.entries(s.blocks)));
  const pages = (f: Folio) => new Map(Object.values(f.spreads).map((s) => [s.pages[0]!.id, s.items] as const));
  return {
    pages: counted(pages(was), pages(mapped)),
    items: counted(items(was), items(mapped)),
    paragraphs: counted(blocks(was), blocks(mapped)),
    clashes: clashesOf(c, n).slice(0, MOST),
    older: older.slice(0, MOST),
    newer: newer.slice(0, MOST),
  };
}

function counted<T>(was: ReadonlyMap<string, T>, now: ReadonlyMap<string, T>): NewerReport['pages'] {
  let [unchanged, changed] = [0, 0];
  for (const [id, thing] of now)
    if (was.has(id)) {
      if (same(was.get(id), thing)) unchanged++;
      else changed++;
    }
  return { same: unchanged, changed, added: now.size - unchanged - changed, removed: was.size - unchanged - changed };
}

function clashesOf({ clashes, ids }: Compared, newer: Contents): Clashing[] {
  const rawOf = new Map([...ids].map(([raw, ours]) => [ours, raw]));
  const pageOf = new Map(newer.pages.flatMap((p, i) => p.items.map((l) => [l.item.id, i + 1] as const)));
  const ofParagraph = new Map(
    Object.values(newer.folio.stories).flatMap((s) =>
      Object.keys(s.blocks).map((id) => [id, pageOf.get(s.frames[0]?.item ?? '')] as const),
    ),
  );
  return clashes.flatMap((clash): Clashing[] => {
    const raw = rawOf.get(clash.id) ?? clash.id;
    const page = pageOf.get(raw) ?? ofParagraph.get(raw);
    const at = { id: clash.id, ...(page !== undefined && { page }), kept: clash.kept };
    const text = (value: unknown): string => (typeof value === 'string' ? value : '');
    switch (clash.field) {
      case 'content':
        return [{ ...at, what: 'text', here: plainText(clash.here as Inline[]), there: plainText(clash.there as Inline[]) }];
      case 'alt':
        return [{ ...at, what: 'altText', here: text(clash.here), there: text(clash.there) }];
      case 'title':
        return [{ ...at, what: 'title', here: text(clash.here), there: text(clash.there) }];
      default:
        return [];
    }
  });
}

const shown = (text: string): string => {
  const plain = text.replace(/\s+/g, ' ').trim();
  return plain.length > SHOWN ? `${plain.slice(0, SHOWN)}…` : plain;
};
const saysOf = (folio: Folio, l: ItemLook): string => {
  const media = l.item.kind === 'picture' && l.item.media !== null ? folio.head.media[l.item.media]?.name : undefined;
  return shown(l.text) || l.item.name || media || '';
};
