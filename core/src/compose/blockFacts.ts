import type { Head } from '../folio/head.ts';
import type { Block, Inline, Paragraph } from '../folio/story.ts';
import type { ParagraphProperties } from '../folio/styles.ts';
import { resolveParagraphStyle } from '../folio/resolve.ts';

type Note = Inline & { type: 'note' };
export type FieldKind = (Inline & { type: 'field' })['field'];

/** What a paragraph holds besides words; nearly all hold nothing, and are asked at every keystroke of a long text. */
interface BlockFacts {
  notes: readonly Note[];
  fields: readonly FieldKind[];
  /** Paragraphs whose page it shows, and those whose number it shows. */
  pagesOf: readonly string[];
  numbersOf: readonly string[];
}

const NOTHING: BlockFacts = { notes: [], fields: [], pagesOf: [], numbersOf: [] };
const known = new WeakMap<Block, BlockFacts>();

/** The notes and fields of a paragraph; a table's cells are blocks of their own. */
export function factsOf(block: Block): BlockFacts {
  let facts = known.get(block);
  if (!facts) {
    facts = NOTHING;
    if (block.kind === 'paragraph' && block.content.some((n) => n.type === 'note' || n.type === 'field'))
      facts = {
        notes: block.content.filter((n): n is Note => n.type === 'note'),
        fields: block.content.flatMap((n) => (n.type === 'field' ? [n.field] : [])),
        pagesOf: targetsOf(block, 'reference'),
        numbersOf: targetsOf(block, 'label'),
      };
    known.set(block, facts);
  }
  return facts;
}

const targetsOf = (paragraph: Paragraph, kind: FieldKind): string[] =>
  paragraph.content.flatMap((n) => (n.type === 'field' && n.field === kind && n.target !== undefined ? [n.target] : []));

/** The list a paragraph belongs to, without working out the rest of its properties. */
export const listOf = (head: Pick<Head, 'paragraphStyles'>, paragraph: Paragraph): ParagraphProperties['list'] =>
  paragraph.overrides?.list !== undefined ? paragraph.overrides.list : resolveParagraphStyle(head, paragraph.style).paragraph.list;

/** Whether a paragraph stands across all columns of its frame, asked for every block of a frame's text. */
export const spans = (head: Pick<Head, 'paragraphStyles'>, paragraph: Paragraph): boolean =>
  paragraph.overrides?.spanColumns ?? resolveParagraphStyle(head, paragraph.style).paragraph.spanColumns;
