import bidiFactory from 'bidi-js';
import { mayBeRightToLeft } from './scripts.ts';

const bidi = bidiFactory();

/** Embedding levels of a paragraph's units (UAX 9); null where everything runs from left to right. */
export function levelsOf(text: string, direction: 'ltr' | 'rtl'): Uint8Array | null {
  if (direction === 'ltr' && !mayBeRightToLeft(text)) return null;
  return bidi.getEmbeddingLevels(text, direction).levels;
}

/**
 * The order in which pieces of a line are shown from left to right (UAX 9, rule L2): from the highest level
 * down, every row of pieces at that level or above is turned round.
 */
export function visualOrder(levels: readonly number[]): number[] {
  const order = levels.map((_, i) => i);
  const highest = Math.max(0, ...levels);
  const lowestOdd = Math.min(...levels.filter((l) => l % 2 === 1), highest + 1);
  for (let level = highest; level >= lowestOdd; level--)
    for (let i = 0; i < order.length;) {
      if (levels[order[i]!]! < level) {
        i++;
        continue;
      }
      let end = i;
      while (end < order.length && levels[order[end]!]! >= level) end++;
      order.splice(i, end - i, ...order.slice(i, end).reverse());
      i = end;
    }
  return order;
}
