import type { Head } from '../folio/head.ts';
import type { Inline } from '../folio/story.ts';
import type { CharacterProperties } from '../folio/styles.ts';
import { resolveSpan, spanStays } from '../folio/resolve.ts';
import { OBJECT } from '../folio/text.ts';
import type { FontSet } from './fontSet.ts';

/** What fields and note references stand for where a paragraph is set. */
export interface GeneratedTexts {
  field(node: Inline & { type: 'field' }): string;
  note(node: Inline & { type: 'note' }): string;
  /** The room an anchored item takes, from its place on. */
  anchored(node: Inline & { type: 'anchor' }): ItemRoom | null;
  /** A bullet or number that stands before the text, and how it looks. */
  label: { text: string; character: CharacterProperties } | null;
}

/** How far an item reaches to the right and down from where it is anchored, in points. */
export interface ItemRoom {
  width: number;
  height: number;
}

/** A stretch of set text with one look. */
export interface Look {
  start: number;
  end: number;
  character: CharacterProperties;
  link?: string | undefined;
  characterStyle?: string | undefined;
  /** It stays as it is in every language. */
  stays?: true | undefined;
  /** Made by the program: a bullet, a number, a note's reference. */
  generated?: 'label' | 'note' | undefined;
  /** Stands for an item in the line, which takes this much room. */
  object?: ItemRoom | undefined;
}

/** A paragraph's text as it is set, and where each UTF-16 unit of it comes from. */
export interface ExpandedParagraph {
  text: string;
  /** Offset in the paragraph of each unit of `text`, with one more entry for the end. */
  offsets: number[];
  looks: Look[];
  /** Units at the beginning that are no text of the paragraph: its label and the tab after it. */
  labelEnd: number;
  /** Notes by the unit where their reference stands. */
  notes: { at: number; node: Inline & { type: 'note' } }[];
  /** Anchored items by the unit at which they are anchored. */
  anchors: { at: number; node: Inline & { type: 'anchor' }; room: ItemRoom }[];
  hasFields: boolean;
}

/** Small capitals that a font lacks are capitals at this share of the size (common practice). */
const SMALL_CAPITALS = 0.75;
const LOWER = /\p{Ll}/u;

/** Expands a paragraph's nodes into set text with looks; an item in the line is one unit of it. */
export function expand(
  head: Head,
  base: CharacterProperties,
  content: readonly Inline[],
  fonts: FontSet,
  texts: GeneratedTexts,
): ExpandedParagraph {
  let text = '';
  const offsets: number[] = [];
  const looks: Look[] = [];
  const notes: ExpandedParagraph['notes'] = [];
  const anchors: ExpandedParagraph['anchors'] = [];
  let hasFields = false;
  let offset = 0;
  /** Adds characters that stand one after another from an offset on (`step` 1), or all at it (0). */
  const add = (chars: string, look: Omit<Look, 'start' | 'end'>, at: number, step: 0 | 1 = 0): void => {
    if (!chars) return;
    const start = text.length;
    text += chars;
    for (let i = 0; i < chars.length; i++) offsets.push(at + step * i);
    const last = looks[looks.length - 1];
    if (
      last &&
      last.character === look.character &&
      last.link === look.link &&
      last.characterStyle === look.characterStyle &&
      last.stays === look.stays &&
      last.generated === look.generated &&
      !last.object &&
      !look.object
    )
      last.end = text.length;
    else
      looks.push({
        start,
        end: text.length,
        character: look.character,
        link: look.link,
        characterStyle: look.characterStyle,
        stays: look.stays,
        generated: look.generated,
        object: look.object,
      });
  };
  /** Letters one by one, turned into capitals; what becomes longer (ß → SS) still comes from one place. */
  const addCapitals = (chars: string, at: number, look: Omit<Look, 'start' | 'end'>, small: CharacterProperties | null): void => {
    let i = 0;
    for (const c of chars) {
      add(c.toLocaleUpperCase(look.character.language), small && LOWER.test(c) ? { ...look, character: small } : look, at + i);
      i += c.length;
    }
  };
  if (texts.label) {
    add(texts.label.text, { character: texts.label.character, generated: 'label' }, 0);
    add('\t', { character: base, generated: 'label' }, 0);
  }
  const labelEnd = text.length;
  for (const node of content) {
    const at = offset;
    if (node.type === 'span') {
      const character = resolveSpan(head, base, node);
      const look = { character, link: node.link, characterStyle: node.style, stays: spanStays(head, node) || undefined };
      if (character.capitals === 'all') addCapitals(node.text, at, look, null);
      else if (character.capitals === 'small' && !hasSmallCapitals(fonts, character))
        addCapitals(node.text, at, look, { ...character, size: character.size * SMALL_CAPITALS, leading: leadingKept(character) });
      else add(node.text, look, at, 1);
      offset += node.text.length;
      continue;
    }
    const look = { character: base };
    if (node.type === 'softReturn') add('\n', look, at);
    else if (node.type === 'tab') add('\t', look, at);
    else if (node.type === 'field') {
      hasFields = true;
      add(texts.field(node), look, at);
    } else if (node.type === 'note') {
      notes.push({ at: text.length, node });
      add(texts.note(node), { character: { ...base, position: 'superscript' }, generated: 'note' }, at);
    } else if (node.type === 'anchor') {
      const room = texts.anchored(node);
      if (room) anchors.push({ at: text.length, node, room });
      if (room && node.place === 'inline') add(OBJECT, { character: base, object: room }, at);
    } else if (node.type === 'ruby') add(node.base, look, at);
    offset += 1;
  }
  offsets.push(offset);
  return { text, offsets, looks, labelEnd, notes, anchors, hasFields };
}

/** Letters made smaller must not pull lines together. */
const leadingKept = (c: CharacterProperties): number => (c.leading === 'auto' ? c.size * 1.2 : c.leading);

/** Whether a face has small capitals of its own (OpenType feature `smcp`). */
function hasSmallCapitals(fonts: FontSet, c: CharacterProperties): boolean {
  return fonts.match(c).changesWith('smcp', 'a', c.language);
}

/** The parts of `[from, to)` that have one look each. */
export function lookParts(looks: readonly Look[], from: number, to: number): Look[] {
  const out: Look[] = [];
  for (const look of looks) {
    if (look.start >= to) break;
    if (look.end <= from) continue;
    out.push(look.start >= from && look.end <= to ? look : { ...look, start: Math.max(look.start, from), end: Math.min(look.end, to) });
  }
  return out;
}
