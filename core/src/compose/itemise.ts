import type { Head } from '../folio/head.ts';
import type { Inline, Paragraph } from '../folio/story.ts';
import type { CharacterProperties } from '../folio/styles.ts';
import { resolveSpan } from '../folio/resolve.ts';
import type { FontFace } from './fontFace.ts';
import type { FontSet } from './fontSet.ts';
import type { MissingGlyph } from './marks.ts';

/** What fields stand for where a paragraph is set. */
export interface FieldTexts {
  (node: Inline & { type: 'field' }): string;
}

/** A stretch of set text with one look. */
interface Look {
  start: number;
  end: number;
  character: CharacterProperties;
  link?: string | undefined;
  characterStyle?: string | undefined;
}

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
  tracking: number;
}

/** A paragraph ready for shaping: its text as set, and where each UTF-16 unit of it comes from. */
export interface ItemisedParagraph {
  text: string;
  /** Offset in the paragraph of each unit of `text`, with one more entry for the end. */
  offsets: number[];
  looks: Look[];
  items: ShapingItem[];
  missing: MissingGlyph[];
  hasFields: boolean;
}

const SCRIPTS: [RegExp, string][] = [
  [/\p{Script=Latin}/u, 'Latn'],
  [/\p{Script=Greek}/u, 'Grek'],
  [/\p{Script=Cyrillic}/u, 'Cyrl'],
  [/[\p{Script=Hiragana}\p{Script=Katakana}]/u, 'Kana'],
  [/\p{Script=Han}/u, 'Hani'],
  [/\p{Script=Hangul}/u, 'Hang'],
  [/\p{Script=Arabic}/u, 'Arab'],
  [/\p{Script=Hebrew}/u, 'Hebr'],
  [/\p{Script=Thai}/u, 'Thai'],
  [/\p{Script=Devanagari}/u, 'Deva'],
];
const RTL = new Set(['Arab', 'Hebr']);
const scriptMemo = new Map<number, string | undefined>();

/** ISO 15924 code of a character, undefined for common and inherited ones (UAX 24). */
function scriptOf(codePoint: number): string | undefined {
  if ((codePoint >= 0x41 && codePoint <= 0x5a) || (codePoint >= 0x61 && codePoint <= 0x7a)) return 'Latn';
  if (codePoint < 0x80) return undefined;
  if (!scriptMemo.has(codePoint)) {
    const c = String.fromCodePoint(codePoint);
    scriptMemo.set(codePoint, SCRIPTS.find(([re]) => re.test(c))?.[1]);
  }
  return scriptMemo.get(codePoint);
}

/** Superscript and subscript: 60 % of the size, raised 33 % or lowered 15 % (common practice). */
export const positioned = (c: CharacterProperties): { size: number; shift: number } =>
  c.position === 'normal'
    ? { size: c.size, shift: -c.baselineShift }
    : { size: c.size * 0.6, shift: -c.baselineShift + (c.position === 'superscript' ? -0.33 : 0.15) * c.size };

function featuresOf(c: CharacterProperties): Record<string, number> {
  const features: Record<string, number> = {};
  // Letters that are spaced out are not tied together; browsers do the same (CSS Text 4, 8.2).
  if (c.tracking !== 0) Object.assign(features, { liga: 0, clig: 0 });
  if (c.kerning === 'none') features['kern'] = 0;
  if (c.capitals === 'small') features['smcp'] = 1;
  return { ...features, ...c.features };
}

/** Expands a paragraph's nodes into set text with looks; objects that are not set yet take no room. */
function expand(
  head: Head,
  base: CharacterProperties,
  content: readonly Inline[],
  fields: FieldTexts,
): Pick<ItemisedParagraph, 'text' | 'offsets' | 'looks' | 'hasFields'> {
  let text = '';
  const offsets: number[] = [];
  const looks: Look[] = [];
  let hasFields = false;
  let offset = 0;
  const add = (chars: string, look: Omit<Look, 'start' | 'end'>, offsetOf: (i: number) => number): void => {
    const start = text.length;
    text += chars;
    for (let i = 0; i < chars.length; i++) offsets.push(offsetOf(i));
    if (chars) looks.push({ ...look, start, end: text.length });
  };
  for (const node of content) {
    const at = offset;
    if (node.type === 'span') {
      const character = resolveSpan(head, base, node);
      const look = { character, link: node.link, characterStyle: node.style };
      if (character.capitals === 'all') {
        let i = 0;
        for (const c of node.text) {
          const from = at + i;
          add(c.toLocaleUpperCase(character.language), look, () => from);
          i += c.length;
        }
      } else add(node.text, look, (i) => at + i);
      offset += node.text.length;
      continue;
    }
    const look = { character: base };
    if (node.type === 'softReturn') add('\n', look, () => at);
    else if (node.type === 'tab') add('\t', look, () => at);
    else if (node.type === 'field') {
      hasFields = true;
      add(fields(node), look, () => at);
    } else if (node.type === 'ruby') add(node.base, look, () => at);
    offset += 1;
  }
  offsets.push(offset);
  return { text, offsets, looks, hasFields };
}

/** White space, joiners, marks of direction, variation selectors: characters that need no glyph. */
const INVISIBLE = /\s|\p{Default_Ignorable_Code_Point}/u;

/** Cuts a paragraph's text into stretches of one font, size, script, language and feature set. */
export function itemise(
  head: Head,
  paragraph: Paragraph,
  base: CharacterProperties,
  fonts: FontSet,
  fields: FieldTexts,
): ItemisedParagraph {
  const expanded = expand(head, base, paragraph.content, fields);
  const { text, looks, offsets } = expanded;
  const items: ShapingItem[] = [];
  const missing: MissingGlyph[] = [];
  const firstScript = (): string => {
    for (const c of text) {
      const s = scriptOf(c.codePointAt(0)!);
      if (s) return s;
    }
    return 'Latn';
  };
  let script = firstScript();
  for (const look of looks) {
    const c = look.character;
    const primary = fonts.match(c.fontFamily, c.fontWeight, c.fontStyle);
    const features = featuresOf(c);
    const { size } = positioned(c);
    for (let i = look.start; i < look.end;) {
      const codePoint = text.codePointAt(i)!;
      const units = codePoint > 0xffff ? 2 : 1;
      script = scriptOf(codePoint) ?? script;
      let font = primary;
      if (!INVISIBLE.test(text[i]!) && !primary.glyphFor(codePoint)) {
        const other = fonts.fallback(codePoint, primary);
        if (other) font = other;
        else
          missing.push({ paragraph: paragraph.id, offset: offsets[i]!, character: String.fromCodePoint(codePoint), family: c.fontFamily });
      }
      const control = text[i] === '\n' || text[i] === '\t';
      const last = items[items.length - 1];
      const joins =
        last &&
        !control &&
        text[i - 1] !== '\n' &&
        text[i - 1] !== '\t' &&
        last.font === font &&
        last.size === size &&
        last.script === script &&
        last.language === c.language &&
        last.tracking === c.tracking &&
        sameFeatures(last.features, features);
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
          direction: RTL.has(script) ? 'rtl' : 'ltr',
          tracking: c.tracking,
        });
      i += units;
    }
  }
  return { ...expanded, items, missing };
}

function sameFeatures(a: Record<string, number>, b: Record<string, number>): boolean {
  const [ka, kb] = [Object.keys(a), Object.keys(b)];
  return ka.length === kb.length && ka.every((k) => a[k] === b[k]);
}
