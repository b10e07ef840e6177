import type { Folio } from '../folio/folio.ts';
import type { Item } from '../folio/items.ts';
import type { Spread } from '../folio/spread.ts';
import type { Cell } from '../folio/story.ts';
import type { Role } from '../folio/styles.ts';
import type { Composition, GlyphRun, SetLine } from '../compose/marks.ts';
import { anchoredByParagraph } from '../compose/anchored.ts';
import { paragraphRole } from '../folio/resolve.ts';
import { SOFT_HYPHEN } from '../folio/text.ts';
import { cellsByParagraph } from '../folio/tableCells.ts';
import { pageOfItem } from '../folio/traverse.ts';
import { headingLevel, outlineText } from './outline.ts';
import { isFigure, isUnread, leaves, readingItems } from './readingOrder.ts';
import { TableParts } from './tableParts.ts';
import type { TablePart } from './tableParts.ts';

/** A paragraph, or the part of one, that a frame shows. */
export interface ParagraphUnit {
  kind: 'paragraph';
  item: string;
  story: string;
  paragraph: string;
  role: Role;
  lines: SetLine[];
  /** False where an earlier frame shows the paragraph's beginning. */
  begins: boolean;
  ends: boolean;
  /** Where it stands in a table. */
  cell: { part: TablePart; cell: Cell } | null;
}
/** A picture or anything else that is not text but has something to say. */
export interface FigureUnit {
  kind: 'figure';
  item: string;
  alt: string | undefined;
}
export type ReadingUnit = ParagraphUnit | FigureUnit;

/** What a page gives to read, in order, and what on it is mere decoration. */
export interface PageReading {
  units: ReadingUnit[];
  decorations: string[];
}

/** What each page of a spread gives to read. `shown` says which items an output takes. */
export function readingOfSpread(
  folio: Folio,
  composition: Composition,
  spread: Spread,
  shown: (item: Item) => boolean,
): Map<string, PageReading> {
  const pages = new Map<string, PageReading>(spread.pages.map((p) => [p.id, { units: [], decorations: [] }]));
  const done = new Set<string>();
  const anchored = anchoredOn(folio, composition, spread);
  const visit = (item: Item): void => {
    if (done.has(item.id) || !shown(item)) return;
    done.add(item.id);
    const reading = pages.get(pageOfItem(spread, item).id)!;
    if (item.kind === 'textFrame') {
      // Master items repeat from page to page: they are seen, not read.
      const left = isUnread(folio, item.id);
      const held = anchored.byFrame.get(item.id);
      const follow = (paragraph: string): void =>
        held?.get(paragraph)?.forEach((id) => spread.items[id] && leaves(folio, spread, spread.items[id]).forEach(visit));
      if (left) reading.decorations.push(item.id);
      else {
        // What is anchored in a paragraph is read right after it; in a table, after the table.
        const waiting: string[] = [];
        let table: TablePart | undefined;
        for (const unit of paragraphUnits(folio, composition, item.id)) {
          if (table !== unit.cell?.part) waiting.splice(0).forEach(follow);
          table = unit.cell?.part;
          // A paragraph that holds nothing but items says nothing itself; they are read where it stands.
          if (saysSomething(unit)) reading.units.push(unit);
          if (table) waiting.push(unit.paragraph);
          else follow(unit.paragraph);
        }
        waiting.forEach(follow);
      }
      held?.forEach((_, paragraph) => follow(paragraph));
    } else if (isFigure(folio, item)) reading.units.push({ kind: 'figure', item: item.id, alt: item.alt });
    else if (item.kind !== 'group') reading.decorations.push(item.id);
  };
  for (const item of readingItems(folio, spread)) if (!anchored.ids.has(item.id)) visit(item);
  return pages;
}

/** The items anchored in the texts of a spread's frames, members of groups included. */
function anchoredOn(
  folio: Folio,
  composition: Composition,
  spread: Spread,
): { byFrame: Map<string, Map<string, string[]>>; ids: Set<string> } {
  const byFrame = new Map<string, Map<string, string[]>>();
  const ids = new Set<string>();
  for (const item of Object.values(spread.items)) {
    const composed = composition.frames.get(item.id);
    if (!composed?.holdsItems) continue;
    const held = anchoredByParagraph(composed);
    byFrame.set(item.id, held);
    for (const id of [...held.values()].flat())
      for (const leaf of spread.items[id] ? leaves(folio, spread, spread.items[id]) : []) ids.add(leaf.id);
  }
  return { byFrame, ids };
}

function paragraphUnits(folio: Folio, composition: Composition, frame: string): ParagraphUnit[] {
  const composed = composition.frames.get(frame);
  const story = composed && folio.stories[composed.story];
  if (!composed || !story) return [];
  const units: ParagraphUnit[] = [];
  const cells = cellsByParagraph(story);
  const parts = composed.boxes.some((b) => b.kind === 'cell') ? new TableParts(folio.head, composed, story) : null;
  const times = new Map<string, number>();
  const placeInTable = (paragraph: string): ParagraphUnit['cell'] => {
    const at = parts && cells.get(paragraph);
    if (!at) return null;
    const before = times.get(paragraph) ?? 0;
    times.set(paragraph, before + 1);
    const part = parts.of(at.table.id, at.cell, before);
    return part ? { part, cell: at.cell } : null;
  };
  for (const line of composed.lines) {
    const last = units[units.length - 1];
    if (last?.paragraph === line.paragraph) last.lines.push(line);
    else {
      const block = story.blocks[line.paragraph];
      if (block?.kind !== 'paragraph') continue;
      units.push({
        kind: 'paragraph',
        item: frame,
        story: story.id,
        paragraph: line.paragraph,
        role: paragraphRole(folio.head, block.style),
        lines: [line],
        begins: false,
        ends: false,
        cell: placeInTable(line.paragraph),
      });
    }
  }
  for (const unit of units) {
    unit.begins = unit.lines[0]!.first;
    unit.ends = unit.lines[unit.lines.length - 1]!.last;
  }
  return units;
}

/** An empty line of text says nothing to a reader, and what is left out is not said. */
const saysSomething = (unit: ParagraphUnit): boolean => !unit.role.leaveOut && unit.lines.some((l) => l.runs.length > 0);

/** A run's text as it is read: without the hyphens of divided words. */
const readRun = (run: GlyphRun): string => run.text.replaceAll(SOFT_HYPHEN, '');

/** A line's text; where a tab left room, words are kept apart by a space, and what fills it is not read. */
export const textOfLine = (line: SetLine): string =>
  line.runs.map((r) => (r.decoration ? '' : (r.joint === 'tab' ? ' ' : '') + readRun(r))).join('');

/** The text of lines as it is read: lines joined by the space that stood at their break. */
export const textOfLines = (lines: readonly SetLine[]): string =>
  lines.map((l, i) => textOfLine(l) + (i < lines.length - 1 && l.spaceAtEnd ? ' ' : '')).join('');

export interface Heading {
  level: number;
  /** Its own words. */
  own: string;
  /** What lists of contents say; null where it is left out of them. */
  listed: string | null;
  page: string;
  item: string;
  paragraph: string;
  top: number;
}

/** Headings among a page's units. */
export function headingsOf(folio: Folio, page: string, reading: PageReading): Heading[] {
  return reading.units.flatMap((u): Heading[] => {
    const level = u.kind === 'paragraph' && u.begins ? headingLevel(u.role.element) : 0;
    if (u.kind !== 'paragraph' || !level) return [];
    const own = textOfLines(u.lines).trim();
    const listed = outlineText(folio.head, u.paragraph, own);
    return [{ level, own, listed, page, item: u.item, paragraph: u.paragraph, top: u.lines[0]!.baseline - u.lines[0]!.ascent }];
  });
}
