import type { ParagraphProperties } from '../folio/styles.ts';
import { widthBetween } from './shapeParagraph.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';

/** A tab in a line: the room it takes, and what fills it. */
export interface PlacedTab {
  at: number;
  width: number;
  leader?: string | undefined;
}

type Stop = ParagraphProperties['tabs'][number];
/** Default tab stops, half an inch apart (common practice). */
const TAB_STEP = 36;
const NEAR = 0.01;

/** The stop that a tab at `x` goes to, measured from the frame's edge; the paragraph's indent is a stop too. */
function stopAfter(x: number, paragraph: ParagraphProperties): Stop {
  const past = x + NEAR;
  let next: Stop | null = paragraph.startIndent > past ? { at: paragraph.startIndent, align: 'left' } : null;
  for (const stop of paragraph.tabs) if (stop.at > past && (!next || stop.at <= next.at)) next = stop;
  return next ?? { at: (Math.floor(past / TAB_STEP) + 1) * TAB_STEP, align: 'left' };
}

/** How much of the text after a tab stands before its stop: none, all, half, or what comes before a character. */
function before(shaped: ShapedParagraph, stop: Stop, from: number, to: number): number {
  if (stop.align === 'left') return 0;
  const width = widthBetween(shaped, from, to);
  if (stop.align === 'right') return width;
  if (stop.align === 'centre') return width / 2;
  const at = shaped.text.slice(from, to).indexOf(stop.character ?? '.');
  return at < 0 ? width : widthBetween(shaped, from, from + at);
}

/** Places the tabs of `text[start..end)` in a line indented by `indent`; `width` is the line's, from its indent on. */
export function placeTabs(
  shaped: ShapedParagraph,
  paragraph: ParagraphProperties,
  start: number,
  end: number,
  indent: number,
  measure: number,
): { tabs: PlacedTab[]; width: number } {
  if (!shaped.hasTabs) return { tabs: [], width: widthBetween(shaped, start, end) };
  const { text } = shaped;
  const tabs: PlacedTab[] = [];
  let x = indent;
  let from = start;
  for (let tab = text.indexOf('\t', start); tab >= 0 && tab < end; tab = text.indexOf('\t', tab + 1)) {
    x += widthBetween(shaped, from, tab);
    const next = text.indexOf('\t', tab + 1);
    const stretchEnd = next >= 0 && next < end ? next : end;
    const stop = stopAfter(x, paragraph);
    // A stop that lies beyond the line's end stands at its end, so that page numbers of a contents list align whatever the frame.
    const at = stop.align === 'left' ? stop.at : Math.min(stop.at, indent + measure);
    const width = Math.max(0, at - before(shaped, stop, tab + 1, stretchEnd) - x);
    tabs.push({ at: tab, width, leader: stop.leader });
    x += width;
    from = tab + 1;
  }
  return { tabs, width: x + widthBetween(shaped, from, end) - indent };
}
