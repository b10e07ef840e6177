import type { Folio } from '../../folio/folio.ts';
import type { Item } from '../../folio/items.ts';
import { spreadInLayout } from '../../folio/joinedSpreads.ts';
import { transformRect, multiply, translation } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import { paragraphRole } from '../../folio/resolve.ts';
import type { Block } from '../../folio/story.ts';
import type { Spread } from '../../folio/spread.ts';
import { paintOrder, pageOfItem } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import type { FlowBlock, FlowSection } from '../../structure/flow.ts';
import { isUnread, readingItems } from '../../structure/readingOrder.ts';
import type { TextPiece } from '../../structure/textPieces.ts';
import { firstColumnHeads } from '../../structure/tableHeads.ts';
import type { ExpectedFlow } from '../flow/expectFlow.ts';

type Pieces = ReadonlyMap<string, readonly TextPiece[]>;

/** Frames of a page from back to front: slides are read in that order (common practice of programs). */
function stackedFrames(folio: Folio, { spread, page }: PagePlace): Item[] {
  const out: Item[] = [];
  const visit = (item: Item | undefined, depth: number): void => {
    if (!item || depth > 32 || out.includes(item)) return;
    if (item.kind === 'group') for (const id of item.members) visit(spread.items[id], depth + 1);
    else if (item.kind === 'textFrame' && pageOfItem(spread, item).id === page.id) out.push(item);
    else if (item.kind === 'switcher') for (const card of item.cards) for (const id of card.items) visit(spread.items[id], depth + 1);
  };
  for (const item of paintOrder(folio, spread)) visit(item, 0);
  return out;
}

/** Whether frames of every page are read in the order in which they lie on one another. */
export const readsAsStacked = (folio: Folio, pages: readonly PagePlace[], pieces: Pieces): boolean =>
  pages.every((place) => {
    const read = (items: readonly Item[]): string[] => items.filter((i) => !isUnread(folio, i.id) && pieces.has(i.id)).map((i) => i.id);
    const stack = read(stackedFrames(folio, place));
    const path = read(readingItems(folio, spreadInLayout(place))).filter((id) => stack.includes(id));
    return stack.every((id, i) => id === path[i]);
  });

/** The words of slides in the order in which a file of slides has them. */
export function wordsOnSlides(folio: Folio, pages: readonly PagePlace[], pieces: Pieces): FlowSection[] {
  const blocks: FlowBlock[] = [];
  for (const place of pages)
    for (const item of stackedFrames(folio, place)) {
      if (isUnread(folio, item.id)) continue;
      const { id: page } = pageOfItem(spreadInLayout(place), item);
      for (const piece of pieces.get(item.id) ?? []) {
        const at = { story: piece.story, item: item.id, page };
        if (piece.kind === 'table') blocks.push({ kind: 'table', table: piece.table, ...at });
        else
          for (const { block, lines } of piece.blocks)
            if (block.kind === 'paragraph')
              blocks.push({
                kind: 'paragraph',
                paragraph: block,
                role: paragraphRole(folio.head, block.style),
                breaks: [],
                inline: [],
                ...(lines && { lines }),
                ...at,
              });
      }
    }
  return [{ start: null, blocks }];
}

/** What slides tell otherwise than running text: grounds of paragraphs are shapes, and the first row alone heads a table. */
export function asOnSlides(expected: ExpectedFlow, folio: Folio): ExpectedFlow {
  const tables = new Map(
    Object.values(folio.stories).flatMap((story) =>
      Object.values(story.blocks).flatMap((b) => (b.kind === 'table' ? [[b.id, { story, table: b }] as const] : [])),
    ),
  );
  return {
    ...expected,
    figures: [],
    blocks: expected.blocks.map((b) => ({ ...b, readings: [], ground: b.within === null ? null : b.ground })),
    tables: expected.tables.map((t) => {
      const known = tables.get(t.id);
      if (!known || known.table.headerRows < 2) return t;
      const firstHeads = firstColumnHeads(folio.head, known.story, known.table);
      const isFirst = (cell: string): boolean => known.table.cells[cell]?.column === 0;
      return {
        ...t,
        rows: t.rows.map((row, r) => row.map((c) => ({ ...c, heading: r === 0 ? c.heading : firstHeads && isFirst(c.cell) }))),
      };
    }),
  };
}

/** A box whose paragraphs are all empty is none. */
const holdsWords = ({ block }: { block: Block }): boolean =>
  block.kind === 'paragraph' && block.content.some((n) => n.type !== 'anchor' && n.type !== 'softReturn');

/** Boxes of text and tables of a page, in its space; `most`: how many columns a table of the format has, where it has a limit. */
export function boxesOnPage(
  { spread, page }: { spread: Spread; page: PagePlace['page'] },
  pieces: Pieces,
  most = Infinity,
): { item: string; box: Rect }[] {
  const toPage = translation(-page.box.x, -page.box.y);
  return [...pieces].flatMap(([id, list]) => {
    const item = spread.items[id];
    if (!item) return [];
    return list.flatMap((p) => {
      if (p.page !== page.id || (p.kind === 'words' && !p.blocks.some(holdsWords))) return [];
      const isTurned = Math.abs(item.transform[1]) > 1e-6;
      if (p.kind === 'table' && isTurned) return [];
      const boxes = p.kind === 'table' ? besideOneAnother(p.rect, p.widths, most) : [p.rect];
      return boxes.map((box) => ({ item: id, box: transformRect(multiply(toPage, item.transform), box) }));
    });
  });
}

/** A table with more columns than the format has is several, side by side. */
function besideOneAnother(rect: Rect, widths: readonly number[], most: number): Rect[] {
  const out: Rect[] = [];
  let { x } = rect;
  for (let from = 0; from < widths.length; from += most) {
    const width = widths.slice(from, from + most).reduce((a, b) => a + b, 0);
    out.push({ ...rect, x, width });
    x += width;
  }
  return out;
}
