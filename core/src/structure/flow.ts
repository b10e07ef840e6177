import type { Composition } from '../compose/marks.ts';
import type { Folio } from '../folio/folio.ts';
import type { Item } from '../folio/items.ts';
import type { Pin } from '../folio/head.ts';
import type { PagePlace } from '../folio/traverse.ts';
import type { Paragraph, Story, Table } from '../folio/story.ts';
import type { Role } from '../folio/styles.ts';
import type { SetLine } from '../compose/marks.ts';
import { paragraphRole } from '../folio/resolve.ts';
import { figureGroups, spreadOfFigures, structureOfFigures } from './figureGroups.ts';
import { readingOfSpread } from './reading.ts';
import type { PageReading, ParagraphUnit, ReadingUnit } from './reading.ts';

/** A paragraph as it is read on, whatever frames it stands in. */
export interface FlowParagraph {
  kind: 'paragraph';
  story: Story;
  paragraph: Paragraph;
  role: Role;
  /** The frame and the page on which it begins. */
  item: string;
  page: string;
  /** Pages that begin inside it, with the offset at which they do. */
  breaks: { offset: number; page: string }[];
  /** Items that stand in its line, by pins: with the offset at which they do. */
  inline: { offset: number; figure: FlowFigure }[];
  /** Its lines, where a part of it stands alone. */
  lines?: readonly SetLine[];
}
export interface FlowTable {
  kind: 'table';
  story: Story;
  table: Table;
  item: string;
  page: string;
}
/** A picture or another thing that is no text, with what is said of it. */
export interface FlowFigure {
  kind: 'figure';
  item: Item;
  spread: string;
  page: string;
  captions: FlowParagraph[];
  pin: Pin | null;
}
/** A box of text that is pinned to a place in another: it is read there as a whole. */
export interface FlowBox {
  kind: 'box';
  item: string;
  page: string;
  blocks: (FlowParagraph | FlowTable)[];
  pin: Pin;
}
/** Where a page of the layout begins. */
interface PageMark {
  kind: 'pageMark';
  page: string;
}
export type FlowBlock = FlowParagraph | FlowTable | FlowFigure | FlowBox | PageMark;

/** A run of content that begins anew: a chapter, an article. */
export interface FlowSection {
  /** The paragraph that begins it; null for what stands before the first beginning. */
  start: FlowParagraph | null;
  blocks: FlowBlock[];
}

export interface FlowScope {
  pages: readonly PagePlace[];
  shown(item: Item): boolean;
}

/**
 * A document as it is read from its beginning to its end: what the reading path says, paragraphs whole whatever frames and pages
 * they run over, captions with their figures, pinned things where they are pinned, and text that fits no frame where it belongs.
 */
export function flowOf(folio: Folio, composition: Composition, scope: FlowScope): FlowSection[] {
  const groups = figureGroups(folio);
  if (!groups.size) return flowOfPages(folio, composition, scope);
  const head = { ...folio.head, structure: structureOfFigures(folio, groups) };
  const spreads = new Map<PagePlace['spread'], PagePlace['spread']>();
  const pages = scope.pages.map((p) => {
    if (!spreads.has(p.spread)) spreads.set(p.spread, spreadOfFigures(p.spread, groups));
    return { ...p, spread: spreads.get(p.spread)! };
  });
  const sections = flowOfPages({ ...folio, head }, composition, { ...scope, pages });
  const wholes = new Map([...groups.values()].map((g) => [g.id, g]));
  const withGroups = <B extends FlowBlock>(b: B): B =>
    b.kind === 'figure'
      ? { ...b, item: wholes.get(b.item.id) ?? b.item }
      : b.kind === 'paragraph'
        ? { ...b, inline: b.inline.map((i) => ({ ...i, figure: withGroups(i.figure) })) }
        : b;
  return sections.map((s) => {
    const blocks = s.blocks.map(withGroups);
    return { start: s.start && (blocks[s.blocks.indexOf(s.start)] as FlowParagraph), blocks };
  });
}

function flowOfPages(folio: Folio, composition: Composition, scope: FlowScope): FlowSection[] {
  const blocks = withLeftOverText(folio, composition, blocksInOrder(folio, composition, scope));
  return sectionsOf(folio, pinned(folio, withCaptions(linkedCaptions(folio, blocks))));
}

function blocksInOrder(folio: Folio, composition: Composition, { pages, shown }: FlowScope): FlowBlock[] {
  const out: FlowBlock[] = [];
  const paragraphs = new Map<string, FlowParagraph>();
  const tables = new Set<string>();
  const notes = new Map<string, ReadonlySet<string>>();
  const inLines = itemsInLines(folio);
  const begunPages = new Set<string>();
  for (const { page, spread, units, ends } of inStrands(folio, stopsOf(folio, composition, { pages, shown }))) {
    const begin = (): void => {
      if (!begunPages.has(page.id)) out.push({ kind: 'pageMark', page: page.id });
      begunPages.add(page.id);
    };
    for (const unit of units) {
      if (unit.kind === 'figure') {
        if (inLines.has(unit.item)) continue;
        begin();
        out.push({ kind: 'figure', item: spread.items[unit.item]!, spread: spread.id, page: page.id, captions: [], pin: null });
        continue;
      }
      const story = folio.stories[unit.story]!;
      if (notesIn(story, notes).has(unit.paragraph)) continue;
      if (unit.cell) {
        const { table } = unit.cell.part;
        if (tables.has(table.id)) continue;
        begin();
        tables.add(table.id);
        out.push({ kind: 'table', story, table, item: unit.item, page: page.id });
        continue;
      }
      const known = paragraphs.get(unit.paragraph);
      if (known) {
        if (!begunPages.has(page.id)) known.breaks.push({ offset: unit.lines[0]!.start, page: page.id });
        begunPages.add(page.id);
        continue;
      }
      begin();
      const made = paragraphOf(story, unit, page.id);
      if (!made) continue;
      paragraphs.set(unit.paragraph, made);
      out.push(made);
    }
    // A page on which nothing is read begins all the same.
    if (ends) begin();
  }
  return out;
}

/** What is read without a break of one page: all of it, or the part that belongs to one strand. */
interface Stop {
  page: PagePlace['page'];
  spread: PagePlace['spread'];
  units: readonly ReadingUnit[];
  /** The strand that is read in one go, if the units belong to one. */
  strand: string | null;
  /** Whether the page's reading ends with it. */
  ends: boolean;
}

function* stopsOf(folio: Folio, composition: Composition, { pages, shown }: FlowScope): Generator<Stop> {
  const home = new Map(folio.head.structure.strands.flatMap((s) => (s.together ? s.entries.map((e) => [e.item, s.id] as const) : [])));
  const anchored = new Set(Object.values(folio.stories).flatMap((s) => Object.keys(s.items)));
  let readings: { spread: string; of: Map<string, PageReading> } | undefined;
  for (const { page, spread } of pages) {
    if (readings?.spread !== spread.id) readings = { spread: spread.id, of: readingOfSpread(folio, composition, spread, shown) };
    const { units } = readings.of.get(page.id)!;
    let from = 0;
    let now: string | null = null;
    for (const [i, unit] of units.entries()) {
      // What is anchored in a text goes with it.
      const strand: string | null = anchored.has(unit.item) ? now : (home.get(unit.item) ?? null);
      if (strand !== now && i > from) {
        yield { page, spread, units: units.slice(from, i), strand: now, ends: false };
        from = i;
      }
      now = strand;
    }
    yield { page, spread, units: units.slice(from), strand: now, ends: true };
  }
}

/** Stops of a strand that is read in one go follow one another where the first of them stands. */
function inStrands(folio: Folio, stops: Iterable<Stop>): Stop[] {
  const all = [...stops];
  if (!all.some((s) => s.strand !== null)) return all;
  const rank = new Map(folio.head.structure.strands.flatMap((s) => s.entries.map((e, i) => [e.item, i] as const)));
  const place = (s: Stop): number => rank.get(s.units[0]?.item ?? '') ?? 0;
  const byStrand = new Map<string, Stop[]>();
  for (const stop of all) if (stop.strand !== null) byStrand.set(stop.strand, [...(byStrand.get(stop.strand) ?? []), stop]);
  const done = new Set<string>();
  return all.flatMap((stop) => {
    if (stop.strand === null) return [stop];
    if (done.has(stop.strand)) return [];
    done.add(stop.strand);
    return byStrand.get(stop.strand)!.sort((a, b) => place(a) - place(b));
  });
}

function paragraphOf(story: Story, unit: ParagraphUnit, page: string): FlowParagraph | null {
  const paragraph = story.blocks[unit.paragraph];
  if (paragraph?.kind !== 'paragraph') return null;
  return { kind: 'paragraph', story, paragraph, role: unit.role, item: unit.item, page, breaks: [], inline: [] };
}

/** Paragraphs of notes: they are read where their reference leads. */
function notesIn(story: Story, known: Map<string, ReadonlySet<string>>): ReadonlySet<string> {
  let found = known.get(story.id);
  if (!found) {
    const ids = new Set<string>();
    for (const block of Object.values(story.blocks))
      if (block.kind === 'paragraph') for (const node of block.content) if (node.type === 'note') node.order.forEach((id) => ids.add(id));
    known.set(story.id, (found = ids));
  }
  return found;
}

/** Items that stand in a line like a letter, with text around them: they are read with it. */
const itemsInLines = (folio: Folio): Set<string> =>
  new Set(
    Object.values(folio.stories).flatMap((story) =>
      Object.keys(story.items).length
        ? Object.values(story.blocks).flatMap((b) =>
            b.kind === 'paragraph' && b.content.some((n) => n.type === 'span' && n.text.trim())
              ? b.content.flatMap((n) => (n.type === 'anchor' && n.place === 'inline' ? [n.item] : []))
              : [],
          )
        : [],
    ),
  );

/** Text that fits no frame follows what of its story does: a page is full, a flow never is. */
function withLeftOverText(folio: Folio, composition: Composition, blocks: FlowBlock[]): FlowBlock[] {
  const out = [...blocks];
  for (const { story: id, overflow } of composition.stories.values()) {
    const story = folio.stories[id];
    if (!overflow || !story) continue;
    const seen = new Set(out.flatMap((b) => (b.kind === 'paragraph' ? [b.paragraph.id] : b.kind === 'table' ? [b.table.id] : [])));
    const last = out.findLastIndex((b) => (b.kind === 'paragraph' || b.kind === 'table') && b.story === story);
    if (last < 0) continue;
    const { item, page } = out[last] as FlowParagraph;
    const lastShown = story.order.findLastIndex((b) => seen.has(b));
    const rest = story.order.slice(lastShown + 1).flatMap((b): FlowBlock[] => {
      const block = story.blocks[b];
      if (block?.kind === 'table') return [{ kind: 'table', story, table: block, item, page }];
      if (block?.kind !== 'paragraph' || !block.content.length) return [];
      const role = paragraphRole(folio.head, block.style);
      return role.leaveOut ? [] : [{ kind: 'paragraph', story, paragraph: block, role, item, page, breaks: [], inline: [] }];
    });
    out.splice(last + 1, 0, ...rest);
  }
  return out;
}

/** Captions that a person has linked to their figures stand right after them, wherever they are in the layout. */
function linkedCaptions(folio: Folio, blocks: readonly FlowBlock[]): FlowBlock[] {
  const { captions } = folio.head.structure;
  if (!Object.keys(captions).length) return [...blocks];
  const figures = new Set(blocks.flatMap((b) => (b.kind === 'figure' ? [b.item.id] : [])));
  const waiting = new Map<string, FlowParagraph[]>();
  const stay = blocks.filter((b) => {
    const figure = b.kind === 'paragraph' && b.role.element === 'figcaption' ? captions[b.item] : undefined;
    if (b.kind !== 'paragraph' || figure === undefined || !figures.has(figure)) return true;
    waiting.set(figure, [...(waiting.get(figure) ?? []), b]);
    return false;
  });
  return stay.flatMap((b): FlowBlock[] => (b.kind === 'figure' ? [b, ...(waiting.get(b.item.id) ?? [])] : [b]));
}

/** Captions become part of the figure that they follow, or of the one right after them. */
function withCaptions(blocks: readonly FlowBlock[]): FlowBlock[] {
  const out: FlowBlock[] = [];
  const isCaption = (b: FlowBlock | undefined): b is FlowParagraph => b?.kind === 'paragraph' && b.role.element === 'figcaption';
  let figure: FlowFigure | null = null;
  for (const [i, block] of blocks.entries()) {
    if (block.kind === 'pageMark') {
      out.push(block);
      continue;
    }
    if (isCaption(block)) {
      const next = blocks[i + 1];
      if (!figure && next?.kind === 'figure') {
        next.captions.push(block);
        continue;
      }
      if (figure) {
        figure.captions.push(block);
        continue;
      }
    }
    figure = block.kind === 'figure' ? block : null;
    out.push(block);
  }
  return out;
}

/** Things that are pinned leave their place in the path and stand at their words. */
function pinned(folio: Folio, blocks: readonly FlowBlock[]): FlowBlock[] {
  const pins = new Map(Object.values(folio.head.structure.pins).map((p) => [p.item, p]));
  if (!pins.size) return [...blocks];
  const paragraphs = new Map(blocks.flatMap((b) => (b.kind === 'paragraph' ? [[b.paragraph.id, b] as const] : [])));
  const pinOf = (item: string, paragraph?: string): Pin | undefined => {
    const pin = pins.get(item);
    // A place that is not in this output holds nothing, and no text is pinned into itself.
    return pin && paragraphs.has(pin.paragraph) && paragraphs.get(pin.paragraph)!.item !== item && pin.paragraph !== paragraph
      ? pin
      : undefined;
  };
  const held = new Map<string, { before: FlowBlock[]; after: FlowBlock[] }>();
  const boxes = new Map<string, FlowBox>();
  const stay = blocks.filter((b) => {
    if (b.kind === 'pageMark' || b.kind === 'box') return true;
    const item = b.kind === 'figure' ? b.item.id : b.item;
    const pin = pinOf(item);
    if (!pin) return true;
    if (b.kind === 'figure') put({ ...b, pin }, pin);
    else {
      const box = boxes.get(item);
      if (box) box.blocks.push(b);
      else {
        const made: FlowBox = { kind: 'box', item, page: b.page, blocks: [b], pin };
        boxes.set(item, made);
        put(made, pin);
      }
    }
    return false;
  });
  function put(block: FlowFigure | FlowBox, pin: Pin): void {
    if (block.kind === 'figure' && pin.as === 'inline') {
      const { inline } = paragraphs.get(pin.paragraph)!;
      inline.push({ offset: pin.offset, figure: block });
      inline.sort((a, b) => a.offset - b.offset);
      return;
    }
    const at = held.get(pin.paragraph) ?? { before: [], after: [] };
    held.set(pin.paragraph, at);
    // What floats stands before the paragraph whose text runs around it; a box cannot stand in a line.
    (pin.as === 'after' || pin.as === 'inline' ? at.after : at.before).push(block);
  }
  return stay.flatMap((b) => {
    const at = b.kind === 'paragraph' ? held.get(b.paragraph.id) : undefined;
    return at ? [...at.before, b, ...at.after] : [b];
  });
}

function sectionsOf(folio: Folio, blocks: readonly FlowBlock[]): FlowSection[] {
  const starts = new Set(folio.head.structure.sectionStarts);
  const sections: FlowSection[] = [{ start: null, blocks: [] }];
  for (const block of blocks) {
    const now = sections[sections.length - 1]!;
    if (block.kind === 'paragraph' && (block.role.startsSection || starts.has(block.paragraph.id))) {
      // A page that begins with pictures and then a heading begins with the pictures: they open the section.
      let from = now.blocks.length;
      while (from > 0 && opens(now.blocks[from - 1]!, block)) from--;
      if (now.blocks.slice(0, from).every((b) => b.kind === 'pageMark')) from = 0;
      sections.push({ start: block, blocks: [...now.blocks.splice(from), block] });
    } else now.blocks.push(block);
  }
  return sections.filter((s) => s.blocks.some((b) => b.kind !== 'pageMark') || sections.length === 1);
}

const opens = (block: FlowBlock, start: FlowParagraph): boolean =>
  (block.kind === 'figure' || block.kind === 'pageMark') && block.page === start.page && (block.kind === 'pageMark' || block.pin === null);
