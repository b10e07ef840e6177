import type { ParagraphProperties } from '../folio/styles.ts';
import { firstIndex } from './bisect.ts';
import { vanishes, withHyphens } from './breakpoints.ts';
import type { Opportunity } from './breakpoints.ts';
import { hyphenWidth, widthBetween } from './shapeParagraph.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';
import { placeTabs } from './tabs.ts';
import type { PlacedTab } from './tabs.ts';
import { emptyBreakpoints, FORCED, NEVER, totalFit } from './totalFit.ts';
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
  /** A word wider than the line was cut where the line ends. */
  cut: boolean;
  tabs: PlacedTab[];
}

/** The room of each line, from the first that is asked for: how far it is indented, and what is left for text. */
export type Measures = (line: number) => { indent: number; measure: number };

/** Plain TeX's figures (The TeXbook, appendix B): hyphen, two of them in a row, one before the last line, uneven neighbours. */
const HYPHEN_COST = 50;
const DOUBLE_HYPHEN = 10_000;
const FINAL_HYPHEN = 5000;
const UNEVEN = 10_000;
/** The greatest stretch ratio of a line, and whether words, also the last one, may be divided. */
interface Attempt {
  mostRatio: number;
  divide: 'nowhere' | 'notTheLast' | 'anywhere';
}
/**
 * Tried in turn: without hyphens, no line may be looser than TeX's pretolerance of 100 allows. Half a word makes no last
 * line where the lines before it can do without (common practice; CSS Text 4, section 6.3).
 */
const ATTEMPTS: readonly Attempt[] = [
  { mostRatio: 1, divide: 'nowhere' },
  { mostRatio: 1.26, divide: 'notTheLast' },
  { mostRatio: 2, divide: 'notTheLast' },
  { mostRatio: 2.6, divide: 'notTheLast' },
  { mostRatio: 2, divide: 'anywhere' },
  { mostRatio: 4, divide: 'anywhere' },
  { mostRatio: 16, divide: 'anywhere' },
  { mostRatio: 1000, divide: 'anywhere' },
];
/** How far a ragged line may fall short, as a share of its measure, before it counts as badly as a loose one. */
const RAG = 0.12;
const EPSILON = 1e-6;

/** Lines as far as they have been looked for; `whole` where they reach the paragraph's end. */
export interface Stretch {
  lines: BrokenLine[];
  whole: boolean;
}

/**
 * Breaks a paragraph from `start` on, as far as one stretch: by total fit where it asks for that and can have it, else by
 * first fit. All but the longest paragraphs are one stretch.
 */
export function breakStretch(
  shaped: ShapedParagraph,
  opportunities: readonly Opportunity[],
  paragraph: ParagraphProperties,
  start: number,
  measures: Measures,
): Stretch {
  if (!shaped.text.length)
    return { lines: [{ start: 0, end: 0, next: 0, width: 0, forced: true, hyphen: false, cut: false, tabs: [] }], whole: true };
  const only = onlyLine(shaped, opportunities, paragraph, start, measures);
  if (only) return { lines: [only], whole: true };
  const best =
    paragraph.composer === 'totalFit' && !shaped.hasTabs ? breakTotalFit(shaped, opportunities, paragraph, start, measures) : null;
  return best ?? breakGreedy(shaped, opportunities, paragraph, start, measures);
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

/** The places from `begin` on that one stretch weighs, with or without those inside words; the last ends it. */
function placesFrom(
  shaped: ShapedParagraph,
  all: readonly Opportunity[],
  begin: number,
  hyphens: ParagraphProperties | null,
): { places: Opportunity[]; whole: boolean } {
  const first = firstIndex(all.length, (i) => all[i]!.next > begin);
  let places = all.slice(first, first + MOST_PLACES);
  if (hyphens) {
    // A word that the line before has begun is looked up from its beginning.
    places = withHyphens(shaped, places, hyphens, all[first - 1]?.next ?? 0).filter((o) => o.next > begin);
  }
  const whole = places.length <= MOST_PLACES && first + MOST_PLACES >= all.length;
  places.length = Math.min(places.length, MOST_PLACES);
  return { places, whole };
}

function breakTotalFit(
  shaped: ShapedParagraph,
  all: readonly Opportunity[],
  paragraph: ParagraphProperties,
  begin: number,
  measures: Measures,
): Stretch | null {
  const measureOf = (line: number): number => measures(line).measure;
  let { places, whole } = placesFrom(shaped, all, begin, null);
  let points: Breakpoints | null = null;
  let divided = false;
  for (const { mostRatio, divide } of ATTEMPTS) {
    if (divide !== 'nowhere' && !divided) {
      ({ places, whole } = placesFrom(shaped, all, begin, paragraph));
      points = null;
      divided = true;
    }
    if (!points) {
      const last = places.length - 1;
      if (!whole) places[last] = { ...places[last]!, required: true };
      points = breakpointsFor(shaped, places, paragraph, begin, measureOf(0));
    }
    if (divided && whole) for (const i of hyphensInLastWord(places)) points.cost[i] = divide === 'anywhere' ? HYPHEN_COST : NEVER;
    const chosen = totalFit(points, measureOf, {
      mostRatio,
      doubleHyphen: DOUBLE_HYPHEN,
      finalHyphen: whole ? FINAL_HYPHEN : 0,
      unevenNeighbours: UNEVEN,
      hyphensInARow: paragraph.hyphenation?.inARow ?? 0,
      looseness: paragraph.looseness,
    });
    if (!chosen) continue;
    const lines = chosen.map((b, i) => lineAt(shaped, i ? places[chosen[i - 1]!]!.next : begin, places[b]!));
    if (whole) return { whole, lines: withEnd(shaped, lines) };
    // A stretch so short that nothing of it can be kept: such text has no good lines.
    return lines.length > LOOK_AHEAD ? { whole, lines: lines.slice(0, -LOOK_AHEAD) } : null;
  }
  return null;
}

/** Places inside the paragraph's last word, by index. */
function hyphensInLastWord(places: readonly Opportunity[]): number[] {
  const out: number[] = [];
  for (let i = places.length - 2; i >= 0 && places[i]!.hyphen; i--) out.push(i);
  return out;
}

const lineAt = (shaped: ShapedParagraph, start: number, o: Opportunity): BrokenLine => ({
  start,
  end: Math.max(start, o.end),
  next: o.next,
  width: widthBetween(shaped, start, Math.max(start, o.end)),
  forced: o.required || o.next >= shaped.text.length,
  hyphen: o.hyphen,
  cut: false,
  tabs: [],
});

/** A soft return at the very end leaves an empty line after it. */
function withEnd(shaped: ShapedParagraph, lines: BrokenLine[]): BrokenLine[] {
  const { length } = shaped.text;
  if (shaped.text.endsWith('\n'))
    lines.push({ start: length, end: length, next: length, width: 0, forced: true, hyphen: false, cut: false, tabs: [] });
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

/** First fit finds this many lines at once. */
const FIRST_FIT_LINES = 400;

/** First fit: each line takes as many break opportunities as its measure holds. */
function breakGreedy(
  shaped: ShapedParagraph,
  all: readonly Opportunity[],
  paragraph: ParagraphProperties,
  start: number,
  measures: Measures,
): Stretch {
  const { text } = shaped;
  const lines: BrokenLine[] = [];
  const { places, whole } = placesFrom(shaped, all, start, paragraph);
  let index = 0;
  let lineStart = start;
  let hyphens = 0;
  const most = paragraph.hyphenation?.inARow ?? 0;
  const lastWord = whole ? places.length - 1 - hyphensInLastWord(places).length : Infinity;
  while (lineStart < text.length && index < places.length && lines.length < FIRST_FIT_LINES) {
    const { indent, measure } = measures(lines.length);
    let best: BrokenLine | null = null;
    let after = index;
    for (let at = index; at < places.length; at++) {
      const o = places[at]!;
      if (o.hyphen && ((most > 0 && hyphens >= most) || (best && at >= lastWord))) continue;
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
  if (whole && lineStart >= text.length) return { whole: true, lines: withEnd(shaped, lines) };
  // The last line found may have ended only because the places did.
  if (lines.length > 1) lines.pop();
  return { whole: !lines.length, lines };
}

const cutLine = (shaped: ShapedParagraph, start: number, end: number): BrokenLine => ({
  start,
  end,
  next: end,
  width: widthBetween(shaped, start, end),
  forced: false,
  hyphen: false,
  cut: true,
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
  while (end > start && vanishes(text.charCodeAt(end - 1))) end--;
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
    cut: false,
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
