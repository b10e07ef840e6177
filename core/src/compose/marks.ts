import type { Paint, SolidPaint } from '../folio/colour.ts';
import type { Rect } from '../folio/geometry.ts';
import type { CharacterProperties } from '../folio/styles.ts';
import type { FontFace } from './fontFace.ts';
import type { GlyphRow } from './glyphRow.ts';

export type { Glyph } from './glyphRow.ts';

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
  /** Points added to every word space and every letter, beyond the font's own; glyphs are stretched along the line. */
  wordSpace: number;
  letterSpace: number;
  horizontalScale: number;
  features: Record<string, number>;
  language: string;
  direction: 'ltr' | 'rtl';
  /** How it follows the run before: directly, after a tab (read as a space), or set apart without one. */
  joint: 'flow' | 'tab' | 'apart';
  /** Seen, not read: the dots of a leader. */
  decoration: boolean | undefined;
  /** Made by the program: a bullet or number before the text, a note's reference. */
  generated: 'label' | 'note' | undefined;
  link: string | undefined;
  characterStyle: string | undefined;
  /** It stays as it is in every language. */
  stays: true | undefined;
  glyphs: GlyphRow;
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
  /** It ends inside a word that is wider than the line. */
  cut: boolean;
  column: number;
  first: boolean;
  last: boolean;
  runs: GlyphRun[];
  /** How much higher the line is than its letters, by items in it and above it. */
  rise: number | undefined;
  anchored: AnchoredAt[] | undefined;
}

/** An item anchored in a line: where its own origin stands, from the line's beginning and baseline. */
export interface AnchoredAt {
  item: string;
  x: number;
  y: number;
}

/** Something drawn with a text that is no letter, in the space of its frame: it lies under the text. */
export interface FrameBox {
  kind: 'rule' | 'shading' | 'border' | 'noteRule' | 'cell';
  box: Rect;
  fill?: Paint | undefined;
  /** A line all around. */
  stroke?: { paint: Paint; weight: number; dashes?: number[] | undefined } | undefined;
  /** The paragraph or cell it belongs to. */
  subject?: string | undefined;
}

export interface ComposedFrame {
  item: string;
  spread: string;
  story: string;
  lines: SetLine[];
  boxes: FrameBox[];
  /** Some of its lines hold anchored items. */
  holdsItems?: boolean;
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
