import type { Inline, Paragraph, Story } from '../folio/story.ts';
import { same } from '../folio/same.ts';
import { readText } from '../folio/text.ts';
import { paragraphsOf } from '../folio/traverse.ts';
import { cellsInOrder } from '../folio/tableCells.ts';
import { alignSequences, atLeast } from '../alignment/alignSequences.ts';
import { textLikeness } from '../alignment/likeness.ts';

/** Paragraphs less alike than this are not the same one changed. */
const LEAST = 0.5;
/** A paragraph of fewer letters is not known again in another place. */
const KNOWN_AGAIN = 24;

/** Paragraphs, tables, cells and what stands in lines that are the same in two stories: older id by newer id. */
export function matchTexts(older: Story, newer: Story): Map<string, string> {
  const found = new Map<string, string>();
  const a = [...paragraphsOf(older)];
  const b = [...paragraphsOf(newer)];
  const [freeA, freeB] = [new Set(a), new Set(b)];
  const take = (o: Paragraph, n: Paragraph): void => {
    found.set(n.id, o.id);
    freeA.delete(o);
    freeB.delete(n);
    inLine(o.content, n.content, found);
  };
  const keys = [a.map((p) => readText(p)), b.map((p) => readText(p))] as const;
  const worth = (i: number, j: number): number => atLeast(LEAST, textLikeness(keys[0][i]!, keys[1][j]!));
  const pairs = alignSequences({ lengths: [a.length, b.length], keys, worth });
  for (const [i, j] of pairs) take(a[i]!, b[j]!);
  // What was moved up or down in the text.
  const left = new Map([...freeA].map((p) => [readText(p), p]));
  for (const n of [...freeB]) {
    const o = left.get(readText(n));
    if (o && freeA.has(o) && readText(n).length >= KNOWN_AGAIN) take(o, n);
  }
  // One text for one text: whatever it says now, it is the same paragraph.
  if (a.length === 1 && b.length === 1 && freeA.size) take(a[0]!, b[0]!);
  matchTables(older, newer, found);
  matchLinks(older, newer, found);
  return found;
}

/** Notes, fields, anchors with what they hold, and rubies of a paragraph, kind by kind in their order. */
function inLine(older: readonly Inline[], newer: readonly Inline[], found: Map<string, string>): void {
  for (const type of ['note', 'field', 'anchor', 'ruby'] as const) {
    const ids = (content: readonly Inline[]): string[][] =>
      content.flatMap((n) => (n.type === type ? [n.type === 'anchor' ? [n.id, n.item] : [n.id]] : []));
    const mine = ids(older);
    ids(newer).forEach((all, i) => all.forEach((id, k) => mine[i]?.[k] !== undefined && found.set(id, mine[i][k]!)));
  }
}

/** Tables in their order; cells by row and column. */
function matchTables(older: Story, newer: Story, found: Map<string, string>): void {
  const tables = (s: Story) => s.order.flatMap((id) => (s.blocks[id]?.kind === 'table' ? [s.blocks[id]] : []));
  const mine = tables(older);
  tables(newer).forEach((n, i) => {
    const o = mine[i];
    if (!o) return;
    found.set(n.id, o.id);
    const cells = new Map(cellsInOrder(o).map((c) => [`${c.row} ${c.column}`, c.id]));
    for (const c of Object.values(n.cells)) {
      const id = cells.get(`${c.row} ${c.column}`);
      if (id !== undefined) found.set(c.id, id);
    }
  });
}

function matchLinks(older: Story, newer: Story, found: Map<string, string>): void {
  const left = Object.values(older.links);
  for (const n of Object.values(newer.links)) {
    const i = left.findIndex((o) => same(o.destination, n.destination));
    if (i >= 0) found.set(n.id, left.splice(i, 1)[0]!.id);
  }
}
