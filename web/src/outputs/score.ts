import type { Ledger } from '@elastic-folio/core/api';
import type { LedgerEntry, Outcome, Reason } from '@elastic-folio/core/ledger';
import type { Folio } from '@elastic-folio/core';
import { pagesOf, readText } from '@elastic-folio/core';
import { itemName } from '../table/SpreadView.tsx';
import type { z } from 'zod';

export type LedgerFile = z.infer<typeof Ledger>;

const RANK: Outcome[] = ['kept', 'excluded', 'adapted', 'dropped'];

/** A column of the score: one page, or several where a document is long. */
export interface Column {
  label: string;
  pages: string[];
  numbers: number[];
}

/** One column a page up to 24 pages; beyond that pages are gathered spread by spread, then in tens. */
export function columnsOf(folio: Folio): Column[] {
  const pages = pagesOf(folio);
  const size = pages.length <= 24 ? 1 : Math.ceil(pages.length / 24);
  const columns: Column[] = [];
  for (let i = 0; i < pages.length; i += size) {
    const group = pages.slice(i, i + size);
    const [first, last] = [group[0]!.number, group[group.length - 1]!.number];
    columns.push({
      label: first === last ? String(first) : `${first}–${last}`,
      pages: group.map((p) => p.page.id),
      numbers: group.map((p) => p.number),
    });
  }
  return columns;
}

/** Entries that concern any of some pages. */
export const entriesOn = (ledger: LedgerFile, pages: readonly string[]): LedgerEntry[] =>
  ledger.entries.filter((e) => e.pages.some((p) => pages.includes(p)));

/** What most wants looking at comes first: contradicted, dropped, adapted, then what was left out. */
export const byWeight = (entries: readonly LedgerEntry[]): LedgerEntry[] => {
  const weight = (e: LedgerEntry): number => (e.check === 'contradicted' ? 0 : { dropped: 1, adapted: 2, excluded: 3, kept: 4 }[e.outcome]);
  return [...entries].sort((a, b) => weight(a) - weight(b));
};

/** The worst outcome of some entries; none where the pages are wholly outside the run. */
export function worstOf(entries: readonly LedgerEntry[]): Outcome | 'none' {
  if (!entries.length) return 'none';
  if (entries.every((e) => e.outcome === 'excluded')) return 'excluded';
  return entries.reduce<Outcome>(
    (worst, e) => (e.outcome !== 'excluded' && RANK.indexOf(e.outcome) > RANK.indexOf(worst) ? e.outcome : worst),
    'kept',
  );
}

/** A code's sentence with its values put in. */
export const sentenceOf = (entry: Reason, sentences: Record<string, string>): string =>
  (sentences[entry.code] ?? entry.code).replace(/\{(\w+)\}/g, (_, name: string) => String(entry.values[name] ?? ''));

/** What an entry speaks of, in words a designer knows. */
export function subjectName(entry: LedgerEntry, folio: Folio): string {
  const { kind, id } = entry.subject;
  if (kind === 'page') return `Page ${pagesOf(folio).find((p) => p.page.id === id)?.number ?? id}`;
  if (kind === 'layer') return `Layer “${folio.head.layers[id]?.name ?? id}”`;
  if (kind === 'document') return 'The document';
  const paragraph = id.split('/')[0]!;
  for (const story of Object.values(folio.stories)) {
    const block = story.blocks[paragraph];
    if (story.id === id && kind === 'story')
      return textName(
        story.order
          .flatMap((b) => (story.blocks[b]?.kind === 'paragraph' ? [readText(story.blocks[b], () => 'page number')] : []))
          .join(' '),
      );
    if (block?.kind === 'paragraph') return textName(readText(block, () => 'page number'));
  }
  // On a spread, or anchored in a text.
  for (const { items } of [...Object.values(folio.spreads), ...Object.values(folio.stories)]) {
    const item = items[id];
    if (item) return itemName(folio, item);
  }
  return id;
}

const textName = (text: string): string => {
  const plain = text.replace(/[\s\uFFFC]+/g, ' ').trim();
  return plain.length > 44 ? `“${plain.slice(0, 42)}…”` : `“${plain}”`;
};

const ASPECTS: Record<string, string> = {
  text: 'wording',
  look: 'look',
  place: 'place',
  role: 'meaning',
  language: 'language',
  picture: 'picture',
  alt: 'alt text',
  size: 'size',
  background: 'background',
  target: 'link',
  title: 'title',
  outline: 'outline',
  order: 'reading order',
  visibility: 'layer',
  fit: 'fit',
  motion: 'motion',
  embedding: 'font',
  structure: 'table',
  wrap: 'text wrap',
  media: 'media',
  embed: 'web content',
  field: 'form field',
  table: 'table',
  reading: 'reading',
  opening: 'opening',
  transition: 'transition',
  advance: 'page timing',
  notes: 'notes',
  'effect.outerShadow': 'shadow',
  'effect.innerShadow': 'inner shadow',
  'effect.glow': 'glow',
  'effect.feather': 'faded edge',
};
export const aspectName = (aspect: string): string => ASPECTS[aspect] ?? aspect;
