import type { ParagraphProperties } from '../folio/styles.ts';
import { leadingOf } from '../folio/resolve.ts';
import { visualOrder } from './bidi.ts';
import type { BrokenLine } from './breakLines.ts';
import { hangOf, NOT_JUSTIFIED, shareOut } from './justify.ts';
import type { Elasticity, Shares } from './justify.ts';
import { leaderRuns } from './leader.ts';
import { linePieces } from './linePieces.ts';
import type { LinePiece } from './linePieces.ts';
import { runsOf } from './lineRuns.ts';
import type { AnchoredAt, GlyphRun, SetLine } from './marks.ts';
import { isIdeographic } from '../folio/ideographs.ts';
import { hyphenCharacter, IDEOGRAPH_STRETCH, scaleOf, spaceAdvance, trackingOf } from './shapeParagraph.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';

/** A line with its marks placed from x = 0 and a baseline at 0, and the room it wants. */
export interface BuiltLine extends SetLine {
  leading: number;
}

/** What a line needs to know of its paragraph. */
export interface LineSetting {
  paragraph: ParagraphProperties;
  id: string;
  /** How far the line is indented, and the room for its text. */
  indent: number;
  measure: number;
  /** Where the paragraph's own text begins: after a drop capital. */
  begins: number;
  /** What an empty line measures by. */
  base: { leading: number; ascent: number; descent: number };
}

/**
 * Turns a broken line into glyph runs: takes the paragraph's glyphs where the break is safe, shapes
 * again where it is not (HarfBuzz marks such glyphs), shares out what justification needs, orders by
 * direction and cuts runs where the look changes.
 */
export function buildLine(shaped: ShapedParagraph, line: BrokenLine, setting: LineSetting): BuiltLine {
  const { paragraph, indent, measure, base } = setting;
  const pieces = linePieces(shaped, line);
  let natural = 0;
  for (const piece of pieces) natural += naturalWidth(piece, paragraph);
  const [hangLeft, hangRight] = paragraph.hangingPunctuation ? hangs(shaped, pieces, line) : NO_HANG;
  const shares = sharesOf(shaped, line, pieces, paragraph, measure + hangLeft + hangRight - natural);
  const placed = placePieces(shaped, pieces, shares, paragraph);
  const all = joined(pieces, placed.runs);
  const metrics = all.length ? measureOf(all) : base;
  const anchored = shaped.anchors.length ? anchoredIn(shaped, line, placed.objects, setting.begins) : [];
  const { width } = placed;
  const free = measure + hangLeft + hangRight - width;
  const lineX = indent - hangLeft + free * alignment(paragraph, line);
  const rise = riseOf(anchored, metrics.ascent);
  return {
    paragraph: setting.id,
    start: shaped.offsets[line.start]!,
    end: shaped.offsets[line.end]!,
    x: lineX,
    baseline: 0,
    width,
    measure,
    ascent: metrics.ascent,
    descent: metrics.descent,
    spaceAtEnd: line.next > line.end && /\s/.test(shaped.text[line.end] ?? ''),
    cut: line.cut,
    column: 0,
    first: line.start <= setting.begins,
    last: line.next >= shaped.text.length,
    runs: all,
    rise: anchored.length ? rise : undefined,
    anchored: anchored.length ? placesOf(anchored, lineX, metrics.ascent, rise) : undefined,
    leading: metrics.leading + rise,
  };
}
const NO_HANG = [0, 0] as const;

/** Sets pieces side by side in the order of their direction: runs by piece, where items in the line stand, the width of all. */
function placePieces(shaped: ShapedParagraph, pieces: readonly LinePiece[], shares: Shares, paragraph: ParagraphProperties) {
  const order = pieces.some((p) => p.item.level > 0) ? visualOrder(pieces.map((p) => p.item.level)) : null;
  const runs: GlyphRun[][] = [];
  let objects: Map<number, number> | null = null;
  let x = 0;
  let trailing = 0;
  for (let k = 0; k < pieces.length; k++) {
    const i = order ? order[k]! : k;
    const piece = pieces[i]!;
    if (piece.tab) {
      const { width, leader } = piece.tab;
      runs[i] = leader && width > 0 ? leaderRuns(shaped, piece.item, { from: piece.from, x, width, leader }) : [];
      x += width;
    } else if (piece.object) {
      (objects ??= new Map<number, number>()).set(piece.from, x);
      runs[i] = [];
      x += piece.object.width;
    } else {
      const own = (runs[i] = runsOf(shaped, piece, x, shares, paragraph));
      for (const run of own) x += run.width;
      const last = own[own.length - 1];
      if (last) trailing = shares.ideograph && piece.item.ideographic ? last.letterSpace - trackingOf(piece.item) : 0;
    }
  }
  return { runs, objects, width: x - trailing };
}

/** Items anchored in a line, those in the line with their place along it. */
function anchoredIn(shaped: ShapedParagraph, line: BrokenLine, objects: ReadonlyMap<number, number> | null, begins: number) {
  const ends = line.next >= shaped.text.length ? Infinity : Math.max(line.next, line.start + 1);
  const here = shaped.anchors.filter((a) => a.at >= (line.start <= begins ? 0 : line.start) && a.at < ends);
  return here.map((a) => ({ ...a, x: objects?.get(a.at) ?? 0 }));
}

/** Where items stand: in the line from its beginning; above it, one under another, and beside it from the column's edge. */
function placesOf(anchored: ReturnType<typeof anchoredIn>, lineX: number, ascent: number, rise: number): AnchoredAt[] {
  let top = -ascent - rise;
  return anchored.map(({ node: { item, place }, room, x }) => {
    if (place === 'inline') return { item, x, y: -room.height };
    if (place === 'side') return { item, x: -lineX, y: -ascent };
    const at = { item, x: -lineX, y: top };
    top += room.height;
    return at;
  });
}

/** How much higher than its letters a line becomes by items in it and above it. */
function riseOf(anchored: ReturnType<typeof anchoredIn>, ascent: number): number {
  let [inLine, above] = [0, 0];
  for (const { node, room } of anchored)
    if (node.place === 'inline') inLine = Math.max(inLine, room.height - ascent);
    else if (node.place === 'above') above += room.height;
  return inLine + above;
}

/** The share of free room that stands before a line: `left` and `right` are sides of the paper in either direction. */
function alignment(paragraph: ParagraphProperties, line: BrokenLine): number {
  switch (paragraph.align) {
    case 'left':
      return 0;
    case 'right':
      return 1;
    case 'centre':
      return 0.5;
    case 'justify':
      return paragraph.direction === 'rtl' && line.forced ? 1 : 0;
    case 'justifyAll':
      return 0;
  }
}

function measureOf(runs: readonly GlyphRun[]): { ascent: number; descent: number; leading: number } {
  let [ascent, descent, leading] = [0, 0, 0];
  for (const run of runs) {
    ascent = Math.max(ascent, (run.font.ascent / run.font.unitsPerEm) * run.size - run.shift);
    descent = Math.max(descent, (run.font.descent / run.font.unitsPerEm) * run.size + run.shift);
    leading = Math.max(leading, leadingOf(run.look));
  }
  return { ascent, descent, leading };
}

/** Runs in reading order, told how each follows the one before. */
function joined(pieces: readonly LinePiece[], runs: readonly GlyphRun[][]): GlyphRun[] {
  const out: GlyphRun[] = [];
  let tab = false;
  pieces.forEach((piece, i) => {
    for (const run of runs[i]!) {
      const before = out[out.length - 1];
      if (tab && before && !run.decoration) run.joint = 'tab';
      else if (before && (before.direction !== run.direction || Math.abs(before.x + before.width - run.x) > 0.001)) run.joint = 'apart';
      out.push(run);
      if (!run.decoration) tab = false;
    }
    if (piece.tab) tab = true;
  });
  return out;
}

/** A piece's width before justification, its spaces as wide as the paragraph's style wants them. */
function naturalWidth(piece: LinePiece, paragraph: ParagraphProperties): number {
  if (piece.tab) return piece.tab.width;
  if (piece.object) return piece.object.width;
  const spaces = piece.spaces * spaceAdvance(piece.item) * (paragraph.wordSpace.ideal - 1);
  return piece.advances + spaces + trackingOf(piece.item) * (piece.characters + (piece.hyphen ? 1 : 0));
}

/** How far the first and last characters hang over the line's edges, in points. */
function hangs(shaped: ShapedParagraph, pieces: readonly LinePiece[], line: BrokenLine): [number, number] {
  const [first, last] = [pieces[0], pieces[pieces.length - 1]];
  const over = (piece: LinePiece | undefined, glyph: number, character: string | undefined): number =>
    piece && piece.begin < piece.end && piece.item.direction === 'ltr'
      ? hangOf(character) * piece.row.advance(glyph) * scaleOf(piece.item)
      : 0;
  return [
    over(first, first?.begin ?? 0, shaped.text[line.start]),
    over(last, (last?.end ?? 1) - 1, line.hyphen && last ? hyphenCharacter(last.item) : shaped.text[line.end - 1]),
  ];
}

/** How the line's free room is shared out; nothing is, where the line is not justified or has tabs. */
function sharesOf(
  shaped: ShapedParagraph,
  line: BrokenLine,
  pieces: readonly LinePiece[],
  paragraph: ParagraphProperties,
  free: number,
): Shares {
  const justified = paragraph.align === 'justifyAll' || (paragraph.align === 'justify' && (!line.forced || free < 0));
  if (!justified || line.tabs.length || Math.abs(free) < 1e-9) return NOT_JUSTIFIED;
  return shareOut(free, elasticityOf(shaped, pieces, paragraph), paragraph);
}

function elasticityOf(shaped: ShapedParagraph, pieces: readonly LinePiece[], paragraph: ParagraphProperties): Elasticity {
  const { letterSpace, glyphWidth, wordSpace } = paragraph;
  const out: Elasticity = { spaces: 0, letters: { stretch: 0, shrink: 0 }, glyphs: { stretch: 0, shrink: 0 }, ideographs: 0 };
  const last = pieces[pieces.length - 1];
  for (const piece of pieces) {
    if (piece.tab || piece.object) continue;
    out.spaces += piece.spaces * spaceAdvance(piece.item) * wordSpace.ideal;
    const letters = piece.characters * piece.item.size;
    out.letters.stretch += letters * (letterSpace.most - letterSpace.ideal);
    out.letters.shrink += letters * (letterSpace.ideal - letterSpace.least);
    out.glyphs.stretch += piece.advances * (glyphWidth.most - 1);
    out.glyphs.shrink += piece.advances * (1 - glyphWidth.least);
    if (piece.item.ideographic) {
      // The last character of a line has no gap after it.
      const gaps = ideographsIn(shaped.text, piece.from, piece.to) - (piece === last ? 1 : 0);
      out.ideographs += Math.max(0, gaps) * IDEOGRAPH_STRETCH * piece.item.size;
    }
  }
  return out;
}

function ideographsIn(text: string, from: number, to: number): number {
  let n = 0;
  for (let i = from; i < to; i++) if (isIdeographic(text.charCodeAt(i))) n++;
  return n;
}
