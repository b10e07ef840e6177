import type { Head } from '../folio/head.ts';
import type { Paragraph } from '../folio/story.ts';
import type { CharacterProperties, ParagraphProperties } from '../folio/styles.ts';
import { levelsOf } from './bidi.ts';
import { expand } from './expand.ts';
import type { ExpandedParagraph, GeneratedTexts, ItemRoom } from './expand.ts';
import type { FontFace } from './fontFace.ts';
import type { FontSet } from './fontSet.ts';
import type { MissingGlyph } from './marks.ts';
import { isIdeographicScript, scriptOf } from './scripts.ts';

/** A stretch of set text that is shaped in one call. */
export interface ShapingItem {
  start: number;
  end: number;
  font: FontFace;
  size: number;
  features: Record<string, number>;
  language: string;
  script: string;
  direction: 'ltr' | 'rtl';
  /** Embedding level (UAX 9); odd runs from right to left. */
  level: number;
  tracking: number;
  horizontalScale: number;
  /** Room of an item in the line; then there are no glyphs. */
  object: ItemRoom | null;
  /** Ideographs, kana or Hangul: a justified line gives between them. */
  ideographic: boolean;
}

/** A paragraph ready for shaping. */
export interface ItemisedParagraph extends ExpandedParagraph {
  items: ShapingItem[];
  missing: MissingGlyph[];
}

/** Superscript and subscript: 60 % of the size, raised 33 % or lowered 15 % (common practice). */
export const positioned = (c: CharacterProperties): { size: number; shift: number } =>
  c.position === 'normal'
    ? { size: c.size * c.verticalScale, shift: -c.baselineShift }
    : { size: c.size * c.verticalScale * 0.6, shift: -c.baselineShift + (c.position === 'superscript' ? -0.33 : 0.15) * c.size };

const byLook = {
  even: new WeakMap<CharacterProperties, Record<string, number>>(),
  spacedOut: new WeakMap<CharacterProperties, Record<string, number>>(),
};

/** Features a look asks for, the same object for the same look. */
function featuresOf(c: CharacterProperties, spacedOut: boolean): Record<string, number> {
  const kept = spacedOut ? byLook.spacedOut : byLook.even;
  let features = kept.get(c);
  if (!features) kept.set(c, (features = shared(workOutFeatures(c, spacedOut))));
  return features;
}

const sets = new Map<string, Record<string, number>>();

/** One object for all equal sets of features: what is known of a set is known for every look that has it. */
function shared(features: Record<string, number>): Record<string, number> {
  const key = JSON.stringify(features);
  const known = sets.get(key);
  if (known) return known;
  sets.set(key, features);
  return features;
}

/** Letters that may be spaced out are not tied together; browsers do the same (CSS Text 4, 8.2). */
function workOutFeatures(c: CharacterProperties, spacedOut: boolean): Record<string, number> {
  const features: Record<string, number> = {};
  if (c.tracking !== 0 || spacedOut) Object.assign(features, { liga: 0, clig: 0 });
  if (c.kerning === 'none') features['kern'] = 0;
  if (c.capitals === 'small') features['smcp'] = 1;
  return { ...features, ...c.features };
}

/** All but the printable characters of ASCII. */
const NOT_PLAIN = /[^\x20-\x7e]/g;

/** White space, joiners, marks of direction, variation selectors: characters that need no glyph. */
const INVISIBLE = /\s|\p{Default_Ignorable_Code_Point}/u;

/** Cuts a paragraph's text into stretches of one font, size, script, direction, language and feature set. */
export function itemise(
  head: Head,
  paragraph: Paragraph,
  properties: ParagraphProperties,
  base: CharacterProperties,
  fonts: FontSet,
  texts: GeneratedTexts,
): ItemisedParagraph {
  const expanded = expand(head, base, paragraph.content, fonts, texts);
  const { text, looks, offsets } = expanded;
  const levels = levelsOf(text, properties.direction);
  const { least, ideal, most } = properties.letterSpace;
  const spacedOut = least !== 0 || ideal !== 0 || most !== 0;
  const items: ShapingItem[] = [];
  const missing: MissingGlyph[] = [];
  let script = firstScript(text);
  for (const look of looks) {
    const c = look.character;
    const primary = fonts.match(c);
    const features = featuresOf(c, spacedOut);
    const { size } = positioned(c);
    const tracking = c.tracking + ideal * 1000;
    const horizontalScale = c.horizontalScale / c.verticalScale;
    let open: ShapingItem | null = null;
    for (let i = look.start; i < look.end;) {
      // Most of most texts: more plain letters and spaces of what is already open.
      if (open && !levels && open.script === 'Latn' && !open.object && primary.hasAscii) {
        NOT_PLAIN.lastIndex = i;
        const other = NOT_PLAIN.exec(text);
        open.end = i = Math.min(look.end, other ? other.index : text.length);
        if (i >= look.end) break;
      }
      const codePoint = text.codePointAt(i)!;
      const units = codePoint > 0xffff ? 2 : 1;
      script = scriptOf(codePoint) ?? script;
      let font = primary;
      if (!look.object && !primary.glyphFor(codePoint) && !INVISIBLE.test(text[i]!)) {
        const other = fonts.fallback(codePoint, primary, head.fallbacks[c.language] ?? head.fallbacks['*'] ?? []);
        if (other) font = other;
        else
          missing.push({ paragraph: paragraph.id, offset: offsets[i]!, character: String.fromCodePoint(codePoint), family: c.fontFamily });
      }
      const level = levels ? levels[i]! : 0;
      const last = items[items.length - 1];
      const joins =
        last &&
        !look.object &&
        !last.object &&
        !isControl(text[i]) &&
        !isControl(text[i - 1]) &&
        last.font === font &&
        last.size === size &&
        last.script === script &&
        last.level === level &&
        last.language === c.language &&
        last.tracking === tracking &&
        last.horizontalScale === horizontalScale &&
        last.features === features;
      if (joins) last.end = i + units;
      else
        items.push({
          start: i,
          end: i + units,
          font,
          size,
          features,
          language: c.language,
          script,
          direction: level % 2 ? 'rtl' : 'ltr',
          level,
          tracking,
          horizontalScale,
          object: look.object ?? null,
          ideographic: isIdeographicScript(script),
        });
      i += units;
      open = font === primary && !isControl(text[i - 1]) ? items[items.length - 1]! : null;
    }
  }
  const { labelEnd, notes, anchors, hasFields } = expanded;
  // Written out: copying by spreading costs more than all of the above.
  return { text, offsets, looks, labelEnd, notes, anchors, hasFields, items, missing };
}

const isControl = (c: string | undefined): boolean => c === '\n' || c === '\t';

function firstScript(text: string): string {
  for (const c of text) {
    const script = scriptOf(c.codePointAt(0)!);
    if (script) return script;
  }
  return 'Latn';
}
