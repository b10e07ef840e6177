import type { Head } from '../folio/head.ts';
import type { Inline, Paragraph } from '../folio/story.ts';
import type { CharacterProperties, ParagraphProperties } from '../folio/styles.ts';
import { leadingOf, resolveParagraph, resolveSpan } from '../folio/resolve.ts';
import { breakStretch } from './breakLines.ts';
import type { Measures } from './breakLines.ts';
import { opportunitiesOf } from './breakpoints.ts';
import type { Opportunity } from './breakpoints.ts';
import { setDropCapital } from './dropCapital.ts';
import type { DropCapital } from './dropCapital.ts';
import type { GeneratedTexts, ItemRoom } from './expand.ts';
import type { FontSet } from './fontSet.ts';
import { itemise } from './itemise.ts';
import type { ListLabel } from './listLabels.ts';
import { ParagraphLines } from './paragraphLines.ts';
import { buildLine } from './setLine.ts';
import { shapeParagraph } from './shapeParagraph.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';

/** A paragraph ready for setting: what is known of it without its glyphs, and its lines by the room they were given. */
export interface Prepared {
  id: string;
  properties: ParagraphProperties;
  base: CharacterProperties;
  notes: ShapedParagraph['notes'];
  missing: ShapedParagraph['missing'];
  dropCapital: DropCapital | null;
  empty: { leading: number; ascent: number; descent: number };
  lines: Map<string, ParagraphLines>;
  /** Its glyphs and the places where lines may end; made again where they have been let go. */
  shaping(): Shaping;
}
interface Shaping {
  shaped: ShapedParagraph;
  opportunities: Opportunity[];
}

/** What a paragraph's generated texts come to where it stands. */
export interface ParagraphTexts {
  field(node: Inline & { type: 'field' }): string;
  noteNumber(id: string): string;
  label: ListLabel | { text: string } | null;
  /** The room of an item anchored in the text. */
  anchored(item: string): ItemRoom | null;
}

interface Kept {
  paragraphStyles: object;
  characterStyles: object;
  listStyles: object;
  fallbacks: object;
  fonts: FontSet;
  generated: FrozenTexts;
  prepared: Prepared;
}

/** Paragraphs whose lines for this many rooms are kept; beside pictures every place is a room of its own. */
const MOST_ROOMS = 8;

/** Shapings kept beside the lines made of them: those made last. Glyphs of a long book would fill the memory. */
const MOST_SHAPINGS = 300;

class RecentShapings {
  private readonly kept = new Map<object, Shaping>();

  get(owner: object, make: () => Shaping): Shaping {
    const known = this.kept.get(owner);
    if (known) return known;
    const made = make();
    if (this.kept.size >= MOST_SHAPINGS) this.kept.delete(this.kept.keys().next().value!);
    this.kept.set(owner, made);
    return made;
  }
}

/**
 * Paragraphs' lines, kept as long as the paragraph, the styles, the fonts and what is generated in it are the
 * same: an edit makes a new object of its paragraph only, so only that one is set again.
 */
export class ParagraphCache {
  private readonly byParagraph = new WeakMap<Paragraph, Kept>();
  private readonly recent = new RecentShapings();

  get(head: Head, paragraph: Paragraph, fonts: FontSet, texts: ParagraphTexts): Prepared {
    const { paragraphStyles, characterStyles, listStyles, fallbacks } = head;
    const kept = this.byParagraph.get(paragraph);
    const generated = freeze(paragraph, texts);
    if (
      kept &&
      kept.paragraphStyles === paragraphStyles &&
      kept.characterStyles === characterStyles &&
      kept.listStyles === listStyles &&
      kept.fallbacks === fallbacks &&
      kept.fonts === fonts &&
      sameTexts(kept.generated, generated)
    )
      return kept.prepared;
    const prepared = prepare(head, paragraph, fonts, generated, this.recent);
    this.byParagraph.set(paragraph, { paragraphStyles, characterStyles, listStyles, fallbacks, fonts, generated, prepared });
    return prepared;
  }
}

/** A paragraph's generated texts as values, so that its glyphs can be made again without whoever gave them. */
interface FrozenTexts {
  byNode: ReadonlyMap<string, string>;
  rooms: ReadonlyMap<string, ItemRoom>;
  label: ParagraphTexts['label'];
}

const NOTHING = new Map<string, never>();

function freeze(paragraph: Paragraph, texts: ParagraphTexts): FrozenTexts {
  let byNode: Map<string, string> | undefined;
  let rooms: Map<string, ItemRoom> | undefined;
  for (const node of paragraph.content) {
    if (node.type === 'field') (byNode ??= new Map<string, string>()).set(node.id, texts.field(node));
    else if (node.type === 'note') (byNode ??= new Map<string, string>()).set(node.id, texts.noteNumber(node.id));
    else if (node.type === 'anchor') {
      const room = texts.anchored(node.item);
      if (room) (rooms ??= new Map<string, ItemRoom>()).set(node.id, room);
    }
  }
  return { byNode: byNode ?? NOTHING, rooms: rooms ?? NOTHING, label: texts.label };
}

const sameTexts = (a: FrozenTexts, b: FrozenTexts): boolean => {
  if (a.label?.text !== b.label?.text || a.byNode.size !== b.byNode.size) return false;
  for (const [id, text] of a.byNode) if (b.byNode.get(id) !== text) return false;
  if (a.rooms.size !== b.rooms.size) return false;
  for (const [id, room] of a.rooms) {
    const other = b.rooms.get(id);
    if (other?.width !== room.width || other.height !== room.height) return false;
  }
  return true;
};

function prepare(head: Head, paragraph: Paragraph, fonts: FontSet, texts: FrozenTexts, recent: RecentShapings): Prepared {
  const resolved = resolveParagraph(head, paragraph);
  const base = resolved.character;
  const { label } = texts;
  const level = label && 'style' in label ? head.listStyles[label.style]?.levels[label.level] : undefined;
  // The label hangs in the room that its list level makes.
  const properties =
    level && level.indent
      ? {
          ...resolved.paragraph,
          startIndent: resolved.paragraph.startIndent + level.indent,
          firstLineIndent: resolved.paragraph.firstLineIndent - level.indent,
        }
      : resolved.paragraph;
  const generated: GeneratedTexts = {
    field: (node) => texts.byNode.get(node.id) ?? '',
    note: (node) => texts.byNode.get(node.id) ?? '',
    anchored: (node) => texts.rooms.get(node.id) ?? null,
    label: label ? { text: label.text, character: level?.character ? resolveSpan(head, base, { style: level.character }) : base } : null,
  };
  const make = (): Shaping => {
    const shaped = shapeParagraph(itemise(head, paragraph, properties, base, fonts, generated), properties);
    return { shaped, opportunities: opportunitiesOf(shaped) };
  };
  const lines: Prepared['lines'] = new Map();
  const { shaped } = recent.get(lines, make);
  const face = fonts.match(base);
  return {
    id: paragraph.id,
    properties,
    base,
    notes: shaped.notes,
    missing: shaped.missing,
    dropCapital: setDropCapital(head, fonts, shaped, properties, base),
    empty: {
      leading: leadingOf(base),
      ascent: (face.ascent / face.unitsPerEm) * base.size,
      descent: (face.descent / face.unitsPerEm) * base.size,
    },
    lines,
    shaping: () => recent.get(lines, make),
  };
}

/** The room of a paragraph's lines: where each may begin in its column, and how wide it may be before indents. */
export interface Room {
  key: string;
  slot(line: number): { x: number; width: number };
}
/** The room of a column with nothing in its way; the same object for the same width, as most are asked for. */
export function plainRoom(width: number): Room {
  if (lastPlain?.width !== width) {
    const slot = { x: 0, width };
    lastPlain = { width, room: { key: String(width), slot: () => slot } };
  }
  return lastPlain.room;
}
let lastPlain: { width: number; room: Room } | null = null;

/** A paragraph's lines from a unit of its set text on; equal rooms get the same lines. */
export function linesOf(prepared: Prepared, unit: number, room: Room): ParagraphLines {
  const key = `${unit}|${room.key}`;
  const kept = prepared.lines.get(key);
  if (kept) return kept;
  const { properties, dropCapital } = prepared;
  const begins = dropCapital?.end ?? 0;
  const indentOf = (line: number): number =>
    properties.startIndent +
    (unit === 0 && line === 0 ? properties.firstLineIndent : 0) +
    (unit === 0 && dropCapital && line < dropCapital.lines ? dropCapital.width : 0);
  const measureOf: Measures = (line) => {
    const indent = indentOf(line);
    return { indent, measure: Math.max(0, room.slot(line).width - indent - properties.endIndent) };
  };
  const set = new ParagraphLines(unit === 0 ? begins : unit, {
    breakFrom(at, before) {
      const { shaped, opportunities } = prepared.shaping();
      return breakStretch(shaped, opportunities, properties, at, before ? (line) => measureOf(before + line) : measureOf);
    },
    build(line, i) {
      const { indent, measure } = measureOf(i);
      const setting = { paragraph: properties, id: prepared.id, indent, measure, begins, base: prepared.empty };
      const built = buildLine(prepared.shaping().shaped, line, setting);
      built.x += room.slot(i).x;
      if (unit === 0 && i === 0) dropCapital?.join(built);
      return built;
    },
  });
  if (prepared.lines.size >= MOST_ROOMS) prepared.lines.delete(prepared.lines.keys().next().value!);
  prepared.lines.set(key, set);
  return set;
}
