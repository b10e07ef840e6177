import { z } from 'zod';
import { Id, Language } from './ids.ts';
import { Swatch } from './colour.ts';
import { CellStyle, CharacterStyle, ItemStyle, ListStyle, ParagraphStyle, TableStyle } from './styles.ts';
import { MasterPage } from './spread.ts';
import { Opening } from './motion.ts';

export const FORMAT_VERSION = 1;

export const Metadata = z.object({
  title: z.string().default(''),
  language: Language.default('en'),
  creators: z.array(z.string()).default([]),
  publisher: z.string().optional(),
  identifier: z.string().optional(),
  rights: z.string().optional(),
  description: z.string().optional(),
  subjects: z.array(z.string()).default([]),
  cover: Id.optional(),
});

export const Layer = z.object({
  id: Id,
  name: z.string(),
  visible: z.boolean().default(true),
  printing: z.boolean().default(true),
  locked: z.boolean().default(false),
});
export type Layer = z.infer<typeof Layer>;

const file = (folder: string): z.ZodString => z.string().regex(new RegExp(`^${folder}/[A-Za-z0-9_.-]+$`), `a file in ${folder}/`);

export const FontFile = z.object({
  id: Id,
  family: z.string(),
  weight: z.number().int().min(1).max(1000),
  style: z.enum(['normal', 'italic']),
  /** Absent where the font may not travel with the document. */
  file: file('fonts').optional(),
  sha256: z.string().optional(),
});
export type FontFile = z.infer<typeof FontFile>;

export const MediaFile = z.object({
  id: Id,
  name: z.string(),
  file: file('media'),
  mediaType: z.string(),
  sha256: z.string(),
  bytes: z.number().int().min(0),
  width: z.number().int().optional(),
  height: z.number().int().optional(),
  /** What a picture's colours are mixed of; RGB where nothing is said. */
  colours: z.enum(['rgb', 'cmyk', 'grey']).optional(),
  /** A picture that cannot be decoded: its place is known, and outputs show a stand-in. */
  damaged: z.boolean().optional(),
  /** How long a sound or film lasts, where that is known. */
  seconds: z.number().min(0).optional(),
  /** How its sound is packed, where that is known: `pcm-s16`, `opus`, `mp3`. */
  codec: z.string().optional(),
});
export type MediaFile = z.infer<typeof MediaFile>;

/** A named run of content in the order in which it is read. */
export const Strand = z.object({
  id: Id,
  name: z.string().max(200),
  entries: z.array(z.object({ spread: Id, item: Id })),
  /** In running text it is read in one go, whatever else stands on its pages. */
  together: z.boolean().optional(),
});
export type Strand = z.infer<typeof Strand>;
/** What is said of a heading in lists of contents: other words than its own, or nothing. */
export const OutlineEntry = z.object({ text: z.string().max(500).optional(), leaveOut: z.boolean().default(false) });
export const Pin = z.object({
  id: Id,
  item: Id,
  paragraph: Id,
  offset: z.number().int().min(0),
  as: z.enum(['inline', 'before', 'after', 'float']),
  /** How wide it is shown in running text, as a share of the text’s width. */
  width: z.number().min(0.05).max(1).optional(),
});
export type Pin = z.infer<typeof Pin>;

/** Meaning, beside the layout: it never moves anything on a page. */
export const Structure = z.object({
  strands: z.array(Strand).default([]),
  pins: z.record(Id, Pin).default({}),
  decorations: z.array(Id).default([]),
  leftOut: z.array(Id).default([]),
  /** Groups that running text shows as one figure. */
  figures: z.array(Id).default([]),
  sectionStarts: z.array(Id).default([]),
  /** By the ids of headings’ paragraphs. */
  outline: z.record(Id, OutlineEntry).default({}),
  /** Frames of captions → what each is the caption of. */
  captions: z.record(Id, Id).default({}),
  /** Lists in alphabetical order, by names of their own: the paragraphs that begin their entries. In other languages they are sorted anew. */
  alphabetical: z.record(Id, z.object({ story: Id, entries: z.array(Id).min(1) })).optional(),
});
export type Structure = z.infer<typeof Structure>;

const keyed = <T extends z.ZodType>(value: T) => z.record(Id, value).default({});

/** The part of a Folio that is always loaded. */
export const Head = z.object({
  formatVersion: z.literal(FORMAT_VERSION),
  id: Id,
  metadata: Metadata,
  facingPages: z.boolean().default(false),
  baselineGrid: z.object({ start: z.number(), step: z.number().positive() }).optional(),
  swatches: keyed(Swatch),
  layers: z.record(Id, Layer),
  layerOrder: z.array(Id).min(1).describe('from back to front'),
  paragraphStyles: keyed(ParagraphStyle),
  characterStyles: keyed(CharacterStyle),
  listStyles: keyed(ListStyle),
  itemStyles: keyed(ItemStyle),
  tableStyles: keyed(TableStyle),
  cellStyles: keyed(CellStyle),
  fonts: keyed(FontFile),
  /** Families to look for a character in that the style's own font lacks, by language; `*` for all others. */
  fallbacks: z.record(z.string(), z.array(z.string())).default({}),
  /** Families that stand in for families nobody has, by the missing one’s name in lower case. */
  standIns: z.record(z.string(), z.string()).default({}),
  media: keyed(MediaFile),
  masterPages: keyed(MasterPage),
  spreadOrder: z.array(Id).min(1),
  storyOrder: z.array(Id).default([]),
  structure: Structure.prefault({}),
  opening: Opening.optional(),
  /** The folder of its files that holds the source it came from; `origin` where it has had one source only. */
  origin: z
    .string()
    .regex(/^origin(-[0-9]+)?$/)
    .optional(),
});
export type Head = z.infer<typeof Head>;
