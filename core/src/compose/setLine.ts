import type { ParagraphProperties } from '../folio/styles.ts';
import { leadingOf } from '../folio/resolve.ts';
import { visualOrder } from './bidi.ts';
import type { BrokenLine } from './breakLines.ts';
import { lookParts } from './expand.ts';
import type { ItemRoom } from './expand.ts';
import type { ShapedGlyph } from './fontFace.ts';
import { SOFT_HYPHEN } from '../folio/text.ts';
import { positioned } from './itemise.ts';
import type { ShapingItem } from './itemise.ts';
import { hangOf, NOT_JUSTIFIED, shareOut } from './justify.ts';
import type { Elasticity, Shares } from './justify.ts';
import { leaderRuns } from './leader.ts';
import { GlyphWriter } from './glyphRow.ts';
import type { AnchoredAt, GlyphRun, SetLine } from './marks.ts';
import { isIdeographic } from './scripts.ts';
import {
  characterCount,
  firstItem,
  hyphenCharacter,
  IDEOGRAPH_STRETCH,
  isBreakItem,
  isTabItem,
  isWordSpace,
  scaleOf,
  spaceAdvance,
  shapeAlone,
  trackingOf,
} from './shapeParagraph.ts';
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

/** Glyphs of a line that lie in one item. */
interface Piece {
  item: ShapingItem;
  from: number;
  to: number;
  glyphs: ShapedGlyph[];
  /** Room of a tab; then there are no glyphs. */
  tab: { width: number; leader?: string | undefined } | null;
  /** Room of an item in the line; then there are no glyphs either. */
  object: ItemRoom | null;
}

/**
 * Turns a broken line into glyph runs: takes the paragraph's glyphs where the break is safe, shapes
 * again where it is not (HarfBuzz marks such glyphs), shares out what justification needs, orders by
 * direction and cuts runs where the look changes.
 */
export function buildLine(shaped: ShapedParagraph, line: BrokenLine, setting: LineSetting): BuiltLine {
  const { paragraph, indent, measure, base } = setting;
  const pieces = piecesOf(shaped, line);
  const natural = pieces.reduce((sum, p) => sum + naturalWidth(shaped, p, paragraph), 0);
  const [hangLeft, hangRight] = paragraph.hangingPunctuation ? hangs(shaped, pieces, line) : [0, 0];
  const shares = sharesOf(shaped, line, pieces, paragraph, measure + hangLeft + hangRight - natural);
  const levels = pieces.map((p) => p.item.level);
  const order = levels.some((l) => l > 0) ? visualOrder(levels) : null;
  const runs: GlyphRun[][] = pieces.map(() => []);
  const objects = new Map<number, number>();
  let x = 0;
  let trailing = 0;
  for (const i of order ?? pieces.keys()) {
    const piece = pieces[i]!;
    if (piece.tab) {
      if (piece.tab.leader && piece.tab.width > 0)
        runs[i]!.push(...leaderRuns(shaped, piece.item, { from: piece.from, x, width: piece.tab.width, leader: piece.tab.leader }));
      x += piece.tab.width;
      continue;
    }
    if (piece.object) {
      objects.set(piece.from, x);
      x += piece.object.width;
      continue;
    }
    for (const run of runsOf(shaped, piece, x, shares, paragraph)) {
      runs[i]!.push(run);
      x = run.x + run.width;
      trailing = shares.ideograph && piece.item.ideographic ? run.letterSpace - trackingOf(piece.item) : 0;
    }
  }
  const all = joined(pieces, runs);
  const metrics = all.length ? measureOf(all) : base;
  const anchored = shaped.anchors.length ? anchoredIn(shaped, line, objects, setting.begins) : [];
  const width = x - trailing;
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
    ...metrics,
    leading: metrics.leading + rise,
    ...(anchored.length && {
      rise,
      anchored: placesOf(anchored, lineX, metrics.ascent, rise),
    }),
    spaceAtEnd: line.next > line.end && /\s/.test(shaped.text[line.end] ?? ''),
    column: 0,
    first: line.start <= setting.begins,
    last: line.next >= shaped.text.length,
    runs: all,
  };
}

/** Items anchored in a line, those in the line with their place along it. */
function anchoredIn(shaped: ShapedParagraph, line: BrokenLine, objects: ReadonlyMap<number, number>, begins: number) {
  const ends = line.next >= shaped.text.length ? Infinity : Math.max(line.next, line.start + 1);
  const here = shaped.anchors.filter((a) => a.at >= (line.start <= begins ? 0 : line.start) && a.at < ends);
  return here.map((a) => ({ ...a, x: objects.get(a.at) ?? 0 }));
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
function joined(pieces: readonly Piece[], runs: readonly GlyphRun[][]): GlyphRun[] {
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

function piecesOf(shaped: ShapedParagraph, line: BrokenLine): Piece[] {
  const { text, items } = shaped;
  const out: Piece[] = [];
  for (let i = firstItem(items, line.start); i < items.length && items[i]!.start < line.end; i++) {
    const item = items[i]!;
    const [from, to] = [Math.max(item.start, line.start), Math.min(item.end, line.end)];
    if (from >= to || isBreakItem(text, item)) continue;
    if (isTabItem(text, item)) {
      const placed = line.tabs.find((t) => t.at === from);
      out.push({ item, from, to, glyphs: [], tab: { width: placed?.width ?? 0, leader: placed?.leader }, object: null });
    } else if (item.object) out.push({ item, from, to, glyphs: [], tab: null, object: item.object });
    else {
      const suffix = line.hyphen && to === line.end ? hyphenCharacter(item) : '';
      out.push({ item, from, to, glyphs: glyphsOf(shaped, i, from, to, suffix), tab: null, object: null });
    }
  }
  return out;
}

/** Glyphs of a part of an item: the paragraph's own where they can be cut out, shaped again next to a break that is not safe. */
function glyphsOf(shaped: ShapedParagraph, index: number, from: number, to: number, suffix: string): ShapedGlyph[] {
  const item = shaped.items[index]!;
  const whole = shaped.glyphs[index]!;
  const { unsafe } = shaped;
  if (from === item.start && to === item.end && !suffix) return whole;
  if (item.direction === 'rtl') return shapeAlone(shaped, item, from, to, suffix);
  let head = from;
  if (from > item.start && unsafe[from])
    do head++;
    while (head < to && unsafe[head]);
  let tail = to;
  if (suffix || (to < item.end && unsafe[to]))
    do tail--;
    while (tail > head && unsafe[tail]);
  if (head >= tail) return shapeAlone(shaped, item, from, to, suffix);
  const middle = whole.slice(glyphIndex(whole, head), glyphIndex(whole, tail));
  if (head === from && tail === to) return middle;
  return [
    ...(head > from ? shapeAlone(shaped, item, from, head) : []),
    ...middle,
    ...(tail < to || suffix ? shapeAlone(shaped, item, tail, to, suffix) : []),
  ];
}

/** The first glyph of a left-to-right row that stands for `at` or what follows it. */
function glyphIndex(glyphs: readonly ShapedGlyph[], at: number): number {
  let [low, high] = [0, glyphs.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (glyphs[mid]!.cluster < at) low = mid + 1;
    else high = mid;
  }
  return low;
}

/** A piece's width before justification, its spaces as wide as the paragraph's style wants them. */
function naturalWidth(shaped: ShapedParagraph, piece: Piece, paragraph: ParagraphProperties): number {
  if (piece.tab) return piece.tab.width;
  if (piece.object) return piece.object.width;
  const scale = scaleOf(piece.item);
  const tracking = trackingOf(piece.item);
  let width = 0;
  for (const g of piece.glyphs) {
    const advance = g.advance * scale;
    width += isWordSpace(shaped.text[g.cluster]) ? advance + spaceAdvance(piece.item) * (paragraph.wordSpace.ideal - 1) : advance;
  }
  const hyphen = piece.glyphs.length && lastCluster(piece) === piece.to ? 1 : 0;
  return width + tracking * (characterCount(shaped, piece.from, piece.to) + hyphen);
}

const lastCluster = (piece: Piece): number => Math.max(piece.glyphs[0]!.cluster, piece.glyphs[piece.glyphs.length - 1]!.cluster);

/** How far the first and last characters hang over the line's edges, in points. */
function hangs(shaped: ShapedParagraph, pieces: readonly Piece[], line: BrokenLine): [number, number] {
  const [first, last] = [pieces[0], pieces[pieces.length - 1]];
  const over = (piece: Piece | undefined, glyph: ShapedGlyph | undefined, character: string | undefined): number =>
    piece && !piece.tab && glyph && piece.item.direction === 'ltr' ? hangOf(character) * glyph.advance * scaleOf(piece.item) : 0;
  return [
    over(first, first?.glyphs[0], shaped.text[line.start]),
    over(last, last?.glyphs[last.glyphs.length - 1], line.hyphen && last ? hyphenCharacter(last.item) : shaped.text[line.end - 1]),
  ];
}

/** How the line's free room is shared out; nothing is, where the line is not justified or has tabs. */
function sharesOf(
  shaped: ShapedParagraph,
  line: BrokenLine,
  pieces: readonly Piece[],
  paragraph: ParagraphProperties,
  free: number,
): Shares {
  const justified = paragraph.align === 'justifyAll' || (paragraph.align === 'justify' && (!line.forced || free < 0));
  if (!justified || line.tabs.length || Math.abs(free) < 1e-9) return NOT_JUSTIFIED;
  return shareOut(free, elasticityOf(shaped, pieces, paragraph), paragraph);
}

function elasticityOf(shaped: ShapedParagraph, pieces: readonly Piece[], paragraph: ParagraphProperties): Elasticity {
  const { letterSpace, glyphWidth, wordSpace } = paragraph;
  const out: Elasticity = { spaces: 0, letters: { stretch: 0, shrink: 0 }, glyphs: { stretch: 0, shrink: 0 }, ideographs: 0 };
  const last = pieces[pieces.length - 1];
  for (const piece of pieces) {
    if (piece.tab || piece.object) continue;
    const scale = scaleOf(piece.item);
    let advances = 0;
    for (const g of piece.glyphs) {
      advances += g.advance * scale;
      if (isWordSpace(shaped.text[g.cluster])) out.spaces += spaceAdvance(piece.item) * wordSpace.ideal;
    }
    const letters = characterCount(shaped, piece.from, piece.to) * piece.item.size;
    out.letters.stretch += letters * (letterSpace.most - letterSpace.ideal);
    out.letters.shrink += letters * (letterSpace.ideal - letterSpace.least);
    out.glyphs.stretch += advances * (glyphWidth.most - 1);
    out.glyphs.shrink += advances * (1 - glyphWidth.least);
    if (piece.item.ideographic) {
      // The last character of a line has no gap after it.
      const gaps = ideographsIn(shaped.text, piece.from, piece.to) - (piece === last ? 1 : 0);
      out.ideographs += Math.max(0, gaps) * IDEOGRAPH_STRETCH * piece.item.size;
    }
  }
  return out;
}

/** Offsets of a stretch: only the first where they follow one another, as nearly everywhere. */
function offsetsOf(offsets: readonly number[], from: number, to: number): number | Uint32Array {
  for (let i = from + 1; i <= to; i++) if (offsets[i] !== offsets[from]! + i - from) return Uint32Array.from(offsets.slice(from, to + 1));
  return offsets[from]!;
}

function ideographsIn(text: string, from: number, to: number): number {
  let n = 0;
  for (let i = from; i < to; i++) if (isIdeographic(text.charCodeAt(i))) n++;
  return n;
}

/** Each run is taken out of it before the next begins. */
const row = new GlyphWriter();

/** The runs of one piece, cut where the look changes, from `x` on. */
function* runsOf(shaped: ShapedParagraph, piece: Piece, x: number, shares: Shares, paragraph: ParagraphProperties): Generator<GlyphRun> {
  const { text, looks, offsets } = shaped;
  const { item, glyphs } = piece;
  const { letterSpace, glyphWidth, wordSpace } = paragraph;
  const stretched = 1 + shares.glyph * (shares.glyph >= 0 ? glyphWidth.most - 1 : 1 - glyphWidth.least);
  const scale = scaleOf(item) * stretched;
  const tracking = trackingOf(item);
  const plain = spaceAdvance(item);
  const spaceAdded = plain * (wordSpace.ideal - 1) + shares.space * plain * wordSpace.ideal;
  const letterLimit = shares.letter >= 0 ? letterSpace.most - letterSpace.ideal : letterSpace.ideal - letterSpace.least;
  const letter = tracking + shares.letter * letterLimit * item.size;
  const gap = item.ideographic ? shares.ideograph * IDEOGRAPH_STRETCH * item.size : 0;
  // Direction decides whether clusters rise or fall; where one ends, the next in the text begins.
  const rtl = item.direction === 'rtl';
  const step = rtl ? -1 : 1;
  const endOf = (index: number): number => {
    const { cluster } = glyphs[index]!;
    for (let i = index + step; i >= 0 && i < glyphs.length; i += step)
      if (glyphs[i]!.cluster !== cluster) return Math.min(glyphs[i]!.cluster, piece.to);
    return piece.to;
  };
  const parts = lookParts(looks, piece.from, piece.to);
  for (const look of rtl ? parts.reverse() : parts) {
    const lastPart = look.end === piece.to;
    let hyphenated = false;
    let cluster = -1;
    for (let i = 0; i < glyphs.length; i++) {
      const g = glyphs[i]!;
      const hyphen = g.cluster >= piece.to;
      if (hyphen ? !lastPart : g.cluster < look.start || g.cluster >= look.end) continue;
      const fresh = g.cluster !== cluster;
      const length = hyphen ? 1 : fresh ? endOf(i) - g.cluster : 0;
      const first = hyphen ? SOFT_HYPHEN : text[g.cluster]!;
      // A soft hyphen within a line is not seen.
      if (!hyphen && length === 1 && first === SOFT_HYPHEN) {
        cluster = g.cluster;
        continue;
      }
      const natural = g.advance * scale;
      let advance = natural;
      if (fresh) advance += letter * (length === 1 ? 1 : characterCount(shaped, g.cluster, g.cluster + length));
      if (fresh && length === 1 && isWordSpace(first)) advance += spaceAdded;
      else if (fresh && gap && isIdeographic(first.charCodeAt(0))) advance += gap;
      row.add(g.gid, advance, g.dx * scale, g.dy ? -g.dy * scale : 0, (hyphen ? look.end : g.cluster) - look.start, length);
      hyphenated ||= hyphen;
      cluster = g.cluster;
    }
    const c = look.character;
    const runText = text.slice(look.start, look.end) + (hyphenated ? SOFT_HYPHEN : '');
    const [start, end] = [offsets[look.start]!, offsets[look.end]!];
    const width = row.x;
    yield {
      font: item.font,
      size: item.size,
      look: c,
      fill: c.fill,
      text: runText,
      start,
      end,
      x,
      shift: positioned(c).shift,
      width,
      wordSpace: spaceAdded,
      letterSpace: letter + gap,
      horizontalScale: item.horizontalScale * stretched,
      features: item.features,
      language: item.language,
      direction: item.direction,
      joint: 'flow',
      generated: look.generated,
      link: look.link,
      characterStyle: look.characterStyle,
      glyphs: row.take(runText, offsetsOf(offsets, look.start, look.end)),
    };
    x += width;
  }
}
