import type { SeenLine } from '../flow/cascade.ts';
import type { ObservedFlow, ObservedFlowBlock, ObservedFlowCell } from '../flow/observedFlow.ts';
import { child, childrenOf } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { OdfLabels } from './odfLabels.ts';
import { pointsOf } from './odfStyles.ts';
import type { OdfStyles } from './odfStyles.ts';

/** A picture in a line: its files, the best first; the number of blocks read before it. */
export interface OdfFigure {
  hrefs: string[];
  alt: string;
  after: number;
}

/** Of a picture whose paragraph is being read. */
const IN_LINE = -1;

/** Reads text of OpenDocument: paragraphs, lists, tables, in the order in which they stand (part 3, chapters 5 to 9). */
export class OdfText {
  readonly out: Pick<ObservedFlow, 'blocks' | 'tables' | 'notes' | 'outline'> & { figures: OdfFigure[] } = {
    blocks: [],
    tables: [],
    notes: [],
    outline: [],
    figures: [],
  };
  /** Names of places in the text, and those that references ask for. */
  readonly places = new Set<string>();
  readonly asked: string[] = [];
  private readonly labels: OdfLabels;

  constructor(
    private readonly styles: OdfStyles,
    private readonly file: string,
    /** What the number of a page is, where it is asked for. */
    public number: () => string | null = () => null,
  ) {
    this.labels = new OdfLabels(styles);
  }

  blocks(around: Node, inside: string[] = [], ground: string | null = null): void {
    for (const node of around.children) {
      if (node.name === 'text:p' || node.name === 'text:h') this.paragraph(node, inside, ground, undefined);
      else if (node.name === 'text:list') this.list(node, inside, ground, node.attributes['text:style-name'] ?? '', 0);
      else if (node.name === 'table:table') this.table(node, inside);
      else if (node.name === 'text:section') this.blocks(node, inside, ground);
      else if (node.name === 'text:table-of-content') this.contents(node);
    }
  }

  /** Entries of a table of contents: what stands before the number of the page, and where each leads. */
  private contents(node: Node): void {
    for (const p of childrenOf(child(node, 'text:index-body'), 'text:p'))
      for (const a of childrenOf(p, 'text:a')) {
        const end = a.content.findIndex((c) => typeof c !== 'string' && c.name === 'text:tab');
        const words = (end < 0 ? a.content : a.content.slice(0, end)).map((c) => (typeof c === 'string' ? c : wordsIn(c)));
        this.entries.push({ text: words.join(''), href: a.attributes['xlink:href'] ?? '' });
      }
  }
  private readonly entries: { text: string; href: string }[] = [];

  /** What is listed in contents, once all places are known. */
  settle(): void {
    for (const { text, href } of this.entries) this.out.outline.push({ text, found: this.places.has(href.slice(1)) });
  }

  private list(node: Node, inside: string[], ground: string | null, style: string, level: number): void {
    const own = node.attributes['text:style-name'] ?? style;
    if (level === 0) this.labels.begin(own, node.attributes['text:continue-numbering'] === 'true');
    for (const item of node.children) {
      if (item.name !== 'text:list-item' && item.name !== 'text:list-header') continue;
      let first = true;
      for (const held of item.children) {
        if (held.name === 'text:list') this.list(held, inside, ground, own, level + 1);
        else if (held.name === 'text:p' || held.name === 'text:h') {
          const label = first && item.name === 'text:list-item' ? this.labels.next(own, level, item.attributes['text:start-value']) : '';
          this.paragraph(held, inside, ground, label);
          first = false;
        }
      }
    }
  }

  private paragraph(p: Node, inside: string[], ground: string | null, label: string | undefined): void {
    const style = p.attributes['text:style-name'];
    const mark = this.styles.words([], style, ground, false);
    const block: ObservedFlowBlock = {
      element: p.name === 'text:h' ? `h${p.attributes['text:outline-level'] ?? 1}` : label === undefined ? 'p' : 'li',
      within: inside,
      text: '',
      language: mark.language,
      links: [],
      readings: [],
      file: this.file,
      look: mark.look,
      runs: [],
      initial: this.styles.hasInitial(style),
      ...(label && { label }),
    };
    const figures = this.out.figures.length;
    this.inline(p, style, [], ground, block, null);
    if (block.text.trim()) this.out.blocks.push(block);
    // What stands in a line is read with its paragraph.
    for (const figure of this.out.figures.slice(figures)) if (figure.after === IN_LINE) figure.after = this.out.blocks.length;
  }

  private inline(
    around: Node,
    style: string | undefined,
    spans: string[],
    ground: string | null,
    block: ObservedFlowBlock,
    link: { text: string } | null,
  ): void {
    const say = (text: string): void => {
      if (!text) return;
      block.text += text;
      if (link) link.text += text;
      const { look, language } = this.styles.words(spans, style, ground, link !== null);
      const last = block.runs[block.runs.length - 1];
      if (last && last.language === language && JSON.stringify(last.look) === JSON.stringify(look)) last.text += text;
      else block.runs.push({ text, look, language });
    };
    for (const part of around.content ?? []) {
      if (typeof part === 'string') {
        say(part.replace(/\s+/g, ' '));
        continue;
      }
      switch (part.name) {
        case 'text:placeholder':
        case 'text:span':
          this.inline(
            part,
            style,
            part.attributes['text:style-name'] === undefined ? spans : [part.attributes['text:style-name'], ...spans],
            ground,
            block,
            link,
          );
          break;
        case 'text:a': {
          const made = { text: '', href: part.attributes['xlink:href'] ?? '' };
          block.links.push(made);
          this.inline(part, style, spans, ground, block, made);
          break;
        }
        case 'text:s':
          say(' '.repeat(Number(part.attributes['text:c'] ?? 1)));
          break;
        case 'text:tab':
        case 'text:line-break':
          say(' ');
          break;
        case 'text:page-number':
          say(this.number() ?? part.text);
          break;
        case 'text:ruby': {
          const base = child(part, 'text:ruby-base');
          block.readings.push({ base: base?.text ?? '', reading: child(part, 'text:ruby-text')?.text ?? '' });
          if (base) this.inline(base, style, spans, ground, block, link);
          break;
        }
        case 'text:bookmark-ref':
          this.asked.push(part.attributes['text:ref-name'] ?? '');
          this.inline(part, style, spans, ground, block, link);
          break;
        case 'text:bookmark':
        case 'text:bookmark-start':
          this.places.add(part.attributes['text:name'] ?? '');
          break;
        case 'draw:frame': {
          const body = child(part, 'draw:text-box');
          // What text runs around is read before it.
          if (body) this.blocks(body);
          const hrefs = childrenOf(part, 'draw:image').map((i) => i.attributes['xlink:href'] ?? '');
          if (hrefs.length) this.out.figures.push({ hrefs, alt: child(part, 'svg:desc')?.text ?? '', after: IN_LINE });
          break;
        }
        case 'text:note':
          this.out.notes.push({
            number: child(part, 'text:note-citation')?.text ?? '',
            text: wordsIn(child(part, 'text:note-body')),
            back: true,
          });
          break;
        default:
          if (part.name.startsWith('text:')) this.inline(part, style, spans, ground, block, link);
      }
    }
  }

  /** A table: its rows at the head first (9.1). */
  private table(node: Node, inside: string[]): void {
    const rows: ObservedFlowCell[][] = [];
    this.out.tables.push(rows);
    const row = (tr: Node, inHead: boolean): void => {
      const cells: ObservedFlowCell[] = [];
      rows.push(cells);
      for (const tc of childrenOf(tr, 'table:table-cell')) {
        const name = tc.attributes['table:style-name'];
        const get = (property: string): string | undefined => this.styles.get('table-cell', name, 'style:table-cell-properties', property);
        const fill = get('fo:background-color');
        const ground = fill && fill !== 'transparent' ? fill.toLowerCase() : null;
        const from = this.out.blocks.length;
        this.blocks(tc, [...inside, 'table', inHead ? 'th' : 'td'], ground);
        const text = this.out.blocks
          .slice(from)
          .map((b) => b.text)
          .join(' ');
        const lines = ['top', 'right', 'bottom', 'left'].map((side) => lineOf(get(`fo:border-${side}`) ?? get('fo:border')));
        cells.push({
          text,
          heading: inHead,
          rows: Number(tc.attributes['table:number-rows-spanned'] ?? 1),
          columns: Number(tc.attributes['table:number-columns-spanned'] ?? 1),
          ground,
          lines,
        });
      }
    };
    for (const part of node.children) {
      if (part.name === 'table:table-row') row(part, false);
      else if (part.name === 'table:table-header-rows') for (const tr of childrenOf(part, 'table:table-row')) row(tr, true);
    }
  }
}

export const wordsIn = (node: Node | undefined): string =>
  (node?.content ?? []).map((part) => (typeof part === 'string' ? part : part.name === 'text:s' ? ' ' : wordsIn(part))).join('');

function lineOf(border: string | undefined): SeenLine | null {
  const [, width, colour] = /^(\S+) solid (#[0-9a-f]{6})$/i.exec(border ?? '') ?? [];
  return width === undefined ? null : { em: pointsOf(width), colour: colour!.toLowerCase() };
}
