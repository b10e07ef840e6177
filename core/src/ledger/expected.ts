import type { Composition, SetLine } from '../compose/marks.ts';
import type { Folio } from '../folio/folio.ts';
import type { Item } from '../folio/items.ts';
import type { Page } from '../folio/spread.ts';
import { boundsOfPath, transformRect, apply, multiply, translation, angleOf } from '../folio/geometry.ts';
import type { Point, Rect } from '../folio/geometry.ts';
import { solidColour, solidHex } from '../folio/colour.ts';
import type { Paint, SolidPaint } from '../folio/colour.ts';
import { resolveParagraph } from '../folio/resolve.ts';
import { isMasterInstance } from '../folio/masters.ts';
import { composedSpread } from '../compose/anchored.ts';
import { readText } from '../folio/text.ts';
import { itemBounds, pageOfItem, paintOrder } from '../folio/traverse.ts';
import type { PagePlace } from '../folio/traverse.ts';
import { overlap } from '../folio/geometry.ts';
import { headingsOf, readingOfSpread, textOfLines } from '../structure/reading.ts';
import type { ReadingUnit } from '../structure/reading.ts';
import { expectMotion } from './expectMotion.ts';
import type { MotionFacts } from './motionFacts.ts';
import { linkCueOf, PageTargets } from '../structure/pageTargets.ts';
import type { Target } from '../structure/pageTargets.ts';
import type { TablePart } from '../structure/tableParts.ts';

/** What a page should give back, worked out from the document and its composition alone. */
export interface ExpectedRun {
  text: string;
  /** PostScript name of the font. */
  font: string;
  size: number;
  colour: string;
  /** False where the colour is of a space that every program turns into RGB by its own formula. */
  exactColour: boolean;
  start: Point;
  angle: number;
  link?: string | undefined;
  language: string;
  embeds: boolean;
}

export interface ExpectedBlock {
  subject: { kind: 'paragraph' | 'item'; id: string };
  role: string;
  text: string;
  language: string;
  /** False where the text goes on from an earlier frame. */
  begins: boolean;
  /** A space stood at the break behind it, where the text goes on elsewhere. */
  spaceAfter: boolean;
  /** The frame that shows the text, or the item itself. */
  item: string;
  runs: ExpectedRun[];
  /** Where each link leads: an address, or `page:3` for the third page of the result. */
  links: { id: string; text: string; target: string }[];
  alt?: string | undefined;
  box?: Rect | undefined;
}

export interface ExpectedPage {
  page: Page;
  number: number;
  blocks: ExpectedBlock[];
  pictures: { item: string; media: string; box: Rect; own: boolean; alt?: string | undefined }[];
  shapes: { item: string; box: Rect; fill: string | null; stroke: string | null; exactColour: boolean; own: boolean; give: number }[];
  /** Tables as they are read: the part of each that the page shows. */
  tables: { id: string; rows: { cell: string; text: string; heading: boolean; rows: number; columns: number }[][] }[];
  loose: { paragraph: string; item: string; text: string }[];
  /** Where a press leads somewhere: cues that are links. */
  areas: { cue: string; box: Rect; target: string }[];
  /** Parts that react, move or are filled in, where they stand. */
  parts: { item: string; box: Rect }[];
}

export interface ExpectedDocument {
  title: string;
  language: string;
  /** Headings: their own words, and those by which they are listed, null where they are not. */
  outline: { level: number; own: string; listed: string | null }[];
  pages: ExpectedPage[];
  /** Fonts of the text that is read, by PostScript name. */
  fonts: Map<string, { family: string; weight: number; style: string; mayEmbed: boolean }>;
  /** Texts that must not be in the result: hidden, or outside the range. */
  absent: { paragraph: string; text: string }[];
  motion: MotionFacts;
}

export interface ExpectScope {
  pages: PagePlace[];
  shown(item: Item): boolean;
}

/** Works out what reading a result back should find. Knows nothing of how any output is written. */
export function expectDocument(
  folio: Folio,
  composition: Composition,
  scope: ExpectScope,
  settings: { title: string; language: string },
): ExpectedDocument {
  const targets = new PageTargets(folio, composition, scope.pages);
  const outline: ExpectedDocument['outline'] = [];
  const fonts: ExpectedDocument['fonts'] = new Map();
  const pages = scope.pages.map((place) => {
    const reading = readingOfSpread(folio, composition, place.spread, scope.shown).get(place.page.id)!;
    outline.push(...headingsOf(folio, place.page.id, reading).map(({ level, own, listed }) => ({ level, own, listed })));
    const read = new Set<string>();
    const blocks = reading.units.flatMap((unit): ExpectedBlock[] => {
      const item = place.spread.items[unit.item]!;
      if (unit.kind === 'figure') {
        const media = item.kind === 'picture' ? item.media : item.kind === 'media' || item.kind === 'embed' ? item.poster : undefined;
        if (!media && item.kind !== 'shape') return [];
        return [
          {
            subject: { kind: 'item', id: item.id },
            role: 'figure',
            text: '',
            language: '',
            item: item.id,
            begins: true,
            spaceAfter: false,
            runs: [],
            links: [],
            alt: unit.alt ?? '',
            box: onPage(itemBounds(place.spread.items, item), place.page),
          },
        ];
      }
      read.add(unit.paragraph);
      const block = folio.stories[unit.story]!.blocks[unit.paragraph]!;
      if (block.kind !== 'paragraph') return [];
      const runs = runsOf(folio, unit.lines, item, place.page);
      for (const { font } of unit.lines.flatMap((l) => l.runs)) fonts.set(font.postscriptName, font);
      return [
        {
          subject: { kind: 'paragraph', id: unit.paragraph },
          role: unit.role.element,
          text: textOfLines(unit.lines),
          language: resolveParagraph(folio.head, block).character.language,
          item: unit.item,
          begins: unit.begins,
          spaceAfter: unit.lines[unit.lines.length - 1]!.spaceAtEnd,
          runs,
          links: linksOf(folio, unit.story, runs, place.page.id, targets, scope),
        },
      ];
    });
    return {
      page: place.page,
      number: place.number,
      blocks,
      tables: tablesOf(reading.units),
      areas: areasOf(place, targets, scope),
      parts: partsOf(place, scope),
      ...painted(folio, composition, place, scope, read),
    };
  });
  return {
    title: settings.title || folio.head.metadata.title,
    language: settings.language || folio.head.metadata.language,
    outline,
    pages,
    fonts,
    motion: expectMotion(folio, scope),
    absent: absentTexts(folio, composition, scope),
  };
}

function tablesOf(units: readonly ReadingUnit[]): ExpectedPage['tables'] {
  const texts = new Map<TablePart, Map<string, string>>();
  for (const unit of units) {
    if (unit.kind !== 'paragraph' || !unit.cell) continue;
    const { part, cell } = unit.cell;
    const known = texts.get(part) ?? new Map<string, string>();
    texts.set(part, known.set(cell.id, `${known.get(cell.id) ?? ''} ${textOfLines(unit.lines)}`));
  }
  return [...texts].map(([part, byCell]) => ({
    id: part.table.id,
    rows: part.rows.map((row) =>
      row.cells.map(({ cell, heads }) => ({
        cell: cell.id,
        text: byCell.get(cell.id) ?? '',
        heading: heads !== null,
        rows: cell.rows,
        columns: cell.columns,
      })),
    ),
  }));
}

/** Texts of paragraphs that no frame in scope shows. */
function absentTexts(folio: Folio, composition: Composition, scope: ExpectScope): ExpectedDocument['absent'] {
  const inRange = new Set(scope.pages.map((p) => p.page.id));
  const shown = new Set<string>();
  for (const [id, frame] of composition.frames) {
    const spread = folio.spreads[frame.spread] && composedSpread(folio, composition, folio.spreads[frame.spread]!);
    const item = spread?.items[id];
    if (spread && item && scope.shown(item) && inRange.has(pageOfItem(spread, item).id))
      for (const line of frame.lines) shown.add(line.paragraph);
  }
  const absent: ExpectedDocument['absent'] = [];
  for (const story of Object.values(folio.stories))
    for (const block of Object.values(story.blocks))
      if (block.kind === 'paragraph' && !shown.has(block.id)) absent.push({ paragraph: block.id, text: readText(block) });
  return absent;
}

const onPage = (box: Rect, page: Page): Rect => ({ ...box, x: box.x - page.box.x, y: box.y - page.box.y });

function runsOf(folio: Folio, lines: readonly SetLine[], item: Item, page: Page): ExpectedBlock['runs'] {
  const matrix = multiply(translation(-page.box.x, -page.box.y), item.transform);
  return lines.flatMap((line) =>
    line.runs
      .filter((run) => !run.decoration)
      .map((run) => ({
        text: run.text,
        font: run.font.postscriptName,
        size: run.size,
        colour: solidHex(run.fill, folio.head.swatches),
        exactColour: isExact(run.fill, folio),
        start: apply(matrix, { x: line.x + run.x, y: line.baseline + run.shift }),
        angle: angleOf(item.transform),
        link: run.link,
        language: run.language,
        embeds: run.font.mayEmbed,
      })),
  );
}

function linksOf(
  folio: Folio,
  story: string,
  runs: readonly ExpectedRun[],
  page: string,
  targets: PageTargets,
  scope: ExpectScope,
): ExpectedBlock['links'] {
  const links = new Map<string, string>();
  for (const run of runs) if (run.link !== undefined) links.set(run.link, (links.get(run.link) ?? '') + run.text);
  return [...links].flatMap(([id, text]) => {
    const target = targets.of(folio.stories[story]!.links[id]?.destination, page);
    return target ? [{ id, text, target: addressIn(target, scope) }] : [];
  });
}

/** A target as it is observed: an address, or `page:3` for the third page of the result. */
const addressIn = (target: Target, scope: ExpectScope): string =>
  'href' in target ? target.href : `page:${scope.pages.findIndex((p) => p.page.id === target.page) + 1}`;

const PARTS = new Set<Item['kind']>(['media', 'switcher', 'veil', 'embed', 'field']);

function partsOf({ spread, page }: PagePlace, scope: ExpectScope): ExpectedPage['parts'] {
  return Object.values(spread.items).flatMap((item) =>
    PARTS.has(item.kind) && scope.shown(item) && pageOfItem(spread, item).id === page.id
      ? [{ item: item.id, box: onPage(itemBounds(spread.items, item), page) }]
      : [],
  );
}

/** Things of a page on which a press leads somewhere. */
function areasOf({ spread, page }: PagePlace, targets: PageTargets, scope: ExpectScope): ExpectedPage['areas'] {
  return Object.values(spread.items).flatMap((item) => {
    const pressed = scope.shown(item) && pageOfItem(spread, item).id === page.id ? linkCueOf(item) : null;
    const target = pressed && targets.of(pressed.destination, page.id);
    const cue = pressed && (isMasterInstance(item.id) ? `${item.id}/${pressed.cue.id}` : pressed.cue.id);
    return target && cue ? [{ cue, box: onPage(itemBounds(spread.items, item), page), target: addressIn(target, scope) }] : [];
  });
}

const isExact = (paint: SolidPaint, folio: Folio): boolean => {
  const { space } = solidColour(paint, folio.head.swatches).colour;
  return space === 'rgb' || space === 'grey';
};

const flat = (paint: Paint | undefined, folio: Folio): string | null =>
  !paint || paint.type === 'none' ? null : paint.type === 'gradient' ? 'gradient' : solidHex(paint, folio.head.swatches);

/** Pictures, outlines and unread text of a page in painting order. */
function painted(
  folio: Folio,
  composition: Composition,
  place: PagePlace,
  scope: ExpectScope,
  read: ReadonlySet<string>,
): Pick<ExpectedPage, 'pictures' | 'shapes' | 'loose'> {
  const { spread, page } = place;
  const out: Pick<ExpectedPage, 'pictures' | 'shapes' | 'loose'> = { pictures: [], shapes: [], loose: [] };
  const visit = (item: Item): void => {
    if (!scope.shown(item)) return;
    if (item.kind === 'group') return item.members.forEach((id) => spread.items[id] && visit(spread.items[id]));
    const own = pageOfItem(spread, item).id === page.id;
    const bounds = itemBounds(spread.items, item);
    if (!own && overlap(bounds, page.box) <= 0.01) return;
    const fill = flat(item.fill, folio);
    const stroke = item.stroke && item.stroke.weight > 0 ? flat(item.stroke.paint, folio) : null;
    const box = onPage(item.kind === 'shape' ? boundsOfPath(item.path, item.transform) : bounds, page);
    if ((fill || stroke) && item.kind !== 'veil')
      out.shapes.push({
        item: item.id,
        box,
        fill,
        stroke,
        own,
        give: endsOfLine(item),
        exactColour: [item.fill, item.stroke?.paint].every((p) => !p || p.type === 'none' || p.type === 'gradient' || isExact(p, folio)),
      });
    const media = item.kind === 'picture' ? item.media : item.kind === 'media' ? item.poster : undefined;
    if (media)
      out.pictures.push({
        alt: item.alt,
        item: item.id,
        media,
        own,
        box: onPage(
          item.kind === 'picture' ? transformRect(multiply(item.transform, item.placement), { x: 0, y: 0, width: 1, height: 1 }) : bounds,
          page,
        ),
      });
    if (item.kind === 'textFrame' && own)
      for (const line of composition.frames.get(item.id)?.lines ?? [])
        if (!read.has(line.paragraph) && line.runs.length)
          out.loose.push({ paragraph: line.paragraph, item: item.id, text: line.runs.map((r) => r.text).join('') });
  };
  for (const item of paintOrder(folio, spread)) visit(item);
  return out;
}

/** How far a stroke may begin or end from its outline: under an arrow head it is cut back, by four times its weight at most. */
const endsOfLine = ({ stroke }: Item): number =>
  stroke && (stroke.startMarker !== 'none' || stroke.endMarker !== 'none') ? 4 * stroke.weight : 0;
