import type { Folio } from '../../folio/folio.ts';
import { resolveParagraph } from '../../folio/resolve.ts';
import type { PdfCanvas, StructContent, StructElement } from '../../paint/pdf/pdfCanvas.ts';
import type { ReadingUnit } from '../../structure/reading.ts';

/** What was painted for a paragraph on a page: plain content, or an element of its own: a link, drawn letters. */
export type TaggedPart = { content: StructContent } | { element: StructElement };

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
  private list: StructElement | null = null;

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
        const figure = this.canvas.element('Figure', unit.alt ? { alt: unit.alt } : {});
        this.root.add(figure);
        add(figure, painted);
        figure.end();
        continue;
      }
      const element = this.paragraph(unit.story, unit.paragraph, unit.role.element);
      add(element, painted);
      if (unit.ends) this.open.delete(unit.paragraph);
    }
  }

  private paragraph(story: string, id: string, role: string): StructElement {
    const open = this.open.get(id);
    if (open) return open;
    const block = this.folio.stories[story]!.blocks[id]!;
    const lang = block.kind === 'paragraph' ? resolveParagraph(this.folio.head, block).character.language : this.language;
    const element = this.canvas.element(role === 'li' ? 'LBody' : structureType(role), lang === this.language ? {} : { lang });
    if (role === 'li') {
      if (!this.list) this.root.add((this.list = this.canvas.element('L')));
      const item = this.canvas.element('LI');
      this.list.add(item);
      item.add(element);
    } else {
      this.closeList();
      this.root.add(element);
    }
    this.open.set(id, element);
    return element;
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
