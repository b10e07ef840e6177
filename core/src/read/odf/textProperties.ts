import type { CharacterOverrides, ParagraphOverrides } from '../../folio/styles.ts';
import { colourOf, integerOf, lengthOf, percentOf } from './lengths.ts';
import { childOf, childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

type Attributes = Record<string, string>;

/** Families of fonts by the names that styles call them by (style:font-face). */
export type FontFaces = ReadonlyMap<string, string>;

/** The height of a line of plain text in common text faces, as a share of its size: “100 %” means the font's own (common practice). */
const LINE_OF_FONT = 1.17;

/** `'Marrowby Sans', sans` → `Marrowby Sans`. */
export const firstFamily = (list: string): string => (list.split(',')[0] ?? '').trim().replace(/^(['"])(.*)\1$/, '$2');

const WEIGHTS: Record<string, number> = { normal: 400, bold: 700 };

/**
 * Character properties of `style:text-properties` (OpenDocument 1.3 part 3, 16.29). `size` is the size that percentages
 * refer to, in points. What is said of the paragraph's lines is in `line` (their height is a property of characters here).
 */
export function characterOf(a: Attributes, faces: FontFaces, size: number): CharacterOverrides {
  const out: CharacterOverrides = {};
  const family =
    a['fo:font-family'] ?? (a['style:font-name'] === undefined ? undefined : (faces.get(a['style:font-name']) ?? a['style:font-name']));
  if (family !== undefined && firstFamily(family)) out.fontFamily = firstFamily(family);
  const ownSize = sizeOf(a, size);
  if (ownSize !== undefined) out.size = ownSize;
  const at = ownSize ?? size;
  const weight = WEIGHTS[a['fo:font-weight'] ?? ''] ?? integerOf(a['fo:font-weight']);
  if (weight !== undefined && weight >= 1 && weight <= 1000) out.fontWeight = weight;
  if (a['fo:font-style'] !== undefined) out.fontStyle = a['fo:font-style'] === 'normal' ? 'normal' : 'italic';
  const colour = a['style:use-window-font-color'] === 'true' ? undefined : colourOf(a['fo:color']);
  if (colour) out.fill = { type: 'colour', colour };
  if (a['fo:letter-spacing'] !== undefined) {
    const space = a['fo:letter-spacing'] === 'normal' ? 0 : lengthOf(a['fo:letter-spacing']);
    if (space !== undefined && at > 0) out.tracking = clamp((space / at) * 1000, -1000, 10_000);
  }
  if (a['style:letter-kerning'] !== undefined) out.kerning = a['style:letter-kerning'] === 'true' ? 'font' : 'none';
  if (a['fo:text-transform'] !== undefined) out.capitals = a['fo:text-transform'] === 'uppercase' ? 'all' : 'normal';
  if (a['fo:font-variant'] === 'small-caps') out.capitals = 'small';
  const underline = a['style:text-underline-style'];
  if (underline !== undefined) out.underline = underline === 'none' ? null : lineOf(colourOf(a['style:text-underline-color']));
  const through = a['style:text-line-through-style'];
  if (through !== undefined) out.strike = through === 'none' ? null : lineOf(colourOf(a['style:text-line-through-color']));
  Object.assign(out, positionOf(a['style:text-position'], at));
  const scale = percentOf(a['style:text-scale']);
  if (scale !== undefined && scale > 0) out.horizontalScale = clamp(scale, 0.01, 10);
  const language = languageOf(a['fo:language'], a['fo:country']);
  if (language !== undefined) out.language = language;
  return out;
}

/** The size that a style asks for, in points; percentages are of `size`. */
function sizeOf(a: Attributes, size: number): number | undefined {
  const text = a['fo:font-size'];
  const share = percentOf(text);
  const found = lengthOf(text) ?? (share === undefined ? undefined : share * size);
  return found !== undefined && found >= 0.1 && found <= 5000 ? found : undefined;
}

/** A line's height in points for text of a size, from `style:paragraph-properties`; undefined where they say nothing. */
export function leadingFrom(a: Attributes, size: number): number | undefined {
  const fixed = lengthOf(a['fo:line-height']);
  if (fixed !== undefined && fixed > 0) return fixed;
  const share = percentOf(a['fo:line-height']);
  if (share !== undefined && share > 0) return share * LINE_OF_FONT * size;
  const least = lengthOf(a['style:line-height-at-least']);
  if (least !== undefined) return Math.max(least, LINE_OF_FONT * size);
  return a['fo:line-height'] === 'normal' ? LINE_OF_FONT * size : undefined;
}
export const fontLeading = (size: number): number => LINE_OF_FONT * size;

const lineOf = (colour: ReturnType<typeof colourOf>): NonNullable<CharacterOverrides['underline']> =>
  colour ? { paint: { type: 'colour', colour } } : {};

/** `super 58%`, `sub`, or how high and how large in percent (19.503 style:text-position). */
function positionOf(text: string | undefined, size: number): CharacterOverrides {
  if (text === undefined) return {};
  const [height = '', share] = text.trim().split(/\s+/);
  if (height === 'super' || height === 'sub') return { position: height === 'super' ? 'superscript' : 'subscript' };
  const raised = percentOf(height);
  if (raised === undefined) return {};
  if (raised === 0) return { position: 'normal', baselineShift: 0 };
  const small = percentOf(share);
  return small !== undefined && small < 0.99 ? { position: raised > 0 ? 'superscript' : 'subscript' } : { baselineShift: raised * size };
}

/** A language tag of `fo:language` and `fo:country`; undefined where there is none, or text is said to be in none. */
export function languageOf(language: string | undefined, country: string | undefined): string | undefined {
  if (!language || !/^[A-Za-z]{2,3}$/.test(language) || language === 'zxx') return undefined;
  return country && /^[A-Za-z]{2}$/.test(country) ? `${language.toLowerCase()}-${country.toUpperCase()}` : language.toLowerCase();
}

const ALIGN: Record<string, ParagraphOverrides['align']> = {
  left: 'left',
  right: 'right',
  center: 'centre',
  justify: 'justify',
};

/** Paragraph properties of `style:paragraph-properties` (17.6): lengths in points. */
export function paragraphOf(a: Attributes, element: XmlElement | undefined): ParagraphOverrides {
  const out: ParagraphOverrides = {};
  const rtl = /^rl/.test(a['style:writing-mode'] ?? '');
  if (a['style:writing-mode'] !== undefined && a['style:writing-mode'] !== 'page') out.direction = rtl ? 'rtl' : 'ltr';
  const align = a['fo:text-align'];
  if (align === 'start') out.align = rtl ? 'right' : 'left';
  else if (align === 'end') out.align = rtl ? 'left' : 'right';
  else if (align !== undefined && ALIGN[align]) out.align = ALIGN[align];
  if (out.align === 'justify' && a['fo:text-align-last'] === 'justify') out.align = 'justifyAll';
  const lengths: [
    string,
    keyof Pick<ParagraphOverrides, 'startIndent' | 'endIndent' | 'spaceBefore' | 'spaceAfter' | 'firstLineIndent'>,
  ][] = [
    ['fo:margin-left', 'startIndent'],
    ['fo:margin-right', 'endIndent'],
    ['fo:margin-top', 'spaceBefore'],
    ['fo:margin-bottom', 'spaceAfter'],
    ['fo:text-indent', 'firstLineIndent'],
  ];
  for (const [attribute, property] of lengths) {
    const value = lengthOf(a[attribute] ?? (attribute.startsWith('fo:margin') ? a['fo:margin'] : undefined));
    if (value !== undefined) out[property] = value;
  }
  if (a['fo:keep-together'] !== undefined) out.keepLines = a['fo:keep-together'] === 'always';
  if (a['fo:keep-with-next'] !== undefined) out.keepWithNext = a['fo:keep-with-next'] === 'always' ? 1 : 0;
  const [orphans, widows] = [integerOf(a['fo:orphans']), integerOf(a['fo:widows'])];
  if (orphans !== undefined) out.orphans = Math.max(1, orphans);
  if (widows !== undefined) out.widows = Math.max(1, widows);
  if (a['fo:break-before'] === 'page') out.breakBefore = 'page';
  else if (a['fo:break-before'] === 'column') out.breakBefore = 'column';
  if (a['style:punctuation-wrap'] === 'hanging') out.hangingPunctuation = true;
  const shade = colourOf(a['fo:background-color']);
  if (shade) out.shading = { paint: { type: 'colour', colour: shade }, offset: lengthOf(a['fo:padding']) ?? 0 };
  const border = borderOf(a['fo:border']);
  if (border) out.border = { ...border, offset: lengthOf(a['fo:padding']) ?? 0 };
  const tabs = element && tabsOf(element, out.startIndent ?? 0);
  if (tabs) out.tabs = tabs;
  const cap = childOf(element, 'style:drop-cap');
  const lines = integerOf(cap?.attributes['style:lines']);
  if (lines !== undefined && lines >= 2) {
    const length = cap!.attributes['style:length'];
    out.dropCapital = { lines, characters: Math.max(1, integerOf(length) ?? 1) };
  }
  return out;
}

/** `0.5pt solid #000000` (XSL 7.7). */
export function borderOf(
  text: string | undefined,
): { weight: number; paint: { type: 'colour'; colour: NonNullable<ReturnType<typeof colourOf>> } } | null {
  if (!text || text === 'none') return null;
  const parts = text.trim().split(/\s+/);
  const weight = parts.map(lengthOf).find((l) => l !== undefined);
  const colour = parts.map(colourOf).find((c) => c !== undefined);
  return weight !== undefined && weight > 0 && colour ? { weight, paint: { type: 'colour', colour } } : null;
}

const TAB_KINDS: Record<string, 'left' | 'right' | 'centre' | 'character'> = {
  left: 'left',
  right: 'right',
  center: 'centre',
  char: 'character',
};

/** Tab stops, from the paragraph's own indent as the file counts them to the frame's edge as ours are. */
function tabsOf(properties: XmlElement, indent: number): ParagraphOverrides['tabs'] {
  const stops = childOf(properties, 'style:tab-stops');
  if (!stops) return undefined;
  return childrenOf(stops, 'style:tab-stop').flatMap(({ attributes: a }) => {
    const at = lengthOf(a['style:position']);
    if (at === undefined) return [];
    const leader =
      a['style:leader-style'] !== undefined && a['style:leader-style'] !== 'none' ? (a['style:leader-text'] ?? '.') : undefined;
    return [
      {
        at: at + indent,
        align: TAB_KINDS[a['style:type'] ?? 'left'] ?? 'left',
        ...(a['style:type'] === 'char' && { character: a['style:char'] ?? '.' }),
        ...(leader && { leader }),
      },
    ];
  });
}

const clamp = (n: number, least: number, most: number): number => Math.min(most, Math.max(least, n));
