import type { Column } from '../compose/columnFill.ts';
import type { SetLine } from '../compose/marks.ts';
import type { Folio } from '../folio/folio.ts';
import { leadingOf, resolveParagraph } from '../folio/resolve.ts';
import type { Paragraph, Story } from '../folio/story.ts';
import { cellsByParagraph } from '../folio/tableCells.ts';

/** Lines this much narrower than their column stand beside something, in points. */
const NARROWER = 1;
/** A place beside something is a box of its own from so many lines on. */
const OWN_BOX = 3;

/** A part of a column with the lines that stand in it. */
export interface Room {
  left: number;
  right: number;
  lines: SetLine[];
}

/** The rooms of a column, from top to bottom: its whole width, or what is left of it beside something. */
export function roomsOf(folio: Folio, story: Story, column: Column, lines: readonly SetLine[]): Room[] {
  const cells = cellsByParagraph(story);
  const whole = { left: column.x, right: column.x + column.width };
  const rooms: Room[] = [];
  let inCapital = 0;
  for (const line of lines) {
    const block = story.blocks[line.paragraph];
    const isPlain = block?.kind === 'paragraph' && !cells.has(block.id) && story.order.includes(block.id);
    const { dropCapital } = block?.kind === 'paragraph' ? resolveParagraph(folio.head, block).paragraph : { dropCapital: null };
    inCapital = line.first ? (dropCapital?.lines ?? 0) : Math.max(0, inCapital - 1);
    const room = isPlain && !inCapital ? roomOf(folio, block, line, whole) : null;
    const last = rooms[rooms.length - 1];
    const here = room ?? (last && !isPlain ? whole : (last ?? whole));
    if (last && Math.abs(last.left - here.left) < NARROWER && Math.abs(last.right - here.right) < NARROWER) last.lines.push(line);
    else rooms.push({ left: here.left, right: here.right, lines: [line] });
  }
  return together(rooms, whole);
}

/** Where the first line of a room begins, and where its last ends. */
export const topOf = ({ lines }: Room): number => lines[0]!.baseline - lines[0]!.ascent;
/** A little more than the last line needs by its distance from the one above, where that is more than its letters need; in points. */
const SPARE = 1;
export const leadOver = ({ lines }: Room): number => {
  const last = lines[lines.length - 1]!;
  const pitch = Math.max(0, ...last.runs.map((r) => leadingOf(r.look)));
  return Math.max(0, pitch - last.ascent - last.descent) + SPARE;
};

export const bottomOf = ({ lines }: Room): number => lines[lines.length - 1]!.baseline + lines[lines.length - 1]!.descent;

/** The room that a line was set in, without its paragraph’s indents. */
function roomOf(
  folio: Folio,
  paragraph: Paragraph,
  line: SetLine,
  whole: { left: number; right: number },
): { left: number; right: number } {
  const { paragraph: p } = resolveParagraph(folio.head, paragraph);
  const levels = p.list ? folio.head.listStyles[p.list.style]?.levels : undefined;
  const hanging = levels?.[Math.min(p.list!.level, levels.length - 1)]?.indent ?? 0;
  const indent = p.startIndent + hanging + (line.first ? p.firstLineIndent - hanging : 0);
  const width = line.measure + indent + p.endIndent;
  if (whole.right - whole.left - width <= NARROWER) return whole;
  const free = Math.max(0, line.measure - line.width);
  const aligned = p.align === 'right' ? free : p.align === 'centre' ? free / 2 : 0;
  const left = line.x - indent - aligned;
  return { left, right: left + width };
}

/** Short narrow rooms that follow one another are one, as wide as all of them allow. */
function together(rooms: readonly Room[], whole: { left: number; right: number }): Room[] {
  const out: Room[] = [];
  const isNarrow = (r: Room): boolean => whole.right - whole.left - (r.right - r.left) > NARROWER;
  for (const room of rooms) {
    const last = out[out.length - 1];
    const isShort = last && (last.lines.length < OWN_BOX || room.lines.length < OWN_BOX);
    if (last && isNarrow(last) && isNarrow(room) && isShort && Math.min(last.right, room.right) - Math.max(last.left, room.left) > 20) {
      last.left = Math.max(last.left, room.left);
      last.right = Math.min(last.right, room.right);
      last.lines.push(...room.lines);
    } else out.push({ ...room, lines: [...room.lines] });
  }
  return out;
}
