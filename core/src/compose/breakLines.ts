import LineBreaker from 'linebreak';
import type { ParagraphProperties } from '../folio/styles.ts';
import { widthBetween } from './shapeParagraph.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';

/** A line found by breaking: units of set text, without the spaces at its end. */
export interface BrokenLine {
  start: number;
  /** End of what is shown. */
  end: number;
  /** Where the next line begins. */
  next: number;
  width: number;
  /** The paragraph's end or a soft return follows: such a line is not stretched. */
  forced: boolean;
  tabs: { at: number; width: number }[];
}

const BREAKING_SPACE = /[ \u1680\u2000-\u2006\u2008-\u200A\u205F\u3000\n]/;
/** Default tab stops, half an inch apart (common practice). */
const TAB_STEP = 36;

/** Places where a line may end (UAX 14), with those where it must. */
export function breakOpportunities(text: string): { position: number; required: boolean }[] {
  const breaker = new LineBreaker(text);
  const found: { position: number; required: boolean }[] = [];
  for (let b = breaker.nextBreak(); b; b = breaker.nextBreak())
    found.push({ position: b.position, required: b.required === true && b.position < text.length });
  return found;
}

/** Where text after a tab begins, measured from the frame's edge; the paragraph's indent is a stop too. */
function tabTarget(x: number, paragraph: ParagraphProperties): number {
  const stops = [...paragraph.tabs.map((t) => t.at), paragraph.startIndent].filter((at) => at > x + 0.01).sort((a, b) => a - b);
  return stops[0] ?? (Math.floor((x + 0.01) / TAB_STEP) + 1) * TAB_STEP;
}

/**
 * First-fit line breaking from `start`: each line takes as many break opportunities as its measure
 * holds. `measureOf(first)` gives the room of the paragraph's first and of its other lines.
 */
export function breakGreedy(
  shaped: ShapedParagraph,
  opportunities: readonly { position: number; required: boolean }[],
  paragraph: ParagraphProperties,
  start: number,
  columnWidth: number,
): BrokenLine[] {
  const { text } = shaped;
  const lines: BrokenLine[] = [];
  if (!text.length) return [{ start: 0, end: 0, next: 0, width: 0, forced: true, tabs: [] }];
  let index = opportunities.findIndex((o) => o.position > start);
  let lineStart = start;
  while (lineStart < text.length) {
    const indent = paragraph.startIndent + (lineStart === 0 ? paragraph.firstLineIndent : 0);
    const measure = Math.max(0, columnWidth - indent - paragraph.endIndent);
    let best: BrokenLine | null = null;
    let at = index;
    for (; at < opportunities.length; at++) {
      const candidate = lineTo(shaped, paragraph, lineStart, opportunities[at]!, indent);
      if (best && candidate.width > measure + 1e-6) break;
      if (candidate.width > measure + 1e-6) {
        const cut = emergencyCut(shaped, lineStart, candidate.end, measure);
        best =
          cut < candidate.end
            ? { start: lineStart, end: cut, next: cut, width: widthBetween(shaped, lineStart, cut), forced: false, tabs: [] }
            : candidate;
        if (cut >= candidate.end) at++;
        break;
      }
      best = candidate;
      if (opportunities[at]!.required) {
        at++;
        break;
      }
    }
    if (!best) break;
    lines.push(best);
    index = at;
    lineStart = best.next;
  }
  if (text.endsWith('\n') && lineStart >= text.length)
    lines.push({ start: text.length, end: text.length, next: text.length, width: 0, forced: true, tabs: [] });
  return lines;
}

/** The line from `start` to a break opportunity, with its tabs measured where they fall. */
function lineTo(
  shaped: ShapedParagraph,
  paragraph: ParagraphProperties,
  start: number,
  to: { position: number; required: boolean },
  indent: number,
): BrokenLine {
  const { text } = shaped;
  let end = to.position;
  while (end > start && BREAKING_SPACE.test(text[end - 1]!)) end--;
  const tabs: { at: number; width: number }[] = [];
  let x = indent;
  let from = start;
  for (let tab = text.indexOf('\t', start); tab >= 0 && tab < end; tab = text.indexOf('\t', tab + 1)) {
    x += widthBetween(shaped, from, tab);
    const target = tabTarget(x, paragraph);
    tabs.push({ at: tab, width: target - x });
    x = target;
    from = tab + 1;
  }
  return {
    start,
    end,
    next: to.position,
    width: x + widthBetween(shaped, from, end) - indent,
    forced: to.required || to.position >= text.length,
    tabs,
  };
}

/** A word wider than the whole measure is cut where the measure ends, after at least one character. */
function emergencyCut(shaped: ShapedParagraph, start: number, end: number, measure: number): number {
  const { text, edge } = shaped;
  if (text.slice(start, end).includes('\t')) return end;
  let [low, high] = [start + 1, end];
  while (low < high) {
    const mid = (low + high + 1) >> 1;
    if (widthBetween(shaped, start, mid) <= measure + 1e-6) low = mid;
    else high = mid - 1;
  }
  while (low > start + 1 && (text.charCodeAt(low) & 0xfc00) === 0xdc00) low--;
  while (low < end && edge[low] === edge[low + 1]) low++;
  return low;
}
