import type { PicturePort } from '../../ports/ports.ts';
import { SIGNATURE_CELLS } from '../findings.ts';
import type { SeenLine } from '../flow/cascade.ts';
import type { ObservedFlow, ObservedFlowBlock, ObservedFlowCell } from '../flow/observedFlow.ts';
import { child, childrenOf, valueOf, within } from '../../packages/officeParts.ts';
import type { Node, OpenPackage } from '../../packages/officeParts.ts';
import type { WordLabels } from './wordLabels.ts';
import type { WordLooks } from './wordLooks.ts';

/** What lies outside a text document. */
export interface Outside {
  pictures: PicturePort;
  /** A file that lies beside the document. */
  beside(path: string): Promise<Uint8Array | undefined>;
}

type Read = Pick<ObservedFlow, 'blocks' | 'figures' | 'tables' | 'notes' | 'outline' | 'pages'>;
type Run = ObservedFlowBlock['runs'][number];

/** How much of a field has been read. */
interface Field {
  instruction: string;
  shows: boolean;
}

/** Reads the text of a document: paragraphs, tables, pictures in lines, notes; in the order in which it stands. */
export class WordReader {
  readonly out: Read = { blocks: [], figures: [], tables: [], notes: [], outline: [], pages: [] };
  private readonly bookmarks = new Set<string>();
  private readonly referred: string[] = [];
  /** Letters that wait for the paragraph whose first they are. */
  private initial = '';

  constructor(
    private readonly pack: OpenPackage,
    private readonly path: string,
    private readonly looks: WordLooks,
    private readonly labels: WordLabels,
    private readonly outside: Outside,
  ) {
    const document = pack.part(path);
    if (document) for (const n of within(document)) if (n.name === 'w:bookmarkStart') this.bookmarks.add(n.attributes['w:name'] ?? '');
  }

  async blocks(around: Node, inside: string[], ground: string | null = null): Promise<void> {
    for (const node of around.children) {
      if (node.name === 'w:p') await this.paragraph(node, inside, ground);
      else if (node.name === 'w:tbl') await this.table(node, inside);
      else if (node.name === 'w:sdt') {
        const gallery = valueOf(child(child(node, 'w:sdtPr'), 'w:docPartObj'), 'w:docPartGallery');
        const content = child(node, 'w:sdtContent');
        if (gallery === 'Table of Contents') this.contents(content);
        else if (content) await this.blocks(content, inside, ground);
      }
    }
  }

  /** Entries of a table of contents: what stands before the number of the page, and where each leads. */
  private contents(content: Node | undefined): void {
    for (const p of childrenOf(content, 'w:p'))
      for (const link of childrenOf(p, 'w:hyperlink')) {
        const runs = childrenOf(link, 'w:r');
        const end = runs.findIndex((r) => child(r, 'w:tab'));
        const text = runs.slice(0, end < 0 ? undefined : end).flatMap((r) => childrenOf(r, 'w:t').map((t) => t.text));
        this.out.outline.push({ text: text.join(''), found: this.bookmarks.has(link.attributes['w:anchor'] ?? '') });
      }
  }

  private async paragraph(p: Node, inside: string[], ground: string | null): Promise<void> {
    const pPr = child(p, 'w:pPr');
    const mark = this.looks.run(pPr, child(pPr, 'w:rPr'), ground);
    const block: ObservedFlowBlock = {
      element: this.elementOf(pPr),
      within: inside,
      text: '',
      language: mark.language,
      links: [],
      readings: [],
      file: this.path,
      look: mark.look,
      runs: [],
      initial: false,
    };
    const isInitial = child(pPr, 'w:framePr')?.attributes['w:dropCap'] !== undefined;
    const label = this.labelOf(pPr);
    if (label !== undefined) block.label = label;
    const fields: Field[] = [];
    const figures = this.out.figures.length;
    await this.inline(p, pPr, ground, block, fields, null);
    if (isInitial) {
      this.initial += block.text;
      return;
    }
    if (this.initial) {
      // A letter in a frame of its own is the first of the paragraph beside it (17.3.1.11).
      block.text = this.initial + block.text;
      block.initial = true;
      if (block.runs[0]) block.runs[0].text = this.initial + block.runs[0].text;
      this.initial = '';
    }
    if (block.text.trim()) this.out.blocks.push(block);
    // What stands in a line is read with its paragraph.
    for (const figure of this.out.figures.slice(figures)) figure.after = this.out.blocks.length;
  }

  private elementOf(pPr: Node | undefined): string {
    const level = Number(this.looks.paragraph(pPr, 'w:outlineLvl')?.attributes['w:val'] ?? 9);
    if (level < 6) return `h${level + 1}`;
    return this.numberOf(pPr) ? 'li' : 'p';
  }

  private numberOf(pPr: Node | undefined): { list: string; level: number } | null {
    const numPr = this.looks.paragraph(pPr, 'w:numPr');
    const list = valueOf(numPr, 'w:numId');
    return list === undefined || list === '0' ? null : { list, level: Number(valueOf(numPr, 'w:ilvl') ?? 0) };
  }

  private labelOf(pPr: Node | undefined): string | undefined {
    const number = this.numberOf(pPr);
    return number ? this.labels.next(number.list, number.level) : undefined;
  }

  private async inline(
    around: Node,
    pPr: Node | undefined,
    ground: string | null,
    block: ObservedFlowBlock,
    fields: Field[],
    link: { text: string; href: string } | null,
  ): Promise<void> {
    for (const node of around.children) {
      switch (node.name) {
        case 'w:r':
          await this.run(node, pPr, ground, block, fields, link);
          break;
        case 'w:hyperlink': {
          const { 'r:id': id, 'w:anchor': anchor } = node.attributes;
          const href = id !== undefined ? (this.pack.relations(this.path).get(id)?.target ?? '') : `#${anchor ?? ''}`;
          if (id === undefined && !this.bookmarks.has(anchor ?? ''))
            this.pack.problems.push({ file: this.path, says: `a link leads to “${anchor}”, which is not there` });
          const made = { text: '', href };
          block.links.push(made);
          await this.inline(node, pPr, ground, block, fields, made);
          break;
        }
        case 'w:smartTag':
        case 'w:ins':
        case 'w:fldSimple':
          await this.inline(node, pPr, ground, block, fields, link);
          break;
        case 'w:sdt':
          if (child(node, 'w:sdtContent')) await this.inline(child(node, 'w:sdtContent')!, pPr, ground, block, fields, link);
      }
    }
  }

  private async run(
    r: Node,
    pPr: Node | undefined,
    ground: string | null,
    block: ObservedFlowBlock,
    fields: Field[],
    link: { text: string } | null,
  ): Promise<void> {
    const rPr = child(r, 'w:rPr');
    const say = (text: string): void => {
      if (fields.some((f) => !f.shows)) return;
      block.text += text;
      if (link) link.text += text;
      const { look, language } = this.looks.run(pPr, rPr, ground, link !== null);
      const last = block.runs[block.runs.length - 1];
      if (last && last.language === language && JSON.stringify(last.look) === JSON.stringify(look)) last.text += text;
      else block.runs.push({ text, look, language } satisfies Run);
    };
    for (const node of r.children) {
      switch (node.name) {
        case 'w:t':
          say(node.text);
          break;
        case 'w:tab':
        case 'w:br':
        case 'w:cr':
          say(' ');
          break;
        case 'w:noBreakHyphen':
          say('\u2011');
          break;
        case 'w:softHyphen':
          say('\u00AD');
          break;
        case 'w:fldChar':
          this.mark(node.attributes['w:fldCharType'], fields);
          break;
        case 'w:instrText':
          if (fields.length) fields[fields.length - 1]!.instruction += node.text;
          break;
        case 'w:footnoteReference':
        case 'w:endnoteReference':
          this.referred.push(`${node.name.slice(2, -9)} ${node.attributes['w:id']}`);
          break;
        case 'w:ruby': {
          const read = (part: string): string => textOf(child(node, part));
          block.readings.push({ base: read('w:rubyBase'), reading: read('w:rt') });
          say(read('w:rubyBase'));
          break;
        }
        case 'w:drawing':
          await this.drawing(node);
      }
    }
  }

  /** A field begins, shows what it says, or ends; what it refers to must be there. */
  private mark(type: string | undefined, fields: Field[]): void {
    if (type === 'begin') fields.push({ instruction: '', shows: false });
    else if (type === 'separate' && fields.length) fields[fields.length - 1]!.shows = true;
    else if (type === 'end') {
      const target = /^\s*(?:PAGEREF|REF)\s+(\S+)/.exec(fields.pop()?.instruction ?? '')?.[1];
      if (target !== undefined && !this.bookmarks.has(target))
        this.pack.problems.push({ file: this.path, says: `a reference is to “${target}”, which is not there` });
    }
  }

  private async drawing(node: Node): Promise<void> {
    const all = [...within(node)];
    const said = all.find((n) => n.name === 'wp:docPr');
    const blip = all.find((n) => n.name === 'a:blip');
    if (!blip) return;
    const id = blip.attributes['r:embed'] ?? blip.attributes['r:link'] ?? '';
    const relation = this.pack.relations(this.path).get(id);
    const bytes = relation && (relation.outside ? await this.outside.beside(relation.target) : this.pack.files.get(relation.target));
    const picture = bytes && (await this.outside.pictures.signature(bytes, SIGNATURE_CELLS).catch(() => undefined));
    this.out.figures.push({ alt: said?.attributes['descr'] ?? '', caption: '', picture, after: this.out.blocks.length });
  }

  private async table(tbl: Node, inside: string[]): Promise<void> {
    const tblPr = child(tbl, 'w:tblPr');
    const heads = Number.parseInt(child(tblPr, 'w:tblLook')?.attributes['w:val'] ?? '0', 16);
    const style = this.looks.style(valueOf(tblPr, 'w:tblStyle'));
    const rows: ObservedFlowCell[][] = [];
    this.out.tables.push(rows);
    const open = new Map<number, ObservedFlowCell>();
    const size = Number(valueOf(child(style, 'w:tblPr'), 'w:tblStyleRowBandSize') ?? 1);
    let body = 0;
    for (const tr of childrenOf(tbl, 'w:tr')) {
      const inHeader = child(child(tr, 'w:trPr'), 'w:tblHeader') !== undefined;
      const row: ObservedFlowCell[] = [];
      rows.push(row);
      let column = 0;
      for (const tc of childrenOf(tr, 'w:tc')) {
        const tcPr = child(tc, 'w:tcPr');
        const columns = Number(valueOf(tcPr, 'w:gridSpan') ?? 1);
        const merge = child(tcPr, 'w:vMerge');
        const above = open.get(column);
        if (merge && merge.attributes['w:val'] !== 'restart' && above) above.rows = (above.rows ?? 1) + 1;
        else {
          const parts = [
            tcPr,
            (heads & 0x20) !== 0 && rows.length === 1 ? partOf(style, 'firstRow') : undefined,
            (heads & 0x200) === 0 && !inHeader && Math.floor(body / size) % 2 === 1 ? partOf(style, 'band2Horz') : undefined,
            child(style, 'w:tcPr'),
          ];
          const heading = inHeader || ((heads & 0x80) !== 0 && column === 0);
          const shade = firstOf(parts, 'w:shd')?.attributes['w:fill'];
          const ground = shade && shade !== 'auto' ? `#${shade.toLowerCase()}` : null;
          const from = this.out.blocks.length;
          await this.blocks(tc, [...inside, 'table', heading ? 'th' : 'td'], ground);
          const text = this.out.blocks
            .slice(from)
            .map((b) => b.text)
            .join(' ');
          const cell: ObservedFlowCell = { text, heading, rows: 1, columns, ground, lines: linesOf(firstOf(parts, 'w:tcBorders')) };
          row.push(cell);
          if (merge) open.set(column, cell);
          else open.delete(column);
        }
        column += columns;
      }
      if (!inHeader) body++;
    }
  }

  /** Notes with the number that their reference shows. */
  notes(kind: 'footnote' | 'endnote', root: Node | undefined): void {
    for (const note of childrenOf(root, `w:${kind}`)) {
      if (note.attributes['w:type'] !== undefined) continue;
      const at = this.referred.filter((r) => r.startsWith(kind)).indexOf(`${kind} ${note.attributes['w:id']}`);
      this.out.notes.push({ number: String(at + 1), text: textOf(note), back: at >= 0 });
    }
  }

  /** Names of bookmarks and numbers of drawings stand once (17.13.6.2, 20.4.2.5). */
  checkIds(document: Node | undefined): void {
    const seen = new Set<string>();
    for (const n of document ? newest(document) : []) {
      const key =
        n.name === 'w:bookmarkStart'
          ? `bookmark ${n.attributes['w:name']?.toLowerCase()}`
          : n.name === 'wp:docPr'
            ? `drawing ${n.attributes['id']}`
            : null;
      if (key === null) continue;
      if (seen.has(key)) this.pack.problems.push({ file: this.path, says: `two have one name: ${key}` });
      seen.add(key);
    }
  }
}

/** All elements, without what stands there for older programs (29500-3, 9.3). */
function* newest(node: Node): Generator<Node> {
  yield node;
  for (const c of node.children) if (c.name !== 'mc:Fallback') yield* newest(c);
}

const textOf = (node: Node | undefined): string =>
  node ? [...within(node)].map((n) => (n.name === 'w:t' ? n.text : n.name === 'w:tab' || n.name === 'w:br' ? ' ' : '')).join('') : '';

const partOf = (style: Node | undefined, type: string): Node | undefined =>
  child(
    childrenOf(style, 'w:tblStylePr').find((p) => p.attributes['w:type'] === type),
    'w:tcPr',
  );
const firstOf = (parts: readonly (Node | undefined)[], name: string): Node | undefined =>
  parts.map((p) => child(p, name)).find((n) => n !== undefined);

/** Lines around a cell: top, right, bottom, left; their weight in points. */
const linesOf = (borders: Node | undefined): (SeenLine | null)[] =>
  ['w:top', 'w:right', 'w:bottom', 'w:left'].map((side) => {
    const { 'w:val': kind, 'w:sz': size, 'w:color': colour } = child(borders, side)?.attributes ?? {};
    if (kind === undefined || kind === 'nil' || kind === 'none') return null;
    return { em: Number(size) / 8, colour: colour === undefined || colour === 'auto' ? null : `#${colour.toLowerCase()}` };
  });
