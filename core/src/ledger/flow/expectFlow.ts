import type { FontSet } from '../../compose/fontSet.ts';
import { listLabels } from '../../compose/listLabels.ts';
import type { Composition, SetLine } from '../../compose/marks.ts';
import { isSafeAddress } from '../../folio/address.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Rect } from '../../folio/geometry.ts';
import type { Item } from '../../folio/items.ts';
import { flatRgb, hex, solidHex } from '../../folio/colour.ts';
import type { Paint } from '../../folio/colour.ts';
import { paragraphRole, resolveParagraph, resolveSpan } from '../../folio/resolve.ts';
import type { Cell, Paragraph, Story, Table } from '../../folio/story.ts';
import type { CharacterProperties, ParagraphProperties } from '../../folio/styles.ts';
import { cellsInOrder, lineOfSide, lookOfCell } from '../../folio/tableCells.ts';
import { initialLetters, readText } from '../../folio/text.ts';
import { playedFile } from '../../folio/playedFile.ts';
import { flowOf } from '../../structure/flow.ts';
import type { FlowBlock, FlowFigure, FlowScope, FlowSection } from '../../structure/flow.ts';
import { headingLevel, outlineText } from '../../structure/outline.ts';
import { textOfLines } from '../../structure/reading.ts';
import { cellHeads, headsByPlace } from '../../structure/tableHeads.ts';
import { MARKUP } from './telling.ts';
import type { Telling } from './telling.ts';

export interface ExpectedFlowBlock {
  paragraph: string;
  /** The element that it should be, and one that should be around it. */
  element: string;
  within: string | null;
  text: string;
  language: string;
  links: { id: string; text: string; address: string | null }[];
  readings: { id: string; base: string; reading: string }[];
  align: string;
  /** The colour that it stands on: its own, or its cell’s; null for paper. */
  ground: string | null;
  initial: boolean;
  /** The number before it, where the format counts. */
  label?: string;
  look: ExpectedLook;
  runs: { text: string; look: ExpectedLook; language: string }[];
}
/** How words look; their size in points. */
export interface ExpectedLook {
  family: string;
  weight: number;
  style: string;
  size: number;
  colour: string;
  capitals: string;
  position: string;
  underline: boolean;
  strike: boolean;
}
export interface ExpectedLine {
  weight: number;
  colour: string;
}
interface ExpectedFlowCell {
  cell: string;
  text: string;
  heading: boolean;
  rows: number;
  columns: number;
  ground: string | null;
  /** Top, right, bottom, left. */
  lines: (ExpectedLine | null)[];
}
interface ExpectedFigure {
  item: Item;
  alt: string;
  /** The media file, where it is seen upright, and the part of it that is, in shares of its width and height. */
  media: string | null;
  region: Rect;
  /** Of a film or sound: how many bytes its file has. */
  plays: number | null;
  /** The number of blocks read before it. */
  after: number;
  pin: string | null;
}
export interface ExpectedFlow {
  title: string;
  language: string;
  outline: string[];
  blocks: ExpectedFlowBlock[];
  figures: ExpectedFigure[];
  tables: { id: string; rows: ExpectedFlowCell[][] }[];
  notes: { id: string; text: string }[];
  absent: { paragraph: string; text: string }[];
}

/** Works out what reading running text back should find. Knows nothing of how any output is written. */
export function expectFlow(
  folio: Folio,
  composition: Composition,
  fonts: FontSet,
  scope: FlowScope,
  settings: { title: string; language: string; depth: number; lists?: 'lists' | 'text' },
  telling: Telling = MARKUP,
  sections: readonly FlowSection[] = flowOf(folio, composition, scope),
): ExpectedFlow {
  return new Expectation(folio, composition, fonts, settings.lists === 'text', telling).of(sections, settings);
}

class Expectation {
  private readonly lines = new Map<string, SetLine[]>();
  private readonly out: Omit<ExpectedFlow, 'title' | 'language' | 'outline'> = {
    blocks: [],
    figures: [],
    tables: [],
    notes: [],
    absent: [],
  };
  private readonly seen = new Set<string>();
  private readonly labels = new Map<Story, ReturnType<typeof listLabels>>();

  constructor(
    private readonly folio: Folio,
    composition: Composition,
    private readonly fonts: FontSet,
    /** Entries of lists are paragraphs with their numbers in them. */
    private readonly listsAsText: boolean,
    private readonly telling: Telling,
  ) {
    for (const frame of composition.frames.values())
      for (const line of frame.lines) {
        const known = this.lines.get(line.paragraph);
        if (!known) this.lines.set(line.paragraph, [line]);
        // Rows that head a table are set again where it goes on.
        else if (!known[known.length - 1]!.last) known.push(line);
      }
  }

  of(sections: readonly FlowSection[], settings: { title: string; language: string; depth: number }): ExpectedFlow {
    const { metadata } = this.folio.head;
    for (const s of sections) for (const b of s.blocks) this.block(b);
    for (const story of Object.values(this.folio.stories))
      for (const b of Object.values(story.blocks))
        if (b.kind === 'paragraph' && !this.seen.has(b.id)) this.out.absent.push({ paragraph: b.id, text: readText(b) });
    const outline = sections.flatMap((s) =>
      s.blocks.flatMap((b) => {
        if (b.kind !== 'paragraph') return [];
        const level = headingLevel(b.role.element);
        const text = level && level <= settings.depth ? outlineText(this.folio.head, b.paragraph.id, readText(b.paragraph)) : null;
        return text === null ? [] : [text];
      }),
    );
    return { title: settings.title || metadata.title, language: settings.language || metadata.language, outline, ...this.out };
  }

  private block(b: FlowBlock): void {
    switch (b.kind) {
      case 'pageMark':
        return;
      case 'paragraph': {
        const { element } = b.role;
        const around = element === 'blockquote' || element === 'aside' ? element : null;
        const plain = PLAIN.has(element) || (element === 'li' && this.listsAsText);
        this.paragraph(b.story, b.paragraph, plain ? 'p' : element, around, null, b.lines);
        for (const { figure } of b.inline) this.figure(figure);
        for (const n of b.paragraph.content) {
          const item = n.type === 'anchor' && n.place === 'inline' ? b.story.items[n.item] : undefined;
          if (item) this.figure({ item, captions: [], pin: null });
        }
        return;
      }
      case 'table':
        for (let from = 0; from < b.table.columns.length; from += this.telling.columns)
          this.table(b.story, b.table, from, Math.min(b.table.columns.length, from + this.telling.columns));
        return;
      case 'figure':
        this.figure(b);
        return;
      case 'box':
        for (const inner of b.blocks) this.block(inner);
    }
  }

  /** The columns `[from, to)` of a table; a cell that reaches over their edge is cut there, and says its words in the first part. */
  private table(story: Story, table: Table, from: number, to: number): void {
    const rows: ExpectedFlow['tables'][number]['rows'] = table.rows.map(() => []);
    for (const cell of cellsInOrder(table)) {
      const [left, right] = [Math.max(from, cell.column), Math.min(to, cell.column + cell.columns)];
      if (left >= right) continue;
      const heading = this.heads(story, table, cell);
      const look = lookOfCell(this.folio.head, table, cell);
      const ground = this.flat(look.fill);
      const texts = left === cell.column ? cell.order.map((id) => this.inCell(story, id, heading ? 'th' : 'td', ground)) : [];
      const lines = (['top', 'right', 'bottom', 'left'] as const).map((side) => {
        const stroke = lineOfSide(look, side);
        const colour = stroke && this.flat(stroke.paint);
        return colour === null ? null : { weight: this.telling.line(stroke!.weight), colour };
      });
      rows[cell.row]?.push({ cell: cell.id, text: texts.join(' '), heading, rows: cell.rows, columns: right - left, ground, lines });
    }
    this.out.tables.push({ id: table.id, rows });
  }

  /** Whether a cell heads others: by its style, or by its place alone where that is all that the format tells. */
  private heads(story: Story, table: Table, cell: Cell): boolean {
    const { head } = this.folio;
    return this.telling.headsAnywhere ? cellHeads(head, story, table, cell) !== null : headsByPlace(head, story, table, cell);
  }

  private inCell(story: Story, id: string, around: string, ground: string | null): string {
    const block = story.blocks[id];
    if (block?.kind !== 'paragraph') return '';
    this.paragraph(story, block, 'p', around, ground);
    return this.textOf(block, true);
  }

  private figure({ item, captions, pin }: Pick<FlowFigure, 'item' | 'captions' | 'pin'>): void {
    const media = item.kind === 'picture' ? item.media : item.kind === 'media' || item.kind === 'embed' ? (item.poster ?? null) : null;
    const file = this.telling.plays ? playedFile(this.folio, item) : null;
    const region = regionShown(item);
    const shows = file !== null || media !== null || item.kind === 'shape' || item.kind === 'group';
    if (shows)
      this.out.figures.push({
        item,
        alt: file ? item.alt || item.name || file.name : (item.alt ?? ''),
        media: region ? media : null,
        region: region ?? WHOLE,
        plays: file?.bytes ?? null,
        after: this.out.blocks.length,
        pin: pin?.id ?? null,
      });
    const inCaption = shows ? 'figcaption' : 'p';
    for (const c of captions) this.paragraph(c.story, c.paragraph, captions.length > 1 && shows ? 'p' : inCaption, shows ? 'figure' : null);
  }

  private paragraph(
    story: Story,
    p: Paragraph,
    given: string,
    within: string | null,
    around: string | null = null,
    part?: readonly SetLine[],
  ): void {
    this.seen.add(p.id);
    const { character, paragraph } = resolveParagraph(this.folio.head, p);
    const { language } = character;
    const { telling } = this;
    const element = telling.element(paragraphRole(this.folio.head, p.style).element, { given, listed: this.isListed(paragraph) });
    const links = new Map<string, string>();
    const readings: ExpectedFlowBlock['readings'] = [];
    for (const node of p.content) {
      if (node.type === 'span' && node.link !== undefined) links.set(node.link, (links.get(node.link) ?? '') + node.text);
      if (node.type === 'ruby') readings.push({ id: node.id, base: node.base, reading: node.reading });
      if (node.type === 'note' && !telling.notesInText) this.note(story, node.id, node.order);
    }
    // A paragraph without a word is no block.
    const isNote = telling.notesInText && isNoteOf(story, p.id);
    const text = this.textOf(p, isNote || (!telling.countsLists && element !== 'li'), part);
    if (!text.trim()) return;
    const label = telling.countsLists && p.overrides?.list !== null ? this.labelOf(story, p.id) : undefined;
    this.out.blocks.push({
      paragraph: p.id,
      element,
      within: telling.surroundings || within === 'td' || within === 'th' ? within : null,
      text,
      language,
      readings,
      align: ALIGN[paragraph.align],
      ground: paragraph.shading ? solidHex(paragraph.shading.paint, this.folio.head.swatches) : around,
      initial: this.hasInitial(p, paragraph, around !== null || within === 'td' || within === 'th'),
      ...(label !== undefined && { label }),
      look: this.lookOf(character),
      runs: p.content.flatMap((n) => (n.type === 'span' ? [this.runOf(n.text, resolveSpan(this.folio.head, character, n))] : [])),
      links: [...links].flatMap(([id, words]): ExpectedFlowBlock['links'] => {
        const d = story.links[id]?.destination;
        if (d?.to === 'address') return isSafeAddress(d.href) ? [{ id, text: words, address: d.href }] : [];
        return d?.to === 'page' || d?.to === 'paragraph' ? [{ id, text: words, address: null }] : [];
      }),
    });
  }

  private hasInitial(p: Paragraph, { dropCapital }: ParagraphProperties, isHeld: boolean): boolean {
    if (!dropCapital || !this.telling.initials) return false;
    return this.telling.initialsByStyle || (!isHeld && initialLetters(p, dropCapital.characters) !== '');
  }

  private isListed({ list }: ParagraphProperties): boolean {
    return list !== null && this.folio.head.listStyles[list.style] !== undefined;
  }

  private labelOf(story: Story, paragraph: string): string | undefined {
    let known = this.labels.get(story);
    if (!known) this.labels.set(story, (known = listLabels(this.folio.head, story, story.order)));
    return known.get(paragraph)?.text;
  }

  private runOf(text: string, c: CharacterProperties): ExpectedFlowBlock['runs'][number] {
    return { text, look: this.lookOf(c), language: c.language };
  }

  private lookOf(c: CharacterProperties): ExpectedLook {
    const { telling } = this;
    // HTML asks for a weight, and readers find the face; other formats name the face.
    const { family, weight, style } = telling.face(this.fonts.match(c), c);
    return {
      family,
      ...(telling === MARKUP ? { weight: c.fontWeight, style: c.fontStyle } : { weight, style }),
      size: telling.size(c.size),
      colour: solidHex(c.fill, this.folio.head.swatches),
      capitals: c.capitals,
      position: c.position,
      underline: !!c.underline,
      strike: !!c.strike,
    };
  }

  /** One colour for a paint. */
  private flat(paint: Paint | undefined): string | null {
    const rgb = paint ? flatRgb(paint, this.folio.head.swatches) : null;
    return rgb && hex(rgb);
  }

  private note(story: Story, id: string, order: readonly string[]): void {
    const texts = order.flatMap((p) => {
      const block = story.blocks[p];
      if (block?.kind !== 'paragraph') return [];
      this.seen.add(p);
      return [readText(block)];
    });
    if (texts.length) this.out.notes.push({ id, text: texts.join(' ') });
  }

  /** A paragraph’s text as it was set, through all frames it runs over; as it stands where it fits none. `part`: the lines of a part of it. */
  private textOf(p: Paragraph, labelled: boolean, part?: readonly SetLine[]): string {
    const lines = part ?? this.lines.get(p.id);
    if (!lines || (!part && !lines.some((l) => l.last))) return readText(p);
    const without = (labelled ? [] : ['label']).concat(this.telling.countsNotes ? ['note'] : []);
    if (!without.length) return textOfLines(lines);
    return textOfLines(lines.map((l) => ({ ...l, runs: l.runs.filter((r) => !r.generated || !without.includes(r.generated)) })));
  }
}

/** Whether a paragraph stands in a note. */
const isNoteOf = (story: Story, paragraph: string): boolean =>
  Object.values(story.blocks).some(
    (b) => b.kind === 'paragraph' && b.content.some((n) => n.type === 'note' && n.order.includes(paragraph)),
  );

const ALIGN = { left: 'left', right: 'right', centre: 'center', justify: 'justify', justifyAll: 'justify' } as const;

/** Roles of paragraphs that are told by what is around them, or by nothing. */
const PLAIN = new Set(['figcaption', 'th', 'td', 'aside', 'blockquote', 'span']);

const WHOLE: Rect = { x: 0, y: 0, width: 1, height: 1 };

/** The part of its picture that an item shows; null where it is turned, mirrored or cut out, or stands in a frame of its own. */
function regionShown(item: Item): Rect | null {
  if (item.kind === 'media' || item.kind === 'embed') return WHOLE;
  if (item.kind !== 'picture' || item.clip || item.stroke || item.corner || item.opacity !== 1) return null;
  const [a, b, c, d, e, f] = item.placement;
  const upright = [item.transform[1], item.transform[2], b, c].every((n) => Math.abs(n) < 1e-6) && item.transform[0] > 0 && a > 0 && d > 0;
  if (!upright) return null;
  const within = (n: number): number => Math.min(1, Math.max(0, n));
  const [x, y] = [within(-e / a), within(-f / d)];
  return { x, y, width: within((item.size.width - e) / a) - x, height: within((item.size.height - f) / d) - y };
}
