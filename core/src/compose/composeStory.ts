import type { Folio } from '../folio/folio.ts';
import type { TextFrame } from '../folio/items.ts';
import type { Paragraph, Story } from '../folio/story.ts';
import type { CharacterProperties, ParagraphProperties } from '../folio/styles.ts';
import { leadingOf, resolveParagraph } from '../folio/resolve.ts';
import { countWords } from '../folio/text.ts';
import { pageOfItem, pagesOf, printedNumber } from '../folio/traverse.ts';
import { breakGreedy, breakOpportunities } from './breakLines.ts';
import type { BrokenLine } from './breakLines.ts';
import { ColumnFill, columnsOf } from './fillFrames.ts';
import type { FontSet } from './fontSet.ts';
import { itemise } from './itemise.ts';
import type { FieldTexts } from './itemise.ts';
import type { ComposedFrame, ComposedStory, MissingGlyph } from './marks.ts';
import { buildLine } from './setLine.ts';
import type { BuiltLine } from './setLine.ts';
import { shapeParagraph } from './shapeParagraph.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';

interface Prepared {
  properties: ParagraphProperties;
  base: CharacterProperties;
  shaped: ShapedParagraph;
  opportunities: { position: number; required: boolean }[];
  /** Lines by column width, from the paragraph's beginning. */
  lines: Map<number, LinesOfParagraph>;
}

/**
 * Shaped and broken paragraphs, kept as long as the paragraph, the styles and the fonts are the same
 * objects: an edit makes a new object of its paragraph only, so only that one is set again.
 */
export class ParagraphCache {
  private byParagraph = new WeakMap<Paragraph, { paragraphStyles: object; characterStyles: object; fonts: FontSet; prepared: Prepared }>();

  get(folio: Folio, paragraph: Paragraph, fonts: FontSet, fields: FieldTexts): Prepared {
    const { paragraphStyles, characterStyles } = folio.head;
    const kept = this.byParagraph.get(paragraph);
    if (kept && kept.paragraphStyles === paragraphStyles && kept.characterStyles === characterStyles && kept.fonts === fonts)
      return kept.prepared;
    const { paragraph: properties, character: base } = resolveParagraph(folio.head, paragraph);
    const shaped = shapeParagraph(itemise(folio.head, paragraph, base, fonts, fields));
    const prepared = {
      properties,
      base,
      shaped,
      opportunities: breakOpportunities(shaped.text),
      lines: new Map<number, LinesOfParagraph>(),
    };
    if (!shaped.hasFields) this.byParagraph.set(paragraph, { paragraphStyles, characterStyles, fonts, prepared });
    return prepared;
  }
}

function build(prepared: Prepared, id: string, fonts: FontSet, broken: BrokenLine[], width: number): BuiltLine[] {
  const { base, shaped, properties } = prepared;
  const face = fonts.match(base.fontFamily, base.fontWeight, base.fontStyle);
  const empty = {
    leading: leadingOf(base),
    ascent: (face.ascent / face.unitsPerEm) * base.size,
    descent: (face.descent / face.unitsPerEm) * base.size,
  };
  return broken.map((line) => buildLine(shaped, line, properties, id, width, empty));
}

interface LinesOfParagraph {
  lines: BuiltLine[];
  broken: BrokenLine[];
}

/** A paragraph's lines from a unit of its set text on, for one column width; from its beginning they are kept. */
function linesFrom(prepared: Prepared, id: string, fonts: FontSet, unit: number, width: number): LinesOfParagraph {
  const kept = unit === 0 ? prepared.lines.get(width) : undefined;
  if (kept) return kept;
  const broken = breakGreedy(prepared.shaped, prepared.opportunities, prepared.properties, unit, width);
  const set = { broken, lines: build(prepared, id, fonts, broken, width) };
  if (unit === 0) prepared.lines.set(width, set);
  return set;
}

/** What a field shows in a frame. Page fields know their page; the rest shows the text it came with. */
function fieldTexts(folio: Folio, frame: { spread: string; item: string } | undefined): FieldTexts {
  return (node) => {
    const pages = pagesOf(folio);
    const spread = frame && folio.spreads[frame.spread];
    const item = frame && spread?.items[frame.item];
    if (node.field === 'pageNumber' && spread && item) {
      const page = pageOfItem(spread, item);
      return printedNumber(pages.find((p) => p.page.id === page.id)!);
    }
    if (node.field === 'pageCount') return String(pages.length);
    if (node.field === 'title') return folio.head.metadata.title;
    return node.text ?? '';
  };
}

/** Sets one story into its chain of frames. Pure: the same folio and fonts give the same marks. */
export function composeStory(folio: Folio, story: Story, fonts: FontSet, cache: ParagraphCache): ComposedStory {
  const chain = story.frames.flatMap((f) => {
    const item = folio.spreads[f.spread]?.items[f.item];
    return item?.kind === 'textFrame' ? [{ ...f, frame: item }] : [];
  });
  const frames: ComposedFrame[] = chain.map((c) => ({ item: c.item, spread: c.spread, story: story.id, lines: [] }));
  const cursor = new ColumnCursor(
    chain.map((c) => c.frame),
    frames,
  );
  const missingGlyphs: MissingGlyph[] = [];
  const overflow = { lines: 0, characters: 0, words: 0 };
  const paragraphs = story.order.flatMap((id) => (story.blocks[id]?.kind === 'paragraph' ? [story.blocks[id]] : []));

  for (const paragraph of paragraphs) {
    const at = chain[cursor.frameIndex];
    const prepared = cache.get(folio, paragraph, fonts, fieldTexts(folio, at));
    missingGlyphs.push(...prepared.shaped.missing);
    cursor.fill?.addSpace(prepared.properties.spaceBefore);
    let width = cursor.width;
    let set = linesFrom(prepared, paragraph.id, fonts, 0, width);
    for (let i = 0; i < set.lines.length;) {
      if (cursor.fill?.place(set.lines[i]!)) {
        i++;
        continue;
      }
      if (!cursor.advance()) {
        const rest = prepared.shaped.text.slice(set.broken[i]!.start);
        overflow.lines += set.lines.length - i;
        overflow.characters += rest.length;
        overflow.words += countWords(rest, prepared.base.language);
        break;
      }
      if (cursor.width !== width) {
        width = cursor.width;
        set = linesFrom(prepared, paragraph.id, fonts, set.broken[i]!.start, width);
        i = 0;
      }
    }
    cursor.fill?.addSpace(prepared.properties.spaceAfter);
  }
  cursor.finish();
  return { story: story.id, frames, overflow: overflow.lines ? overflow : null, missingGlyphs };
}

/** Walks the columns of a chain of frames in order. `fill` is undefined once the chain is full. */
class ColumnCursor {
  frameIndex = -1;
  fill: ColumnFill | undefined;
  width = 0;
  private columns: ReturnType<typeof columnsOf> = [];
  private column = -1;

  constructor(
    private readonly frames: readonly TextFrame[],
    private readonly out: ComposedFrame[],
  ) {
    this.advance();
  }

  /** Goes to the next column; false at the end of the chain, where the last width stays in force. */
  advance(): boolean {
    this.finish();
    this.column++;
    if (this.column >= this.columns.length) {
      if (this.frameIndex + 1 >= this.frames.length) {
        this.column = this.columns.length;
        return false;
      }
      this.frameIndex++;
      this.columns = columnsOf(this.frames[this.frameIndex]!);
      this.column = 0;
    }
    const column = this.columns[this.column]!;
    this.fill = new ColumnFill(column, this.column, this.frames[this.frameIndex]!);
    this.width = column.width;
    return true;
  }

  finish(): void {
    if (this.fill) this.out[this.frameIndex]!.lines.push(...this.fill.finish());
    this.fill = undefined;
  }
}
