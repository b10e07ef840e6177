import type { ParagraphProperties } from '../folio/styles.ts';
import { leadingOf } from '../folio/resolve.ts';
import type { BrokenLine } from './breakLines.ts';
import type { ShapedGlyph } from './fontFace.ts';
import type { ShapingItem } from './itemise.ts';
import { positioned } from './itemise.ts';
import type { Glyph, GlyphRun, SetLine } from './marks.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';
import { isBreakItem, isTabItem, isTrailSurrogate, scaleOf, shapeAlone, trackingOf } from './shapeParagraph.ts';

/** A line with its marks placed from x = 0 and a baseline at 0, and the room it wants. */
export interface BuiltLine extends SetLine {
  leading: number;
}

const STRETCHES = (c: string | undefined): boolean => c === ' ' || c === '\u00A0';

/**
 * Turns a broken line into glyph runs: takes the paragraph's glyphs where the break is safe, shapes
 * again where it is not (HarfBuzz marks such glyphs), adds the stretch that justification needs and
 * cuts runs where the look changes.
 */
export function buildLine(
  shaped: ShapedParagraph,
  line: BrokenLine,
  paragraph: ParagraphProperties,
  paragraphId: string,
  columnWidth: number,
  base: { leading: number; ascent: number; descent: number },
): BuiltLine {
  const indent = paragraph.startIndent + (line.start === 0 ? paragraph.firstLineIndent : 0);
  const measure = Math.max(0, columnWidth - indent - paragraph.endIndent);
  const pieces = shaped.items.flatMap((item, i) => {
    const [from, to] = [Math.max(item.start, line.start), Math.min(item.end, line.end)];
    return from < to ? [{ item, from, to, glyphs: glyphsOf(shaped, i, from, to) }] : [];
  });
  const natural = pieces.reduce((sum, p) => sum + widthOf(shaped, p, line), 0);
  const wordSpace = stretchOf(shaped, line, paragraph, measure - natural);
  const runs: GlyphRun[] = [];
  let x = 0;
  let [ascent, descent, leading] = [0, 0, 0];
  for (const piece of pieces) {
    if (isTabItem(shaped.text, piece.item)) {
      x += line.tabs.find((t) => t.at === piece.from)?.width ?? 0;
      continue;
    }
    if (isBreakItem(shaped.text, piece.item)) continue;
    for (const run of runsOf(shaped, piece, x, wordSpace)) {
      runs.push(run);
      x = run.x + run.width;
      ascent = Math.max(ascent, (run.font.ascent / run.font.unitsPerEm) * run.size - run.shift);
      descent = Math.max(descent, (run.font.descent / run.font.unitsPerEm) * run.size + run.shift);
      leading = Math.max(leading, leadingOf(run.look));
    }
  }
  const free = measure - x;
  const align = paragraph.align;
  const shift = align === 'right' ? free : align === 'centre' ? free / 2 : 0;
  return {
    paragraph: paragraphId,
    start: shaped.offsets[line.start]!,
    end: shaped.offsets[line.end]!,
    x: indent + shift,
    baseline: 0,
    width: x,
    measure,
    ascent: runs.length ? ascent : base.ascent,
    descent: runs.length ? descent : base.descent,
    leading: runs.length ? leading : base.leading,
    spaceAtEnd: line.next > line.end && /\s/.test(shaped.text[line.end] ?? ''),
    column: 0,
    first: line.start === 0,
    last: line.next >= shaped.text.length,
    runs,
  };
}

interface Piece {
  item: ShapingItem;
  from: number;
  to: number;
  glyphs: ShapedGlyph[];
}

function glyphsOf(shaped: ShapedParagraph, index: number, from: number, to: number): ShapedGlyph[] {
  const item = shaped.items[index]!;
  const whole = shaped.glyphs[index]!;
  if (from === item.start && to === item.end) return whole;
  const safe = (from === item.start || !shaped.unsafe[from]) && (to === item.end || !shaped.unsafe[to]);
  if (safe) return whole.filter((g) => g.cluster >= from && g.cluster < to);
  return shapeAlone(shaped, item, from, to);
}

function widthOf(shaped: ShapedParagraph, piece: Piece, line: BrokenLine): number {
  if (isTabItem(shaped.text, piece.item)) return line.tabs.find((t) => t.at === piece.from)?.width ?? 0;
  const scale = scaleOf(piece.item);
  const characters = characterCount(shaped.text, piece.from, piece.to);
  return (
    piece.glyphs.reduce((sum, g) => sum + g.advance * scale, 0) +
    (isBreakItem(shaped.text, piece.item) ? 0 : characters * trackingOf(piece.item))
  );
}

function characterCount(text: string, from: number, to: number): number {
  let n = 0;
  for (let i = from; i < to; i++) if (!isTrailSurrogate(text, i)) n++;
  return n;
}

/** Points for each word space of a justified line; spaces before a tab do not stretch. */
function stretchOf(shaped: ShapedParagraph, line: BrokenLine, paragraph: ParagraphProperties, free: number): number {
  const justified = paragraph.align === 'justifyAll' || (paragraph.align === 'justify' && !line.forced);
  if (!justified || line.tabs.length || free <= 0) return 0;
  let spaces = 0;
  for (let i = line.start; i < line.end; i++) if (STRETCHES(shaped.text[i])) spaces++;
  return spaces ? free / spaces : 0;
}

/** The runs of one piece, cut where the look changes, from `x` on. */
function* runsOf(shaped: ShapedParagraph, piece: Piece, x: number, wordSpace: number): Generator<GlyphRun> {
  const { text, looks, offsets } = shaped;
  const scale = scaleOf(piece.item);
  const tracking = trackingOf(piece.item);
  const ordered = piece.item.direction === 'rtl' ? [...piece.glyphs].reverse() : piece.glyphs;
  const clusterEnd = new Map<number, number>();
  ordered.forEach((g, i) => {
    const next = ordered.slice(i + 1, i + 40).find((n) => n.cluster > g.cluster);
    clusterEnd.set(g.cluster, next?.cluster ?? piece.to);
  });
  for (const look of looks) {
    const [from, to] = [Math.max(look.start, piece.from), Math.min(look.end, piece.to)];
    if (from >= to) continue;
    const mine = piece.glyphs.filter((g) => g.cluster >= from && g.cluster < to);
    const glyphs: Glyph[] = [];
    let at = 0;
    let lastCluster = -1;
    for (const g of mine) {
      const end = clusterEnd.get(g.cluster) ?? piece.to;
      const fresh = g.cluster !== lastCluster;
      const chars = fresh ? text.slice(g.cluster, end) : '';
      let advance = g.advance * scale;
      if (fresh) advance += tracking * characterCount(text, g.cluster, end) + (STRETCHES(chars) ? wordSpace : 0);
      glyphs.push({ gid: g.gid, x: at, advance, dx: g.dx * scale, dy: -g.dy * scale, offset: offsets[g.cluster]!, text: chars });
      at += advance;
      lastCluster = g.cluster;
    }
    const c = look.character;
    yield {
      font: piece.item.font,
      size: piece.item.size,
      look: c,
      fill: c.fill,
      text: text.slice(from, to),
      start: offsets[from]!,
      end: offsets[to]!,
      x,
      shift: positioned(c).shift,
      width: at,
      wordSpace,
      letterSpace: tracking,
      horizontalScale: c.horizontalScale,
      features: piece.item.features,
      language: piece.item.language,
      direction: piece.item.direction,
      link: look.link,
      characterStyle: look.characterStyle,
      glyphs,
    };
    x += at;
  }
}
