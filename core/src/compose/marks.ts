import type { SolidPaint } from '../folio/colour.ts';
import type { CharacterProperties } from '../folio/styles.ts';
import type { FontFace } from './fontFace.ts';

/** A glyph placed in its run. `x`, `dx`, `dy` in points from the run's origin; `offset` into the paragraph. */
export interface Glyph {
  gid: number;
  x: number;
  advance: number;
  dx: number;
  dy: number;
  offset: number;
  /** The characters this glyph stands for; empty for the later glyphs of a cluster. */
  text: string;
}

/** Glyphs of one font, size and look that stand side by side on a line. */
export interface GlyphRun {
  font: FontFace;
  size: number;
  look: CharacterProperties;
  fill: SolidPaint;
  /** The text as set, after capitals and fields; what a copy of the page should give. */
  text: string;
  start: number;
  end: number;
  /** Points from the line's `x`, and above (negative) or below its baseline. */
  x: number;
  shift: number;
  width: number;
  /** Points added to every word space and every letter, beyond the font's own. */
  wordSpace: number;
  letterSpace: number;
  horizontalScale: number;
  features: Record<string, number>;
  language: string;
  direction: 'ltr' | 'rtl';
  link?: string | undefined;
  characterStyle?: string | undefined;
  glyphs: Glyph[];
}

/** One line of a paragraph in the space of its frame. */
export interface SetLine {
  paragraph: string;
  start: number;
  end: number;
  x: number;
  baseline: number;
  width: number;
  /** What the line was set to, for telling overflow. */
  measure: number;
  ascent: number;
  descent: number;
  /** A space that stood at the break and is not shown. */
  spaceAtEnd: boolean;
  column: number;
  first: boolean;
  last: boolean;
  runs: GlyphRun[];
}

export interface ComposedFrame {
  item: string;
  spread: string;
  story: string;
  lines: SetLine[];
}

export interface TextOverflow {
  lines: number;
  characters: number;
  words: number;
}

export interface MissingGlyph {
  paragraph: string;
  offset: number;
  character: string;
  family: string;
}

export interface ComposedStory {
  story: string;
  frames: ComposedFrame[];
  overflow: TextOverflow | null;
  missingGlyphs: MissingGlyph[];
}

/** Every text of a document set: frames by id, and what a person should know about each story. */
export interface Composition {
  frames: Map<string, ComposedFrame>;
  stories: Map<string, ComposedStory>;
}
