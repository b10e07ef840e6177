import { columnsOf } from '../../compose/columnFill.ts';
import { columnWidths } from '../../compose/table.ts';
import { isAddressOfWeb } from '../../folio/address.ts';
import { playedFile } from '../../folio/playedFile.ts';
import type { Item } from '../../folio/items.ts';
import { paragraphStays, resolveParagraph } from '../../folio/resolve.ts';
import type { Cell, Inline, Paragraph, Story, Table } from '../../folio/story.ts';
import { cellsInOrder } from '../../folio/tableCells.ts';
import { attrs, escape } from '../../paint/svg/markup.ts';
import type { FlowBlock, FlowBox, FlowFigure, FlowParagraph, FlowTable } from '../../structure/flow.ts';
import { cellHeads } from '../../structure/tableHeads.ts';
import { playedMarkup } from './playedMarkup.ts';
import { anchor } from './flowContext.ts';
import type { FlowContext, FlowPicture } from './flowContext.ts';
import { inlineFigure, inlineMarkup, pageMark } from './inlineMarkup.ts';

/** Elements that a paragraph’s role becomes where it stands by itself. */
const BLOCKS: Record<string, string> = { li: 'p', figcaption: 'p', th: 'p', td: 'p', aside: 'p', blockquote: 'p', span: 'p' };
/** Roles whose paragraphs stand together in one element. */
const AROUND: Record<string, string> = { blockquote: 'blockquote', aside: 'aside' };

/** Blocks of running text as HTML that is XML as well: lists, quotations and asides around what belongs to them. */
export function blocksMarkup(blocks: readonly FlowBlock[], c: FlowContext): string {
  const out: string[] = [];
  for (let i = 0; i < blocks.length;) {
    const block = blocks[i]!;
    const run = runFrom(blocks, i, c);
    if (run > 1 || (block.kind === 'paragraph' && (isListItem(block, c) || AROUND[block.role.element]))) {
      const together = blocks.slice(i, i + run) as (FlowParagraph | Extract<FlowBlock, { kind: 'pageMark' }>)[];
      out.push(isListItem(block, c) ? listMarkup(together, c) : aroundMarkup(together, c));
      i += run;
      continue;
    }
    out.push(blockMarkup(block, c));
    i++;
  }
  return out.filter(Boolean).join('\n');
}

const isListItem = (b: FlowBlock, c: FlowContext): boolean => b.kind === 'paragraph' && b.role.element === 'li' && c.lists === 'lists';

/** How many blocks from one on stand in one list, quotation or aside; pages that begin among them included. */
function runFrom(blocks: readonly FlowBlock[], from: number, c: FlowContext): number {
  const first = blocks[from]!;
  if (first.kind !== 'paragraph') return 1;
  const list = isListItem(first, c);
  const around = AROUND[first.role.element];
  if (!list && !around) return 1;
  const belongs = (b: FlowBlock): boolean =>
    b.kind === 'paragraph' &&
    (list ? isListItem(b, c) && sameList(first, b, c) : b.role.element === first.role.element && b.item === first.item);
  let end = from + 1;
  for (let i = end; i < blocks.length; i++) {
    if (belongs(blocks[i]!)) end = i + 1;
    else if (blocks[i]!.kind !== 'pageMark') break;
  }
  return end - from;
}

const listOf = (b: FlowParagraph, c: FlowContext) => resolveParagraph(c.folio.head, b.paragraph).paragraph.list;
const sameList = (a: FlowParagraph, b: FlowParagraph, c: FlowContext): boolean => listOf(a, c)?.style === listOf(b, c)?.style;

function blockMarkup(block: FlowBlock, c: FlowContext): string {
  switch (block.kind) {
    case 'pageMark':
      return pageMark(block.page, c);
    case 'paragraph':
      return paragraphMarkup(block, c);
    case 'table':
      return tableMarkup(block, c);
    case 'figure':
      return figureMarkup(block, c);
    case 'box':
      return boxMarkup(block, c);
  }
}

/** A paragraph’s own content with what stands at places in it. */
function contentOf({ story, paragraph, page, breaks, inline }: FlowParagraph, c: FlowContext): string {
  const insertions = [
    ...breaks.map((b) => ({ offset: b.offset, markup: pageMark(b.page, c) })),
    ...inline.map((f) => ({ offset: f.offset, markup: inlineFigure(f.figure, c) })),
  ];
  return inlineMarkup(story, paragraph, page, insertions, c);
}

const languageOf = (paragraph: Paragraph, c: FlowContext): { lang?: string; 'xml:lang'?: string } => {
  const { language } = resolveParagraph(c.folio.head, paragraph).character;
  return language === c.language ? {} : { lang: language, 'xml:lang': language };
};

/** `ink`: the colour of text in the cell that it stands in. */
const attributesOf = (paragraph: Paragraph, c: FlowContext, ink?: string) => ({
  id: anchor.paragraph(paragraph.id),
  class: c.styles.paragraph(paragraph, ink).join(' ') || undefined,
  ...languageOf(paragraph, c),
  ...(paragraphStays(c.folio.head, paragraph) && { translate: 'no' }),
});

function paragraphMarkup(block: FlowParagraph, c: FlowContext): string {
  const { element } = block.role;
  const tag = BLOCKS[element] ?? element;
  const label = labelMarkup(block, c);
  const content = label + contentOf(block, c);
  // Lines of a listing keep their own spaces and ends.
  return `<${tag}${attrs(attributesOf(block.paragraph, c))}>${tag === 'pre' ? `<code>${content}</code>` : content}</${tag}>`;
}

/** The number or bullet before a paragraph that is no entry of a list, as text. */
function labelMarkup(block: FlowParagraph, c: FlowContext): string {
  const label = c.label(block.story, block.paragraph.id);
  if (!label) return '';
  const list = listOf(block, c);
  const style = list ? c.folio.head.listStyles[list.style] : undefined;
  const character = style?.levels[Math.min(list!.level, style.levels.length - 1)]?.character;
  const classes = ['label', ...(character === undefined ? [] : c.styles.span(block.paragraph, { style: character }))];
  return `<span class="${classes.join(' ')}">${escape(label.trim())}</span> `;
}

type InRun = FlowParagraph | Extract<FlowBlock, { kind: 'pageMark' }>;

function aroundMarkup(run: readonly InRun[], c: FlowContext): string {
  const first = run[0] as FlowParagraph;
  const tag = AROUND[first.role.element]!;
  // Asides are notes, not landmarks: there may be many.
  return `<${tag}${tag === 'aside' ? ' role="note"' : ''}>\n${run.map((b) => blockMarkup(b, c)).join('\n')}\n</${tag}>`;
}

/** Entries of one list, those of deeper levels in lists inside the entry above them (HTML 4.4.5–4.4.8). */
function listMarkup(run: readonly InRun[], c: FlowContext): string {
  let out = '';
  const open: { tag: string; level: number }[] = [];
  let marks = '';
  const close = (): void => {
    const { tag } = open.pop()!;
    out += `</li>\n</${tag}>`;
  };
  for (const block of run) {
    if (block.kind === 'pageMark') {
      marks += pageMark(block.page, c);
      continue;
    }
    const list = listOf(block, c);
    const level = list?.level ?? 0;
    while (open.length && open[open.length - 1]!.level > level) close();
    if (open.length && open[open.length - 1]!.level === level) out += '</li>\n';
    else {
      const { tag, attributes } = listElement(block, c);
      out += `${open.length ? '\n' : ''}<${tag}${attrs(attributes)}>\n`;
      open.push({ tag, level });
    }
    out += `<li${attrs(attributesOf(block.paragraph, c))}>${marks}${contentOf(block, c)}`;
    marks = '';
  }
  while (open.length) close();
  return out + marks;
}

const TYPES: Record<string, string> = { lowerAlpha: 'a', upperAlpha: 'A', lowerRoman: 'i', upperRoman: 'I' };

function listElement(block: FlowParagraph, c: FlowContext): { tag: 'ol' | 'ul'; attributes: Record<string, string | number | undefined> } {
  const list = listOf(block, c);
  const style = list ? c.folio.head.listStyles[list.style] : undefined;
  const level = style?.levels[Math.min(list!.level, style.levels.length - 1)];
  if (!level) return { tag: 'ul', attributes: { class: 'no-bullets' } };
  if (level.kind === 'bullet') return { tag: 'ul', attributes: {} };
  const label = c.label(block.story, block.paragraph.id) ?? '';
  const start = Number(/\d+/.exec(label)?.[0] ?? 1);
  return { tag: 'ol', attributes: { type: TYPES[level.format], ...(start > 1 && level.format === 'decimal' && { start }) } };
}

function tableMarkup({ story, table }: FlowTable, c: FlowContext): string {
  const cells = cellsInOrder(table);
  const row = (at: number): string => {
    const here = cells.filter((cell) => cell.row === at);
    return `<tr>${here.map((cell) => cellMarkup(story, table, cell, c)).join('')}</tr>`;
  };
  const rows = table.rows.map((_, i) => row(i));
  const head = rows.slice(0, table.headerRows);
  const foot = table.footerRows ? rows.slice(-table.footerRows) : [];
  const body = rows.slice(table.headerRows, rows.length - foot.length);
  const part = (tag: string, list: string[]): string => (list.length ? `<${tag}>\n${list.join('\n')}\n</${tag}>\n` : '');
  return `<table${attrs({ id: anchor.item(table.id) })}>\n${columnsMarkup(story, table, c)}${part('thead', head)}${part('tbody', body)}${part('tfoot', foot)}</table>`;
}

/** How wide the frame is in which a text begins: tables are made for that, and most text may be narrower. */
function roomOf(story: Story, { folio, measure }: FlowContext): number {
  const [first] = story.frames;
  const frame = first && (folio.spreads[first.spread]?.items[first.item] ?? folio.stories[first.spread]?.items[first.item]);
  return (frame?.kind === 'textFrame' && columnsOf(frame)[0]?.width) || measure;
}

/** Below this share of the text’s width a table is as wide as its words ask for. */
const FULL_WIDTH = 0.9;

/** Columns of a table that is as wide as the text it stands in, by their shares of it; a narrow one leaves that to its words. */
function columnsMarkup(story: Story, { columns }: Table, c: FlowContext): string {
  const room = roomOf(story, c);
  const widths = columnWidths(columns, room);
  const whole = widths.reduce((a, b) => a + b, 0);
  if (whole < FULL_WIDTH * room) return '';
  return `<colgroup>${widths.map((w) => `<col${attrs({ class: c.styles.width(w / whole) })}/>`).join('')}</colgroup>\n`;
}

function cellMarkup(story: Story, table: Table, cell: Cell, c: FlowContext): string {
  const heads = cellHeads(c.folio.head, story, table, cell);
  const tag = heads ? 'th' : 'td';
  const [first] = cell.order.flatMap((id) => (story.blocks[id]?.kind === 'paragraph' ? [story.blocks[id]] : []));
  const { classes, ink } = c.styles.cell(table, cell, first);
  const span = {
    class: classes.join(' ') || undefined,
    ...(heads && { scope: heads === 'column' ? 'col' : 'row' }),
    colspan: cell.columns > 1 ? cell.columns : undefined,
    rowspan: cell.rows > 1 ? cell.rows : undefined,
  };
  return `<${tag}${attrs(span)}>${paragraphsMarkup(story, cell.order, c, ink)}</${tag}>`;
}

/** Paragraphs that stand in a cell or a note. */
function paragraphsMarkup(story: Story, order: readonly string[], c: FlowContext, ink?: string): string {
  return order
    .flatMap((id) => {
      const block = story.blocks[id];
      if (block?.kind === 'table') return [tableMarkup({ kind: 'table', story, table: block, item: '', page: '' }, c)];
      if (block?.kind !== 'paragraph') return [];
      return [`<p${attrs(attributesOf(block, c, ink))}>${inlineMarkup(story, block, null, [], c)}</p>`];
    })
    .join('');
}

function figureMarkup(figure: FlowFigure, c: FlowContext): string {
  const { item, captions, pin } = figure;
  const picture = c.picture(item);
  const caption = captions.map(
    (p) => `<figcaption${attrs(attributesOf(p.paragraph, c))}>${labelMarkup(p, c)}${contentOf(p, c)}</figcaption>`,
  );
  // HTML allows one caption in a figure: more become paragraphs of it.
  const captionMarkup =
    caption.length > 1
      ? `<figcaption>${captions.map((p) => `<p${attrs(attributesOf(p.paragraph, c))}>${labelMarkup(p, c)}${contentOf(p, c)}</p>`).join('')}</figcaption>`
      : caption.join('');
  const live = liveMarkup(item, picture, c);
  if (!picture && !live) return captions.map((p) => paragraphMarkup(p, c)).join('\n');
  const share = pin?.width ?? picture?.share ?? 1;
  const classes = ['figure', c.styles.width(share), ...(pin?.as === 'float' ? ['floats'] : [])].join(' ');
  const shown =
    live ?? linked(item, `<img${attrs({ src: picture!.source, alt: item.alt ?? '', width: picture!.width, height: picture!.height })}/>`);
  return `<figure${attrs({ id: anchor.item(item.id), class: classes })}>${shown}${captionMarkup}</figure>`;
}

/** A film or sound as it is played in running text; null for all else. */
function liveMarkup(item: Item, picture: FlowPicture | null, c: FlowContext): string | null {
  const file = playedFile(c.folio, item);
  const src = item.kind === 'media' && item.media !== null ? c.played(item.media) : null;
  if (item.kind !== 'media' || !file || src === null) return null;
  const captions = item.captions === undefined ? undefined : (c.played(item.captions) ?? undefined);
  const { element, said } = playedMarkup(item, file, { src, poster: picture?.source, captions, language: c.language });
  return element + said;
}

/** What web content leads to where its still picture stands for it. */
const linked = (item: Item, image: string): string =>
  item.kind === 'embed' && item.source.from === 'address' && isAddressOfWeb(item.source.href)
    ? `<a${attrs({ href: item.source.href.trim() })}>${image}</a>`
    : image;

function boxMarkup({ item, blocks, pin }: FlowBox, c: FlowContext): string {
  return `<aside${attrs({ role: 'note', id: anchor.item(item), class: `box${pin.as === 'float' ? ' floats' : ''}` })}>\n${blocksMarkup(blocks, c)}\n</aside>`;
}

/** The text of a note, with the way back to its reference. */
export function noteMarkup(story: Story, note: Inline & { type: 'note' }, c: FlowContext): string {
  const number = c.noteNumber(story, note.id);
  const kind = note.kind === 'footnote' ? 'footnote' : 'endnote';
  const more = c.book ? { 'epub:type': kind } : {};
  const role = { role: kind === 'footnote' ? 'doc-footnote' : 'note' };
  const back = `<a${attrs({ role: 'doc-backlink', class: 'note-number', href: `#${anchor.reference(note.id)}` })}>${escape(number)}</a> `;
  const [first, ...rest] = note.order.flatMap((id) => {
    const block = story.blocks[id];
    return block?.kind === 'paragraph' ? [block] : [];
  });
  if (!first) return '';
  const text = `<p${attrs(attributesOf(first, c))}>${back}${inlineMarkup(story, first, null, [], c)}</p>`;
  const others = paragraphsMarkup(
    story,
    rest.map((p) => p.id),
    c,
  );
  return `<aside${attrs({ ...more, ...role, class: 'note', id: anchor.note(note.id), 'aria-label': number })}>${text}${others}</aside>`;
}
