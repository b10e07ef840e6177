import type { Head } from '../folio/head.ts';
import type { Inline, Paragraph } from '../folio/story.ts';
import type { CharacterProperties, ParagraphProperties } from '../folio/styles.ts';
import { leadingOf, resolveParagraph, resolveSpan } from '../folio/resolve.ts';
import { breakParagraph } from './breakLines.ts';
import type { BrokenLine, Measures } from './breakLines.ts';
import { opportunitiesOf } from './breakpoints.ts';
import type { Opportunity } from './breakpoints.ts';
import { setDropCapital } from './dropCapital.ts';
import type { DropCapital } from './dropCapital.ts';
import type { GeneratedTexts } from './expand.ts';
import type { FontSet } from './fontSet.ts';
import { itemise } from './itemise.ts';
import type { ListLabel } from './listLabels.ts';
import { buildLine } from './setLine.ts';
import type { BuiltLine } from './setLine.ts';
import { shapeParagraph } from './shapeParagraph.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';

/** A paragraph shaped, with the places where its lines may end, and its lines by the room they were given. */
export interface Prepared {
  id: string;
  properties: ParagraphProperties;
  base: CharacterProperties;
  shaped: ShapedParagraph;
  opportunities: Opportunity[];
  dropCapital: DropCapital | null;
  empty: { leading: number; ascent: number; descent: number };
  lines: Map<string, ParagraphLines>;
}
export interface ParagraphLines {
  broken: BrokenLine[];
  lines: BuiltLine[];
}

/** What a paragraph's generated texts come to where it stands. */
export interface ParagraphTexts {
  field(node: Inline & { type: 'field' }): string;
  noteNumber(id: string): string;
  label: ListLabel | { text: string } | null;
}

interface Kept {
  paragraphStyles: object;
  characterStyles: object;
  listStyles: object;
  fallbacks: object;
  fonts: FontSet;
  generated: string;
  prepared: Prepared;
}

/** Paragraphs whose lines for this many rooms are kept; beside pictures every place is a room of its own. */
const MOST_ROOMS = 8;

/**
 * Shaped and broken paragraphs, kept as long as the paragraph, the styles, the fonts and what is generated in
 * it are the same: an edit makes a new object of its paragraph only, so only that one is set again.
 */
export class ParagraphCache {
  private byParagraph = new WeakMap<Paragraph, Kept>();

  get(head: Head, paragraph: Paragraph, fonts: FontSet, texts: ParagraphTexts): Prepared {
    const { paragraphStyles, characterStyles, listStyles, fallbacks } = head;
    const kept = this.byParagraph.get(paragraph);
    const generated = generatedIn(paragraph, texts);
    if (
      kept &&
      kept.paragraphStyles === paragraphStyles &&
      kept.characterStyles === characterStyles &&
      kept.listStyles === listStyles &&
      kept.fallbacks === fallbacks &&
      kept.fonts === fonts &&
      kept.generated === generated
    )
      return kept.prepared;
    const prepared = prepare(head, paragraph, fonts, texts);
    this.byParagraph.set(paragraph, { paragraphStyles, characterStyles, listStyles, fallbacks, fonts, generated, prepared });
    return prepared;
  }
}

function generatedIn(paragraph: Paragraph, texts: ParagraphTexts): string {
  let out = texts.label ? `${texts.label.text}\u0000` : '';
  for (const node of paragraph.content) {
    if (node.type === 'field') out += `${texts.field(node)}\u0000`;
    else if (node.type === 'note') out += `${texts.noteNumber(node.id)}\u0000`;
  }
  return out;
}

function prepare(head: Head, paragraph: Paragraph, fonts: FontSet, texts: ParagraphTexts): Prepared {
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
    field: (node) => texts.field(node),
    note: (node) => texts.noteNumber(node.id),
    label: label ? { text: label.text, character: level?.character ? resolveSpan(head, base, { style: level.character }) : base } : null,
  };
  const shaped = shapeParagraph(itemise(head, paragraph, properties, base, fonts, generated), properties);
  const face = fonts.match(base.fontFamily, base.fontWeight, base.fontStyle);
  return {
    id: paragraph.id,
    properties,
    base,
    shaped,
    opportunities: opportunitiesOf(shaped),
    dropCapital: setDropCapital(head, fonts, shaped, properties, base),
    empty: {
      leading: leadingOf(base),
      ascent: (face.ascent / face.unitsPerEm) * base.size,
      descent: (face.descent / face.unitsPerEm) * base.size,
    },
    lines: new Map(),
  };
}

/** The room of a paragraph's lines: where each may begin in its column, and how wide it may be before indents. */
export interface Room {
  key: string;
  slot(line: number): { x: number; width: number };
}
export const plainRoom = (width: number): Room => ({ key: String(width), slot: () => ({ x: 0, width }) });

/** A paragraph's lines from a unit of its set text on; equal rooms get the same lines. */
export function linesOf(prepared: Prepared, unit: number, room: Room): ParagraphLines {
  const key = `${unit}|${room.key}`;
  const kept = prepared.lines.get(key);
  if (kept) return kept;
  const { properties, shaped, dropCapital } = prepared;
  const begins = dropCapital?.end ?? 0;
  const start = unit === 0 ? begins : unit;
  const indentOf = (line: number): number =>
    properties.startIndent +
    (unit === 0 && line === 0 ? properties.firstLineIndent : 0) +
    (unit === 0 && dropCapital && line < dropCapital.lines ? dropCapital.width : 0);
  const measures: Measures = (line) => {
    const indent = indentOf(line);
    return { indent, measure: Math.max(0, room.slot(line).width - indent - properties.endIndent) };
  };
  const broken = breakParagraph(shaped, prepared.opportunities, properties, start, measures);
  const lines = broken.map((line, i) => {
    const built = buildLine(shaped, line, { paragraph: properties, id: prepared.id, ...measures(i), begins, base: prepared.empty });
    built.x += room.slot(i).x;
    return built;
  });
  if (unit === 0 && dropCapital && lines[0]) dropCapital.join(lines[0]);
  const set = { broken, lines };
  if (prepared.lines.size >= MOST_ROOMS) prepared.lines.delete(prepared.lines.keys().next().value!);
  prepared.lines.set(key, set);
  return set;
}
