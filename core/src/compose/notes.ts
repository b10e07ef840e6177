import type { Inline, Story } from '../folio/story.ts';
import type { SolidPaint } from '../folio/colour.ts';
import { cellsInOrder } from '../folio/tableCells.ts';
import { factsOf } from './blockFacts.ts';
import type { SetLine } from './marks.ts';

/** A footnote set for a column: its lines from its own top left. */
export interface SetNote {
  id: string;
  height: number;
  lines: SetLine[];
  paint: SolidPaint;
}

/** The notes of a story in the order of their references, numbered from 1; endnotes are counted apart. */
export function noteNumbers(
  story: Story,
  order: readonly string[],
): { numbers: Map<string, string>; endnotes: (Inline & { type: 'note' })[] } {
  const numbers = new Map<string, string>();
  const endnotes: (Inline & { type: 'note' })[] = [];
  const counts = { footnote: 0, endnote: 0 };
  const visit = (ids: readonly string[]): void => {
    for (const id of ids) {
      const block = story.blocks[id];
      if (block?.kind === 'paragraph') {
        for (const node of factsOf(block).notes) {
          numbers.set(node.id, String(++counts[node.kind]));
          if (node.kind === 'endnote') endnotes.push(node);
        }
      } else if (block?.kind === 'table') for (const cell of cellsInOrder(block)) visit(cell.order);
    }
  };
  visit(order);
  return { numbers, endnotes };
}
