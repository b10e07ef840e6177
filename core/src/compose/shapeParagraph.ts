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
    for (const g of shaped) {
      widths[g.cluster]! += g.advance * scale;
      if (g.unsafeToBreak) unsafe[g.cluster] = 1;
    }
    if (tracking !== 0) for (let i = item.start; i < item.end; i++) if (!isTrailSurrogate(text, i)) widths[i]! += tracking;
    return shaped;
  });
  const edge = new Float64Array(text.length + 1);
  for (let i = 0; i < text.length; i++) edge[i + 1] = edge[i]! + widths[i]!;
  return { ...itemised, glyphs, edge, unsafe };
}

export const isTrailSurrogate = (text: string, i: number): boolean => (text.charCodeAt(i) & 0xfc00) === 0xdc00;
export { scaleOf };
