import type { ParagraphProperties } from '../folio/styles.ts';
import { SOFT_HYPHEN } from '../folio/text.ts';
import { ShapedRow } from './shapedRow.ts';
import { UnitSums } from './unitSums.ts';
import { firstIndex } from './bisect.ts';
import { isIdeographic } from '../folio/ideographs.ts';
import type { ItemisedParagraph, ShapingItem } from './itemise.ts';

/** A paragraph shaped once: for each unit of its text, sums up to it, in points. */
export interface ShapedParagraph extends ItemisedParagraph {
  /** By item. */
  glyphs: ShapedRow[];
  /** By unit of its text. */
  sums: UnitSums;
  /** What the paragraph's style makes of a word space, as a share of the font's. */
  idealSpace: number;
  /** Every unit is a character that gets tracking: as in most texts. */
  evenUnits: boolean;
  hasTabs: boolean;
}

/** Points per font unit along the line, at an item's size and horizontal scale. */
export const scaleOf = (item: ShapingItem): number => (item.size * item.horizontalScale) / item.font.unitsPerEm;
/** Tracking in points per character. */
export const trackingOf = (item: ShapingItem): number => (item.tracking / 1000) * item.size * item.horizontalScale;

export const isTabItem = (text: string, item: ShapingItem): boolean => text[item.start] === '\t';
export const isBreakItem = (text: string, item: ShapingItem): boolean => text[item.start] === '\n';
const hasNoGlyphs = (text: string, item: ShapingItem): boolean => item.object !== null || isTabItem(text, item) || isBreakItem(text, item);
/** Whether a unit gets tracking: not the second half of a character, nor a soft hyphen, which is not seen. */
const takesTracking = (text: string, i: number): boolean => (text.charCodeAt(i) & 0xfc00) !== 0xdc00 && text[i] !== SOFT_HYPHEN;
const UNEVEN_UNITS = /[\u00AD\uDC00-\uDFFF]/;
const SPACE = 0x20;
const NO_BREAK_SPACE = 0xa0;
/** Word spaces, which justification changes, by UTF-16 unit; as browsers' word-spacing has it. */
export const isWordSpace = (unit: number): boolean => unit === SPACE || unit === NO_BREAK_SPACE;

/** Between ideographs and kana a justified line gives by this much of an em (JLREQ 3.8.4, which allows up to a quarter). */
export const IDEOGRAPH_STRETCH = 0.15;

/** Shapes every stretch of a paragraph and sums widths cluster by cluster. */
export function shapeParagraph(itemised: ItemisedParagraph, paragraph: ParagraphProperties): ShapedParagraph {
  const { text, items } = itemised;
  const { length } = text;
  const sums = new UnitSums(length);
  const evenUnits = !UNEVEN_UNITS.test(text);
  const glyphs: ShapedRow[] = [];
  // Each unit's own width first, at the edge after it.
  for (const item of items) {
    const { start, end } = item;
    if (item.object) sums.widen(start, item.object.width);
    if (hasNoGlyphs(text, item)) {
      glyphs.push(ShapedRow.EMPTY);
      continue;
    }
    const whole = start === 0 && end === length;
    const row = whole ? item.font.shapeBrief(text, item) : item.font.shape(text, start, end, item);
    const scale = scaleOf(item);
    const tracking = trackingOf(item);
    // Inside a cluster (a ligature, a letter with its marks) there is no glyph to begin a line with.
    for (let i = start + 1; i < end; i++) sums.setUnsafe(i, true);
    for (let i = 0; i < row.count; i++) {
      const cluster = row.cluster(i);
      sums.widen(cluster, row.advance(i) * scale);
      if (cluster > start) sums.setUnsafe(cluster, row.unsafeToBreak(i));
    }
    if (tracking !== 0) for (let i = start; i < end; i++) if (evenUnits || takesTracking(text, i)) sums.widen(i, tracking);
    glyphs.push(row);
  }
  const { wordSpace, letterSpace, glyphWidth } = paragraph;
  const elastic = letterSpace.least !== letterSpace.most || glyphWidth.least !== glyphWidth.most;
  for (const item of items) {
    const plain = hasNoGlyphs(text, item);
    const space = spaceAdvance(item);
    const { end, size, ideographic } = item;
    for (let i = item.start; i < end; i++) {
      let width = sums.widthOf(i);
      let more = 0;
      let less = 0;
      if (!plain) {
        const unit = text.charCodeAt(i);
        if (isWordSpace(unit)) {
          more = space * (wordSpace.most - wordSpace.ideal);
          less = space * (wordSpace.ideal - wordSpace.least);
          width += space * (wordSpace.ideal - 1);
        } else if (ideographic && isIdeographic(unit)) more = IDEOGRAPH_STRETCH * size;
        if (elastic) {
          more += size * (letterSpace.most - letterSpace.ideal) + width * (glyphWidth.most - 1);
          less += size * (letterSpace.ideal - letterSpace.least) + width * (1 - glyphWidth.least);
        }
      }
      sums.sum(i, width, more, less);
    }
  }
  const { offsets, looks, labelEnd, notes, anchors, hasFields, missing } = itemised;
  return {
    text,
    offsets,
    looks,
    labelEnd,
    notes,
    anchors,
    hasFields,
    items,
    missing,
    glyphs,
    sums,
    idealSpace: wordSpace.ideal,
    evenUnits,
    hasTabs: text.includes('\t'),
  };
}

/**
 * The width of `text[from..to)` as a line of its own. Where letters on both sides of an end are kerned or
 * tied together, the stretch next to it is shaped again without its neighbour.
 */
export function widthBetween(shaped: ShapedParagraph, from: number, to: number): number {
  const { sums } = shaped;
  if (from >= to) return 0;
  if (!sums.unsafe(from) && !sums.unsafe(to)) return sums.edge(to) - sums.edge(from);
  let head = from;
  if (sums.unsafe(from))
    do head++;
    while (head < to && sums.unsafe(head));
  let tail = to;
  if (sums.unsafe(to))
    do tail--;
    while (tail > head && sums.unsafe(tail));
  return shapedWidth(shaped, from, head) + sums.edge(tail) - sums.edge(head) + shapedWidth(shaped, tail, to);
}

/**
 * Shapes a part of an item by itself: only its own characters reach the shaper, as in a browser's line. Clusters are
 * counted from `from`.
 */
export const shapeAlone = (shaped: ShapedParagraph, item: ShapingItem, from: number, to: number, suffix = ''): ShapedRow =>
  item.font.shapeBrief(shaped.text.slice(from, to) + suffix, item);

/** Characters of a stretch that get tracking. */
export function characterCount({ text, evenUnits }: ShapedParagraph, from: number, to: number): number {
  if (evenUnits) return Math.max(0, to - from);
  let n = 0;
  for (let i = from; i < to; i++) if (takesTracking(text, i)) n++;
  return n;
}

/** The width of a stretch shaped by itself, item by item. */
function shapedWidth(shaped: ShapedParagraph, from: number, to: number): number {
  let width = 0;
  const { items } = shaped;
  for (let i = firstItem(items, from); i < items.length && items[i]!.start < to; i++) {
    const item = items[i]!;
    const [a, b] = [Math.max(item.start, from), Math.min(item.end, to)];
    if (a >= b) continue;
    if (item.object) width += item.object.width;
    if (hasNoGlyphs(shaped.text, item)) continue;
    const natural = shapeAlone(shaped, item, a, b).width * scaleOf(item);
    // Spaces that are wider or narrower than the font's own by the paragraph's style keep that.
    let spaces = 0;
    for (let k = a; k < b; k++) if (isWordSpace(shaped.text.charCodeAt(k))) spaces++;
    width += natural + spaces * spaceAdvance(item) * (shaped.idealSpace - 1) + characterCount(shaped, a, b) * trackingOf(item);
  }
  return width;
}

/**
 * A word space of an item's font with its tracking, as justification reckons: the same for every space of the
 * item, kerned or not, since browsers add the same to each.
 */
export const spaceAdvance = (item: ShapingItem): number => item.font.advanceOf(item.font.glyphFor(0x20)) * scaleOf(item) + trackingOf(item);

/** The character a divided word ends with: the hyphen proper where the font has one (Unicode, U+2010). */
export const hyphenCharacter = (item: ShapingItem): string => (item.font.glyphFor(0x2010) ? '\u2010' : '-');

/** The width a hyphen adds at `end`, in the font that stands there; exact but for kerning before it. */
export function hyphenWidth(shaped: ShapedParagraph, end: number): number {
  const item = itemAt(shaped, end - 1);
  return item ? item.font.advanceOf(item.font.glyphFor(hyphenCharacter(item).codePointAt(0)!)) * scaleOf(item) + trackingOf(item) : 0;
}

/** The index of the first item that ends after a unit; the number of items where none does. */
export const firstItem = (items: readonly ShapingItem[], at: number): number => firstIndex(items.length, (i) => items[i]!.end > at);

const itemAt = ({ items }: ShapedParagraph, at: number): ShapingItem | undefined => items[Math.min(firstItem(items, at), items.length - 1)];
