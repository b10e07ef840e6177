import { pointsOfEmu } from '../../packages/emu.ts';
import { child, childrenOf, valueOf, within } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import type { OpenWord } from '../../ledger/office/openWord.ts';
import { linkIn } from '../drawnPage.ts';

export const escape = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
const on = (node: Node | undefined): boolean => node !== undefined && node.attributes['w:val'] !== '0';
/** Twentieths of a point. */
export const points = (value: string | undefined): number => Number(value ?? 0) / 20;

/** How much of a field has been read: whether it still asks, what for, and whether its answer stands there already. */
interface FieldState {
  asking: number;
  says: string;
  told: boolean;
}

/** Draws the text of a document: paragraphs, tables, pictures in lines, as HTML. */
export class TextDrawing {
  private referred: { kind: string; id: string }[] = [];
  /** What is shown where the number of a page is asked for; null where its words stay. */
  pageNumber: number | null = null;

  constructor(
    private readonly word: OpenWord,
    private readonly pictures: ReadonlyMap<string, string>,
    private readonly ids: ReadonlyMap<string, string>,
  ) {}

  /** Blocks as they follow one another. */
  blocks(around: Node): string {
    return around.children.map((n) => this.block(n)).join('\n');
  }

  /** Content by sections of pages: each with the columns that it says at its end (17.6.17). */
  sections(body: Node): string {
    let out = '';
    let open: Node[] = [];
    const close = (section: Node | undefined): void => {
      const count = Number(child(section, 'w:cols')?.attributes['w:num'] ?? 1);
      const inside = open.map((n) => this.block(n)).join('\n');
      out += count > 1 ? `<div style="column-count:${count};column-gap:1.5em">${inside}</div>\n` : inside + '\n';
      open = [];
    };
    for (const node of body.children) {
      if (node.name === 'w:sectPr') {
        close(node);
        continue;
      }
      open.push(node);
      const section = child(child(node, 'w:pPr'), 'w:sectPr');
      if (section) close(section);
    }
    close(undefined);
    return out;
  }

  notes(): string {
    return this.referred
      .map(({ kind, id }, i) => {
        const note = childrenOf(this.word.related(`${kind}s`).root, `w:${kind}`).find((n) => n.attributes['w:id'] === id);
        return note
          ? `<div class="note"><sup>${i + 1}</sup> ${childrenOf(note, 'w:p')
              .map((p) => this.paragraph(p))
              .join('')}</div>`
          : '';
      })
      .join('\n');
  }

  private block(node: Node): string {
    if (node.name === 'w:p') return this.paragraph(node);
    if (node.name === 'w:tbl') return this.table(node);
    if (node.name !== 'w:sdt') return '';
    const inside = (child(node, 'w:sdtContent')?.children ?? []).map((n) => this.block(n)).join('\n');
    const isContents = valueOf(child(child(node, 'w:sdtPr'), 'w:docPartObj'), 'w:docPartGallery') !== undefined;
    return isContents ? `<div class="contents">${inside}</div>` : inside;
  }

  private paragraph(p: Node): string {
    const pPr = child(p, 'w:pPr');
    const { looks } = this.word;
    const get = (name: string): Record<string, string> => looks.paragraph(pPr, name)?.attributes ?? {};
    const [spacing, ind, shade] = [get('w:spacing'), get('w:ind'), get('w:shd')['w:fill']];
    const frame = child(pPr, 'w:framePr')?.attributes;
    const first = ind['w:hanging'] !== undefined ? -points(ind['w:hanging']) : points(ind['w:firstLine']);
    const { look } = looks.run(pPr, child(pPr, 'w:rPr'), null);
    const line = spacing['w:lineRule'] === 'auto' || spacing['w:line'] === undefined ? 'normal' : `${points(spacing['w:line'])}pt`;
    const style = [
      `margin:${points(spacing['w:before'])}pt ${points(ind['w:right'])}pt ${points(spacing['w:after'])}pt ${points(ind['w:left'])}pt`,
      `text-indent:${first}pt`,
      `line-height:${line}`,
      `text-align:${look.align}`,
      `font-size:${look.size}pt`,
      ...(shade && shade !== 'auto' ? [`background:#${shade}`] : []),
      ...(on(looks.paragraph(pPr, 'w:bidi')) ? ['direction:rtl'] : []),
      ...this.borders(looks.paragraph(pPr, 'w:pBdr')),
      ...(frame && frame['w:w'] !== undefined ? [`width:${points(frame['w:w'])}pt`] : []),
    ].join(';');
    const numPr = looks.paragraph(pPr, 'w:numPr');
    const list = valueOf(numPr, 'w:numId');
    const label = list === undefined || list === '0' ? undefined : this.word.labels.next(list, Number(valueOf(numPr, 'w:ilvl') ?? 0));
    const names = [...within(p)].flatMap((n) => (n.name === 'w:bookmarkStart' ? (this.ids.get(n.attributes['w:name'] ?? '') ?? []) : []));
    const places = names.map((name) => `<a id="${escape(name)}"></a>`).join('');
    const inside = `${label === undefined ? '' : `${escape(label)}\t`}${this.inline(p, pPr, { asking: 0, says: '', told: false })}`;
    return `<p${frame ? ` class="${frame['w:dropCap'] ? 'initial' : 'float'}"` : ''} style="${escape(style)}">${places}${inside || '<br>'}</p>`;
  }

  private borders(around: Node | undefined, apart = true): string[] {
    return (around?.children ?? []).flatMap((side) => {
      const { 'w:val': kind, 'w:sz': size, 'w:space': space, 'w:color': colour } = side.attributes;
      if (kind === undefined || kind === 'nil') return [];
      const name = side.name.slice(2);
      const ink = colour === undefined || colour === 'auto' ? 'currentcolor' : `#${colour}`;
      return [
        `border-${name}:${Number(size) / 8}pt ${kind === 'single' ? 'solid' : kind} ${ink}`,
        ...(apart ? [`padding-${name}:${space ?? 0}pt`] : []),
      ];
    });
  }

  private inline(around: Node, pPr: Node | undefined, field: FieldState): string {
    return around.children
      .map((n) => {
        if (n.name === 'w:r') return this.run(n, pPr, field);
        if (n.name === 'w:hyperlink') {
          const { 'r:id': id, 'w:anchor': anchor } = n.attributes;
          const href =
            id !== undefined ? (this.word.relations(this.word.main).get(id)?.target ?? '') : `#${this.ids.get(anchor ?? '') ?? ''}`;
          return `<a href="${escape(linkIn(href))}" rel="noreferrer">${this.inline(n, pPr, field)}</a>`;
        }
        return n.name === 'w:sdt' && child(n, 'w:sdtContent') ? this.inline(child(n, 'w:sdtContent')!, pPr, field) : '';
      })
      .join('');
  }

  private run(r: Node, pPr: Node | undefined, field: FieldState): string {
    const rPr = child(r, 'w:rPr');
    const { look, language } = this.word.looks.run(pPr, rPr, null);
    let out = '';
    for (const n of r.children) {
      if (n.name === 'w:fldChar') out += this.mark(n.attributes['w:fldCharType'], field);
      else if (n.name === 'w:instrText') field.says += n.text;
      else if (field.asking > 0 || field.told) continue;
      else if (n.name === 'w:t') out += escape(n.text);
      else if (n.name === 'w:tab') out += '\t';
      else if (n.name === 'w:br') out += '<br>';
      else if (n.name === 'w:softHyphen') out += '\u00AD';
      else if (n.name === 'w:noBreakHyphen') out += '\u2011';
      else if (n.name === 'w:drawing') out += this.picture(n);
      else if (n.name === 'w:footnoteReference' || n.name === 'w:endnoteReference') {
        this.referred.push({ kind: n.name.slice(2, -9), id: n.attributes['w:id'] ?? '' });
        out += String(this.referred.length);
      } else if (n.name === 'w:ruby')
        out += `<ruby>${this.inline(child(n, 'w:rubyBase') ?? n, pPr, field)}<rt>${this.inline(child(n, 'w:rt') ?? n, pPr, field)}</rt></ruby>`;
    }
    if (!out) return '';
    const spacing = this.word.looks.raw(pPr, rPr, 'w:spacing')?.attributes['w:val'];
    const style = [
      `font-family:"${look.family}"`,
      `font-weight:${look.weight}`,
      `font-style:${look.style}`,
      `font-size:${look.position === 'normal' ? look.size : look.size * 0.65}pt`,
      ...(look.colour ? [`color:${look.colour}`] : []),
      ...(look.capitals === 'all' ? ['text-transform:uppercase'] : look.capitals === 'small' ? ['font-variant-caps:small-caps'] : []),
      ...(look.position !== 'normal' ? [`vertical-align:${look.position === 'superscript' ? 'super' : 'sub'}`, 'line-height:0'] : []),
      ...(look.underline || look.strike
        ? [`text-decoration:${look.underline ? 'underline' : ''} ${look.strike ? 'line-through' : ''}`]
        : []),
      ...(spacing !== undefined && spacing !== '0' ? [`letter-spacing:${points(spacing)}pt`] : []),
    ].join(';');
    return `<span lang="${escape(language)}" style="${escape(style)}">${out}</span>`;
  }

  /** A field begins, shows what it says, or ends; the number of a page is that of the page. */
  private mark(type: string | undefined, field: FieldState): string {
    if (type === 'begin') {
      field.asking++;
      field.says = '';
    } else if (type === 'separate') {
      field.asking--;
      field.told = this.pageNumber !== null && field.says.trim() === 'PAGE';
      return field.told ? String(this.pageNumber) : '';
    } else field.told = false;
    return '';
  }

  private picture(drawing: Node): string {
    const all = [...within(drawing)];
    const size = all.find((n) => n.name === 'wp:extent')?.attributes;
    const blip = all.find((n) => n.name === 'a:blip')?.attributes;
    const src = this.pictures.get(blip?.['r:embed'] ?? blip?.['r:link'] ?? '');
    const alt = all.find((n) => n.name === 'wp:docPr')?.attributes['descr'] ?? '';
    return src ? `<img src="${src}" alt="${escape(alt)}" style="width:${pointsOfEmu(size?.['cx'])}pt">` : '';
  }

  private table(tbl: Node): string {
    const tblPr = child(tbl, 'w:tblPr');
    const style = this.word.looks.style(valueOf(tblPr, 'w:tblStyle'));
    const bits = Number.parseInt(child(tblPr, 'w:tblLook')?.attributes['w:val'] ?? '0', 16);
    const size = Number(valueOf(child(style, 'w:tblPr'), 'w:tblStyleRowBandSize') ?? 1);
    const part = (type: string): Node | undefined =>
      child(
        childrenOf(style, 'w:tblStylePr').find((p) => p.attributes['w:type'] === type),
        'w:tcPr',
      );
    let body = 0;
    const rows = childrenOf(tbl, 'w:tr').map((tr, at) => {
      const isHead = child(child(tr, 'w:trPr'), 'w:tblHeader') !== undefined;
      const banded = !isHead && !(bits & 0x200) && Math.floor(body++ / size) % 2 === 1;
      const looks = [
        at === 0 && bits & 0x20 ? part('firstRow') : undefined,
        banded ? part('band2Horz') : undefined,
        child(style, 'w:tcPr'),
      ];
      const height = child(child(tr, 'w:trPr'), 'w:trHeight')?.attributes['w:val'];
      const cells = childrenOf(tr, 'w:tc').map((tc) => this.cell(tc, [child(tc, 'w:tcPr'), ...looks]));
      return `<tr style="height:${points(height)}pt">${cells.join('')}</tr>`;
    });
    const columns = childrenOf(child(tbl, 'w:tblGrid'), 'w:gridCol').map((c) => points(c.attributes['w:w']));
    const width = columns.reduce((a, w) => a + w, 0);
    const grid = columns.map((w) => `<col style="width:${w}pt">`).join('');
    return `<table style="width:${width}pt"><colgroup>${grid}</colgroup>${rows.join('\n')}</table>`;
  }

  private cell(tc: Node, looks: readonly (Node | undefined)[]): string {
    const tcPr = child(tc, 'w:tcPr');
    // What goes on from the row above is drawn there; browsers want it left out, and rows counted: it is drawn as an empty cell.
    const get = (name: string): Node | undefined => looks.map((l) => child(l, name)).find((n) => n !== undefined);
    const fill = get('w:shd')?.attributes['w:fill'];
    const room = ['w:top', 'w:right', 'w:bottom', 'w:left'].map((side) => `${points(child(get('w:tcMar'), side)?.attributes['w:w'])}pt`);
    const style = [
      `padding:${room.join(' ')}`,
      ...(fill && fill !== 'auto' ? [`background:#${fill}`] : []),
      ...this.borders(get('w:tcBorders'), false),
    ];
    const span = valueOf(tcPr, 'w:gridSpan');
    const inside = tc.children.map((n) => this.block(n)).join('');
    return `<td${span === undefined ? '' : ` colspan="${Number(span)}"`} style="${escape(style.join(';'))}">${inside}</td>`;
  }
}
