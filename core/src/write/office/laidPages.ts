import type { Folio } from '../../folio/folio.ts';
import type { Item } from '../../folio/items.ts';
import type { Block, Inline } from '../../folio/story.ts';
import { printedNumber } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { isUnread, readingItems } from '../../structure/readingOrder.ts';
import type { BoxChain } from '../../structure/textBoxes.ts';
import { itemsOfPage } from '../pages/paintedPage.ts';
import type { PageItem } from '../pages/paintedPage.ts';
import type { Scope } from '../scope.ts';

/** What a page of a text document shows: first what is seen only, then all else as it is read; each with its place from back to front. */
export function laidItems(folio: Folio, scope: Scope, place: PagePlace): { at: PageItem; z: number }[] {
  const rank = new Map(readingItems(folio, place.spread).map((item, i) => [item.id, i]));
  const order = (item: Item): number => (isUnread(folio, item.id) ? -1 : (rank.get(item.id) ?? -1));
  return itemsOfPage(folio, place, scope, () => true)
    .map((at, i) => ({ at, z: i + 2 }))
    .filter(({ at }) => !at.unseen)
    .sort((a, b) => order(a.at.item) - order(b.at.item) || a.z - b.z);
}

/** Whether the number printed on a page is one that word processors count. */
export const isCounted = (place: PagePlace): boolean => /^\d+$/.test(printedNumber(place));

/** The numbers with which pages begin to count anew; undefined where a page goes on from the one before it. */
export function newCounts(pages: readonly PagePlace[]): (number | undefined)[] {
  let expected = 1;
  return pages.map((place, i) => {
    const printed = Number(printedNumber(place));
    const begins = Number.isInteger(printed) && printed >= 0 && (i === 0 ? printed !== 1 : printed !== expected);
    expected = (Number.isInteger(printed) ? printed : expected) + 1;
    return begins ? printed : undefined;
  });
}

/** Paragraphs whose beginning and end stand in boxes, or all that there is of them: links can lead there. */
export const paragraphsIn = (chains: readonly BoxChain[]): Set<string> =>
  new Set(
    chains.flatMap(({ story, blocks }) =>
      blocks.flatMap(({ block, begins, ends }) => {
        if (block.kind === 'paragraph') return begins && ends ? [block.id] : [];
        return Object.values(block.cells).flatMap((cell) => cell.order.filter((id) => story.blocks[id]?.kind === 'paragraph'));
      }),
    ),
  );

/** Notes that paragraphs and tables refer to, in their order; those in notes as well. */
export function notesIn(story: BoxChain['story'], blocks: readonly Block[]): (Inline & { type: 'note' })[] {
  const out: (Inline & { type: 'note' })[] = [];
  const visit = (block: Block | undefined): void => {
    if (block?.kind === 'paragraph') out.push(...block.content.flatMap((n) => (n.type === 'note' ? [n] : [])));
    else if (block) for (const cell of Object.values(block.cells)) for (const id of cell.order) visit(story.blocks[id]);
  };
  blocks.forEach(visit);
  for (let i = 0; i < out.length && i < 1000; i++) for (const id of out[i]!.order) visit(story.blocks[id]);
  return out;
}
