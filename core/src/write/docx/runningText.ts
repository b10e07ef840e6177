import type { Item } from '../../folio/items.ts';
import { resolveParagraph } from '../../folio/resolve.ts';
import type { FlowBlock, FlowBox, FlowFigure, FlowParagraph, FlowSection } from '../../structure/flow.ts';
import { twips } from '../ooxml/lengths.ts';
import type { Xml } from '../assets/xml.ts';
import { all, el } from '../assets/xml.ts';
import type { Insertion } from './inlineContent.ts';
import { run } from './inlineContent.ts';
import { sectionProperties } from './sectionProperties.ts';
import { measureOf } from '../office/pageSetup.ts';
import type { PageSetup } from '../office/pageSetup.ts';
import type { ParagraphPart } from './paragraphLook.ts';
import type { WordContext } from './wordContext.ts';
import { paragraphXml } from './wordParagraph.ts';
import { tableXml } from './wordTable.ts';

type Parts = Partial<Record<ParagraphPart, Xml | null>>;

/** A block as it is written: in so many columns; `last` closes a section of pages. */
interface Placed {
  columns: number;
  gutter: number;
  write(last: Xml | null): Xml[];
  /** Whether it ends with a paragraph, which alone can close a section. */
  closes: boolean;
}

/** Room beside what text runs around. */
const AROUND = 12;
/** A box’s line at its side. */
const BOX: Parts = {
  'w:pBdr': el('w:pBdr', {}, el('w:left', { 'w:val': 'single', 'w:sz': 12, 'w:space': 8, 'w:color': 'auto' })),
};

/** A paragraph that nobody sees: it keeps tables apart, closes what only a paragraph can, and holds what stands anywhere on its page. */
export const hair = (last: Xml | null = null, ...held: Xml[]): Xml =>
  el(
    'w:p',
    {},
    el(
      'w:pPr',
      {},
      el('w:spacing', { 'w:before': 0, 'w:after': 0, 'w:line': 20, 'w:lineRule': 'exact' }),
      el('w:rPr', {}, el('w:sz', { 'w:val': 2 })),
      last,
    ),
    held,
  );

/** Writes a document as it is read from its beginning to its end: the body of a text document, sections of pages included. */
export class RunningText {
  private readonly pages: string[] = [];

  constructor(
    private readonly c: WordContext,
    private readonly setup: PageSetup,
    private readonly options: { columns: boolean; footer: Xml | null; frameOf(item: string): Item | undefined },
  ) {}

  body(sections: readonly FlowSection[], before: Xml | null): Xml {
    const placed = sections.flatMap((s) => s.blocks.flatMap((b) => this.block(b)));
    const out: (Xml | null)[] = [before];
    let wasTable = false;
    for (const [i, block] of placed.entries()) {
      const next = placed[i + 1];
      const ends = next && next.columns !== block.columns;
      const last = ends ? this.section(block, i) : null;
      const written = block.write(block.closes ? last : null);
      if (wasTable && !block.closes) out.push(hair());
      out.push(...written);
      wasTable = !block.closes;
      if (!block.closes && (ends || !next)) {
        out.push(hair(last));
        wasTable = false;
      }
    }
    // A page may begin after all that is read.
    if (this.pages.length) out.push(el('w:p', {}, ...this.marks().map((m) => m.xml)));
    const end = placed.at(-1);
    return el('w:body', {}, out, this.section(end ?? { columns: 1, gutter: 0 }, placed.length));
  }

  /** The first section begins a page; those after it go on where the one before ends. */
  private section({ columns, gutter }: Pick<Placed, 'columns' | 'gutter'>, at: number): Xml {
    return sectionProperties(this.setup, { columns, gutter, begins: at === 0 ? 'nextPage' : 'continuous', footer: this.options.footer });
  }

  private block(b: FlowBlock): Placed[] {
    switch (b.kind) {
      case 'pageMark':
        this.pages.push(b.page);
        return [];
      case 'paragraph': {
        const { columns, gutter } = this.columnsOf(b.item, resolveParagraph(this.c.folio.head, b.paragraph).paragraph.spanColumns);
        const marks = this.marks();
        return [{ columns, gutter, closes: true, write: (last) => [this.paragraph(b, marks, columns, gutter, { 'w:sectPr': last })] }];
      }
      case 'table': {
        const { columns, gutter } = this.columnsOf(b.item, false);
        const c = this.within(columns, gutter);
        const marks = this.marks();
        const write = (): Xml[] => {
          const parts = tableXml(b.story, b.table, c).flatMap((t, i) => (i ? [hair(), t] : [t]));
          return marks.length ? [el('w:p', {}, ...marks.map((m) => m.xml)), ...parts] : parts;
        };
        return [{ columns, gutter, closes: false, write }];
      }
      case 'figure':
        return this.figure(b);
      case 'box':
        return this.box(b);
    }
  }

  /** Pages of the layout that began since the last paragraph: they begin with the next one. */
  private marks(): Insertion[] {
    return this.pages.splice(0).map((page) => ({ offset: 0, xml: this.pageMark(page) }));
  }

  private pageMark(page: string): Xml {
    return this.c.bookmarks.around('pg', page, all());
  }

  private columnsOf(item: string, spans: boolean): { columns: number; gutter: number } {
    const frame = this.options.columns && !spans ? this.options.frameOf(item) : undefined;
    return frame?.kind === 'textFrame' && frame.columns > 1 ? { columns: frame.columns, gutter: frame.gutter } : { columns: 1, gutter: 0 };
  }

  private within(columns: number, gutter: number): WordContext {
    return columns === 1 ? this.c : { ...this.c, measure: (measureOf(this.setup) - gutter * (columns - 1)) / columns };
  }

  private paragraph(b: FlowParagraph, marks: readonly Insertion[], columns: number, gutter: number, parts: Parts = {}): Xml {
    const c = this.within(columns, gutter);
    const insertions = [
      ...marks,
      ...b.breaks.map((br) => ({ offset: br.offset, xml: this.pageMark(br.page) })),
      ...b.inline.flatMap(({ offset, figure }) => {
        const drawing = this.inLine(figure, b, c);
        return drawing ? [{ offset, xml: drawing }] : [];
      }),
    ];
    return paragraphXml(b.story, b.paragraph, { page: b.page, insertions, parts }, c);
  }

  /** A picture in a line is as high as the line lets it be. */
  private inLine({ item }: FlowFigure, b: FlowParagraph, c: WordContext): Xml | null {
    const made = c.pictures.of(item);
    const { size } = resolveParagraph(c.folio.head, b.paragraph).character;
    const drawing = made && c.pictures.inline(item, c.part, Math.min(c.measure, (made.image.width / made.image.height) * size * 1.2));
    return drawing ? run(null, c.bookmarks.around('f', item.id, all(drawing))) : null;
  }

  private figure({ item, captions, pin }: FlowFigure): Placed[] {
    const { c } = this;
    const made = c.pictures.of(item);
    const width = made ? Math.min(c.measure, pin?.width ? pin.width * c.measure : made.width) : 0;
    const floats = pin?.as === 'float' && made ? { 'w:framePr': floating(Math.min(width, 0.45 * c.measure)) } : {};
    const shown = made && c.pictures.inline(item, c.part, pin?.as === 'float' ? Math.min(width, 0.45 * c.measure) : width);
    if (!shown && !captions.length) return [];
    const marks = this.marks();
    const out: Placed[] = [];
    const one = { columns: 1, gutter: 0, closes: true };
    if (shown) {
      const properties = el(
        'w:pPr',
        {},
        captions.length > 0 && el('w:keepNext'),
        floats['w:framePr'],
        // A line is as high as its picture.
        el('w:spacing', { 'w:before': twips(AROUND / 2), 'w:after': twips(AROUND / 2), 'w:line': 240, 'w:lineRule': 'auto' }),
        !floats['w:framePr'] && el('w:jc', { 'w:val': 'center' }),
      );
      const write = (last: Xml | null): Xml[] => [
        el('w:p', {}, withSection(properties, last), ...marks.map((m) => m.xml), c.bookmarks.around('f', item.id, run(null, shown))),
      ];
      out.push({ ...one, write });
    }
    for (const [i, caption] of captions.entries())
      out.push({ ...one, write: (last) => [this.paragraph(caption, shown || i ? [] : marks, 1, 0, { ...floats, 'w:sectPr': last })] });
    return out;
  }

  /** A box that is pinned to words stands beside them, or has a line at its side. */
  private box({ blocks, pin }: FlowBox): Placed[] {
    const parts: Parts = pin.as === 'float' ? { 'w:framePr': floating(0.45 * this.c.measure) } : BOX;
    return blocks.flatMap((b): Placed[] => {
      if (b.kind === 'table') return this.block(b);
      const marks = this.marks();
      return [{ columns: 1, gutter: 0, closes: true, write: (last) => [this.paragraph(b, marks, 1, 0, { ...parts, 'w:sectPr': last })] }];
    });
  }
}

/** A frame at the right edge that text runs around (17.3.1.11); paragraphs that say the same stand in one. */
const floating = (width: number): Xml =>
  el('w:framePr', {
    'w:w': twips(width),
    'w:hSpace': twips(AROUND),
    'w:wrap': 'around',
    'w:vAnchor': 'text',
    'w:hAnchor': 'margin',
    'w:xAlign': 'right',
    'w:y': 1,
  });

/** Properties of a paragraph with those of the section that it ends, which come last in them. */
const withSection = (properties: Xml, last: Xml | null): Xml =>
  last ? (properties.replace('</w:pPr>', `${last}</w:pPr>`) as Xml) : properties;
