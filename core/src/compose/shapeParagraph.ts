import type { ShapedGlyph } from './fontFace.ts';
import type { ItemisedParagraph, ShapingItem } from './itemise.ts';

/** A paragraph shaped once: for each unit of its text, the width up to it, in points. */
export interface ShapedParagraph extends ItemisedParagraph {
  glyphs: ShapedGlyph[][];
  /** `edge[i]` is the natural width of `text[0..i)`; tabs count nothing here. */
  edge: Float64Array;
  /** Units before which a line may not begin without shaping again. */
  unsafe: Uint8Array;
}

/** Points per font unit at an item's size. */
const scaleOf = (item: ShapingItem): number => item.size / item.font.unitsPerEm;
/** Tracking in points per character. */
export const trackingOf = (item: ShapingItem): number => (item.tracking / 1000) * item.size;

export const isTabItem = (text: string, item: ShapingItem): boolean => text[item.start] === '\t';
export const isBreakItem = (text: string, item: ShapingItem): boolean => text[item.start] === '\n';

/** Shapes every stretch of a paragraph and sums widths cluster by cluster. */
export function shapeParagraph(itemised: ItemisedParagraph): ShapedParagraph {
  const { text, items } = itemised;
  const widths = new Float64Array(text.length + 1);
  const unsafe = new Uint8Array(text.length + 1);
  const glyphs = items.map((item) => {
    if (isTabItem(text, item) || isBreakItem(text, item)) return [];
    const shaped = item.font.shape({
      text,
      start: item.start,
      end: item.end,
      features: item.features,
      language: item.language,
      script: item.script,
      direction: item.direction,
    });
    const [scale, tracking] = [scaleOf(item), trackingOf(item)];
    // Inside a cluster (a ligature, a letter with its marks) there is no glyph to begin a line with.
    unsafe.fill(1, item.start + 1, item.end);
    for (const g of shaped) {
      widths[g.cluster]! += g.advance * scale;
      if (g.cluster > item.start) unsafe[g.cluster] = g.unsafeToBreak ? 1 : 0;
    }
    if (tracking !== 0) for (let i = item.start; i < item.end; i++) if (!isTrailSurrogate(text, i)) widths[i]! += tracking;
    return shaped;
  });
  const edge = new Float64Array(text.length + 1);
  for (let i = 0; i < text.length; i++) edge[i + 1] = edge[i]! + widths[i]!;
  return { ...itemised, glyphs, edge, unsafe };
}

/**
 * The width of `text[from..to)` as a line of its own. Where letters on both sides of an end are kerned or
 * tied together, the stretch next to it is shaped again without its neighbour.
 */
export function widthBetween(shaped: ShapedParagraph, from: number, to: number): number {
  const { edge, unsafe } = shaped;
  if (from >= to) return 0;
  if (!unsafe[from] && !unsafe[to]) return edge[to]! - edge[from]!;
  let head = from;
  if (unsafe[from])
    do head++;
    while (head < to && unsafe[head]);
  let tail = to;
  if (unsafe[to])
    do tail--;
    while (tail > head && unsafe[tail]);
  return shapedWidth(shaped, from, head) + edge[tail]! - edge[head]! + shapedWidth(shaped, tail, to);
}

/** Shapes a part of an item by itself: only its own characters reach the shaper, as in a browser's line. */
export function shapeAlone(shaped: ShapedParagraph, item: ShapingItem, from: number, to: number): ShapedGlyph[] {
  const text = shaped.text.slice(from, to);
  const { features, language, script, direction } = item;
  return item.font
    .shape({ text, start: 0, end: text.length, features, language, script, direction })
    .map((g) => ({ ...g, cluster: g.cluster + from }));
}

/** The width of a stretch shaped by itself, item by item. */
function shapedWidth(shaped: ShapedParagraph, from: number, to: number): number {
  let width = 0;
  for (const item of shaped.items) {
    const [a, b] = [Math.max(item.start, from), Math.min(item.end, to)];
    if (a >= b || isTabItem(shaped.text, item) || isBreakItem(shaped.text, item)) continue;
    const glyphs = shapeAlone(shaped, item, a, b);
    width += glyphs.reduce((sum, g) => sum + g.advance, 0) * scaleOf(item) + [...shaped.text.slice(a, b)].length * trackingOf(item);
  }
  return width;
}

export const isTrailSurrogate = (text: string, i: number): boolean => (text.charCodeAt(i) & 0xfc00) === 0xdc00;
export { scaleOf };
