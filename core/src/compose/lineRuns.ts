import type { ParagraphProperties } from '../folio/styles.ts';
import { SOFT_HYPHEN } from '../folio/text.ts';
import { lookParts } from './expand.ts';
import type { Look } from './expand.ts';
import { GlyphWriter } from './glyphRow.ts';
import { positioned } from './itemise.ts';
import type { Shares } from './justify.ts';
import type { LinePiece } from './linePieces.ts';
import type { GlyphRun } from './marks.ts';
import { isIdeographic } from '../folio/ideographs.ts';
import { characterCount, IDEOGRAPH_STRETCH, isWordSpace, scaleOf, spaceAdvance, trackingOf } from './shapeParagraph.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';

/** Each run is taken out of it before the next begins. */
const row = new GlyphWriter();
const SOFT_HYPHEN_UNIT = SOFT_HYPHEN.charCodeAt(0);

/** What justification and tracking make of a piece's glyphs. */
interface Spacing {
  scale: number;
  /** Added to every character, every word space, every ideograph, in points. */
  letter: number;
  space: number;
  gap: number;
}

/** The runs of one piece, cut where the look changes, from `x` on; in the order in which they are seen. */
export function runsOf(shaped: ShapedParagraph, piece: LinePiece, x: number, shares: Shares, paragraph: ParagraphProperties): GlyphRun[] {
  const { text, looks, offsets } = shaped;
  const { item } = piece;
  const { letterSpace, glyphWidth, wordSpace } = paragraph;
  const stretched = 1 + shares.glyph * (shares.glyph >= 0 ? glyphWidth.most - 1 : 1 - glyphWidth.least);
  const plain = spaceAdvance(item);
  const letterLimit = shares.letter >= 0 ? letterSpace.most - letterSpace.ideal : letterSpace.ideal - letterSpace.least;
  const spacing: Spacing = {
    scale: scaleOf(item) * stretched,
    letter: trackingOf(item) + shares.letter * letterLimit * item.size,
    space: plain * (wordSpace.ideal - 1) + shares.space * plain * wordSpace.ideal,
    gap: item.ideographic ? shares.ideograph * IDEOGRAPH_STRETCH * item.size : 0,
  };
  const parts = lookParts(looks, piece.from, piece.to);
  if (item.direction === 'rtl') parts.reverse();
  const out: GlyphRun[] = [];
  let [at, pen] = [piece.begin, x];
  for (const look of parts) {
    const filled = fillRow(shaped, piece, look, at, spacing);
    at = filled.next;
    const c = look.character;
    const runText = text.slice(look.start, look.end) + (filled.hyphenated ? SOFT_HYPHEN : '');
    const width = row.x;
    out.push({
      font: item.font,
      size: item.size,
      look: c,
      fill: c.fill,
      text: runText,
      start: offsets[look.start]!,
      end: offsets[look.end]!,
      x: pen,
      shift: positioned(c).shift,
      width,
      wordSpace: spacing.space,
      letterSpace: spacing.letter + spacing.gap,
      horizontalScale: item.horizontalScale * stretched,
      features: item.features,
      language: item.language,
      direction: item.direction,
      joint: 'flow',
      decoration: undefined,
      generated: look.generated,
      link: look.link,
      characterStyle: look.characterStyle,
      stays: look.stays,
      glyphs: row.take(runText, offsetsOf(offsets, look.start, look.end)),
    });
    pen += width;
  }
  return out;
}

/** Puts the glyphs of one look into `row`, from glyph `at` of the piece's on; where the next look's begin. */
function fillRow(
  shaped: ShapedParagraph,
  piece: LinePiece,
  look: Look,
  at: number,
  spacing: Spacing,
): { next: number; hyphenated: boolean } {
  const { text } = shaped;
  const glyphs = piece.row;
  const { scale, letter, space, gap } = spacing;
  const rtl = piece.item.direction === 'rtl';
  const lastPart = look.end === piece.to;
  let hyphenated = false;
  let cluster = -1;
  let i = at;
  for (; i < piece.end; i++) {
    const own = glyphs.cluster(i);
    // Clusters rise along a line from left to right and fall along one from right to left; a hyphen's is the end.
    if (rtl ? own < look.start : own >= look.end && !lastPart) break;
    const hyphen = own >= piece.to;
    const fresh = own !== cluster;
    const length = hyphen ? 1 : fresh ? clusterEnd(piece, i, rtl) - own : 0;
    const first = hyphen ? SOFT_HYPHEN_UNIT : text.charCodeAt(own);
    cluster = own;
    // A soft hyphen within a line is not seen.
    if (!hyphen && length === 1 && first === SOFT_HYPHEN_UNIT) continue;
    let advance = glyphs.advance(i) * scale;
    if (fresh) {
      advance += letter * (length === 1 ? 1 : characterCount(shaped, own, own + length));
      if (length === 1 && isWordSpace(first)) advance += space;
      else if (gap && isIdeographic(first)) advance += gap;
    }
    const dy = glyphs.dy(i);
    row.add(glyphs.gid(i), advance, glyphs.dx(i) * scale, dy ? -dy * scale : 0, (hyphen ? look.end : own) - look.start, length);
    hyphenated ||= hyphen;
  }
  return { next: i, hyphenated };
}

/** Where a glyph's cluster ends: where the next in the text begins. */
function clusterEnd(piece: LinePiece, index: number, rtl: boolean): number {
  const glyphs = piece.row;
  const cluster = glyphs.cluster(index);
  const step = rtl ? -1 : 1;
  for (let i = index + step; i >= piece.begin && i < piece.end; i += step) {
    const other = glyphs.cluster(i);
    if (other !== cluster) return Math.min(other, piece.to);
  }
  return piece.to;
}

/** Offsets of a stretch: only the first where they follow one another, as nearly everywhere. */
function offsetsOf(offsets: readonly number[], from: number, to: number): number | Uint32Array {
  const first = offsets[from]!;
  for (let i = from + 1; i <= to; i++) if (offsets[i] !== first + i - from) return Uint32Array.from(offsets.slice(from, to + 1));
  return first;
}
