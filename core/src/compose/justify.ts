import type { ParagraphProperties } from '../folio/styles.ts';

/** What a line gives by, in points: sums over its word spaces, its letters, its glyphs and its gaps between ideographs. */
export interface Elasticity {
  /** Width of all word spaces. */
  spaces: number;
  letters: { stretch: number; shrink: number };
  glyphs: { stretch: number; shrink: number };
  ideographs: number;
}

/** How a line's free room is shared out. */
export interface Shares {
  /** Added to each word space, as a share of its width. */
  space: number;
  /** Ratio of each letter's limit, −1 to 1. */
  letter: number;
  /** Ratio of each glyph's limit, −1 to 1. */
  glyph: number;
  /** Ratio of the stretch between ideographs. */
  ideograph: number;
}

export const NOT_JUSTIFIED: Shares = { space: 0, letter: 0, glyph: 0, ideograph: 0 };

/**
 * Shares out what a line is short of (or, negative, too long by). Every means is used by the same ratio of
 * its limit, as total fit reckons; beyond its limit only word spaces and gaps between ideographs go on giving.
 */
export function shareOut(free: number, line: Elasticity, paragraph: ParagraphProperties): Shares {
  const { wordSpace } = paragraph;
  const wanting = free >= 0;
  const spaceLimit = line.spaces * (wanting ? wordSpace.most - wordSpace.ideal : wordSpace.ideal - wordSpace.least);
  const letterLimit = wanting ? line.letters.stretch : line.letters.shrink;
  const glyphLimit = wanting ? line.glyphs.stretch : line.glyphs.shrink;
  const ideographLimit = wanting ? line.ideographs : 0;
  const all = spaceLimit + letterLimit + glyphLimit + ideographLimit;
  const ratio = all > 0 ? free / all : 0;
  const capped = Math.max(-1, Math.min(1, ratio));
  const rest = free - capped * (letterLimit + glyphLimit);
  const spread = line.spaces * (spaceLimit > 0 || ideographLimit === 0 ? 1 : 0);
  // Spaces and ideographs share the rest in proportion to what each may give.
  const forIdeographs = spaceLimit + ideographLimit > 0 ? (rest * ideographLimit) / (spaceLimit + ideographLimit) : 0;
  return {
    letter: capped,
    glyph: capped,
    ideograph: ideographLimit > 0 ? forIdeographs / ideographLimit : 0,
    space: spread > 0 ? (rest - forIdeographs) / line.spaces : 0,
  };
}

/** How far punctuation hangs over the edge, as a share of its own width (common practice; values from memory). */
const HANGS: Record<string, number> = {
  '.': 0.7,
  ',': 0.7,
  '-': 0.6,
  '\u2010': 0.6,
  '–': 0.3,
  '—': 0.2,
  ':': 0.4,
  ';': 0.4,
  '“': 0.6,
  '”': 0.6,
  '‘': 0.7,
  '’': 0.7,
  '"': 0.6,
  "'": 0.7,
  '«': 0.4,
  '»': 0.4,
  '。': 0.5,
  '、': 0.5,
};
export const hangOf = (character: string | undefined): number => (character === undefined ? 0 : (HANGS[character] ?? 0));
