import type { ParagraphProperties } from '../folio/styles.ts';
import { firstIndex } from './bisect.ts';
import { vanishes, withHyphens } from './breakpoints.ts';
import type { Opportunity } from './breakpoints.ts';
import { hyphenWidth, widthBetween } from './shapeParagraph.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';
import { placeTabs } from './tabs.ts';
import type { PlacedTab } from './tabs.ts';
import { emptyBreakpoints, FORCED, totalFit } from './totalFit.ts';
import type { Breakpoints } from './totalFit.ts';

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
  /** A word is divided here. */
  hyphen: boolean;
  tabs: PlacedTab[];
}

/** The room of each line, from the first that is asked for: how far it is indented, and what is left for text. */
export type Measures = (line: number) => { indent: number; measure: number };

/** Plain TeX's figures (The TeXbook, appendix B): hyphen, two of them in a row, uneven neighbours. */
const HYPHEN_COST = 50;
const DOUBLE_HYPHEN = 10_000;
const UNEVEN = 10_000;
/** Without hyphens, no line may be looser than this (TeX's pretolerance of 100); with them, these are tried in turn. */
const FIRST_RATIOS = [1];
const RATIOS = [1.26, 2, 4, 16, 1000];
/** How far a ragged line may fall short, as a share of its measure, before it counts as badly as a loose one. */
const RAG = 0.12;
const EPSILON = 1e-6;

/** Breaks a paragraph from `start` on: by total fit where it asks for that and can have it, else by first fit. */
export function breakParagraph(
  shaped: ShapedParagraph,
  opportunities: readonly Opportunity[],
  paragraph: ParagraphProperties,
  start: number,
  measures: Measures,
): BrokenLine[] {
  if (!shaped.text.length) return [{ start: 0, end: 0, next: 0, width: 0, forced: true, hyphen: false, tabs: [] }];
  const only = onlyLine(shaped, opportunities, paragraph, start, measures);
  if (only) return [only];
  const best =
    paragraph.composer === 'totalFit' && !shaped.hasTabs ? breakTotalFit(shaped, opportunities, paragraph, start, measures) : null;
  return best ?? breakGreedy(shaped, withHyphens(shaped, opportunities, paragraph), paragraph, start, measures);
}

/** The whole rest of a paragraph where it fits in one line as it is: as headings, cells and entries of lists mostly do. */
function onlyLine(
  shaped: ShapedParagraph,
  opportunities: readonly Opportunity[],
  paragraph: ParagraphProperties,
  start: number,
  measures: Measures,
): BrokenLine | null {
  const { text, sums } = shaped;
  const last = opportunities[opportunities.length - 1];
  const { indent, measure } = measures(0);
  if (!last || last.next <= start || sums.edge(last.end) - sums.edge(start) > measure + EPSILON) return null;
  if (paragraph.looseness > 0 || paragraph.align === 'justifyAll' || text.indexOf('\n', start) >= 0) return null;
  const line = candidateLine(shaped, paragraph, start, last, indent, measure);
  return line.width <= measure + EPSILON ? line : null;
}

/**
 * More places than this are not weighed against one another at once: the work grows faster than their number. A longer
 * paragraph, of many pages, is broken in stretches, each a few lines further than its lines are kept.
 */
const MOST_PLACES = 2500;
const LOOK_AHEAD = 12;

function breakTotalFit(
  shaped: ShapedParagraph,
  plain: readonly Opportunity[],
  paragraph: ParagraphProperties,
  start: number,
  measures: Measures,
): BrokenLine[] | null {
  let hyphenated: Opportunity[] | null = null;
  const lines: BrokenLine[] = [];
  /** Lines from `begin` on, as far as one stretch reaches; whether that is the paragraph's end. */
  const solve = (begin: number, all: readonly Opportunity[], ratios: readonly number[]): { lines: BrokenLine[]; whole: boolean } | null => {
    const first = firstAfter(all, begin);
    const whole = all.length - first <= MOST_PLACES;
    const from = all.slice(first, first + MOST_PLACES);
    if (!whole) from[MOST_PLACES - 1] = { ...from[MOST_PLACES - 1]!, required: true };
    const measureOf = (line: number): number => measures(lines.length + line).measure;
    const points = breakpointsFor(shaped, from, paragraph, begin, measureOf(0));
    for (const mostRatio of ratios) {
      const chosen = totalFit(points, measureOf, {
        mostRatio,
        doubleHyphen: DOUBLE_HYPHEN,
        unevenNeighbours: UNEVEN,
        hyphensInARow: paragraph.hyphenation?.inARow ?? 0,
        looseness: paragraph.looseness,
      });
      if (chosen) return { whole, lines: chosen.map((b, i) => lineAt(shaped, i ? from[chosen[i - 1]!]!.next : begin, from[b]!)) };
    }
    return null;
  };
  for (;;) {
    const begin = lines[lines.length - 1]?.next ?? start;
    const found = solve(begin, plain, FIRST_RATIOS) ?? solve(begin, (hyphenated ??= withHyphens(shaped, plain, paragraph)), RATIOS);
    if (!found) return null;
    if (found.whole) return withEnd(shaped, [...lines, ...found.lines]);
    // A stretch so short that nothing of it can be kept: such text has no good lines.
    if (found.lines.length <= LOOK_AHEAD) return null;
    lines.push(...found.lines.slice(0, -LOOK_AHEAD));
  }
}

/** The first opportunity after which a line begins beyond `at`. */
const firstAfter = (all: readonly Opportunity[], at: number): number => firstIndex(all.length, (i) => all[i]!.next > at);

const lineAt = (shaped: ShapedParagraph, start: number, o: Opportunity): BrokenLine => ({
  start,
  end: Math.max(start, o.end),
  next: o.next,
  width: widthBetween(shaped, start, Math.max(start, o.end)),
  forced: o.required || o.next >= shaped.text.length,
  hyphen: o.hyphen,
  tabs: [],
});

/** A soft return at the very end leaves an empty line after it. */
function withEnd(shaped: ShapedParagraph, lines: BrokenLine[]): BrokenLine[] {
  const { length } = shaped.text;
  if (shaped.text.endsWith('\n')) lines.push({ start: length, end: length, next: length, width: 0, forced: true, hyphen: false, tabs: [] });
  return lines;
}

/** Sums of width, stretch and shrink at each opportunity. Ragged lines stretch at their end alone, and never shrink. */
function breakpointsFor(
  shaped: ShapedParagraph,
  opportunities: readonly Opportunity[],
  paragraph: ParagraphProperties,
  start: number,
  measure: number,
): Breakpoints {
  const points = emptyBreakpoints(opportunities.length);
  const { sums } = shaped;
  const justified = paragraph.align === 'justify' || paragraph.align === 'justifyAll';
  const rag = RAG * measure;
  const w0 = sums.edge(start);
  const y0 = sums.stretch(start);
  const z0 = sums.shrink(start);
  for (let i = 0; i < opportunities.length; i++) {
    const { end, next, required, hyphen } = opportunities[i]!;
    const forced = required || next >= shaped.text.length;
    points.width[i] = sums.edge(end) - w0;
    points.nextWidth[i] = sums.edge(next) - w0;
    points.extra[i] = hyphen ? hyphenWidth(shaped, end) : 0;
    points.cost[i] = forced ? FORCED : hyphen ? HYPHEN_COST : 0;
    points.flagged[i] = hyphen ? 1 : 0;
    if (justified) {
      points.stretch[i] = sums.stretch(end) - y0;
      points.nextStretch[i] = sums.stretch(next) - y0;
      points.shrink[i] = sums.shrink(end) - z0;
      points.nextShrink[i] = sums.shrink(next) - z0;
    }
    // The last line ends where it ends: its glue is as good as infinite, as \parfillskip is.
    if (forced && paragraph.align !== 'justifyAll') points.stretch[i] = (justified ? points.stretch[i]! : 0) + 1e7;
    else if (!justified) points.stretch[i] = rag;
  }
  return points;
}

/** First fit: each line takes as many break opportunities as its measure holds. */
function breakGreedy(
  shaped: ShapedParagraph,
  opportunities: readonly Opportunity[],
  paragraph: ParagraphProperties,
  start: number,
  measures: Measures,
): BrokenLine[] {
  const { text } = shaped;
  const lines: BrokenLine[] = [];
  let index = firstAfter(opportunities, start);
  let lineStart = start;
  let hyphens = 0;
  const most = paragraph.hyphenation?.inARow ?? 0;
  while (lineStart < text.length && index < opportunities.length) {
    const { indent, measure } = measures(lines.length);
    let best: BrokenLine | null = null;
    let after = index;
    for (let at = index; at < opportunities.length; at++) {
      const o = opportunities[at]!;
      if (o.hyphen && most > 0 && hyphens >= most) continue;
      const candidate = candidateLine(shaped, paragraph, lineStart, o, indent, measure);
      const fits = candidate.width <= measure + EPSILON;
      if (!fits && best) {
        // A hyphen may make a line too long that a later space would not.
        if (o.hyphen && candidate.width - hyphenWidth(shaped, o.end) <= measure) continue;
        break;
      }
      if (!fits) {
        const cut = emergencyCut(shaped, lineStart, candidate.end, measure);
        best = cut < candidate.end ? cutLine(shaped, lineStart, cut) : candidate;
        after = cut >= candidate.end ? at + 1 : at;
        break;
      }
      best = candidate;
      after = at + 1;
      if (o.required) break;
    }
    if (!best) break;
    lines.push(best);
    hyphens = best.hyphen ? hyphens + 1 : 0;
    index = after;
    lineStart = best.next;
  }
  return withEnd(shaped, lines);
}

const cutLine = (shaped: ShapedParagraph, start: number, end: number): BrokenLine => ({
  start,
  end,
  next: end,
  width: widthBetween(shaped, start, end),
  forced: false,
  hyphen: false,
  tabs: [],
});

/** The line from `start` to a break opportunity, with its tabs measured where they fall. */
function candidateLine(
  shaped: ShapedParagraph,
  paragraph: ParagraphProperties,
  start: number,
  o: Opportunity,
  indent: number,
  measure: number,
): BrokenLine {
  const { text } = shaped;
  let end = o.end;
  while (end > start && vanishes(text[end - 1])) end--;
  end = Math.max(end, start);
  const far = farTooLong(shaped, start, end, measure);
  const { tabs, width } = far ?? placeTabs(shaped, paragraph, start, end, indent, measure);
  return {
    start,
    end,
    next: o.next,
    width: width + (o.hyphen ? hyphenWidth(shaped, o.end) : 0),
    forced: o.required || o.next >= text.length,
    hyphen: o.hyphen,
    tabs,
  };
}

/**
 * What is longer by this many points, glyphs as they are, is too long however its ends are shaped: shaping all of it to
 * know by how much would take a text of one endless word for ever.
 */
const FAR = 200;

function farTooLong(shaped: ShapedParagraph, start: number, end: number, measure: number): { tabs: PlacedTab[]; width: number } | null {
  const width = shaped.sums.edge(end) - shaped.sums.edge(start);
  if (width <= measure + FAR) return null;
  return shaped.hasTabs && shaped.text.slice(start, end).includes('\t') ? null : { tabs: [], width };
}

/** A word wider than the whole measure is cut where the measure ends, after at least one character. */
function emergencyCut(shaped: ShapedParagraph, start: number, end: number, measure: number): number {
  const { text, sums } = shaped;
  if (shaped.hasTabs && text.slice(start, end).includes('\t')) return end;
  const fits = (at: number): boolean => widthBetween(shaped, start, at) <= measure + EPSILON;
  // Near the place by glyphs as they are, which needs no shaping; then step by step, which needs little.
  const tooLong = firstIndex(end - start, (i) => sums.edge(start + i + 1) - sums.edge(start) > measure);
  let low = start + Math.max(1, tooLong);
  while (low > start + 1 && !fits(low)) low--;
  while (low < end && fits(low + 1)) low++;
  while (low > start + 1 && (text.charCodeAt(low) & 0xfc00) === 0xdc00) low--;
  while (low < end && sums.edge(low) === sums.edge(low + 1)) low++;
  return low;
}
