import type { BrokenLine } from './breakLines.ts';
import type { ItemRoom } from './expand.ts';
import type { ShapingItem } from './itemise.ts';
import { characterCount, firstItem, hyphenCharacter, isBreakItem, isTabItem, isWordSpace, scaleOf, shapeAlone } from './shapeParagraph.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';
import { LineRow, ShapedRow } from './shapedRow.ts';

/** What lies in one item of a line: glyphs, the room of a tab, or the room of an item in the line. */
export interface LinePiece {
  item: ShapingItem;
  from: number;
  to: number;
  /** Its glyphs: `[begin, end)` of the paragraph's row, or of `lineRow` where they had to be put together. */
  row: ShapedRow;
  begin: number;
  end: number;
  tab: { width: number; leader?: string | undefined } | null;
  object: ItemRoom | null;
  /** Points that its glyphs advance by themselves, word spaces among them, and characters that get tracking. */
  advances: number;
  spaces: number;
  characters: number;
  /** Whether a hyphen stands at its end that is no character of the text. */
  hyphen: boolean;
}

/** Glyphs put together for the line that is being built: its runs are made before the next is begun. */
const lineRow = new LineRow();

/**
 * The pieces of a line: the paragraph's own glyphs where they can be cut out, shaped again next to a break that is not
 * safe (HarfBuzz marks such glyphs).
 */
export function linePieces(shaped: ShapedParagraph, line: BrokenLine): LinePiece[] {
  const { text, items } = shaped;
  const out: LinePiece[] = [];
  lineRow.clear();
  for (let i = firstItem(items, line.start); i < items.length && items[i]!.start < line.end; i++) {
    const item = items[i]!;
    const from = Math.max(item.start, line.start);
    const to = Math.min(item.end, line.end);
    if (from >= to || isBreakItem(text, item)) continue;
    const piece: LinePiece = {
      item,
      from,
      to,
      row: ShapedRow.EMPTY,
      begin: 0,
      end: 0,
      tab: null,
      object: item.object,
      advances: 0,
      spaces: 0,
      characters: 0,
      hyphen: false,
    };
    if (isTabItem(text, item)) {
      const placed = line.tabs.find((t) => t.at === from);
      piece.tab = { width: placed?.width ?? 0, leader: placed?.leader };
    } else if (!item.object) {
      gatherGlyphs(shaped, piece, shaped.glyphs[i]!, line.hyphen && to === line.end ? hyphenCharacter(item) : '');
      sum(shaped, piece);
    }
    out.push(piece);
  }
  return out;
}

function gatherGlyphs(shaped: ShapedParagraph, piece: LinePiece, whole: ShapedRow, suffix: string): void {
  const { item, from, to } = piece;
  const { sums } = shaped;
  const ltr = item.direction === 'ltr';
  let head = from;
  let tail = to;
  if (ltr && from > item.start && sums.unsafe(from))
    do head++;
    while (head < to && sums.unsafe(head));
  if (ltr && (suffix || (to < item.end && sums.unsafe(to))))
    do tail--;
    while (tail > head && sums.unsafe(tail));
  const uncut = from === item.start && to === item.end && !suffix;
  if (uncut || (ltr && head === from && tail === to)) {
    piece.row = whole;
    piece.begin = uncut ? 0 : whole.indexOf(from);
    piece.end = uncut ? whole.count : whole.indexOf(to);
    return;
  }
  const alone = (a: number, b: number, end = ''): void => {
    const row = shapeAlone(shaped, item, a, b, end);
    lineRow.append(row, 0, row.count, a);
  };
  piece.row = lineRow;
  piece.begin = lineRow.count;
  if (!ltr || head >= tail) alone(from, to, suffix);
  else {
    if (head > from) alone(from, head);
    lineRow.append(whole, whole.indexOf(head), whole.indexOf(tail), 0);
    if (tail < to || suffix) alone(tail, to, suffix);
  }
  piece.end = lineRow.count;
}

function sum(shaped: ShapedParagraph, piece: LinePiece): void {
  const { text } = shaped;
  const { row, end } = piece;
  let advances = 0;
  for (let i = piece.begin; i < end; i++) {
    advances += row.advance(i);
    const cluster = row.cluster(i);
    if (cluster >= piece.to) piece.hyphen = true;
    else if (isWordSpace(text.charCodeAt(cluster))) piece.spaces++;
  }
  piece.advances = advances * scaleOf(piece.item);
  piece.characters = characterCount(shaped, piece.from, piece.to);
}
