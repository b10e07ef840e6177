import type { Folio } from '../../folio/folio.ts';
import type { Cell } from '../../folio/story.ts';
import { resolveParagraph } from '../../folio/resolve.ts';
import type { PdfCanvas, StructContent, StructElement } from '../../paint/pdf/pdfCanvas.ts';
import type { ParagraphUnit, ReadingUnit } from '../../structure/reading.ts';
import type { TablePart } from '../../structure/tableParts.ts';

/** What was painted for a paragraph on a page: plain content, or an element of its own: a link, drawn letters. */
export type TaggedPart = { content: StructContent } | { element: StructElement };

export type TaggedParts = Map<ReadingUnit, TaggedPart[]>;

/** Structure types of ISO 32000-1, 14.8.4 for roles. */
const TYPES: Record<string, string> = {
  h1: 'H1',
  h2: 'H2',
  h3: 'H3',
  h4: 'H4',
  h5: 'H5',
  h6: 'H6',
  p: 'P',
  li: 'LI',
  blockquote: 'BlockQuote',
  figcaption: 'Caption',
  aside: 'Note',
  pre: 'P',
  div: 'P',
  th: 'P',
  td: 'P',
};
const structureType = (element: string): string => TYPES[element] ?? 'P';

/**
 * Builds the structure tree in reading order while pages are painted in z-order. A paragraph that goes
 * on over frames or pages stays one element; list lines that follow one another share a list.
 */
export class TagTree {
  private readonly root: StructElement;
  private readonly open = new Map<string, StructElement>();
  private readonly tables = new Map<TablePart, Map<Cell, StructElement>>();
  private list: { parent: StructElement; element: StructElement } | null = null;

  constructor(
    private readonly canvas: PdfCanvas,
    private readonly folio: Folio,
    private readonly language: string,
  ) {
    this.root = canvas.element('Document');
    canvas.addRoot(this.root);
  }

  /** Adds the units of a page, with the parts that were painted for each. */
  addPage(units: readonly ReadingUnit[], parts: ReadonlyMap<ReadingUnit, TaggedPart[]>): void {
    for (const unit of units) {
      const painted = parts.get(unit);
      if (!painted?.length) continue;
      if (unit.kind === 'figure') {
        this.closeList();
        // A field is an element of its own kind, on each page of the file that shows it.
        if (painted.every((p) => 'element' in p)) {
          for (const { element } of painted) this.root.add(element);
          continue;
        }
        const figure = this.canvas.element('Figure', unit.alt ? { alt: unit.alt } : {});
        this.root.add(figure);
        add(figure, painted);
        figure.end();
        continue;
      }
      const element = this.paragraph(unit);
      add(element, painted);
      if (unit.ends) this.open.delete(unit.paragraph);
    }
  }

  /** Adds an element that is read after all that has been added. */
  add(element: StructElement): void {
    this.closeList();
    this.root.add(element);
  }

  private paragraph(unit: ParagraphUnit): StructElement {
    const open = this.open.get(unit.paragraph);
    if (open) return open;
    const block = this.folio.stories[unit.story]!.blocks[unit.paragraph]!;
    const lang = block.kind === 'paragraph' ? resolveParagraph(this.folio.head, block).character.language : this.language;
    const role = unit.role.element;
    const parent = unit.cell ? this.cell(unit.cell.part, unit.cell.cell) : this.root;
    const element = this.canvas.element(role === 'li' ? 'LBody' : structureType(role), lang === this.language ? {} : { lang });
    if (role === 'li') {
      if (this.list?.parent !== parent) {
        this.list = { parent, element: this.canvas.element('L') };
        parent.add(this.list.element);
      }
      const item = this.canvas.element('LI');
      this.list.element.add(item);
      item.add(element);
    } else {
      this.closeList();
      parent.add(element);
    }
    this.open.set(unit.paragraph, element);
    return element;
  }

  /** The element of a table's cell; with the first of them all of the table is built, so that empty cells are there too. */
  private cell(part: TablePart, cell: Cell): StructElement {
    let cells = this.tables.get(part);
    if (!cells) {
      this.tables.set(part, (cells = new Map<Cell, StructElement>()));
      const table = this.canvas.element('Table');
      this.root.add(table);
      let group: StructElement | undefined;
      let heading: boolean | undefined;
      for (const row of part.rows) {
        if (!group || heading !== row.heading) {
          heading = row.heading;
          group = this.canvas.element(heading ? 'THead' : 'TBody');
          table.add(group);
        }
        const tr = this.canvas.element('TR');
        group.add(tr);
        for (const { cell: of, heads } of row.cells) {
          const scope = heads === 'column' ? 'Column' : heads === 'row' ? 'Row' : null;
          const element = this.canvas.element(heads ? 'TH' : 'TD', { cell: { scope, rows: of.rows, columns: of.columns } });
          tr.add(element);
          cells.set(of, element);
        }
      }
    }
    return cells.get(cell)!;
  }

  private closeList(): void {
    this.list = null;
  }

  end(): void {
    this.root.end();
  }
}

function add(element: StructElement, parts: readonly TaggedPart[]): void {
  for (const part of parts) element.add('element' in part ? part.element : part.content);
}
