import { resolveParagraphStyle } from '../../folio/resolve.ts';
import type { CharacterOverrides, ParagraphOverrides } from '../../folio/styles.ts';
import type { Inline, Paragraph, Story } from '../../folio/story.ts';
import type { Destination } from '../../folio/motion.ts';
import { pictureInLine } from './inLines.ts';
import type { Anchor } from './inLines.ts';
import type { Names } from './names.ts';
import type { NotTakenList } from '../../intake/notTaken.ts';
import type { ParagraphLooks } from './paragraphLooks.ts';
import { listRoom } from './styleBook.ts';
import type { StyleBook } from './styleBook.ts';
import type { Family, OdfStyle, Scope, StyleSheet } from './styleSheet.ts';
import { childOf, childrenOf, textOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** What reading a text needs to know of the document. */
export interface TextContext {
  sheet: StyleSheet;
  book: StyleBook;
  looks: ParagraphLooks;
  names: Names;
  notTaken: NotTakenList;
  /** Remembers which element one of our ids came from. */
  origin(id: string, element: XmlElement): void;
  /** Where a reference leads; null where it is none that may be followed. */
  destination(href: string, window: string | undefined): Destination | null;
  /** Takes note of a bookmark in a paragraph. */
  mark(name: string, paragraph: string): void;
  /** What a header, footer or date field shows on this page; undefined on a master page. */
  declared(field: string): string | undefined;
  /** Takes a picture that stands in a line; it is read when its page’s objects are. */
  inLine(element: XmlElement, anchor: Anchor, content: Content): void;
  /** Reads a table that stands in a text, into the text's content; its id. */
  table(element: XmlElement, style: TextStyle, content: Content): string;
}

/** The style that a text hangs on: that of its shape. */
export interface TextStyle {
  family: Family;
  name: string | undefined;
  /** The style that the shape names for paragraphs without one (draw:text-style-name). */
  paragraph: string | undefined;
  scope: Scope;
  /** The named style where `name` is none and has none above it: what a table's template gives a cell. */
  given?: OdfStyle | undefined;
}

export type Content = Pick<Story, 'blocks' | 'order' | 'links' | 'items'>;

/** Text of OpenDocument (part 3, chapters 5 to 7) as blocks of a story. */
export class TextReader {
  constructor(
    private readonly context: TextContext,
    private readonly style: TextStyle,
    readonly content: Content = { blocks: {}, order: [], links: {}, items: {} },
  ) {}

  /** Reads all paragraphs and lists inside an element; the ids of its paragraphs, in order. */
  read(element: XmlElement): string[] {
    const order: string[] = [];
    for (const child of childrenOf(element)) this.block(child, order, null);
    return order;
  }

  private block(element: XmlElement, order: string[], list: ListPlace | null): void {
    switch (element.name) {
      case 'text:p':
      case 'text:h':
        order.push(this.paragraph(element, list));
        return;
      case 'text:list':
        return this.list(element, order, list);
      case 'text:section':
      case 'text:numbered-paragraph':
        for (const child of childrenOf(element)) this.block(child, order, list);
        return;
      case 'table:table':
        order.push(this.context.table(element, this.style, this.content));
        return;
    }
  }

  private list(element: XmlElement, order: string[], above: ListPlace | null): void {
    const { sheet } = this.context;
    const described = sheet.list(element.attributes['text:style-name'], this.style.scope) ?? above?.described ?? this.shapeList();
    const place: ListPlace = { described, level: (above?.level ?? -1) + 1, labelled: true };
    for (const item of childrenOf(element)) {
      if (item.name !== 'text:list-item' && item.name !== 'text:list-header') continue;
      let first = item.name === 'text:list-item';
      const restart = Number(item.attributes['text:start-value']);
      for (const child of childrenOf(item)) {
        this.block(child, order, { ...place, labelled: first, ...(first && restart >= 0 && { restart }) });
        // Only the first paragraph of an entry has its label.
        if (child.name === 'text:p' || child.name === 'text:h') first = false;
      }
    }
  }

  /** The list style that the shape's own style carries. */
  private shapeList(): XmlElement | undefined {
    const { sheet } = this.context;
    for (const style of sheet.chain(this.style.family, this.style.name, this.style.scope)) {
      const found = childOf(childOf(style.element, 'style:graphic-properties'), 'text:list-style');
      if (found) return found;
    }
    return undefined;
  }

  private paragraph(element: XmlElement, list: ListPlace | null): string {
    const { sheet, looks, names } = this.context;
    const { scope } = this.style;
    const id = names.free('par', element.attributes['xml:id']);
    this.context.origin(id, element);
    const own = element.attributes['text:style-name'] ?? this.style.paragraph;
    const look = looks.of(this.style, own, sheet.named('paragraph', own, scope) ?? this.shapeStyle(list));
    const overrides = list ? { ...look.paragraph, ...this.listLook(list, look.style, look.paragraph) } : look.paragraph;
    const inline = new InlineReader(this, this.context, scope, id, look.letters);
    inline.walk(element);
    const paragraph: Paragraph = { kind: 'paragraph', id, style: look.style, content: inline.finish() };
    if (!isEmpty(overrides)) paragraph.overrides = overrides;
    if (!isEmpty(look.character)) paragraph.character = look.character;
    this.content.blocks[id] = paragraph;
    return id;
  }

  /** The named style of the shape; an outline's deeper levels have styles of their own. */
  private shapeStyle(list: ListPlace | null): OdfStyle | undefined {
    const { sheet } = this.context;
    const named = sheet.named(this.style.family, this.style.name, this.style.scope) ?? this.style.given;
    if (!named || !list || list.level === 0 || !/outline1$/.test(named.name)) return named;
    return sheet.find(named.family, named.name.replace(/1$/, String(list.level + 1)), 'named') ?? named;
  }

  private listLook(list: ListPlace, style: string, own: ParagraphOverrides): ParagraphOverrides {
    if (!list.described) return {};
    const level = childrenOf(list.described).find((l) => Number(l.attributes['text:level']) === list.level + 1);
    if (!level) return {};
    const { indent, hang } = listRoom(level);
    const inherited = resolveParagraphStyle(this.context.book.head, style).paragraph;
    const start = own.startIndent ?? inherited.startIndent;
    // An entry's later paragraphs stand under its text, without a label.
    if (!list.labelled) return { startIndent: start + indent + hang, firstLineIndent: 0 };
    return {
      startIndent: start + indent,
      firstLineIndent: 0,
      list: {
        style: this.context.book.listStyle(list.described),
        level: Math.min(9, list.level),
        ...(list.restart !== undefined && { restart: list.restart }),
      },
    };
  }

  /** A note's own paragraphs, beside those of the text. */
  note(element: XmlElement): string[] {
    const order: string[] = [];
    for (const child of childrenOf(element)) this.block(child, order, null);
    return order;
  }
}

function isEmpty(look: object): boolean {
  for (const _ in look) return false;
  return true;
}

interface ListPlace {
  described: XmlElement | undefined;
  level: number;
  labelled: boolean;
  restart?: number;
}

interface SpanLook {
  size: number;
  leading: number | 'auto';
  style?: string;
  overrides: CharacterOverrides;
  link?: string;
}

/** Collects what stands in a paragraph: spaces folded as chapter 6.1.2 says, spans of one look joined. */
class InlineReader {
  private readonly out: Inline[] = [];
  private afterSpace = true;

  constructor(
    private readonly reader: TextReader,
    private readonly context: TextContext,
    private readonly scope: Scope,
    private readonly paragraph: string,
    private readonly base: { size: number; leading: number | 'auto' },
  ) {}

  walk(element: XmlElement, look: SpanLook = { ...this.base, overrides: {} }): void {
    for (const child of element.children) {
      if (typeof child === 'string') this.text(child, look);
      else this.inline(child, look);
    }
  }

  finish(): Inline[] {
    const last = this.out[this.out.length - 1];
    if (last?.type === 'span' && this.folded && last.text.endsWith(' ')) {
      last.text = last.text.slice(0, -1);
      if (!last.text) this.out.pop();
    }
    return this.out;
  }
  /** Whether the last space came from the file's layout, not from a `text:s`. */
  private folded = false;

  private text(raw: string, look: SpanLook): void {
    if (!raw) return;
    let text = raw.replace(/[\t\r\n ]+/g, ' ');
    if (this.afterSpace && text.startsWith(' ')) text = text.slice(1);
    if (text) this.afterSpace = this.folded = text.endsWith(' ');
    // Characters that XML cannot hold cannot come this far; line and paragraph separators are ours to make.
    this.put(text.replace(/[\u2028\u2029]/g, ' '), look);
  }

  private put(text: string, look: SpanLook): void {
    if (!text) return;
    const last = this.out[this.out.length - 1];
    const overrides = isEmpty(look.overrides) ? undefined : look.overrides;
    if (
      last?.type === 'span' &&
      last.style === look.style &&
      last.link === look.link &&
      (last.overrides === overrides || JSON.stringify(last.overrides) === JSON.stringify(overrides))
    )
      last.text += text;
    else {
      const span: Inline = { type: 'span', text };
      if (look.style !== undefined) span.style = look.style;
      if (overrides) span.overrides = overrides;
      if (look.link !== undefined) span.link = look.link;
      this.out.push(span);
    }
  }

  private add(inline: Inline): void {
    this.out.push(inline);
    this.afterSpace = false;
    this.folded = false;
  }

  private inline(element: XmlElement, look: SpanLook): void {
    const { names, notTaken } = this.context;
    const a = element.attributes;
    switch (element.name) {
      case 'text:s': {
        const count = Math.min(1000, Math.max(1, Number(a['text:c'] ?? 1) || 1));
        this.put(' '.repeat(count), look);
        this.afterSpace = false;
        this.folded = false;
        return;
      }
      case 'text:tab':
        return this.add({ type: 'tab' });
      case 'text:line-break':
        this.add({ type: 'softReturn' });
        this.afterSpace = true;
        return;
      case 'text:span':
        return this.walk(element, this.spanLook(look, a['text:style-name']));
      case 'text:a': {
        const link = this.link(a);
        return this.walk(element, { ...this.spanLook(look, a['text:style-name']), ...(link !== undefined && { link }) });
      }
      case 'text:meta':
      case 'text:bookmark-ref':
      case 'text:reference-ref':
        return this.walk(element, look);
      case 'text:page-number':
        return this.add({ type: 'field', id: names.free('field'), field: 'pageNumber' });
      case 'text:page-count':
        return this.add({ type: 'field', id: names.free('field'), field: 'pageCount' });
      case 'text:title':
        return this.add({ type: 'field', id: names.free('field'), field: 'title', text: textOf(element) });
      case 'text:date':
      case 'text:time':
      case 'text:creation-date':
      case 'text:modification-date':
        return this.date(textOf(element), look);
      case 'presentation:header':
      case 'presentation:footer':
      case 'presentation:date-time':
        return this.put(this.context.declared(element.name) ?? '', look);
      case 'text:note':
        return this.note(element);
      case 'text:ruby':
        return this.add({
          type: 'ruby',
          id: names.free('ruby'),
          base: textOf(childOf(element, 'text:ruby-base') ?? element),
          reading: textOf(childOf(element, 'text:ruby-text') ?? { ...element, children: [] }),
        });
      case 'office:annotation':
      case 'office:annotation-end':
        return notTaken.add('leftOut', 'Comment', 'comments are no part of the layout');
      case 'text:bookmark':
      case 'text:bookmark-start':
        return this.context.mark(a['text:name'] ?? '', this.paragraph);
      case 'text:soft-page-break':
      case 'text:bookmark-end':
      case 'text:reference-mark':
      case 'text:reference-mark-start':
      case 'text:reference-mark-end':
        return;
      default:
        if (pictureInLine(element)) {
          const anchor: Anchor = { type: 'anchor', id: names.free('anchor'), item: '', place: 'inline' };
          this.context.inLine(element, anchor, this.reader.content);
          return this.add(anchor);
        }
        if (/^(draw|table):/.test(element.name)) {
          notTaken.add('leftOut', 'Object inside a text', 'frames of text, drawn shapes and tables in the line are not taken over');
          return;
        }
        // A field of another kind: what it showed last.
        return this.walk(element, look);
    }
  }

  private date(text: string, look: SpanLook): void {
    // A date is taken as it was shown last: a finished layout does not change by itself.
    this.afterSpace = false;
    this.folded = false;
    this.put(text, look);
  }

  private note(element: XmlElement): void {
    const body = childOf(element, 'text:note-body');
    const order = body ? this.reader.note(body) : [];
    if (!order.length) return;
    this.add({
      type: 'note',
      id: this.context.names.free('note', element.attributes['xml:id']),
      kind: element.attributes['text:note-class'] === 'endnote' ? 'endnote' : 'footnote',
      order,
    });
  }

  private link(a: Record<string, string>): string | undefined {
    const destination = this.context.destination(a['xlink:href'] ?? '', a['xlink:show'] ?? a['office:target-frame-name']);
    if (!destination) return undefined;
    const id = this.context.names.free('link');
    const title = a['office:title'] ?? a['office:name'];
    this.reader.content.links[id] = {
      id,
      destination,
      ...(title && { title }),
    };
    return id;
  }

  private spanLook(look: SpanLook, name: string | undefined): SpanLook {
    const { sheet, book } = this.context;
    const named = sheet.named('text', name, this.scope);
    const overrides = book.span(sheet.overrides('text', name, this.scope), look.size, look.leading);
    return {
      ...look,
      ...(named && { style: book.characterStyle(named) }),
      size: overrides.size ?? look.size,
      leading: overrides.leading ?? look.leading,
      overrides: { ...look.overrides, ...overrides },
    };
  }
}
