import { z } from 'zod';
import { Id } from './ids.ts';
import { CellLook, CharacterOverrides, ParagraphOverrides } from './styles.ts';
import { Destination } from './motion.ts';
import { Item } from './items.ts';

/** Text of one look. Spans have no id: positions in text are Places. */
export const Span = z.object({
  type: z.literal('span'),
  text: z.string().min(1),
  style: Id.optional(),
  overrides: CharacterOverrides.optional(),
  link: Id.optional(),
  /** Stays as it is in every language (HTML: `translate`; ITS 2.0, 6.1). */
  translate: z.literal(false).optional(),
});
export type Span = z.infer<typeof Span>;

/** What can stand in a line. Everything but a span counts as one unit of offset. */
export const Inline = z.discriminatedUnion('type', [
  Span,
  z.object({ type: z.literal('softReturn') }),
  z.object({ type: z.literal('tab') }),
  z.object({
    type: z.literal('field'),
    id: Id,
    /** `reference` shows the page on which its target stands, `label` the number before its target: “Figure 3”. */
    field: z.enum(['pageNumber', 'pageCount', 'sectionName', 'reference', 'label', 'date', 'title']),
    target: Id.optional(),
    text: z.string().optional(),
  }),
  z.object({ type: z.literal('anchor'), id: Id, item: Id, place: z.enum(['inline', 'above', 'side']) }),
  z.object({ type: z.literal('note'), id: Id, kind: z.enum(['footnote', 'endnote']), order: z.array(Id) }),
  z.object({ type: z.literal('ruby'), id: Id, base: z.string(), reading: z.string() }),
]);
export type Inline = z.infer<typeof Inline>;

export const Paragraph = z.object({
  kind: z.literal('paragraph'),
  id: Id,
  style: Id,
  overrides: ParagraphOverrides.optional(),
  character: CharacterOverrides.optional(),
  content: z.array(Inline).default([]),
  /** Stays as it is in every language. */
  translate: z.literal(false).optional(),
});
export type Paragraph = z.infer<typeof Paragraph>;

export const Cell = z.object({
  id: Id,
  row: z.number().int().min(0),
  column: z.number().int().min(0),
  rows: z.number().int().min(1).default(1),
  columns: z.number().int().min(1).default(1),
  style: Id.optional(),
  ...CellLook,
  verticalAlign: z.enum(['top', 'centre', 'bottom']).default('top'),
  header: z.boolean().default(false),
  order: z.array(Id),
});
export type Cell = z.infer<typeof Cell>;

export const Table = z.object({
  kind: z.literal('table'),
  id: Id,
  style: Id.optional(),
  columns: z.array(z.object({ width: z.number().min(0), unit: z.enum(['pt', 'share']).default('pt') })).min(1),
  rows: z.array(z.object({ height: z.number().min(0), exact: z.boolean().default(false) })).min(1),
  headerRows: z.number().int().min(0).default(0),
  footerRows: z.number().int().min(0).default(0),
  cells: z.record(Id, Cell),
});
export type Table = z.infer<typeof Table>;

/**
 * One continuous text. All paragraphs and tables, also those inside cells and notes, lie flat in
 * `blocks`; `order` lists what follows one another at the top. `frames` is the chain that shows it.
 */
export const Story = z.object({
  id: Id,
  name: z.string().optional(),
  blocks: z.record(Id, z.discriminatedUnion('kind', [Paragraph, Table])),
  order: z.array(Id).min(1),
  /** The chain of frames that shows it. A text of a master page names that instead of a spread, and is set on every page that shows it; one in a frame that is anchored in another text names that text. */
  frames: z.array(z.object({ spread: Id, item: Id })).default([]),
  links: z.record(Id, z.object({ id: Id, destination: Destination, title: z.string().optional() })).default({}),
  items: z.record(Id, Item).default({}),
  /** Ids of merged paragraphs → the paragraph that took their text. */
  aliases: z.record(Id, Id).default({}),
});
export type Story = z.infer<typeof Story>;
export type Block = Story['blocks'][string];
