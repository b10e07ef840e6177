import { solidHex } from '../../folio/colour.ts';
import type { Folio } from '../../folio/folio.ts';
import type { FontSet } from '../../compose/fontSet.ts';
import type { CharacterOverrides, CharacterProperties } from '../../folio/styles.ts';
import type { Child, Xml } from '../assets/xml.ts';
import { el, sequenceOrNone } from '../assets/xml.ts';
import { halfPoints, twips } from '../ooxml/lengths.ts';

/** The look of characters as WordprocessingML tells it (ISO/IEC 29500-1, 17.3.2): one value for each of its properties. */
export interface RunLook {
  font: string;
  bold: boolean;
  italic: boolean;
  capitals: 'normal' | 'small' | 'all';
  strike: boolean;
  underline: string;
  /** `RRGGBB`, or `auto`. */
  colour: string;
  /** Twentieths of a point. */
  spacing: number;
  /** Per cent. */
  width: number;
  kern: boolean;
  /** Half points. */
  raised: number;
  size: number;
  position: CharacterProperties['position'];
  language: string;
  features: string;
}

const ORDER = [
  'w:rStyle',
  'w:rFonts',
  'w:b',
  'w:bCs',
  'w:i',
  'w:iCs',
  'w:caps',
  'w:smallCaps',
  'w:strike',
  'w:noProof',
  'w:vanish',
  'w:color',
  'w:spacing',
  'w:w',
  'w:kern',
  'w:position',
  'w:sz',
  'w:szCs',
  'w:u',
  'w:vertAlign',
  'w:rtl',
  'w:lang',
  'w14:ligatures',
  'w14:numForm',
  'w14:numSpacing',
  'w14:stylisticSets',
] as const;
type Part = (typeof ORDER)[number];
/** `w:rPr` in the order of its schema (CT_RPr, EG_RPrBase; those of 2010 after it, [MS-DOCX] 2.6). */
export const runProperties = sequenceOrNone<Part>('w:rPr', ORDER);

export interface LookContext {
  folio: Folio;
  fonts: FontSet;
  /** Families that the recipe puts in the place of others, by their names in small letters. */
  replacements: ReadonlyMap<string, string>;
}

/** Which properties of ours decide each of theirs. */
const DECIDED_BY: Record<keyof RunLook, readonly (keyof CharacterProperties)[]> = {
  font: ['fontFamily', 'fontStretch'],
  bold: ['fontWeight'],
  italic: ['fontStyle'],
  capitals: ['capitals'],
  strike: ['strike'],
  underline: ['underline'],
  colour: ['fill'],
  spacing: ['tracking'],
  width: ['horizontalScale'],
  kern: ['kerning'],
  raised: ['baselineShift'],
  size: ['size'],
  position: ['position'],
  language: ['language'],
  features: ['features'],
};
const KEYS = Object.keys(DECIDED_BY) as (keyof RunLook)[];

/** How a look of the document is told. */
export function runLook(c: CharacterProperties, { folio, fonts, replacements }: LookContext): RunLook {
  const { family, bold, italic } = fonts.match(c).familyOfFour;
  const hex = solidHex(c.fill, folio.head.swatches).slice(1).toUpperCase();
  return {
    font: replacements.get(family.toLowerCase()) ?? family,
    bold,
    italic,
    capitals: c.capitals,
    strike: !!c.strike,
    underline: c.underline ? underlineColour(c, folio) : 'none',
    colour: hex,
    spacing: twips((c.tracking / 1000) * c.size),
    width: Math.min(600, Math.max(1, Math.round(c.horizontalScale * 100))),
    kern: c.kerning === 'font',
    raised: halfPoints(-c.baselineShift),
    // 17.3.2.38: half points, from 1 to 1638 points in practice.
    size: Math.min(3276, Math.max(2, halfPoints(c.size))),
    position: c.position,
    language: c.language,
    features: featuresOf(c.features),
  };
}

function underlineColour(c: CharacterProperties, folio: Folio): string {
  const paint = c.underline?.paint;
  return paint ? solidHex(paint, folio.head.swatches).slice(1).toUpperCase() : 'auto';
}

/** OpenType features that WordprocessingML has a word for ([MS-DOCX] 2.6.1). */
function featuresOf(features: Record<string, number>): string {
  const sets = Object.entries(features).flatMap(([tag, on]) => (/^ss(0[1-9]|1\d|20)$/.test(tag) && on ? [Number(tag.slice(2))] : []));
  const pick = (names: Record<string, string>): string => Object.entries(names).find(([tag]) => features[tag])?.[1] ?? '';
  const ligatures = features['liga'] === 0 ? 'none' : features['dlig'] ? 'standardDiscretional' : 'standardContextual';
  return [
    ligatures,
    pick({ onum: 'oldStyle', lnum: 'lining' }),
    pick({ tnum: 'tabular', pnum: 'proportional' }),
    sets.sort((a, b) => a - b).join(' '),
  ].join('|');
}

/** What differs from a look. */
export function differing(look: RunLook, from: RunLook | null): Partial<RunLook> {
  return Object.fromEntries(KEYS.filter((k) => !from || look[k] !== from[k]).map((k) => [k, look[k]]));
}

/** What a character style says by itself: of a whole look, that which its own properties decide. */
export function saidBy(overrides: CharacterOverrides, look: RunLook): Partial<RunLook> {
  return Object.fromEntries(KEYS.filter((k) => DECIDED_BY[k].some((p) => overrides[p] !== undefined)).map((k) => [k, look[k]]));
}

/**
 * A look with that of a character style in it. What can be on or off is turned over where both styles have it on (17.7.3, toggle
 * properties).
 */
export function inCharacterStyle(paragraph: RunLook, style: Partial<RunLook>): RunLook {
  const turned = (key: 'bold' | 'italic' | 'strike'): boolean =>
    style[key] === undefined ? paragraph[key] : paragraph[key] !== style[key];
  const { capitals } = style;
  return {
    ...paragraph,
    ...style,
    bold: turned('bold'),
    italic: turned('italic'),
    strike: turned('strike'),
    capitals: capitals === undefined || capitals === 'normal' ? paragraph.capitals : capitals === paragraph.capitals ? 'normal' : capitals,
  };
}

const onOff = (name: string, on: boolean): Xml => el(name, on ? {} : { 'w:val': '0' });

/** The elements that tell parts of a look. */
export function lookParts(look: Partial<RunLook>): Partial<Record<Part, Child>> {
  const { bold, italic, capitals, underline, features, position, size, language } = look;
  const [ligatures, numForm, numSpacing, sets] = features?.split('|') ?? [];
  const { font } = look;
  return {
    'w:rFonts': font === undefined ? null : el('w:rFonts', { 'w:ascii': font, 'w:hAnsi': font, 'w:eastAsia': font, 'w:cs': font }),
    'w:b': bold === undefined ? null : onOff('w:b', bold),
    'w:bCs': bold === undefined ? null : onOff('w:bCs', bold),
    'w:i': italic === undefined ? null : onOff('w:i', italic),
    'w:iCs': italic === undefined ? null : onOff('w:iCs', italic),
    'w:caps': capitals === undefined ? null : onOff('w:caps', capitals === 'all'),
    'w:smallCaps': capitals === undefined ? null : onOff('w:smallCaps', capitals === 'small'),
    'w:strike': look.strike === undefined ? null : onOff('w:strike', look.strike),
    'w:color': look.colour === undefined ? null : el('w:color', { 'w:val': look.colour }),
    'w:spacing': look.spacing === undefined ? null : el('w:spacing', { 'w:val': look.spacing }),
    'w:w': look.width === undefined ? null : el('w:w', { 'w:val': look.width }),
    // From this size on, in half points, pairs are kerned: all of it, or none.
    'w:kern': look.kern === undefined ? null : el('w:kern', { 'w:val': look.kern ? 2 : 0 }),
    'w:position': look.raised === undefined ? null : el('w:position', { 'w:val': look.raised }),
    'w:sz': size === undefined ? null : el('w:sz', { 'w:val': size }),
    'w:szCs': size === undefined ? null : el('w:szCs', { 'w:val': size }),
    'w:u':
      underline === undefined ? null : el('w:u', underline === 'none' ? { 'w:val': 'none' } : { 'w:val': 'single', 'w:color': underline }),
    'w:vertAlign': position === undefined ? null : el('w:vertAlign', { 'w:val': position === 'normal' ? 'baseline' : position }),
    'w:lang': language === undefined ? null : el('w:lang', { 'w:val': language, 'w:eastAsia': language, 'w:bidi': language }),
    'w14:ligatures': ligatures && (el('w14:ligatures', { 'w14:val': ligatures }) as Xml),
    'w14:numForm': numForm && (el('w14:numForm', { 'w14:val': numForm }) as Xml),
    'w14:numSpacing': numSpacing && (el('w14:numSpacing', { 'w14:val': numSpacing }) as Xml),
    'w14:stylisticSets':
      sets &&
      (el(
        'w14:stylisticSets',
        {},
        sets.split(' ').map((n) => el('w14:styleSet', { 'w14:id': Number(n) })),
      ) as Xml),
  } as Partial<Record<Part, Child>>;
}
