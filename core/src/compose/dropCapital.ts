import type { Head } from '../folio/head.ts';
import type { CharacterProperties, ParagraphProperties } from '../folio/styles.ts';
import { leadingOf, resolveSpan } from '../folio/resolve.ts';
import { isIdeographic } from '../folio/ideographs.ts';
import type { FontFace } from './fontFace.ts';
import type { FontSet } from './fontSet.ts';
import { GlyphWriter } from './glyphRow.ts';
import type { GlyphRun } from './marks.ts';
import type { BuiltLine } from './setLine.ts';
import { scriptOf } from './scripts.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';

/** Letters at a paragraph's beginning that reach down over several lines. */
export interface DropCapital {
  /** Units of set text that they take. */
  end: number;
  lines: number;
  /** The room they take from those lines, the gap after them included. */
  width: number;
  /** Puts them before the paragraph's first line. */
  join(first: BuiltLine): void;
}

/** Room between a drop capital and the text beside it, as a share of the text's size (common practice). */
const GAP = 0.3;

/** How far the box of an ideograph reaches below its baseline, in em: 120 of 1000 (common practice of fonts for Chinese and Japanese). */
const BELOW = 0.12;

/** Each capital is taken out of it before the next begins. */
const writer = new GlyphWriter();

/**
 * Sets a drop capital: its letters stand on the baseline of the last line they reach, and are as high as from
 * there to the capital height of the first line. Ideographs have no such heights: their box reaches from the top of that of the first
 * line to the bottom of that of the last (CSS Inline Layout 3, `initial-letter-align: ideographic`).
 */
export function setDropCapital(
  head: Head,
  fonts: FontSet,
  shaped: ShapedParagraph,
  paragraph: ParagraphProperties,
  base: CharacterProperties,
): DropCapital | null {
  const { dropCapital } = paragraph;
  if (!dropCapital || shaped.labelEnd > 0) return null;
  const letters = [...shaped.text].slice(0, dropCapital.characters).join('');
  // Letters that are all there is have nothing to stand beside.
  if (!letters || letters.length >= shaped.text.length || /[\s\uFFFC]/.test(letters)) return null;
  const look = resolveSpan(head, shaped.looks[0]?.character ?? base, { style: dropCapital.style });
  const { features, language } = look;
  const font = faceFor(fonts, letters, look, head.fallbacks[language] ?? head.fallbacks['*']);
  const body = fonts.match(base);
  const drop = (dropCapital.lines - 1) * leadingOf(base);
  const boxed = isIdeographic(letters.charCodeAt(0));
  const height = drop + (body.capHeight / body.unitsPerEm) * base.size;
  const size = boxed ? drop + base.size : (height * font.unitsPerEm) / font.capHeight;
  const scale = size / font.unitsPerEm;
  const script = scriptOf(letters.codePointAt(0)!) ?? 'Latn';
  const glyphs = font.shape(letters, 0, letters.length, { features, language, script, direction: 'ltr' });
  for (let i = 0; i < glyphs.count; i++) {
    const next = i + 1 < glyphs.count ? glyphs.cluster(i + 1) : letters.length;
    const length = Math.max(0, next - glyphs.cluster(i));
    writer.add(glyphs.gid(i), glyphs.advance(i) * scale, glyphs.dx(i) * scale, -glyphs.dy(i) * scale, glyphs.cluster(i), length);
  }
  const lettersWidth = writer.x;
  const width = lettersWidth + GAP * base.size;
  const run: GlyphRun = {
    font,
    size,
    look,
    fill: look.fill,
    text: letters,
    start: 0,
    end: shaped.offsets[letters.length]!,
    x: -width,
    shift: boxed ? drop - BELOW * (size - base.size) : drop,
    width: lettersWidth,
    wordSpace: 0,
    letterSpace: 0,
    horizontalScale: 1,
    features: look.features,
    language: look.language,
    direction: 'ltr',
    joint: 'flow',
    decoration: undefined,
    generated: undefined,
    link: undefined,
    characterStyle: undefined,
    stays: shaped.looks[0]?.stays,
    glyphs: writer.take(letters, Uint32Array.from(shaped.offsets.slice(0, letters.length))),
  };
  return {
    end: letters.length,
    lines: dropCapital.lines,
    width,
    join: (first) => joinTo(first, run),
  };
}

/** The face that has all of the letters: that of their look, or one that stands in for it, as in the rest of the text. */
function faceFor(fonts: FontSet, letters: string, look: CharacterProperties, order: readonly string[] = []): FontFace {
  const face = fonts.match(look);
  const missing = [...letters].find((c) => !face.glyphFor(c.codePointAt(0)!));
  return (missing !== undefined && fonts.fallback(missing.codePointAt(0)!, face, order)) || face;
}

/** On its own, so that what is kept with a paragraph holds on to nothing that its letters were shaped with. */
function joinTo(first: BuiltLine, run: GlyphRun): void {
  const [next] = first.runs;
  if (next) next.joint = 'apart';
  first.runs.unshift({ ...run });
  first.start = 0;
}
