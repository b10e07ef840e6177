import { z } from 'zod';
import { Id, Language } from './ids.ts';
import { SolidPaint, Paint } from './colour.ts';
import { Stroke } from './appearance.ts';

/** The elements a style can mean (HTML names; ISO 32000-1 14.8.4 and EPUB map onto them). */
export const RoleElement = z.enum([
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'p',
  'li',
  'blockquote',
  'pre',
  'figcaption',
  'aside',
  'th',
  'td',
  'div',
  'span',
  'em',
  'strong',
  'cite',
  'code',
  'q',
  'small',
  'sub',
  'sup',
  'abbr',
  'dfn',
]);
export type RoleElement = z.infer<typeof RoleElement>;

/** What a style means to a reader who does not see the layout. */
export const Role = z.object({
  element: RoleElement,
  class: z
    .string()
    .regex(/^[A-Za-z][A-Za-z0-9_-]*$/)
    .optional(),
  startsSection: z.boolean().default(false),
  leaveOut: z.boolean().default(false),
});
export type Role = z.infer<typeof Role>;

export const TextLine = z.object({ weight: z.number().min(0).optional(), offset: z.number().optional(), paint: SolidPaint.optional() });

/** Every property a run of characters can have. Lengths in points, tracking in 1/1000 em. */
export const CharacterProperties = z.object({
  fontFamily: z.string().min(1),
  fontWeight: z.number().int().min(1).max(1000),
  fontStyle: z.enum(['normal', 'italic']),
  fontStretch: z.number().min(50).max(200),
  size: z.number().min(0.1).max(5000),
  leading: z.union([z.literal('auto'), z.number().min(0).max(10000)]),
  tracking: z.number().min(-1000).max(10000),
  kerning: z.enum(['font', 'none']),
  features: z.record(z.string().regex(/^[A-Za-z0-9]{4}$/), z.number().int().min(0)),
  baselineShift: z.number(),
  horizontalScale: z.number().min(0.01).max(10),
  verticalScale: z.number().min(0.01).max(10),
  position: z.enum(['normal', 'superscript', 'subscript']),
  capitals: z.enum(['normal', 'small', 'all']),
  underline: TextLine.nullable(),
  strike: TextLine.nullable(),
  fill: SolidPaint,
  stroke: Stroke.nullable(),
  language: Language,
  noBreak: z.boolean(),
});
export type CharacterProperties = z.infer<typeof CharacterProperties>;
export const CharacterOverrides = CharacterProperties.partial();
export type CharacterOverrides = z.infer<typeof CharacterOverrides>;

export const Tab = z.object({
  at: z.number(),
  align: z.enum(['left', 'right', 'centre', 'character']),
  character: z.string().optional(),
  leader: z.string().optional(),
});
const Limits = z.object({ least: z.number(), ideal: z.number(), most: z.number() });
const Rule = z.object({ weight: z.number().min(0), offset: z.number(), paint: SolidPaint, width: z.enum(['column', 'text']) });

/** Every property a paragraph can have. */
export const ParagraphProperties = z.object({
  align: z.enum(['left', 'right', 'centre', 'justify', 'justifyAll']),
  firstLineIndent: z.number(),
  startIndent: z.number(),
  endIndent: z.number(),
  spaceBefore: z.number(),
  spaceAfter: z.number(),
  direction: z.enum(['ltr', 'rtl']),
  composer: z.enum(['greedy', 'totalFit']),
  hyphenation: z.object({ before: z.number().int(), after: z.number().int(), inARow: z.number().int(), capitals: z.boolean() }).nullable(),
  wordSpace: Limits,
  letterSpace: Limits,
  glyphWidth: Limits,
  /** Lines more (or fewer) than the best number, where the text allows it. */
  looseness: z.number().int().min(-3).max(3),
  hangingPunctuation: z.boolean(),
  tabs: z.array(Tab),
  keepLines: z.boolean(),
  keepWithNext: z.number().int().min(0),
  orphans: z.number().int().min(1),
  widows: z.number().int().min(1),
  breakBefore: z.enum(['none', 'column', 'frame', 'page']),
  alignToGrid: z.boolean(),
  spanColumns: z.boolean(),
  list: z.object({ style: Id, level: z.number().int().min(0).max(9), restart: z.number().int().optional() }).nullable(),
  dropCapital: z.object({ lines: z.number().int().min(2), characters: z.number().int().min(1), style: Id.optional() }).nullable(),
  ruleAbove: Rule.nullable(),
  ruleBelow: Rule.nullable(),
  shading: z.object({ paint: SolidPaint, offset: z.number() }).nullable(),
  border: z.object({ weight: z.number(), paint: SolidPaint, offset: z.number() }).nullable(),
});
export type ParagraphProperties = z.infer<typeof ParagraphProperties>;
export const ParagraphOverrides = ParagraphProperties.partial();
export type ParagraphOverrides = z.infer<typeof ParagraphOverrides>;

const named = { id: Id, name: z.string().min(1), basedOn: Id.optional() };

/** Words in this style stay as they are in every language (ITS 2.0, 6.1). */
const translate = z.literal(false).optional();

export const CharacterStyle = z.object({ ...named, character: CharacterOverrides.default({}), role: Role.optional(), translate });
export type CharacterStyle = z.infer<typeof CharacterStyle>;

export const ParagraphStyle = z.object({
  ...named,
  paragraph: ParagraphOverrides.default({}),
  character: CharacterOverrides.default({}),
  next: Id.optional(),
  role: Role.optional(),
  translate,
});
export type ParagraphStyle = z.infer<typeof ParagraphStyle>;

export const ListStyle = z.object({
  ...named,
  levels: z.array(
    z.object({
      kind: z.enum(['bullet', 'number']),
      /** A bullet, or a text with `{n}` for the number and `{1}` … `{9}` for those of the levels above. */
      text: z.string(),
      /** The same for other languages. */
      texts: z.record(z.string(), z.string()).default({}),
      format: z.enum(['decimal', 'lowerAlpha', 'upperAlpha', 'lowerRoman', 'upperRoman']).default('decimal'),
      indent: z.number().default(0),
      character: Id.optional(),
    }),
  ),
});
export const ItemStyle = z.object({
  ...named,
  fill: Paint.optional(),
  stroke: Stroke.nullable().optional(),
  opacity: z.number().min(0).max(1).optional(),
});
/** How a cell looks: a line all around (`stroke`), or other lines on sides of their own, and the room around its text in points. */
export const CellLook = {
  fill: Paint.optional(),
  stroke: Stroke.nullable().optional(),
  sides: z
    .object({ top: Stroke.nullable(), right: Stroke.nullable(), bottom: Stroke.nullable(), left: Stroke.nullable() })
    .partial()
    .optional(),
  /** The same on every side, or top, right, bottom, left. */
  inset: z.union([z.number().min(0), z.tuple([z.number().min(0), z.number().min(0), z.number().min(0), z.number().min(0)])]).optional(),
};
export const CellStyle = z.object({ ...named, ...CellLook, paragraphStyle: Id.optional() });
export type CellStyle = z.infer<typeof CellStyle>;
export const TableStyle = z.object({
  ...named,
  body: Id.optional(),
  header: Id.optional(),
  alternate: z.object({ every: z.number().int().min(1), style: Id }).optional(),
});

/** What holds where no style and no override says otherwise. */
export const CHARACTER_DEFAULTS: CharacterProperties = {
  fontFamily: 'Source Serif 4',
  fontWeight: 400,
  fontStyle: 'normal',
  fontStretch: 100,
  size: 10,
  leading: 'auto',
  tracking: 0,
  kerning: 'font',
  features: {},
  baselineShift: 0,
  horizontalScale: 1,
  verticalScale: 1,
  position: 'normal',
  capitals: 'normal',
  underline: null,
  strike: null,
  fill: { type: 'colour', colour: { space: 'grey', value: 0 } },
  stroke: null,
  language: 'en',
  noBreak: false,
};
export const PARAGRAPH_DEFAULTS: ParagraphProperties = {
  align: 'left',
  firstLineIndent: 0,
  startIndent: 0,
  endIndent: 0,
  spaceBefore: 0,
  spaceAfter: 0,
  direction: 'ltr',
  composer: 'greedy',
  hyphenation: null,
  wordSpace: { least: 0.8, ideal: 1, most: 1.33 },
  letterSpace: { least: 0, ideal: 0, most: 0 },
  glyphWidth: { least: 1, ideal: 1, most: 1 },
  looseness: 0,
  hangingPunctuation: false,
  tabs: [],
  keepLines: false,
  keepWithNext: 0,
  orphans: 1,
  widows: 1,
  breakBefore: 'none',
  alignToGrid: false,
  spanColumns: false,
  list: null,
  dropCapital: null,
  ruleAbove: null,
  ruleBelow: null,
  shading: null,
  border: null,
};
