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

/** A note whose lines from one on stand in the next column: it was too long for the column of its reference. */
export interface CarriedNote {
  id: string;
  from: number;
}

/** A footnote's lines `[from, to)` as a note of their own. */
export function partOfNote(note: SetNote, from: number, to: number): SetNote {
  if (from === 0 && to === note.lines.length) return note;
  const above = from > 0 ? note.lines[from - 1]!.baseline : 0;
  const lines = note.lines.slice(from, to).map((line) => ({ ...line, baseline: line.baseline - above }));
  const last = lines[lines.length - 1];
  return { id: note.id, height: last ? last.baseline + last.descent : 0, lines, paint: note.paint };
}

/** How many of a note's lines from one on stand in a height. */
export function linesWithin(note: SetNote, from: number, height: number): number {
  let count = 0;
  while (from + count < note.lines.length && partOfNote(note, from, from + count + 1).height <= height + 0.01) count++;
  return count;
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
