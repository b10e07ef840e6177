import { z } from 'zod';
import { Id, Language } from './ids.ts';
import { CharacterOverrides, ParagraphOverrides } from './styles.ts';

/**
 * A piece of a text as a translator has it: words, a numbered code for what is not words (paired around words, or standing by
 * itself), or the mark of a soft return. What a code stands for is said by the document, so that a change of its look reaches
 * every language.
 */
export const TextPart = z.discriminatedUnion('type', [
  z.object({ type: z.literal('text'), text: z.string() }),
  z.object({ type: z.literal('open'), code: z.number().int().min(1) }),
  z.object({ type: z.literal('close'), code: z.number().int().min(1) }),
  z.object({ type: z.literal('code'), code: z.number().int().min(1) }),
  z.object({ type: z.literal('wrap') }),
]);
export type TextPart = z.infer<typeof TextPart>;

/** How far a translation is, from first to last; `locked` is out of reach of translators. */
export const SegmentState = z.enum(['initial', 'translated', 'reviewed', 'final', 'locked']);
export type SegmentState = z.infer<typeof SegmentState>;

const Said = z.object({ by: z.string(), at: z.string() });
export const Comment = Said.extend({ text: z.string().max(5000) });
export type Comment = z.infer<typeof Comment>;

/** What a segment was before: nothing that was there is lost. */
const Former = Said.extend({ target: z.array(TextPart).nullable(), state: SegmentState });

export const TranslatedSegment = z.object({
  /** The source as it was translated. */
  source: z.array(TextPart),
  /** What stands between this segment and the next: white space between sentences, a tab. */
  glue: z.array(TextPart).optional(),
  target: z.array(TextPart).nullable(),
  state: SegmentState,
  /** Who or what the target is from: a person, the name of a file, the memory. */
  by: z.string().optional(),
  at: z.string().optional(),
  comments: z.array(Comment).optional(),
  history: z.array(Former).optional(),
});
export type TranslatedSegment = z.infer<typeof TranslatedSegment>;

/** A unit in another language: a paragraph, an alt text, a title; its segments in the order of its source. */
export const TranslatedUnit = z.object({
  segments: z.array(TranslatedSegment).min(1),
  /** What stands before the first segment: white space, the beginning of a look that all of it has. */
  before: z.array(TextPart).optional(),
  /** What its codes stood for when it was translated, by their numbers. */
  codes: z.record(z.string(), z.string()).default({}),
});
export type TranslatedUnit = z.infer<typeof TranslatedUnit>;

/** How much a text may be tightened, or is: tracking in 1/1000 em, the others as shares of what they are. */
export const Tightening = z.object({
  tracking: z.number().min(-100).max(0).default(0),
  wordSpace: z.number().min(0.5).max(1).default(1),
  size: z.number().min(0.5).max(1).default(1),
  leading: z.number().min(0.5).max(1).default(1),
});
export type Tightening = z.infer<typeof Tightening>;

const StyleIn = z.object({ character: CharacterOverrides.optional(), paragraph: ParagraphOverrides.optional() });

/** What is otherwise in one language than in the layout. */
export const EditionOverrides = z.object({
  /** Families that stand in for others, and how large beside them. */
  fonts: z.record(z.string(), z.object({ family: z.string().min(1), scale: z.number().min(0.5).max(2).optional() })).default({}),
  paragraphStyles: z.record(Id, StyleIn).default({}),
  characterStyles: z.record(Id, z.object({ character: CharacterOverrides })).default({}),
  /** What slanted letters become, where a script has none. */
  italics: z.enum(['italic', 'bold', 'upright']).default('italic'),
  /** Other pictures, by the ids of items. */
  pictures: z.record(Id, z.object({ media: Id })).default({}),
  /** Where links of the document lead, by `story/link`. */
  links: z.record(z.string(), z.string().max(2000)).default({}),
  /** Texts that are set tighter, by their stories. */
  tightened: z.record(Id, Tightening).default({}),
});
export type EditionOverrides = z.infer<typeof EditionOverrides>;

/** What is changed in translated texts by the habits of the language, where asked. */
export const Conventions = z.object({
  quotes: z.boolean().default(false),
  decimals: z.boolean().default(false),
  dates: z.boolean().optional(),
});
export type Conventions = z.infer<typeof Conventions>;

const Lock = Said.extend({ did: z.enum(['locked', 'unlocked']), why: z.string().max(500).optional() });

/** The document in one language: texts by the ids of units, and a few overrides; the layout stays one. */
export const Edition = z.object({
  language: Language,
  name: z.string().optional(),
  /** The edition that holds where this one says nothing: German for Austrian German. */
  basedOn: Language.optional(),
  units: z.record(z.string(), TranslatedUnit).default({}),
  overrides: EditionOverrides.prefault({}),
  conventions: Conventions.prefault({}),
  /** How far texts of this language may be tightened. */
  limits: Tightening.prefault({ tracking: -10, wordSpace: 0.85, size: 0.95, leading: 0.95 }),
  /** Locked and unlocked, by whom and when; the last holds. */
  locks: z.array(Lock).default([]),
});
export type Edition = z.infer<typeof Edition>;

export const isLocked = (edition: Pick<Edition, 'locks'>): boolean => edition.locks[edition.locks.length - 1]?.did === 'locked';
