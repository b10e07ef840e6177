import { columnWidths } from '../../compose/table.ts';
import { noteNumbers } from '../../compose/notes.ts';
import type { Folio } from '../../folio/folio.ts';
import { nameInXml } from '../../folio/ids.ts';
import { leadingOf, resolveParagraph, resolveSpan } from '../../folio/resolve.ts';
import type { Block, Cell, Inline, Paragraph, Story, Table } from '../../folio/story.ts';
import type { CharacterProperties } from '../../folio/styles.ts';
import { lookOfCell } from '../../folio/tableCells.ts';
import { lengthOf, plainText } from '../../folio/text.ts';
import { SIGN, STANDS_FOR } from '../../ports/standIns.ts';
import { GAP } from '../office/gapInLine.ts';
import { all } from '../assets/xml.ts';
import { el, pt, text } from './element.ts';
import type { Xml } from './element.ts';
import type { NotHeld } from './notHeld.ts';
import type { ShapeSources } from './odfSources.ts';
import type { AutomaticStyles } from './automaticStyles.ts';
import type { TextStyles } from './textStyles.ts';

/** Stories as paragraphs, lists and tables of OpenDocument (part 3, chapters 5 to 9). */
export class Texts {
  constructor(
    private readonly folio: Folio,
    private readonly styles: TextStyles,
    private readonly automatic: AutomaticStyles,
    private readonly notHeld: NotHeld,
    /** What a link to a page leads to. */
    private readonly pageName: (page: string) => string,
    private readonly sources: Pick<
      ShapeSources,
      'field' | 'target' | 'pieces' | 'boxes' | 'running' | 'gap' | 'pitch' | 'takes' | 'exactRows'
    >,
  ) {}

  /** The page on which texts stand. */
  page = '';

  private readonly named = new Set<string>();
  /** Ids stand once in a file: what goes on elsewhere has none. */
  private once(id: string): string | undefined {
    if (this.named.has(id)) return undefined;
    this.named.add(id);
    return nameInXml(id);
  }

  /** Blocks in order; paragraphs of one list stand in one list. */
  blocks(story: Story, order: readonly string[]): Xml[] {
    return this.parts(
      story,
      order.flatMap((id) => story.blocks[id] ?? []),
    );
  }

  /** The same for parts of blocks. `note`: the number of the note that they are. */
  parts(story: Story, blocks: readonly Block[], note?: string): Xml[] {
    const out: Xml[] = [];
    for (let i = 0; i < blocks.length;) {
      const block = blocks[i]!;
      const list = block.kind === 'paragraph' ? resolveParagraph(this.folio.head, block).paragraph.list : null;
      if (block.kind === 'paragraph' && list) {
        const run: Paragraph[] = [];
        for (; i < blocks.length; i++) {
          const next = blocks[i]!;
          const own = next.kind === 'paragraph' ? resolveParagraph(this.folio.head, next).paragraph.list : null;
          if (next.kind !== 'paragraph' || own?.style !== list.style || (run.length && own.restart !== undefined)) break;
          run.push(next);
        }
        out.push(this.list(story, run, list.style, list.restart, 0));
        continue;
      }
      if (block.kind === 'paragraph') out.push(this.paragraph(story, block, i === 0 ? note : undefined));
      else out.push(this.table(story, block));
      i++;
    }
    return out;
  }

  /** Deeper entries stand in a list of their own inside the entry before them. */
  private list(story: Story, run: readonly Paragraph[], style: string, restart: number | undefined, level: number): Xml {
    const items: Xml[] = [];
    const levelOf = (p: Paragraph): number => resolveParagraph(this.folio.head, p).paragraph.list?.level ?? 0;
    for (let i = 0; i < run.length;) {
      const children: Xml[] = [];
      if (levelOf(run[i]!) <= level) children.push(this.paragraph(story, run[i++]!));
      const deeper: Paragraph[] = [];
      while (i < run.length && levelOf(run[i]!) > level) deeper.push(run[i++]!);
      if (deeper.length) children.push(this.list(story, deeper, style, undefined, level + 1));
      items.push(el('text:list-item', { 'text:start-value': items.length === 0 ? restart : undefined }, children));
    }
    return el(
      'text:list',
      level === 0 ? { 'text:style-name': style, 'text:continue-numbering': restart === undefined ? 'true' : 'false' } : {},
      items,
    );
  }

  /** Whether text stands on a ground of the document’s, so that its own ink is seen. */
  private onGround = false;

  private paragraph(story: Story, p: Paragraph, note?: string): Xml {
    const { head } = this.folio;
    const look = resolveParagraph(head, p);
    const unseen = this.isUnseen(look.character, look.paragraph.shading !== null);
    const more = this.sources.running?.insertions(p) ?? [];
    const pitch = this.pitchOf(
      p,
      look.character,
      more.some(({ xml }) => xml.includes('text:anchor-type="as-char"')),
    );
    const ink = unseen ? OF_READERS : {};
    const style = this.styles.byHand
      ? this.automatic.paragraph(undefined, this.styles.whole(look, ink, pitch))
      : this.automatic.paragraph(p.style, this.styles.properties(p.overrides ?? {}, p.character ?? {}, look.character, ink, pitch));
    const inside = this.sources.running?.isPrompt(p) ? [promptXml(p, more)] : this.inline(story, p.content, look.character, more);
    const number = note === undefined ? [] : this.marked(`${SIGN}${p.id}`, el('text:span', {}, [text(`${note} `)]));
    this.sources.takes?.paragraph(p, all(number, inside));
    const level = this.sources.running?.heading(p) ?? null;
    return el(
      level === null ? 'text:p' : 'text:h',
      { 'text:style-name': style, 'text:outline-level': level ?? undefined, 'xml:id': this.sources.running?.idOf?.(p) ?? this.once(p.id) },
      [...number, ...inside],
    );
  }

  /** The distance between lines of a paragraph, where it is another than its style’s; lines with pictures in them are as high as these. */
  private pitchOf(p: Paragraph, look: CharacterProperties, holds: boolean): Record<string, string> | null {
    const points = this.sources.pitch?.(p);
    if (points === undefined) return null;
    if (holds || p.content.some((n) => n.type === 'anchor' && n.place === 'inline' && this.sources.running && !this.sources.gap))
      return { 'fo:line-height': 'normal', 'style:line-height-at-least': pt(points) };
    return Math.abs(points - leadingOf(look)) > 0.05 ? { 'fo:line-height': pt(points) } : null;
  }

  private isUnseen({ fill }: CharacterProperties, isShaded: boolean): boolean {
    return !this.onGround && !isShaded && (this.sources.running?.isUnseen(fill) ?? false);
  }

  private inline(
    story: Story,
    content: readonly Inline[],
    base: CharacterProperties,
    more: readonly { offset: number; xml: Xml }[] = [],
  ): Xml[] {
    const out: Xml[] = [];
    const waiting = [...more].sort((a, b) => a.offset - b.offset);
    let at = 0;
    for (const n of content.flatMap((node) => cutAt(node, waiting, at, () => (at += lengthOf(node))))) {
      if ('xml' in n) {
        out.push(n.xml);
        continue;
      }
      switch (n.type) {
        case 'span': {
          const look = resolveSpan(this.folio.head, base, n);
          const unseen = this.isUnseen(look, false) && !this.isUnseen(base, false);
          const { byHand } = this.styles;
          const said = byHand && n.style !== undefined ? look : n.overrides;
          const own = { ...(said && this.styles.character(said, look.size)), ...(unseen && OF_READERS) };
          const style = said || unseen ? this.automatic.text(byHand ? undefined : n.style, own) : n.style;
          const inside = spaced(n.text);
          const span = style === undefined ? inside : [el('text:span', { 'text:style-name': style }, inside)];
          out.push(...(n.link === undefined ? span : [this.link(story, n.link, span)]));
          break;
        }
        case 'softReturn':
          out.push(el('text:line-break'));
          break;
        case 'tab':
          out.push(el('text:tab'));
          break;
        case 'field':
          out.push(this.field(n));
          break;
        case 'ruby':
          out.push(el('text:ruby', {}, [el('text:ruby-base', {}, [text(n.base)]), el('text:ruby-text', {}, [text(n.reading)])]));
          break;
        case 'note':
          // Where texts stand in boxes, notes stand after them.
          if (this.sources.pieces || this.sources.boxes) {
            const style = this.automatic.text(undefined, { 'style:text-position': 'super 58%' });
            const number = text(noteNumbers(story, story.order).numbers.get(n.id) ?? '');
            out.push(...this.marked(`${STANDS_FOR}${n.id}`, el('text:span', { 'text:style-name': style }, [number])));
            break;
          }
          out.push(
            el('text:note', { 'text:note-class': n.kind, 'xml:id': this.once(n.id) }, [
              el('text:note-citation', {}, [text('1')]),
              el('text:note-body', {}, this.blocks(story, n.order)),
            ]),
          );
          break;
        case 'anchor':
          if (this.sources.gap && n.place === 'inline') out.push(...this.gap(story, n.item, base));
          else if (this.sources.running && n.place === 'inline') {
            const item = story.items[n.item];
            const shown = item && this.sources.running.inLine(item);
            if (shown) out.push(shown);
          } else this.notHeld.add('Items that stand in a text');
      }
    }
    out.push(...waiting.map(({ xml }) => xml));
    return out;
  }

  /** No text of slides holds a picture: it lies over a space that is as wide. */
  private gap(story: Story, id: string, look: CharacterProperties): Xml[] {
    const item = story.items[id];
    if (!item || !('size' in item)) return [];
    const wider = this.sources.gap!(item.size.width, look);
    const room = el('text:span', { 'text:style-name': this.automatic.text(undefined, { 'fo:letter-spacing': pt(wider) }) }, [text(GAP)]);
    return this.marked(`${STANDS_FOR}${id}`, room);
  }

  /** Words that the text has not, between places by whose names they are known again; on slides nothing can be marked. */
  private marked(name: string, words: Xml): Xml[] {
    if (!this.sources.boxes || this.once(name) === undefined) return [words];
    return [el('text:bookmark-start', { 'text:name': name }), words, el('text:bookmark-end', { 'text:name': name })];
  }

  private inCell(story: Story, table: Table, cell: Cell): Xml[] {
    const before = this.onGround;
    const { fill } = lookOfCell(this.folio.head, table, cell);
    this.onGround ||= !!fill && fill.type !== 'none';
    const inside = this.blocks(story, cell.order);
    this.onGround = before;
    return inside;
  }

  private field(n: Inline & { type: 'field' }): Xml {
    const known = this.sources.field(n, this.page);
    if (known && !known.live) return el('text:span', {}, spaced(known.shows));
    switch (n.field) {
      case 'pageNumber':
        return el('text:page-number', { 'text:select-page': 'current' }, [text(known?.shows ?? '1')]);
      case 'pageCount':
        return el('text:page-count', {}, [text(String(Object.keys(this.folio.spreads).length))]);
      case 'reference':
      case 'label': {
        const place = n.target === undefined ? null : (this.sources.running?.place(n.target) ?? null);
        if (known && place !== null)
          return el('text:bookmark-ref', { 'text:reference-format': n.field === 'reference' ? 'page' : 'number', 'text:ref-name': place }, [
            text(known.shows),
          ]);
        this.notHeld.add('References to pages and numbers of other passages');
        return el('text:span', {}, spaced(known?.shows ?? n.text ?? ''));
      }
      case 'title':
        return el('text:title', {}, [text(this.folio.head.metadata.title)]);
      default:
        this.notHeld.add('References to pages and numbers of other passages');
        return el('text:span', {}, spaced(n.text ?? ''));
    }
  }

  private link(story: Story, id: string, inside: Xml[]): Xml {
    const destination = story.links[id]?.destination;
    const to = destination && this.sources.target(destination, this.page);
    if (to && 'href' in to)
      return el(
        'text:a',
        { 'xlink:type': 'simple', 'xlink:href': to.href, 'office:target-frame-name': to.newWindow ? '_blank' : undefined },
        inside,
      );
    if (to) return el('text:a', { 'xlink:type': 'simple', 'xlink:href': `#${this.pageName(to.page)}` }, inside);
    this.notHeld.add('Links to passages of the text');
    return el('text:span', {}, inside);
  }

  /** A table with its cells (9.1); covered ones are told of. */
  private table(story: Story, table: Table): Xml {
    const covered = new Set<string>();
    const at = new Map<string, Cell>();
    for (const c of Object.values(table.cells)) {
      at.set(`${c.row} ${c.column}`, c);
      for (let r = c.row; r < c.row + c.rows; r++)
        for (let k = c.column; k < c.column + c.columns; k++) if (r !== c.row || k !== c.column) covered.add(`${r} ${k}`);
    }
    if (table.style !== undefined) this.notHeld.add('Styles of tables (written as the looks of their cells)');
    const rows = table.rows.map((row, r) => {
      const cells = table.columns.map((_, k) => {
        const cell = at.get(`${r} ${k}`);
        if (covered.has(`${r} ${k}`)) return el('table:covered-table-cell');
        return el(
          'table:table-cell',
          {
            'table:style-name': cell && this.automatic.cell(this.folio.head, table, cell),
            'table:number-rows-spanned': cell && cell.rows > 1 ? cell.rows : undefined,
            'table:number-columns-spanned': cell && cell.columns > 1 ? cell.columns : undefined,
          },
          cell ? this.inCell(story, table, cell) : [],
        );
      });
      const isExact = row.exact === true || (this.sources.exactRows ?? false);
      return el('table:table-row', { 'table:style-name': this.automatic.rowHeight(pt(row.height), isExact) }, cells);
    });
    // Shares are of the room that there is: told by no width, each program would choose its own.
    const widths = this.sources.running
      ? columnWidths(table.columns, this.sources.running.measure())
      : table.columns.map((c) => (c.unit === 'pt' ? c.width : null));
    const columns = widths.map((w) =>
      el('table:table-column', {
        'table:style-name': w === null ? undefined : this.automatic.columnWidth(pt(w)),
      }),
    );
    const head = rows.slice(0, table.headerRows);
    return el('table:table', { 'xml:id': this.once(table.id) }, [
      ...columns,
      head.length > 0 && el('table:table-header-rows', {}, head),
      ...rows.slice(table.headerRows),
    ]);
  }
}

/** A place that whoever fills it in is led to (7.7.4). */
const promptXml = (p: Paragraph, more: readonly { xml: Xml }[]): Xml =>
  all(
    more.map(({ xml }) => xml),
    el('text:placeholder', { 'text:placeholder-type': 'text' }, [text(plainText(p.content))]),
  );

/** Ink that programs choose, as for text of no colour (20.394). */
const OF_READERS = { 'style:use-window-font-color': 'true' };

/** A node of a text in parts, with what stands between them. */
function cutAt(node: Inline, waiting: { offset: number; xml: Xml }[], at: number, pass: () => void): (Inline | { xml: Xml })[] {
  const out: (Inline | { xml: Xml })[] = [];
  const end = at + lengthOf(node);
  let from = at;
  while (waiting.length && (waiting[0]!.offset < end || waiting[0]!.offset <= at)) {
    const { offset, xml } = waiting.shift()!;
    if (node.type === 'span' && offset > from) {
      out.push({ ...node, text: node.text.slice(from - at, offset - at) });
      from = offset;
    }
    out.push({ xml });
  }
  if (node.type !== 'span' || from === at) out.push(node);
  else if (from < end) out.push({ ...node, text: node.text.slice(from - at) });
  pass();
  return out;
}

/** Text whose rows of spaces, and spaces at its ends, survive reading (6.1.3): XML alone would fold them. */
const spaced = (value: string): Xml[] =>
  [...value.matchAll(/ {2,}|^ | $|(?:[^ ]|(?<=[^ ]) (?=[^ ]))+/g)].map(([part]) =>
    part.startsWith(' ') ? el('text:s', part.length > 1 ? { 'text:c': part.length } : {}) : text(part),
  );
