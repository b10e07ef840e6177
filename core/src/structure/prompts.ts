import type { Folio } from '../folio/folio.ts';
import type { Block, Cell, Paragraph, Story, Table } from '../folio/story.ts';
import { cellsInOrder } from '../folio/tableCells.ts';

/** A document in which prompts stand for its words, and which paragraphs are such. */
export interface Prompted {
  folio: Folio;
  prompts: ReadonlySet<string>;
  /** Texts in which they stand. */
  stories: ReadonlySet<string>;
}

/**
 * A document for others to fill in: every paragraph says what kind it is, by the name of its style; several of one kind that follow one
 * another are one. What master pages say, heads of tables, and speaker’s notes stay as they are.
 */
export function promptedFolio(folio: Folio): Prompted {
  const prompts = new Set<string>();
  const stories = new Set<string>();
  const notes = new Set(Object.values(folio.spreads).flatMap((s) => s.pages.flatMap((p) => p.notes ?? [])));
  const prompted = Object.fromEntries(
    Object.entries(folio.stories).map(([id, story]) => {
      const isRepeated = story.frames.some((f) => folio.head.masterPages[f.spread]);
      if (isRepeated || notes.has(id)) return [id, story];
      stories.add(id);
      return [id, promptedStory(folio, story, prompts)];
    }),
  );
  return { folio: { ...folio, stories: prompted }, prompts, stories };
}

function promptedStory(folio: Folio, story: Story, prompts: Set<string>): Story {
  const blocks: Record<string, Block> = {};
  const take = (order: readonly string[]): string[] => {
    const kept: string[] = [];
    let before: Block | null = null;
    for (const id of order) {
      const block = story.blocks[id];
      if (!block) continue;
      if (block.kind === 'table') blocks[id] = promptedTable(block, take, story, blocks);
      else {
        const isMore = before?.kind === 'paragraph' && before.style === block.style;
        if (isMore || !block.content.length) continue;
        blocks[id] = promptOf(folio, block);
        prompts.add(id);
      }
      kept.push(id);
      before = block;
    }
    // A frame without a word would be none.
    const first = order[0] === undefined ? undefined : story.blocks[order[0]];
    if (!kept.length && first) {
      blocks[first.id] = first;
      kept.push(first.id);
    }
    return kept;
  };
  const order = take(story.order);
  return { ...story, order, blocks, links: {}, items: {} };
}

function promptedTable(table: Table, take: (order: readonly string[]) => string[], story: Story, blocks: Record<string, Block>): Table {
  const cells: Record<string, Cell> = {};
  for (const cell of cellsInOrder(table)) {
    const isHead = cell.row < table.headerRows;
    if (isHead) for (const id of cell.order) if (story.blocks[id]) blocks[id] = story.blocks[id];
    cells[cell.id] = isHead ? cell : { ...cell, order: take(cell.order) };
  }
  return { ...table, cells };
}

const promptOf = (folio: Folio, paragraph: Paragraph): Paragraph => ({
  ...paragraph,
  content: [{ type: 'span', text: (paragraph.style !== undefined && folio.head.paragraphStyles[paragraph.style]?.name) || 'Text' }],
});
