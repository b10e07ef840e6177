import type { Head } from '../../folio/head.ts';
import { resolveParagraphStyle } from '../../folio/resolve.ts';
import type { CellStyle, CharacterOverrides, ParagraphOverrides, ParagraphStyle } from '../../folio/styles.ts';
import { lengthOf } from './lengths.ts';
import type { Names } from './names.ts';
import { merge } from './styleSheet.ts';
import type { Family, OdfStyle, Properties, Scope, StyleSheet } from './styleSheet.ts';
import { characterOf, fontLeading, leadingFrom, paragraphOf } from './textProperties.ts';
import type { FontFaces } from './textProperties.ts';
import { childOf, childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** The size of text where no style says any (as XSL's initial “medium” comes to in office programs: common practice). */
const PLAIN_SIZE = 18;

type Named = Pick<Head, 'paragraphStyles' | 'characterStyles' | 'listStyles' | 'cellStyles' | 'tableStyles'>;

/** What a paragraph has of its own beside its style. */
export interface OwnLook {
  paragraph: ParagraphOverrides;
  character: CharacterOverrides;
}

/**
 * The document's named styles. In drawings they hang on shapes: a frame's graphic or presentation style becomes the
 * paragraph style of its text, and what automatic styles add to it becomes overrides.
 */
export class StyleBook {
  readonly head: Named = { paragraphStyles: {}, characterStyles: {}, listStyles: {}, cellStyles: {}, tableStyles: {} };
  private readonly made = new Map<OdfStyle, string>();
  private readonly lists = new Map<XmlElement, string>();
  private readonly cells = new Map<OdfStyle, string>();
  private plain: string | null = null;

  constructor(
    private readonly sheet: StyleSheet,
    private readonly faces: FontFaces,
    private readonly names: Names,
    private readonly language: string,
  ) {}

  /** The paragraph style for a named style, made with those that it is based on. */
  paragraphStyle(style: OdfStyle | undefined): string {
    if (!style) return this.plainStyle();
    const known = this.made.get(style);
    if (known !== undefined) return known;
    const id = this.names.free('style', style.displayName);
    this.made.set(style, id);
    const above = style.parent === undefined ? undefined : this.sheet.find(style.family, style.parent, 'named');
    const basedOn = above && this.made.get(above) !== id ? this.paragraphStyle(above) : undefined;
    const own = basedOn === undefined ? merge([this.sheet.default(style.family), style.own]) : style.own;
    const parentSize = basedOn === undefined ? PLAIN_SIZE : this.sizeIn(basedOn);
    const title = style.family === 'presentation' && /-title$/.test(style.name);
    const made: ParagraphStyle = {
      id,
      name: style.displayName || id,
      ...(basedOn !== undefined && { basedOn }),
      ...this.properties(own, propertiesElement(style.element), parentSize, basedOn === undefined),
      ...(title && { role: { element: 'h1' as const, startsSection: false, leaveOut: false } }),
    };
    this.head.paragraphStyles[id] = made;
    return id;
  }

  /** The style of text that has none. */
  private plainStyle(): string {
    if (this.plain === null) {
      const id = (this.plain = this.names.free('style', 'Text'));
      this.head.paragraphStyles[id] = { id, name: 'Text', ...this.properties(this.sheet.default('graphic'), undefined, PLAIN_SIZE, true) };
    }
    return this.plain;
  }

  private properties(
    own: Properties,
    element: XmlElement | undefined,
    size: number,
    root: boolean,
  ): Pick<ParagraphStyle, 'paragraph' | 'character'> {
    const text = own['text'] ?? {};
    const lines = own['paragraph'] ?? {};
    const character = characterOf(text, this.faces, size);
    if (root) {
      character.size ??= size;
      character.language ??= this.language;
    }
    if (root || character.size !== undefined || lines['fo:line-height'] !== undefined) {
      const at = character.size ?? size;
      character.leading = leadingFrom(lines, at) ?? fontLeading(at);
    }
    const paragraph = paragraphOf(lines, element);
    const initial = childOf(element, 'style:drop-cap')?.attributes['style:style-name'];
    const letters = initial === undefined ? undefined : this.sheet.find('text', initial, 'named');
    if (paragraph.dropCapital && letters) paragraph.dropCapital.style = this.characterStyle(letters);
    if (text['fo:hyphenate'] !== undefined)
      paragraph.hyphenation = text['fo:hyphenate'] === 'true' ? { before: 2, after: 2, inARow: 0, capitals: true } : null;
    return { paragraph, character };
  }

  /** The size of text in a paragraph style, in points. */
  sizeIn(id: string): number {
    return resolveParagraphStyle(this.head, id).character.size;
  }

  /** What properties of a place add to a paragraph style; what is the same is left out. */
  own(style: string, properties: Properties, element: XmlElement | undefined): OwnLook {
    const inherited = resolveParagraphStyle(this.head, style);
    const { paragraph, character } = this.properties(properties, element, inherited.character.size, false);
    return { paragraph: different(paragraph, inherited.paragraph), character: different(character, inherited.character) };
  }

  /** What a span's automatic styles add to the text around it, whose size and height of line are given. */
  span(properties: Properties, size: number, leading: number | 'auto'): CharacterOverrides {
    const character = characterOf(properties['text'] ?? {}, this.faces, size);
    // A line is as high as its largest letters ask for, in the measure of the text around them.
    if (character.size !== undefined && leading !== 'auto' && size > 0) character.leading = (leading / size) * character.size;
    return character;
  }

  characterStyle(style: OdfStyle): string {
    const known = this.made.get(style);
    if (known !== undefined) return known;
    const id = this.names.free('style', style.displayName);
    this.made.set(style, id);
    const above = style.parent === undefined ? undefined : this.sheet.find('text', style.parent, 'named');
    const basedOn = above && above !== style ? this.characterStyle(above) : undefined;
    this.head.characterStyles[id] = {
      id,
      name: style.displayName || id,
      ...(basedOn !== undefined && basedOn !== id && { basedOn }),
      character: characterOf(style.own['text'] ?? {}, this.faces, PLAIN_SIZE),
    };
    return id;
  }

  /** The cell style for a named style; `look` turns its properties into those of a cell. */
  cellStyle(style: OdfStyle, look: (own: Properties) => Omit<CellStyle, 'id' | 'name' | 'basedOn'>): string {
    const known = this.cells.get(style);
    if (known !== undefined) return known;
    const id = this.names.free('cell-style', style.displayName);
    this.cells.set(style, id);
    const above = style.parent === undefined ? undefined : this.sheet.find('table-cell', style.parent, 'named');
    const basedOn = above && this.cells.get(above) !== id ? this.cellStyle(above, look) : undefined;
    const own = basedOn === undefined ? merge([this.sheet.default('table-cell'), style.own]) : style.own;
    this.head.cellStyles[id] = {
      id,
      name: style.displayName || id,
      ...(basedOn !== undefined && { basedOn }),
      ...look(own),
      paragraphStyle: this.paragraphStyle(style),
    };
    return id;
  }

  /** A table style of cell styles; the same one for the same looks. */
  tableStyle(name: string, body: string, header: string | undefined, alternate: string | undefined): string {
    const same = Object.values(this.head.tableStyles).find(
      (t) => t.body === body && t.header === header && t.alternate?.style === alternate,
    );
    if (same) return same.id;
    const id = this.names.free('table-style', name);
    this.head.tableStyles[id] = {
      id,
      name,
      body,
      ...(header !== undefined && { header }),
      ...(alternate !== undefined && { alternate: { every: 1, style: alternate } }),
    };
    return id;
  }

  /** The list style for an element that describes one, wherever it stands. */
  listStyle(element: XmlElement): string {
    const known = this.lists.get(element);
    if (known !== undefined) return known;
    const name = element.attributes['style:name'];
    const id = this.names.free('list', name);
    this.lists.set(element, id);
    const levels = childrenOf(element).flatMap((l) => {
      const at = Number(l.attributes['text:level']);
      return at >= 1 && at <= 10 ? [{ at: at - 1, level: this.level(l, id) }] : [];
    });
    const out: Head['listStyles'][string]['levels'] = [];
    for (let i = 0; i < 10; i++) out.push(levels.find((l) => l.at === i)?.level ?? NO_LABEL);
    this.head.listStyles[id] = { id, name: name ?? 'List', levels: out };
    return id;
  }

  private level(element: XmlElement, list: string): Head['listStyles'][string]['levels'][number] {
    const a = element.attributes;
    const { hang } = listRoom(element);
    const numbered = element.name === 'text:list-level-style-number' || element.name === 'text:outline-level-style';
    const text = childOf(element, 'style:text-properties')?.attributes ?? {};
    const look = characterOf(text, this.faces, PLAIN_SIZE);
    delete look.size;
    const character = Object.keys(look).length ? this.labelStyle(list, a['text:level'] ?? '1', look) : undefined;
    const common = { texts: {}, indent: hang, ...(character !== undefined && { character }) };
    if (!numbered) return { kind: 'bullet', text: a['text:bullet-char'] ?? '•', format: 'decimal', ...common };
    const levels = Math.min(Number(a['text:display-levels'] ?? 1) || 1, Number(a['text:level'] ?? 1));
    const above = Array.from({ length: levels - 1 }, (_, i) => `{${Number(a['text:level']) - levels + 1 + i}}.`).join('');
    const shown = a['style:num-format'] ? `${a['style:num-prefix'] ?? ''}${above}{n}${a['style:num-suffix'] ?? ''}` : '';
    return { kind: 'number', text: shown, format: FORMATS[a['style:num-format'] ?? '1'] ?? 'decimal', ...common };
  }

  private labelStyle(list: string, level: string, character: CharacterOverrides): string {
    const id = this.names.free('label', `${list}-${level}`);
    this.head.characterStyles[id] = { id, name: `Label of ${list}, level ${level}`, character };
    return id;
  }
}

const FORMATS: Record<string, 'decimal' | 'lowerAlpha' | 'upperAlpha' | 'lowerRoman' | 'upperRoman'> = {
  '1': 'decimal',
  a: 'lowerAlpha',
  A: 'upperAlpha',
  i: 'lowerRoman',
  I: 'upperRoman',
};
const NO_LABEL: Head['listStyles'][string]['levels'][number] = { kind: 'bullet', text: '', texts: {}, format: 'decimal', indent: 0 };

/** How far a list level moves its text in, and how far its label hangs out before it, in points (17.19–17.20). */
export function listRoom(level: XmlElement): { indent: number; hang: number } {
  const properties = childOf(level, 'style:list-level-properties');
  const aligned = childOf(properties, 'style:list-level-label-alignment');
  if (aligned) {
    const hang = -(lengthOf(aligned.attributes['fo:text-indent']) ?? 0);
    return { indent: (lengthOf(aligned.attributes['fo:margin-left']) ?? 0) - Math.max(0, hang), hang: Math.max(0, hang) };
  }
  const a = properties?.attributes ?? {};
  return { indent: lengthOf(a['text:space-before']) ?? 0, hang: Math.max(0, lengthOf(a['text:min-label-width']) ?? 0) };
}

const propertiesElement = (style: XmlElement): XmlElement | undefined => childOf(style, 'style:paragraph-properties');

/** The nearest description of a paragraph's tabs and initials among a chain of styles. */
export const nearestElement = (sheet: StyleSheet, family: Family, name: string | undefined, scope: Scope): XmlElement | undefined => {
  for (const style of sheet.chain(family, name, scope)) {
    if (!style.automatic) return undefined;
    const found = propertiesElement(style.element);
    if (found?.children.length) return found;
  }
  return undefined;
};

function different<T extends object>(own: Partial<T>, inherited: T): Partial<T> {
  return Object.fromEntries(
    Object.entries(own).filter(([k, v]) => v !== undefined && JSON.stringify(v) !== JSON.stringify(inherited[k as keyof T])),
  ) as Partial<T>;
}
