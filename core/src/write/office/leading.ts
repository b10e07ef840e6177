import { linesOf } from '../../compose/linesOf.ts';
import type { Composition, SetLine } from '../../compose/marks.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Head } from '../../folio/head.ts';
import { leadingOf, resolveParagraph } from '../../folio/resolve.ts';
import type { Paragraph } from '../../folio/story.ts';
import type { ResolvedStyle } from '../../folio/resolve.ts';

/** Which of several distances between lines a paragraph gets where the format knows one only. */
export type LeadingChoice = 'safe' | 'even' | 'tightest' | 'loosest' | 'opening';

export interface Leading {
  /** The distance from line to line, in points. */
  points: number;
  /** Those that its lines have in the layout. */
  least: number;
  most: number;
}

/** Differences below this are none, in points. */
const SAME = 0.05;

/**
 * One distance between lines for a paragraph whose lines have several. `even` is their mean, by which the paragraph keeps its
 * height; `safe` is the same, unless letters of a line would then reach into the line above: then the smallest that keeps them
 * apart; `tightest` and `loosest` are the least and the most of them, `opening` that of the first line.
 */
export function leadingFor(
  lines: readonly SetLine[],
  { paragraph, character }: ResolvedStyle,
  grid: Head['baselineGrid'],
  choice: LeadingChoice,
): Leading {
  const onGrid = (points: number): number => (paragraph.alignToGrid && grid ? Math.ceil(points / grid.step - 1e-6) * grid.step : points);
  const own = lines.map((line) =>
    onGrid(Math.max(0, ...line.runs.filter((r) => !r.decoration).map((r) => leadingOf(r.look))) || leadingOf(character)),
  );
  if (!own.length) own.push(onGrid(leadingOf(character)));
  const [least, most] = [Math.min(...own), Math.max(...own)];
  const mean = own.reduce((a, b) => a + b, 0) / own.length;
  if (most - least <= SAME) return { points: own[0]!, least, most };
  const apart = Math.max(0, ...lines.slice(1).map((line, i) => lines[i]!.descent + line.ascent));
  const points = { safe: Math.max(mean, Math.min(apart, most)), even: mean, tightest: least, loosest: most, opening: own[0]! }[choice];
  return { points, least, most };
}

/** Whether a paragraph’s lines have more than one distance, so that a choice was made. */
export const hasSeveral = ({ least, most }: Leading): boolean => most - least > SAME;

/** The same for people: the distances, to hundredths of a point. */
export const leadingValues = (leading: Leading): { least: number; most: number; points: number } => {
  const shown = (points: number): number => Math.round(points * 100) / 100;
  return { least: shown(leading.least), most: shown(leading.most), points: shown(leading.points) };
};

/** What distance the lines of each paragraph get. */
export const leadingOfParagraphs =
  ({ head }: Pick<Folio, 'head'>, composition: Composition, choice: LeadingChoice): ((paragraph: Paragraph) => Leading) =>
  (paragraph) =>
    leadingFor(linesOf(composition, paragraph.id), resolveParagraph(head, paragraph), head.baselineGrid, choice);
